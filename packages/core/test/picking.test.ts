import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readShorthand, rewriteEvents } from '../src/notation/index.ts';
import {
  crossings,
  planStrokes,
  strokeMarks,
  type PickingPolicy,
  type Stroke,
  type Struck,
} from '../src/picking/index.ts';

const read = (text: string) => readShorthand(text).phrase;
const plan = (text: string, policy: PickingPolicy) => planStrokes(read(text), policy);
const SIGNS: Readonly<Record<Stroke, string>> = { down: 'd', up: 'u', plucked: 'q', legato: '-', open: '?' };
const signs = (text: string, policy: PickingPolicy) =>
  plan(text, policy)
    .strokes.map(({ stroke }) => SIGNS[stroke])
    .join('');
const counts = (text: string, policy: PickingPolicy) => {
  const { outside, inside, with: along, against } = crossings(plan(text, policy).strokes);
  return { outside, inside, with: along, against };
};

describe('strokes by policy', () => {
  test('strict alternate starts either way and goes on', () => {
    expect(signs('5G 7G 5B 8B', 'alternate from down')).toBe('dudu');
    expect(signs('5G 7G 5B 8B', 'alternate from up')).toBe('udud');
  });
  test('legato, taps and plucked notes take none; a shift slide does', () => {
    expect(signs('5Gh7p5 s9 5BS7 t12 8eq', 'alternate from down')).toBe('d---ud-q');
  });
  // Source: common practice, three notes a string: down up down, down up down.
  test('economy goes on in the direction of the next string', () => {
    expect(signs('5D 7D 9D 5G 7G 9G', 'economy')).toBe('duddud');
    expect(signs('9G 7G 9D 7D', 'economy')).toBe('duud');
  });
  // Source: common practice; the way into the next string is the way the pick already goes.
  test('toward the next string', () => {
    expect(signs('9D 7G 7B 10G', 'toward the next string')).toBe('ddud');
    expect(signs('5D 7D 9D 5G 7G 9G', 'toward the next string')).toBe('dududu');
    expect(signs('5D 7D 5G', 'toward the next string')).toBe('udu');
    expect(signs('5D 7D 9D', 'toward the next string')).toBe('dud');
  });
  test('all down is all down', () => expect(signs('5G 7G 5B', 'all down')).toBe('ddd'));
  test('a sweep goes through in one stroke and back in another', () =>
    expect(signs('5D 5G 5B 5e 5B 5G', 'sweep')).toBe('dddduu'));
  test('given strokes are kept by every plan', () => {
    expect(signs('5Gu 7G 5B 8B', 'all down')).toBe('uddd');
    expect(signs('5Gu 7G', 'as given')).toBe('u?');
    expect(signs('5Gu 7G 5B', 'alternate from down')).toBe('udu');
  });
  test('rakes and rolled chords are brushed down, whatever the plan', () => {
    expect(signs('5G 7Gk 5B', 'alternate from down')).toBe('ddu');
    expect(signs('5G 5A7D7Go', 'cheapest').endsWith('d')).toBe(true);
  });
  test('hybrid plucks the far string of a split pair', () => {
    const [pair] = plan('5A7G', 'hybrid').strokes;
    expect(pair).toMatchObject({ stroke: 'down', strings: [5], plucked: [3] });
    expect(plan('5A7D', 'hybrid').strokes[0]).toMatchObject({ plucked: [] });
  });
});

describe('string changes', () => {
  // Source: common practice; outside is down on the thicker string and up on the thinner.
  test('down on the thicker then up on the thinner is outside, the other way inside', () => {
    expect(counts('5Gd 5Bu', 'as given')).toEqual({ outside: 1, inside: 0, with: 0, against: 0 });
    expect(counts('5Gu 5Bd', 'as given')).toEqual({ outside: 0, inside: 1, with: 0, against: 0 });
    expect(counts('5Bu 5Gd', 'as given')).toEqual({ outside: 1, inside: 0, with: 0, against: 0 });
    expect(counts('5Bd 5Gu', 'as given')).toEqual({ outside: 0, inside: 1, with: 0, against: 0 });
  });
  test('going on with the stroke, and back against it', () => {
    expect(counts('5Gd 5Bd 5Gd', 'as given')).toEqual({ outside: 0, inside: 0, with: 1, against: 1 });
  });
  test('a strum ends on its thinnest string', () =>
    expect(counts('5A7D7Gd 5Bd', 'as given')).toEqual({ outside: 0, inside: 0, with: 1, against: 0 }));
  test('skipped strings are counted', () =>
    expect(crossings(plan('5Ad 5Bu', 'as given').strokes).list[0]?.skipped).toBe(2));

  test('turning every stroke turns outside into inside', () => {
    const line = fc.array(fc.constantFrom('5D', '5G', '5B', '5e'), { minLength: 2, maxLength: 12 });
    fc.assert(
      fc.property(line, (words) => {
        const [down, up] = [
          counts(words.join(' '), 'alternate from down'),
          counts(words.join(' '), 'alternate from up'),
        ];
        expect([up.outside, up.inside]).toEqual([down.inside, down.outside]);
      }),
    );
  });
});

describe('the cheapest plan', () => {
  const event = fc.record({
    string: fc.constantFrom('D', 'G', 'B', 'e'),
    mark: fc.constantFrom('', '', '', 'd', 'u'),
    link: fc.constantFrom('', '', 'h7'),
  });
  test('costs what the best of all plans costs', () => {
    fc.assert(
      fc.property(fc.array(event, { minLength: 1, maxLength: 8 }), (events) => {
        const text = events.map(({ string, mark, link }) => `5${string}${mark} ${link}`).join(' ');
        const best = plan(text, 'cheapest');
        const free = best.strokes.filter(({ stroke, given }) => !given && (stroke === 'down' || stroke === 'up'));
        for (let bits = 0; bits < 2 ** free.length; bits += 1) {
          const marked = mark(best.strokes, free, bits);
          expect(best.cost).toBeLessThanOrEqual(planStrokes(read(marked), 'as given').cost + 1e-9);
        }
      }),
      { numRuns: 60 },
    );
  });

  /** The text of the strokes with those that are free set by the bits of a number. */
  function mark(strokes: readonly Struck[], free: readonly Struck[], bits: number): string {
    return strokes
      .map((struck) => {
        if (struck.stroke === 'legato') return `h${struck.item.notes[0]?.fret ?? 0}`;
        const place = free.indexOf(struck);
        const stroke = place < 0 ? struck.stroke : (bits >> place) % 2 === 0 ? 'down' : 'up';
        return `5${'eBGDAE'.charAt((struck.strings[0] ?? 1) - 1)}${stroke === 'down' ? 'd' : 'u'}`;
      })
      .join(' ');
  }
});

test('a plan is written into the text, comments and values left as they were', () => {
  const text = '5G/16 7Gh9 # over here\n /4 5B _';
  const changes = strokeMarks(plan(text, 'alternate from down'));
  expect(rewriteEvents(text, changes, (typed) => readShorthand(typed).phrase)).toBe(
    '5Gd/16 7Guh9 # over here\n /4 5Bd _',
  );
});
