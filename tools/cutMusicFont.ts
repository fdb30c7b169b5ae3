import { readFile, writeFile } from 'node:fs/promises';
import subsetFont from 'subset-font';

/**
 * Cuts the music font to the signs of a guitar part: `npm run music-font`. Its licence, the SIL Open Font License 1.1, reserves the
 * name it came with, so that what is cut has a name of its own.
 */

/** Ranges of signs that can be drawn. Source: Standard Music Font Layout (SMuFL) 1.40, W3C Music Notation Community Group. */
const RANGES: readonly (readonly [what: string, from: number, to: number])[] = [
  ['repeat dots', 0xe043, 0xe044],
  ['clefs', 0xe050, 0xe058],
  ['octaves of clefs', 0xe07a, 0xe07f],
  ['time signatures', 0xe080, 0xe08f],
  ['noteheads', 0xe0a0, 0xe0af],
  ['dots', 0xe1e7, 0xe1e7],
  ['flags', 0xe240, 0xe24f],
  ['accidentals', 0xe260, 0xe26b],
  ['rests', 0xe4e0, 0xe4f0],
  ['tuplets', 0xe880, 0xe88a],
];

const signs = RANGES.flatMap(([, from, to]) =>
  Array.from({ length: to - from + 1 }, (_, index) => String.fromCodePoint(from + index)),
);
const whole = await readFile(new URL(import.meta.resolve('@fontsource/bravura/files/bravura-latin-400-normal.woff2')));
for (const targetFormat of ['woff2', 'woff'] as const) {
  const cut = await subsetFont(whole, ` ${signs.join('')}`, { targetFormat });
  const path = new URL(`../apps/web/src/tab/engraving/jam-music.${targetFormat}`, import.meta.url);
  await writeFile(path, cut);
  console.log(`${targetFormat}: ${whole.length} → ${cut.length} bytes`);
}
