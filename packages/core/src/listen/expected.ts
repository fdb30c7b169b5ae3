import { centsAt, type PlayedNote, type Span } from '../notation/index.ts';

/** What is struck at one time, as it should sound. */
export interface ExpectedEvent {
  readonly span: Span;
  /** Seconds from the start of the piece, at the tempo asked for. */
  readonly seconds: number;
  /** Until it ends or the next is struck, seconds. */
  readonly lasts: number;
  /** What sounds with a pitch, lowest first; empty where all of it is dead. */
  readonly notes: readonly PlayedNote[];
  /** Whether it is set going, not only held or slid on. */
  readonly struck: boolean;
  /** Whether it goes on where the note before it stands: a held or slid note of the same string. */
  readonly legato: boolean;
  /** Whether notes struck before it ring on under it. */
  readonly covered: boolean;
}

/** What a listener waits for. */
export interface Expected {
  /** In order. */
  readonly events: readonly ExpectedEvent[];
  /** When strokes of rakes and tremolos fall; nobody asks whether each is there. Seconds. */
  readonly ornaments: readonly number[];
}

/** What is struck closer together than this is one event, seconds: less than any two notes of a line. Our choice. */
export const TOGETHER_SECONDS = 0.012;

/** Notes as performed, as the events that a listener waits for. Linear. */
export function expectedOf(played: readonly PlayedNote[]): Expected {
  const groups: PlayedNote[][] = [];
  for (const note of played.filter(({ ornament }) => !ornament)) {
    const last = groups.at(-1);
    if (last?.[0] && note.startSeconds - last[0].startSeconds < TOGETHER_SECONDS) last.push(note);
    else groups.push([note]);
  }
  return {
    events: groups.map((group, index) =>
      eventOf(
        group,
        groups[index + 1]?.[0]?.startSeconds,
        ringsInto(groups.slice(Math.max(0, index - RINGING), index), group),
      ),
    ),
    ornaments: played.flatMap(({ ornament, startSeconds }) => (ornament ? [startSeconds] : [])),
  };
}

/** So many events back a note may still ring. Our choice. */
const RINGING = 8;

/** Whether a note of earlier groups sounds on, on a string of its own, well into a group. */
function ringsInto(earlier: readonly (readonly PlayedNote[])[], group: readonly PlayedNote[]): boolean {
  const from = (group[0]?.startSeconds ?? 0) + 0.1;
  const strings = new Set(group.map(({ string }) => string));
  return earlier
    .flat()
    .some((note) => note.midi !== null && !strings.has(note.string) && note.startSeconds + note.durationSeconds > from);
}

function eventOf(group: readonly PlayedNote[], next: number | undefined, covered: boolean): ExpectedEvent {
  const [first] = group;
  if (!first) throw new Error('a group has a note');
  const ends = Math.max(...group.map(({ startSeconds, durationSeconds }) => startSeconds + durationSeconds));
  return {
    span: first.span,
    seconds: first.startSeconds,
    lasts: Math.max(0.02, Math.min(ends, next ?? Infinity) - first.startSeconds),
    notes: group.filter(({ midi }) => midi !== null).sort((a, b) => (a.midi ?? 0) - (b.midi ?? 0)),
    struck: group.some(({ attack }) => attack !== 'none'),
    legato: group.every(({ attack }) => attack !== 'pick' && attack !== 'finger'),
    covered,
  };
}

/** The pitch that a note should have so many seconds after it is struck, MIDI with a fraction; NaN of a dead one. */
export function pitchAt({ midi, contour }: PlayedNote, seconds: number): number {
  const cents = contour.length <= 1 ? (contour[0]?.cents ?? 0) : centsAt(contour, Math.max(0, seconds));
  return (midi ?? NaN) + cents / 100;
}
