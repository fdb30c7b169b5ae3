import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cautionsOf, difficultyOf, newTechniques } from '../src/difficulty/index.ts';
import { usualGuitar } from '../src/fretboard/index.ts';
import { readShorthand, TECHNIQUES, techniquesOf } from '../src/notation/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';

const guitar = usualGuitar(TUNINGS.standard);
const read = (text: string) => readShorthand(text).phrase;
const hard = (text: string, bpm = 90) => difficultyOf(read(text), { ...guitar, bpm });
const all = new Set(TECHNIQUES);

const line = fc.array(
  fc.record({
    fret: fc.integer({ min: 1, max: 15 }),
    string: fc.constantFrom('E', 'A', 'D', 'G', 'B', 'e'),
    value: fc.constantFrom('/8', '/16', '/4', ''),
  }),
  { minLength: 1, maxLength: 12 },
);
const textOf = (notes: readonly { fret: number; string: string; value: string }[]) =>
  notes.map(({ fret, string, value }) => `${value} ${fret}${string}`).join(' ');

describe('difficulty', () => {
  test('raising the tempo never lowers it, nor any of its parts', () => {
    fc.assert(
      fc.property(line, fc.integer({ min: 40, max: 150 }), fc.integer({ min: 1, max: 80 }), (notes, bpm, more) => {
        const [slow, fast] = [hard(textOf(notes), bpm), hard(textOf(notes), bpm + more)];
        expect(fast.total).toBeGreaterThanOrEqual(slow.total - 1e-9);
        for (const part of slow.parts)
          expect(fast.parts.find(({ name }) => name === part.name)?.score).toBeGreaterThanOrEqual(part.score - 1e-9);
      }),
    );
  });

  test('a further jump never lowers it', () => {
    fc.assert(
      fc.property(line, fc.integer({ min: 1, max: 20 }), fc.constantFrom('E', 'G', 'e'), (notes, fret, string) => {
        const text = textOf(notes);
        expect(hard(`${text} ${fret}${string}`).total).toBeGreaterThanOrEqual(hard(text).total - 1e-9);
      }),
    );
  });

  test('a longer jump is never easier', () => {
    const totals = [5, 8, 12, 15, 19, 22].map((fret) => hard(`/8 3e 5e ${fret}e`).total);
    expect(totals).toEqual([...totals].sort((a, b) => a - b));
  });

  test('widening a stretch never lowers it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 0, max: 5 }), (low, wide) => {
        const twice = (stack: string) => hard(`${stack} ${stack}`);
        const [near, far] = [twice(`${low}A${low + wide}G`), twice(`${low}A${low + wide + 1}G`)];
        expect(far.total).toBeGreaterThanOrEqual(near.total - 1e-9);
      }),
    );
    const slurs = [2, 3, 4, 5, 6].map((wide) => hard(`5G 7Gh${7 + wide}`).total);
    expect(slurs).toEqual([...slurs].sort((a, b) => a - b));
  });

  test('the hardest span is named with its place', () => {
    expect(hard('/8 12e 12e 12e 12e 12e 19e 17e 19e', 140).hardest?.says).toBe(
      'the jump from 12 to 19 on the high e, beat 3 of bar 1',
    );
    expect(hard('/2 5E 1E6D', 60).hardest?.says).toContain('the stretch of 153 mm');
    expect(hard('', 60)).toMatchObject({ total: 0, parts: [], hardest: undefined });
  });

  test('a smaller hand and a new technique make it harder', () => {
    const phrase = read('5E9D 5Gb1 7G');
    const wide = difficultyOf(phrase, { ...guitar, bpm: 90, known: all });
    expect(difficultyOf(phrase, { ...guitar, bpm: 90, known: all, reachMm: 80 }).total).toBeGreaterThan(wide.total);
    const known = new Set(TECHNIQUES.filter((technique) => technique !== 'whole-step bend'));
    expect(difficultyOf(phrase, { ...guitar, bpm: 90, known }).total).toBeGreaterThan(wide.total);
  });
});

describe('techniques', () => {
  test.each([
    ['5Gh7p5', ['hammer-on', 'pull-off']],
    ['15Bb1+12e', ['unison bend', 'whole-step bend']],
    ['8Bb1+8e', ['bend beside a held note', 'whole-step bend']],
    ['5A7D', ['power chord']],
    ['5A7G', ['octaves']],
    ['3A2D0G1B0e', ['chord']],
    ['7Gb1.5r', ['step-and-a-half bend', 'release']],
    ['7Gpb1 7Gb2', ['whole-step bend', 'pre-bend', 'two-step bend']],
    ['/8t 5G 7G 5B', ['triplets']],
    ['{m: 0E } xD 5G!', ['palm mute', 'dead note', 'accent']],
    ['15Bb1 t17', ['whole-step bend', 'tap', 'tap on a bent string']],
    ['12e* 5G*p 7Gtr9 5Gw-1', ['natural harmonic', 'pinch harmonic', 'trill', 'tremolo-arm dip']],
    ['5G~ 5G~~ <7G 7G> 5GS7', ['vibrato', 'wide vibrato', 'slide in', 'slide out', 'shift slide']],
    [
      '5G/g 5Gk 5A7D7Go 5Gqi 5Gz',
      ['grace note', 'rake', 'chord', 'rolled chord', 'plucked with fingers', 'tremolo picking'],
    ],
  ])('%s', (text, techniques) => expect([...techniquesOf(read(text)).keys()].sort()).toEqual([...techniques].sort()));

  test('what is new comes with a drill: the target fret first, then the bend', () => {
    const [bend] = newTechniques(read('5G 7Gb1'), new Set(), guitar);
    expect(bend).toMatchObject({ technique: 'whole-step bend' });
    expect(bend?.drill.text).toBe('/2 9G 7Gb1 | 9G 7Gb1 |');
    expect(newTechniques(read('5G 7Gb1'), all, guitar)).toEqual([]);
  });

  test('every drill reads without a problem and holds its technique', () => {
    const texts = [
      '5Gh7p5 7Gs9 7GS9',
      '7Gb1r 7Gpb1 8Bb1+8e 15Bb1+12e',
      '5A7D 5A7G 3A2D1B',
      '/8t 5G 7G 5B /16t5 5G 5G 5G 5G 5G',
      '{m: 0E } xD 5G! 5G~ 7Gtr9 12e* 5G*p',
      '5G/g 7G 5Gk 5Gz (5G)',
    ];
    for (const text of texts)
      for (const { technique, drill } of newTechniques(read(text), new Set(), guitar)) {
        const reading = readShorthand(drill.text);
        expect({ technique, text: drill.text, problems: reading.problems.map(({ message }) => message) }).toMatchObject(
          { problems: [] },
        );
        expect(drill.says.length).toBeGreaterThan(10);
      }
  });
});

describe('care', () => {
  const names = (text: string, bpm = 90) => cautionsOf(read(text), { ...guitar, bpm }).map(({ name }) => name);
  test('a wide stretch, a long fast run and heavy bends bring their cautions', () => {
    expect(names('1E6D')).toEqual(['wide stretch']);
    expect(names('/16 5G%40', 120)).toEqual(['long repetition']);
    expect(names('12Gb1.5')).toEqual(['heavy bends']);
  });
  test('an easy phrase brings none', () => expect(names('/8 5G 7Gb1 5B 8B')).toEqual([]));
});
