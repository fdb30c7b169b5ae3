import { readShorthand, writeShorthand } from '@jam-ledger/core/notation';
import { verovioWith } from './verovio.ts';
import { ms, ratio, time, type Figure } from './measure.ts';

const LICKS = [
  '/8 5Dh7p5 7A /16 5D 7D s9 7D /8 10Bb1r 8B',
  '/8t 12e p10 12B /4 7Gb1.5~~ /8 {m: 0E%4}',
  ':Em /8 <14D~ 12G 14Gpb1r p12 "let it ring" 0D2G3Bl /4. 5A7D',
  ':D /16 xA xD 5Bf1 8Bf4b1 5e 8B 7Gd 5Gu /2 9G~',
];

/** A solo of 64 bars, about 500 events, made of our own licks; four bars to a line of the text. */
export function longSolo(): string {
  return Array.from({ length: 64 / LICKS.length }, () => LICKS.join(' | ')).join(' |\n');
}

/** How long reading and checking a long solo takes. The yardsticks: JSON.parse of the phrase that was read, and verovio reading the same notes. */
export async function readingFigures(): Promise<readonly Figure[]> {
  const text = longSolo();
  const { phrase } = readShorthand(text);
  const json = JSON.stringify(phrase);
  const reading = await time(() => readShorthand(text), 300);
  const parsing = await time(() => JSON.parse(json) as unknown, 300);
  const loading = await time((await verovioWith(text)).load, 10);
  const writing = await time(() => writeShorthand(phrase, { strings: 'letters' }), 300);
  const yardstick = `JSON.parse of the phrase as JSON, ${ms(parsing.median)}`;
  return [
    {
      what: `Reading and checking a 64-bar solo (${text.length} characters), median`,
      measured: ms(reading.median),
      target: 'under 5 ms',
      met: reading.median < 5,
      yardstick: `${yardstick}; verovio loading the same notes from MusicXML, ${ms(loading.median)}`,
      ratio: ratio(reading.median, parsing.median),
    },
    {
      what: 'Writing the same solo',
      measured: ms(writing.median),
      target: '',
      met: null,
      yardstick,
      ratio: ratio(writing.median, parsing.median),
    },
  ];
}
