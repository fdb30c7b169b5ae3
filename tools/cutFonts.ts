import { readdir, readFile, writeFile } from 'node:fs/promises';
import { format, resolveConfig } from 'prettier';
import subsetFont from 'subset-font';

/**
 * Cuts the fonts of signs to what is shown: `npm run fonts`. The music font to the signs of a guitar part; its licence, the SIL Open
 * Font License 1.1, reserves the name it came with, so that what is cut has a name of its own. The icons to those that the pages name.
 */
const web = new URL('../apps/web/src/', import.meta.url);

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
  await writeFile(new URL(`tab/engraving/jam-music.${targetFormat}`, web), cut);
  console.log(`${targetFormat}: ${whole.length} → ${cut.length} bytes`);
}

const files = (await readdir(web, { recursive: true })).filter((name) => /\.(vue|ts)$/.test(name));
const sources = await Promise.all(files.map((name) => readFile(new URL(name, web), 'utf8')));
const named = new Set(sources.flatMap((source) => source.match(/\bpi-[a-z\d-]+/g) ?? []));
const icons = await readFile(new URL(import.meta.resolve('primeicons/primeicons.css')), 'utf8');
const codes = [...icons.matchAll(/\.(pi-[a-z\d-]+):before\s*\{\s*content:\s*"\\([\da-f]+)"/g)]
  .map(([, name = '', code = '']) => ({ name, code }))
  .filter(({ name }) => named.has(name));
const base = /\.pi \{[^}]*\}/.exec(icons)?.[0] ?? '';
const allIcons = await readFile(new URL(import.meta.resolve('primeicons/fonts/primeicons.woff2')));
const text = codes.map(({ code }) => String.fromCodePoint(parseInt(code, 16))).join('');
const cutIcons = await subsetFont(allIcons, text, { targetFormat: 'woff2' });
await writeFile(new URL('app/icons.woff2', web), cutIcons);
const css = [
  '/* Written by `npm run fonts`, from primeicons 7.0 (MIT License, copyright 2018-2021 PrimeTek): the icons that the pages name. */',
  "@font-face { font-family: 'primeicons'; font-display: block; src: url('./icons.woff2') format('woff2'); }",
  base,
  ...codes.map(({ name, code }) => `.${name}::before { content: '\\${code}'; }`),
].join('\n');
const path = new URL('app/icons.css', web);
await writeFile(path, await format(css, { ...(await resolveConfig(path)), parser: 'css' }));
console.log(`${codes.length} icons: ${allIcons.length} → ${cutIcons.length} bytes`);
