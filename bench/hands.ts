import { checkPhrase } from '@jam-ledger/core/checks';
import { bestPath, usualGuitar, type Path } from '@jam-ledger/core/fretboard';
import { eventsOf, readShorthand } from '@jam-ledger/core/notation';
import { readKey, TUNINGS } from '@jam-ledger/core/pitch';
import { figure, inTurn, ms, ratio, time, timesInTurn, type Figure } from './measure.ts';
import { longSolo } from './reading.ts';

const guitar = usualGuitar(TUNINGS.standard);
/** Chords, no two alike, in a bar of eighths; and strummed ones that come again. */
const CHORDS = '/8 8E10A10D9G8B8e 5E7A7D5G5B5e 3A5D5G5B3e 0D2G3B2e 1A3D3G3B1e 7A9D9G9B7e 3E2A0D0G0B3e 5D7G6B5e | ';
const STRUMS =
  '/8 8E10A10D9G8B8e 8E10A10D9G8B8e 5E7A7D5G5B5e 5E7A7D5G5B5e 5E7A7D5G5B5e 3E5A5D4G3B3e 3E5A5D4G3B3e 3E5A5D4G3B3e | ';
const SINGLES = '/8 5D 7D 5G 7G 5B 7B 5e 8e | ';
/** A bar of sixteenths over all strings. */
export const BAR = '/16 5Dh7 5G 7G 5B 7B 5e 8e 10Bb1 8e 5e 7Gb1r 5G 7D 5D 7A | ';

/** How long the way of the hand takes; the yardstick is a quarter of the phrase, since it should be linear. */
export async function handFigures(): Promise<readonly Figure[]> {
  const [short, long] = [BAR.repeat(8), BAR.repeat(32)];
  const read = (text: string) => readShorthand(text).phrase;
  const [few, many] = [read(short), read(long)];
  const asWritten = (phrase: typeof few) => time(() => bestPath(phrase, guitar, { asWritten: true }), 20);
  const anywhere = (phrase: typeof few) => time(() => bestPath(phrase, guitar), 5);
  const key = readKey('A minor');
  const checks = (text: string, phrase: typeof few) =>
    time(() => checkPhrase(phrase, { ...guitar, text, bpm: 90, key }), 20);
  const pairs = [
    ['Fingers of 32 bars of 16ths as written, median', await asWritten(few), await asWritten(many)],
    ['Cheapest places and fingers of the same, median', await anywhere(few), await anywhere(many)],
    ['All checks of the same, median', await checks(short, few), await checks(long, many)],
  ] as const;
  const solo = longSolo();
  let soloPhrase = read(solo);
  let way: Path | undefined;
  // Every turn checks a phrase that has only just been read, of which nothing is known but the way of the hand.
  const [reading = NaN, , checking = NaN] = (
    await timesInTurn(
      [
        () => (soloPhrase = read(solo)),
        () => (way = bestPath(soloPhrase, guitar, { asWritten: true })),
        () => checkPhrase(soloPhrase, { ...guitar, text: solo, bpm: 90, key }, way),
      ],
      61,
      20,
    )
  ).map(({ median }) => median);
  const afterKey: Figure = {
    what: `All checks of the 64-bar solo, ${eventsOf(soloPhrase).length} events, just read, the way of the hand known, median`,
    measured: ms(checking),
    target: 'at most 3 × reading',
    met: checking <= 3 * reading,
    yardstick: `reading it, in turns, ${ms(reading)}`,
    ratio: ratio(checking, reading),
  };
  const linear = pairs.map(([what, quarter, whole]) => ({
    what,
    measured: ms(whole.median),
    target: '',
    met: null,
    yardstick: `8 bars, ${ms(quarter.median)}`,
    ratio: ratio(whole.median, quarter.median),
  }));
  return [...linear, ...(await chordFigures()), afterKey];
}

/** What an event costs where it is a chord, beside single notes in the same rhythm; they take turns. */
async function chordFigures(): Promise<readonly Figure[]> {
  const singles = readShorthand(SINGLES.repeat(8)).phrase;
  const figures: Figure[] = [];
  for (const [what, bar] of [
    ['Chords, eight to come again', CHORDS],
    ['Strummed chords', STRUMS],
  ] as const) {
    const chords = readShorthand(bar.repeat(8)).phrase;
    for (const [where, rules] of [
      ['as written', { asWritten: true }],
      ['anywhere on the neck', {}],
    ] as const) {
      const [many, one] = await inTurn(
        () => bestPath(chords, guitar, rules),
        () => bestPath(singles, guitar, rules),
      );
      figures.push(
        figure(
          `${what}, ${where}: 64 events`,
          ms(many),
          'at most 5 ×',
          many <= 5 * one,
          `64 single notes, ${ms(one)}`,
          ratio(many, one),
        ),
      );
    }
  }
  return figures;
}
