import type { ScoreBar, ScoreEvent } from '@jam-ledger/core/notation';

type Line = readonly [sign: string, meaning: string];

/** Every sign of the page, what it means, and when it is needed. */
const SIGNS: readonly (readonly [...Line, (event: ScoreEvent) => boolean])[] = [
  ['h', 'hammer-on: sounded by the fretting hand alone', ({ item }) => item?.link === 'hammer'],
  ['p', 'pull-off', ({ item }) => item?.link === 'pull'],
  ['⁄ with arc', 'slide, the target not picked', ({ item }) => item?.link === 'slide'],
  [
    '⁄ alone',
    'slide, the target picked again; or from and to nowhere',
    ({ item }) => item?.link === 'shift' || !!item?.slideIn || !!item?.slideOut,
  ],
  ['T', 'tapped with the picking hand', ({ item }) => item?.link === 'tap'],
  ['↑ 1', 'bend up by so many whole steps; ½ is one fret', has(({ moves }) => moves !== undefined)],
  ['↑ upright', 'bent before it is picked', has(({ preBend }) => preBend !== undefined)],
  ['~', 'vibrato; taller waves are wider', has(({ vibrato }) => vibrato !== undefined)],
  ['×', 'dead note, no pitch', has(({ fret }) => fret === null)],
  ['( )', 'quiet', ({ marks }) => marks.includes('quiet')],
  ['‹ ›', 'harmonic; P.H. is a pinched one', has(({ harmonic }) => harmonic !== undefined)],
  ['p.m.', 'palm mute', ({ marks }) => marks.includes('palm-mute')],
  ['ring', 'let ring', ({ marks }) => marks.includes('let-ring')],
  ['⊓ V', 'down-stroke, up-stroke', ({ marks }) => marks.includes('down') || marks.includes('up')],
  ['> •', 'accent; cut short', ({ marks }) => marks.includes('accent') || marks.includes('cut')],
  ['tr', 'trill with the fret in brackets', has(({ trill }) => trill !== undefined)],
  ['short stem', 'half note; a whole note has none', ({ values }) => values.some(({ base }) => base <= 2)],
  ['slanted grey', 'not certain, or may be left out', ({ sureness }) => sureness !== null],
];

function has(
  test: (note: NonNullable<ScoreEvent['item']>['notes'][number]) => boolean,
): (event: ScoreEvent) => boolean {
  return ({ item }) => item?.notes.some(test) ?? false;
}

/** The legend of a page: the signs that stand on it. */
export function legendOf(bars: readonly ScoreBar[]): readonly Line[] {
  const events = bars.flatMap((bar) => bar.events);
  return SIGNS.flatMap(([sign, meaning, needed]): readonly Line[] => (events.some(needed) ? [[sign, meaning]] : []));
}
