import { sayNote, sayString, type StringNames } from '../fretboard/index.ts';
import {
  bendHeight,
  EVENT_MARKS,
  LINK_RECORDS,
  MARK_RECORDS,
  unroll,
  type EventItem,
  type HearingKind,
  type Phrase,
  type WrittenNote,
} from '../notation/index.ts';
import { midiOf, OPEN_KEY, spell, writeSpelling, type Key, type Tuning } from '../pitch/index.ts';

/** One thing to inspect. */
export interface HearingPoint {
  /** Ticks as played, from the beginning of the phrase. */
  readonly at: number;
  /** Where it stands as played: `bar 2`; `note 6` where only the order is known. */
  readonly place: string;
  readonly kind: HearingKind;
  /** What must be so, in words. */
  readonly says: string;
}

/** What a phrase is heard on, and how strings are named. */
export interface HearingOptions {
  readonly tuning: Tuning;
  readonly capo: number;
  /** Which key pitches are spelt in. */
  readonly key?: Key;
  readonly names?: StringNames;
  /** Only what the phrase would not be the same without. */
  readonly essentialsOnly?: boolean;
}

/** Most points of a phrase; more nobody ticks in a lesson. Our choice. */
export const MAX_POINTS = 40;

/** What must be right where a phrase is held in the ballpark: pitch, and silence. Our choice. */
const ESSENTIAL: readonly HearingKind[] = ['bend', 'slide', 'muted string', 'cut-off'];

/**
 * What to inspect when a phrase is heard, from its own marks, in the order of the music: each written event once, where it is
 * first played, and the same thing at the same place of the neck once. Linear.
 *
 * Source: what goes wrong at each technique, common practice.
 */
export function hearingList(phrase: Phrase, options: HearingOptions): readonly HearingPoint[] {
  const points: HearingPoint[] = [];
  const known = new Set<string>();
  const seen = new Set<EventItem>();
  let before: EventItem | undefined;
  let notes = 0;
  for (const { item, at, bar, marks, timed } of unroll(phrase).events) {
    if (!item) continue;
    notes += 1;
    if (!seen.has(item))
      for (const { kind, says } of inspect(item, { before, marks, options })) {
        if (known.has(says) || (options.essentialsOnly && !ESSENTIAL.includes(kind))) continue;
        known.add(says);
        points.push({ at, place: timed ? `bar ${bar + 1}` : `note ${notes}`, kind, says });
      }
    seen.add(item);
    before = item;
  }
  return points.slice(0, MAX_POINTS);
}

interface Around {
  readonly before: EventItem | undefined;
  readonly marks: readonly string[];
  readonly options: HearingOptions;
}
type Found = Pick<HearingPoint, 'kind' | 'says'>;

function inspect(item: EventItem, around: Around): readonly Found[] {
  const { names = 'letters' } = around.options;
  return [
    ...item.notes.flatMap((note) => inspectNote(note, item, around)),
    ...inspectLink(item, around),
    ...inspectSilence(item, names),
    ...inspectMarks(item, around.marks, names),
    ...(item.slideIn
      ? [
          {
            kind: 'slide' as const,
            says: `Slid into ${fretPositionsOf(item, names)} from ${item.slideIn}, no fixed start.`,
          },
        ]
      : []),
    ...(item.slideOut
      ? [
          {
            kind: 'slide' as const,
            says: `${fretPositionsOf(item, names)} slides away ${item.slideOut}, no fixed end.`,
          },
        ]
      : []),
  ];
}

/** What the records of marks say is to be inspected. */
function inspectMarks(item: EventItem, marks: readonly string[], names: StringNames): readonly Found[] {
  return EVENT_MARKS.flatMap((mark): readonly Found[] => {
    const { hearing } = MARK_RECORDS[mark];
    if (!hearing || !marks.includes(mark)) return [];
    return [{ kind: hearing.kind, says: `${fretPositionsOf(item, names)}: ${hearing.says}.` }];
  });
}

function inspectNote(note: WrittenNote, item: EventItem, { options }: Around): readonly Found[] {
  const { tuning, capo, key = OPEN_KEY, names = 'letters' } = options;
  if (note.fret === null || note.string > tuning.openMidis.length) return [];
  const place = sayNote(note, names);
  const midi = (steps: number) => midiOf(tuning, note.string, note.fret ?? 0, capo) + 2 * steps;
  const pitch = (steps: number) => writeSpelling(spell(Math.round(midi(steps)), key));
  const found: Found[] = [];
  const height = bendHeight(note);
  if (height > 0) {
    const sized = (note.moves ?? []).every(({ unsized }) => !unsized);
    const whole = Number.isInteger(2 * height);
    const target = !sized
      ? 'its pitch as on the record'
      : whole
        ? pitch(height)
        : `a ${sayHeight(height)} above ${pitch(0)}`;
    const begins = note.preBend === undefined ? '' : ', bent before it is struck';
    const last = note.moves?.at(-1);
    const ends =
      last?.kind === 'release' ? `, and comes back to ${last.steps === 0 ? pitch(0) : 'where it is let to'}` : '';
    const partner = partnerOf(item, { tuning, capo, midi: midi(height) });
    const reaches = partner
      ? `meets ${sayNote(partner, names)}, both ${pitch(height)}, with no beating between them`
      : `reaches ${target}`;
    found.push({ kind: 'bend', says: `The bend at ${place} ${reaches}${begins}${ends}.` });
  }
  if (note.vibrato)
    found.push({ kind: 'vibrato', says: `The vibrato at ${place} is ${note.vibrato} and even, around the note.` });
  if (note.harmonic) found.push({ kind: 'harmonic', says: `The ${note.harmonic} harmonic at ${place} rings clear.` });
  if (note.trill !== undefined)
    found.push({ kind: 'slur', says: `The trill at ${place} is even, both notes as loud.` });
  return found;
}

/** The plain note of a stack that a bend comes to, a unison bend’s partner. */
function partnerOf(
  { notes }: EventItem,
  { tuning, capo, midi }: { readonly tuning: Tuning; readonly capo: number; readonly midi: number },
): WrittenNote | undefined {
  return notes.find(
    (one) =>
      bendHeight(one) === 0 &&
      one.fret !== null &&
      one.string <= tuning.openMidis.length &&
      midiOf(tuning, one.string, one.fret, capo) === midi,
  );
}

function sayHeight(steps: number): string {
  return steps === 0.25 ? 'quarter step' : `${steps} steps`;
}

function inspectLink({ link, notes }: EventItem, { before, options }: Around): readonly Found[] {
  const { names = 'letters' } = options;
  const [to] = notes;
  if (!link || !to || !before) return [];
  const from = before.notes.find(({ string }) => string === to.string) ?? before.notes[0];
  const place = sayNote(to, names);
  const start = from ? ` from ${from.fret ?? 'x'}` : '';
  const { kind, says } = LINK_RECORDS[link].hearing;
  if (link === 'slide') return [{ kind, says: `The slide${start} arrives at ${place}, ${says}.` }];
  if (link === 'shift') return [{ kind, says: `The slide${start} arrives at ${place} ${says}.` }];
  return [{ kind, says: `${place} is ${says}${start}, not picked, and as loud.` }];
}

/** Dead notes without a pitch, and strings between two that are struck, which stay silent. */
function inspectSilence({ notes }: EventItem, names: StringNames): readonly Found[] {
  const dead = notes.filter(({ fret }) => fret === null).map(({ string }) => sayString(string, names));
  const strings = notes.map(({ string }) => string);
  const [thinnest, thickest] = [Math.min(...strings), Math.max(...strings)];
  const between = Array.from({ length: Math.max(0, thickest - thinnest) }, (_, index) => thinnest + index)
    .filter((string) => !strings.includes(string))
    .map((string) => sayString(string, names));
  return [
    ...(dead.length > 0 ? [{ kind: 'muted string' as const, says: `Dead, with no pitch: ${dead.join(', ')}.` }] : []),
    ...(between.length > 0
      ? [{ kind: 'muted string' as const, says: `Muted between the two that sound: ${between.join(', ')}.` }]
      : []),
  ];
}

function fretPositionsOf({ notes }: EventItem, names: StringNames): string {
  return notes
    .toSorted((a, b) => b.string - a.string)
    .map((note) => sayNote(note, names))
    .join(', ');
}
