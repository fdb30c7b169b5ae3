import type { Completion, CompletionContext, CompletionResult } from '@codemirror/autocomplete';
import { namesOf, type StringNames } from '@jam-ledger/core/fretboard';
import {
  EVENT_MARKS,
  eventsOf,
  letterOfString,
  LETTERED_STRINGS,
  LINK_RECORDS,
  linkOfCode,
  MARK_RECORDS,
  NOTE_MARK_RECORDS,
  SURENESS_RECORDS,
  SURENESSES,
  type EventItem,
  type Link,
  type MarkRecord,
  type Phrase,
} from '@jam-ledger/core/notation';
import { HIGHEST_FRET, midiOf, spell, writeSpelling, type Key, type Tuning } from '@jam-ledger/core/pitch';

/** What completion knows besides the text. */
export interface Surroundings {
  readonly phrase: Phrase;
  readonly tuning: Tuning;
  readonly capo: number;
  readonly key: Key;
  /** Frets on this guitar. */
  readonly frets: number;
  /** How strings are named. */
  readonly names: StringNames;
}

/** Frets that lie under the hand without moving it. Common practice: one finger a fret. */
const HAND_FRETS = 4;

const VALUES: readonly Completion[] = [
  { label: '/1', detail: 'whole note' },
  { label: '/2', detail: 'half' },
  { label: '/4', detail: 'quarter' },
  { label: '/8', detail: 'eighth' },
  { label: '/8t', detail: 'eighth triplet' },
  { label: '/16', detail: 'sixteenth' },
  { label: '/16t', detail: 'six to a beat' },
  { label: '/32', detail: '32nd' },
  { label: '/8.', detail: 'dotted eighth' },
  { label: '/4.', detail: 'dotted quarter' },
  { label: '/?', detail: 'order only, no rhythm' },
];
const SPANNING = EVENT_MARKS.map((mark): MarkRecord => MARK_RECORDS[mark]).filter(({ spans }) => spans);
const HEADS: readonly Completion[] = [
  ...SPANNING.map(({ code, means }) => [code ?? '', means] as const),
  [SPANNING.map(({ code }) => code).join(' '), SPANNING.map(({ means }) => means).join(', ')] as const,
  ...SURENESSES.map((word) => [word, SURENESS_RECORDS[word].means] as const),
  ['bar5', 'a barre at fret 5'] as const,
  ['quiet', 'quiet'] as const,
  ['~', 'vibrato'] as const,
  ['alt', 'down and up in turn'] as const,
  ['altu', 'up and down in turn'] as const,
  ['1-2', 'on passes 1 and 2'] as const,
  ['last', 'the last time, or the last round, only'] as const,
  ['round last', 'the last round of the section only'] as const,
  ['fade', 'softer to the end'] as const,
  ['grow', 'louder to the end'] as const,
  ['w-1', 'a dip of the arm on each'] as const,
  ['either', 'two ways: {either: 12G // 7B}'] as const,
].map(([head, detail]): Completion => ({ label: `{${head}:`, apply: `{${head}: `, detail }));
/** What may be written behind a note: marks of the note and of the whole event. */
const MARKS: readonly Completion[] = [
  ...Object.values(NOTE_MARK_RECORDS).map(({ example, means }) => ({
    label: /\d+G([^\s]*)$/.exec(example)?.[1] ?? '',
    detail: means.replaceAll('`', ''),
  })),
  ...EVENT_MARKS.map((mark): MarkRecord => MARK_RECORDS[mark]).flatMap(({ code, means }): readonly Completion[] =>
    code === null ? [] : [{ label: code, detail: means }],
  ),
];
/** How far a link usually goes, frets. */
const REACH: Readonly<Record<Link, readonly number[]>> = {
  hammer: [1, 2, 3, 4],
  pull: [-1, -2, -3, -4],
  slide: [1, 2, 3, 5, -1, -2, -3, -5],
  shift: [1, 2, 3, 5, -1, -2, -3, -5],
  tap: [],
};
const SETTINGS: readonly Completion[] = [
  { label: 'meter=3/4', detail: 'from here on' },
  { label: 'tempo=96', detail: 'quarters a minute' },
  { label: 'feel=swing', detail: 'long-short eighths' },
  { label: 'feel=straight', detail: 'even eighths' },
  { label: 'box=5', detail: 'places are looked for around fret 5' },
  { label: 'pickup', detail: 'the first bar may be short' },
];

/** Completes what is being typed from the last string and position. */
export function completeShorthand(context: CompletionContext, around: Surroundings): CompletionResult | null {
  const word = context.matchBefore(/[^\s[\]|"}]*/);
  if (!word || (word.text === '' && !context.explicit)) return null;
  const options = optionsFor(word.text, word.from, around);
  return options.length === 0 ? null : { from: word.from, options: [...options], filter: true };
}

function optionsFor(word: string, at: number, around: Surroundings): readonly Completion[] {
  if (word.startsWith('{')) return HEADS;
  if (word.startsWith('/')) return VALUES;
  if (word.startsWith(':')) return chordsUsed(around.phrase);
  const last = eventsOf(around.phrase).findLast(({ item }) => item.span.to <= at)?.item;
  if (/^\d{1,2}$/.test(word)) return stringsFor(Number(word), last, around);
  const link = linkOfCode(word.charAt(0));
  if (link && last && /^.\d{0,2}$/.test(word)) return targetsOf(link, last, around);
  if (word === '') return last ? underTheHand(last, around) : [];
  const settings = SETTINGS.filter(({ label }) => label.startsWith(word));
  return settings.length > 0 ? settings : marksBehind(word);
}

/** What may follow a note that is whole: `7G` and what was begun behind it. */
function marksBehind(word: string): readonly Completion[] {
  const [, note, begun = ''] = /^(\d+(?:[EADGBeag]+|@\d+))(\D*)$/.exec(word) ?? [];
  if (note === undefined || begun === '') return [];
  return MARKS.filter(({ label }) => label.startsWith(begun)).map((one) => ({ ...one, label: `${note}${one.label}` }));
}

/** The fret typed on every string, the last one used first. */
function stringsFor(fret: number, last: EventItem | undefined, around: Surroundings): readonly Completion[] {
  if (fret > HIGHEST_FRET) return [];
  const used = last?.notes[0]?.string ?? LETTERED_STRINGS;
  return around.tuning.openMidis.map((_, index) => {
    const string = index + 1;
    const away = Math.abs(string - used);
    const where = away === 0 ? 'same string' : `string ${string}`;
    return note(fret, string, around, { where, boost: 20 - away });
  });
}

/** Where a hammer-on, pull-off or slide may go from the event before. */
function targetsOf(link: Link, last: EventItem, around: Surroundings): readonly Completion[] {
  const from = last.notes[0];
  if (from?.fret === null || from === undefined) return [];
  const { fret, string } = from;
  const { code } = LINK_RECORDS[link];
  return REACH[link]
    .map((step) => fret + step)
    .filter((to) => to >= 0 && to <= around.frets)
    .map((to, index) => ({ label: `${code}${to}`, detail: nameOf(to, string, around), boost: 20 - index }));
}

/** Notes that the hand reaches where it is. */
function underTheHand(last: EventItem, around: Surroundings): readonly Completion[] {
  const fretted = last.notes.flatMap(({ fret }) => (fret ? [fret] : []));
  const low = Math.max(1, Math.min(...fretted, around.frets - HAND_FRETS + 1));
  const [used] = last.notes.map(({ string }) => string);
  const strings = [used ?? 1, (used ?? 1) - 1, (used ?? 1) + 1].filter(
    (string) => string >= 1 && string <= around.tuning.openMidis.length,
  );
  return strings.flatMap((string, row) =>
    Array.from({ length: HAND_FRETS }, (_, step) =>
      note(low + step, string, around, { where: `string ${string}`, boost: 20 - row * HAND_FRETS - step }),
    ),
  );
}

function note(fret: number, string: number, around: Surroundings, how: { where: string; boost: number }): Completion {
  const letter = namesOf(around) === 'letters' ? letterOfString(string) : undefined;
  const label = `${fret}${letter ?? `@${string}`}`;
  return { label, detail: `${nameOf(fret, string, around)}, ${how.where}`, boost: how.boost };
}

function nameOf(fret: number, string: number, { tuning, capo, key }: Surroundings): string {
  return writeSpelling(spell(midiOf(tuning, string, fret, capo), key));
}

function chordsUsed(phrase: Phrase): readonly Completion[] {
  const used = phrase.items.flatMap((item) => (item.kind === 'harmony' && item.chord !== null ? [item.chord] : []));
  return [...new Set(used)].map((chord) => ({ label: `:${chord}`, detail: 'used above' }));
}
