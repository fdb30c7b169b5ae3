import { isGuessed, isNest, isPlucking, type EventItem, type Item } from '../notation/index.ts';
import { MAX_WRITTEN, stretchesOf, type SongToWrite } from './song.ts';

/** Formats that a song goes out in. */
export const SONG_FORMATS = ['pdf', 'musicxml', 'mxl', 'midi', 'text', 'wav', 'shorthand'] as const;
/** One of the `SONG_FORMATS`. */
export type SongFormat = (typeof SONG_FORMATS)[number];

/** What may stand in a song and is not carried by every format. */
const FEATURES = {
  strings: 'strings and frets',
  fingers: 'fingers',
  strokes: 'strokes of the pick and plucking fingers',
  words: 'words of advice',
  chords: 'chord symbols, but for the backing',
  sureness: 'how surely it is heard',
  untimed: 'that only the order is known: they sound as eighths',
  openBends: 'bends whose size is open: the smaller one is written',
  ways: 'other ways to play a place: the first is written',
  barres: 'barres',
  claims: 'what notes are said to be',
  places: 'notes whose string or fret is not found yet: they are left out',
  repeats: 'repeats and endings as such: they are written out',
  rounds: 'rounds of a section that differ, and jumps, as such: they are written out',
  offset: 'how far the recording stands off pitch',
  swells: 'growing softer and louder',
  techniques: 'how a note is made: hammered, slid, tapped, muted',
  layers: 'which part plays what',
  end: `what comes after the first ${MAX_WRITTEN.toLocaleString('en')} events: so long a song is cut off`,
} as const;
/** A key of the features. */
type Feature = keyof typeof FEATURES;

/** What each format cannot say. Source: the standards named in docs/formats.md. */
const NOT_CARRIED: Readonly<Record<SongFormat, readonly Feature[]>> = {
  pdf: [],
  musicxml: ['untimed', 'openBends', 'ways', 'claims', 'places', 'rounds', 'offset', 'end'],
  mxl: ['untimed', 'openBends', 'ways', 'claims', 'places', 'rounds', 'offset', 'end'],
  midi: [
    ...([
      'strings',
      'techniques',
      'fingers',
      'strokes',
      'words',
      'chords',
      'sureness',
      'untimed',
      'openBends',
      'ways',
    ] as const),
    ...(['claims', 'places', 'repeats', 'rounds', 'offset', 'end'] as const),
  ],
  text: [
    ...([
      'fingers',
      'words',
      'sureness',
      'openBends',
      'ways',
      'barres',
      'claims',
      'places',
      'rounds',
      'offset',
    ] as const),
    'swells',
    'end',
  ],
  wav: ['strings', 'words', 'fingers', 'sureness', 'layers', 'end'],
  shorthand: [],
};

/**
 * What of a song a format cannot carry, in words, as far as it stands in this song; empty where all of it comes across. Linear in what is played.
 */
export function lossesOf(format: SongFormat, song: SongToWrite): readonly string[] {
  const here = featuresOf(song);
  return NOT_CARRIED[format].filter((feature) => here.has(feature)).map((feature) => FEATURES[feature]);
}

function featuresOf(song: SongToWrite): ReadonlySet<Feature> {
  const found = new Set<Feature>();
  const phrases = song.sections.flatMap((section) => section.phrases);
  if (song.offsetCents !== 0) found.add('offset');
  if (song.sections.some(({ passes, jump }) => passes.length > 0 || jump)) found.add('rounds');
  if (song.sections.some(({ times }) => times > 1)) found.add('repeats');
  if (stretchesOf(song, { fold: false }).truncated) found.add('end');
  if (new Set(phrases.map(({ layer }) => layer)).size > 1) found.add('layers');
  for (const { phrase } of phrases) walk(phrase.items, found);
  return found;
}

function walk(items: readonly Item[], found: Set<Feature>): void {
  for (const item of items) {
    if (item.kind === 'event') fromEvent(item, found);
    if (item.kind === 'harmony') found.add('chords');
    if (item.kind === 'words') found.add('words');
    if (item.kind === 'sure') found.add('sureness');
    if (item.kind === 'swell') found.add('swells');
    if (item.kind === 'either') found.add('ways');
    if (item.kind === 'barre') found.add('barres');
    if (item.kind === 'repeat' || item.kind === 'passes') found.add('repeats');
    if (item.kind === 'rounds') found.add('rounds');
    if (item.kind === 'alternate') found.add('strokes');
    if (item.kind === 'marked' && item.marks.length > 0) found.add('techniques');
    if (isNest(item)) walk(item.items, found);
  }
}

function fromEvent({ value, notes, marks, link }: EventItem, found: Set<Feature>): void {
  found.add('strings');
  if (value === 'untimed') found.add('untimed');
  if (link || marks.some((mark) => !isPlucking(mark) && mark !== 'down' && mark !== 'up')) found.add('techniques');
  if (marks.some((mark) => mark === 'down' || mark === 'up' || isPlucking(mark))) found.add('strokes');
  for (const note of notes) {
    if (note.finger) found.add('fingers');
    if (note.plucked) found.add('strokes');
    if (note.sureness) found.add('sureness');
    if (note.claim !== undefined) found.add('claims');
    if (isGuessed(note.sought)) found.add('places');
    if (note.moves?.some(({ unsized, upTo }) => unsized === true || upTo !== undefined)) found.add('openBends');
  }
}
