import {
  EVENT_MARKS,
  isGuessed,
  LINK_RECORDS,
  MARK_RECORDS,
  NOTE_MARK_RECORDS,
  type EventMark,
  type Link,
  type NoteMark,
  type ScoreBar,
  type ScoreEvent,
  type SignRecord,
} from '@jam-ledger/core/notation';

/** A sign of the page and what it means. */
export type LegendLine = readonly [sign: string, meaning: string];
type Note = NonNullable<ScoreEvent['item']>['notes'][number];

/** Whether a note bears a mark. */
const BEARS: Readonly<Record<NoteMark, (note: Note) => boolean>> = {
  preBend: ({ preBend }) => preBend !== undefined,
  bend: ({ moves }) => moves?.some(({ kind }) => kind === 'bend') ?? false,
  release: ({ moves }) => moves?.some(({ kind }) => kind === 'release') ?? false,
  vibrato: ({ vibrato }) => vibrato !== undefined,
  harmonic: ({ harmonic }) => harmonic !== undefined,
  trill: ({ trill }) => trill !== undefined,
  again: ({ again }) => again !== undefined,
  // The arm is of the whole event.
  arm: () => false,
  finger: ({ finger }) => finger !== undefined,
  // What somebody says of a note is not drawn.
  claim: () => false,
};

/** Signs that no mark makes. */
const OTHERS: readonly (readonly [...LegendLine, (event: ScoreEvent) => boolean])[] = [
  ['⁄ alone', LINK_RECORDS.shift.legend, ({ item }) => !!item?.slideIn || !!item?.slideOut],
  ['×', 'dead note, no pitch', ({ item }) => item?.notes.some(({ fret }) => fret === null) ?? false],
  ['bar 5', 'a barre held at that fret', ({ barre }) => barre !== null],
  ['small fret', 'grace note, before the beat', ({ graces }) => graces.length > 0],
  ['short stem', 'half note; a whole note has none', ({ values }) => values.some(({ base }) => base <= 2)],
  [NOTE_MARK_RECORDS.arm.sign, NOTE_MARK_RECORDS.arm.legend, ({ item }) => item?.arm !== undefined],
  [
    '(7) grey',
    'sounds on, the bend still standing',
    ({ item }) => item?.notes.some(({ held }) => held !== undefined) ?? false,
  ],
  ['wedge', 'softer where it closes, louder where it opens', ({ swell }) => swell !== undefined],
  [
    '7?',
    'a place that was not said; a guess',
    ({ item }) => item?.notes.some(({ sought }) => isGuessed(sought)) ?? false,
  ],
  ['slanted grey', 'not certain, or may be left out', ({ sureness }) => sureness !== null],
];

/** The legend of a page: what stands on it, each once. */
export function legendOf(bars: readonly ScoreBar[]): readonly LegendLine[] {
  const events = bars.flatMap((bar) => bar.events);
  const lines = [...linkLines(events), ...noteLines(events), ...markLines(events), ...otherLines(events)];
  // A slide from nowhere has the line of one that is picked again.
  return [...new Map(lines.map((line) => [line.join(), line])).values()];
}

const lineOf = ({ sign, legend }: SignRecord): LegendLine => [sign, legend];

function linkLines(events: readonly ScoreEvent[]): readonly LegendLine[] {
  const links = Object.keys(LINK_RECORDS) as readonly Link[];
  return links
    .filter((link) => events.some(({ item }) => item?.link === link))
    .map((link) => lineOf(LINK_RECORDS[link]));
}

function noteLines(events: readonly ScoreEvent[]): readonly LegendLine[] {
  const notes = events.flatMap(({ item }) => item?.notes ?? []);
  const marks = Object.keys(NOTE_MARK_RECORDS) as readonly NoteMark[];
  return marks.filter((mark) => notes.some(BEARS[mark])).map((mark) => lineOf(NOTE_MARK_RECORDS[mark]));
}

function markLines(events: readonly ScoreEvent[]): readonly LegendLine[] {
  const bears = (event: ScoreEvent, mark: EventMark) =>
    event.marks.includes(mark) ||
    (event.item?.notes.some(({ plucked, quiet }) => plucked === mark || (mark === 'quiet' && quiet)) ?? false);
  return EVENT_MARKS.filter((mark) => events.some((event) => bears(event, mark))).map((mark) =>
    lineOf(MARK_RECORDS[mark]),
  );
}

function otherLines(events: readonly ScoreEvent[]): readonly LegendLine[] {
  return OTHERS.flatMap(([sign, meaning, isThere]) => (events.some(isThere) ? [[sign, meaning] as const] : []));
}
