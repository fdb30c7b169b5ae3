/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import { readdir, readFile } from 'node:fs/promises';
import { describe, expect, test } from '@jest/globals';
import { readKey, OPEN_KEY, TUNINGS } from '@jam-ledger/core/pitch';
import { parse } from 'opentype.js';
import { draw } from './drawing.ts';

const values = ['1', '2', '4', '8', '16', '32', '64'];
/** Every value as note and as rest, dotted and in tuplets; every kind of sign that a stave or a tab has. */
const TEXTS = [
  ...values.map((value) => `/${value} 5G - 7G -`),
  ...values.map((value) => `/${value}. 5G - 7G -`),
  ...['8t', '16t5', '16t6', '16t7', '8t9', '8t10', '8t12'].map(
    (value) => `/${value} 5G 7G 5G - 7G 5G 7G 5G 7G 5G 7G 5G`,
  ),
  '[ 5G 6G 7G 8G | 5G 6G 7G 8G ]3 | xDGB 7G*p 12G* (7G) 5G! 5G, 7Gz 7Gtr9 7G~ 7G~~',
  'meter=3/4 5G 6G 7G meter=6/8 | /8 5G 6G 7G 8G 9G 10G meter=12/16 | /16 5G',
  '1E 2E 3E 4E 0e 12e 24e 15Bb1r 15Bpb1r 14Gb.25 5G/g 7G',
];

describe('the music font that was cut', () => {
  test.each(['A minor', 'B major', 'Gb major', 'C major'])('has every sign that is drawn in %s', async (named) => {
    const bytes = await readFile(new URL('../src/tab/engraving/jam-music.woff', import.meta.url));
    const font = parse(new Uint8Array(bytes).buffer);
    const staff = { tuning: TUNINGS.standard, capo: 0, key: readKey(named) ?? OPEN_KEY };
    const drawn = new Set(
      TEXTS.flatMap((text) => {
        const sheet = draw(text, { staff });
        const all = [...sheet.root.querySelectorAll('text, tspan')].map(({ textContent }) => textContent).join('');
        return all.match(/[\uE000-\uF8FF]/g) ?? [];
      }),
    );
    expect(drawn.size).toBeGreaterThan(20);
    const missing = [...drawn].filter((sign) => font.charToGlyphIndex(sign) === 0);
    expect(missing.map((sign) => sign.codePointAt(0)?.toString(16))).toEqual([]);
  });
});

test('the icons that were cut are all that the pages name', async () => {
  const folder = new URL('../src/', import.meta.url);
  const files = (await readdir(folder, { recursive: true })).filter((name) => /\.(vue|ts)$/.test(name));
  const sources = await Promise.all(files.map((name) => readFile(new URL(name, folder), 'utf8')));
  const named = new Set(sources.flatMap((source) => source.match(/\bpi-[a-z\d-]+/g) ?? []));
  const css = await readFile(new URL('app/icons.css', folder), 'utf8');
  const cut = new Set([...css.matchAll(/\.(pi-[a-z\d-]+)::before/g)].map(([, name]) => name));
  expect(named.size).toBeGreaterThan(20);
  expect([...cut].sort()).toEqual([...named].sort());
});
