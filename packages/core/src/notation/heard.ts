import { midiOf } from '../pitch/index.ts';
import { glideTicks, startHeight, STEP_CENTS } from './contour.ts';
import { HARMONIC_RATIOS } from './links.ts';
import type { EventItem, Phrase, Span, WrittenNote } from './model.ts';
import { isGuessed, type Setup } from './playOut.ts';
import { StandingBends } from './standing.ts';
import { unroll, type TimedEvent } from './unroll.ts';

/** How a note comes to its pitch. */
export type HeardHow = 'fretted' | 'bent' | 'tapped' | 'harmonic';

/** A note as it is heard. Pitches are MIDI numbers, with fractions where it is bent by quarter steps or rings as a harmonic. */
export interface HeardNote {
  readonly item: EventItem;
  readonly note: WrittenNote;
  readonly span: Span;
  /** Ticks as played. */
  readonly at: number;
  readonly length: number;
  readonly timed: boolean;
  readonly bar: number;
  /** The chord in force; null where none is written. */
  readonly chord: string | null;
  readonly string: number;
  readonly fret: number;
  /** The pitch it is struck at. */
  readonly struck: number;
  /** The pitch it rests on. */
  readonly rests: number;
  /** Other pitches it passes through. */
  readonly through: readonly number[];
  readonly how: HeardHow;
}

/** A bend that ends so near to a note struck with it meets it, semitones. Our choice: a quarter step. */
const MEETS_SEMITONES = 0.5;

/**
 * The notes of a phrase, played out, each with the pitch that it rests on. Dead notes, and strings that the tuning lacks, are left
 * out. An upward bend rests on the longest of its plateaus, of equals the later; one that is let down on its highest, unless what
 * it is let down to lasts longer; a pre-bend that is let down where it is picked; a tap on the tapped pitch, with the bend
 * that stands under it; a note of a unison bend on its partner. Linear.
 */
export function heardOf(phrase: Phrase, setup: Setup): readonly HeardNote[] {
  const last = known.get(phrase);
  if (last?.tuning === setup.tuning && last.capo === setup.capo) return last.heard;
  const heard = hear(phrase, setup);
  known.set(phrase, { tuning: setup.tuning, capo: setup.capo, heard });
  return heard;
}

/** What was heard of each phrase last: many judgements ask for the same. Phrases do not change. */
const known = new WeakMap<Phrase, Setup & { readonly heard: readonly HeardNote[] }>();

function hear(phrase: Phrase, setup: Setup): readonly HeardNote[] {
  const standing = new StandingBends();
  const { events } = unroll(phrase);
  const heard: HeardNote[] = [];
  let before: EventItem | null = null;
  for (const event of events) {
    const { item } = event;
    const following = { link: item?.link, before };
    before = item;
    if (!item) {
      standing.silence();
      continue;
    }
    const first = heard.length;
    for (const note of item.notes) {
      const plateaus = plateausOf(note, event.length, standing.under(note, following));
      standing.take(note, item, (plateaus.at(-1)?.steps ?? 0) * STEP_CENTS);
      const one = heardNote(note, item, { event, plateaus, setup });
      if (one) heard.push(one);
    }
    if (event.marks.includes('cut')) standing.silence(item.notes.map(({ string }) => string));
    if (heard.length - first < 2) continue;
    const together = heard.slice(first);
    together.forEach((one, at) => (heard[first + at] = meeting(one, together)));
  }
  return heard;
}

/** A height at which a note stays for a while, whole steps above its fret, ticks. */
interface Plateau {
  readonly steps: number;
  readonly ticks: number;
}

/** Where a note stays: first at the height it is struck at, then after each move of its bend. */
function plateausOf(note: WrittenNote, length: number, standingCents: number): readonly Plateau[] {
  const start = startHeight(note, standingCents) / STEP_CENTS;
  const moves = note.moves ?? [];
  if (moves.length === 0) return [{ steps: start, ticks: length }];
  const part = length / moves.length;
  return [
    { steps: start, ticks: 0 },
    ...moves.map(({ steps, slow }) => ({ steps, ticks: part - glideTicks(part, slow === true) })),
  ];
}

function heardNote(
  note: WrittenNote,
  item: EventItem,
  context: { readonly event: TimedEvent; readonly plateaus: readonly Plateau[]; readonly setup: Setup },
): HeardNote | undefined {
  const { event, plateaus, setup } = context;
  const { string, fret } = note;
  if (fret === null || isGuessed(note.sought) || string > setup.tuning.openMidis.length) return undefined;
  const plain = midiOf(setup.tuning, string, 0, setup.capo) + soundingFret(note, fret);
  const steps = restingSteps(note, plateaus);
  const { at, length, timed, bar, chord, span } = event;
  return {
    item,
    note,
    span,
    at,
    length,
    timed,
    bar,
    chord,
    string,
    fret,
    struck: plain + 2 * (plateaus[0]?.steps ?? 0),
    rests: plain + 2 * steps,
    through: throughOf(note, { fret, plain, steps, plateaus }),
    how: howOf(note, item, plateaus),
  };
}

const NOTHING: readonly number[] = [];

/** The pitches besides the one it rests on. */
function throughOf(
  { moves, trill }: WrittenNote,
  around: {
    readonly fret: number;
    readonly plain: number;
    readonly steps: number;
    readonly plateaus: readonly Plateau[];
  },
): readonly number[] {
  if (moves === undefined && trill === undefined) return NOTHING;
  const { fret, plain, steps, plateaus } = around;
  const heights = [...new Set(plateaus.map((one) => one.steps))].filter((height) => height !== steps);
  return [...heights.map((height) => plain + 2 * height), ...(trill === undefined ? [] : [plain + trill - fret])];
}

/** Semitones above the open string; those of a harmonic are not at its fret. */
function soundingFret({ harmonic }: WrittenNote, fret: number): number {
  const ratio = harmonic === 'natural' ? HARMONIC_RATIOS[fret] : undefined;
  if (ratio !== undefined) return 12 * Math.log2(ratio);
  return fret + (harmonic === 'pinch' ? 12 : 0);
}

function howOf(note: WrittenNote, { link }: EventItem, plateaus: readonly Plateau[]): HeardHow {
  if (note.harmonic) return 'harmonic';
  if (link === 'tap') return 'tapped';
  return plateaus.some(({ steps }) => steps !== 0) ? 'bent' : 'fretted';
}

function restingSteps({ moves, preBend }: WrittenNote, plateaus: readonly Plateau[]): number {
  const start = plateaus[0]?.steps ?? 0;
  const [first] = moves ?? [];
  if (!moves || !first) return start;
  if (preBend !== undefined && first.steps < preBend) return start;
  const times = new Map<number, number>();
  for (const { steps, ticks } of plateaus.slice(1)) times.set(steps, (times.get(steps) ?? 0) + ticks);
  const timeAt = (steps: number) => times.get(steps) ?? 0;
  if (moves.every(({ kind }) => kind === 'bend'))
    return moves.reduce((best, { steps }) => (timeAt(steps) >= timeAt(best) ? steps : best), first.steps);
  const highest = Math.max(...times.keys());
  const end = moves.at(-1)?.steps ?? highest;
  return timeAt(end) > timeAt(highest) ? end : highest;
}

/** A bend that ends beside a note struck with it, or whose size leaves room for that, rests on it. */
function meeting(one: HeardNote, heard: readonly HeardNote[]): HeardNote {
  if (one.how !== 'bent') return one;
  const last = one.note.moves?.at(-1);
  const partner = heard.find((other) => {
    if (other.how === 'bent') return false;
    const above = other.rests - one.rests;
    const room = last?.upTo === undefined ? MEETS_SEMITONES : Math.max(MEETS_SEMITONES, 2 * (last.upTo - last.steps));
    return last?.unsized
      ? above > 0 && above <= UNSIZED_ROOM
      : Math.abs(above) <= MEETS_SEMITONES || (above > 0 && above <= room);
  });
  return partner ? { ...one, rests: partner.rests } : one;
}

/** How far above what is supposed of it a bend without a size may end, semitones: two steps in all. Source: common practice. */
const UNSIZED_ROOM = 3;

/**
 * The pitch that a note is named by, a whole MIDI number: a quarter step above a pitch colours it and is named by it. Source: common
 * practice (the curl of the blues).
 */
export function namedMidi(rests: number): number {
  return Math.floor(rests + 0.49);
}
