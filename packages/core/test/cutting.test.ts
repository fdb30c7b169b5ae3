import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  COMMON_TIME,
  heardOf,
  inRound,
  readShorthand,
  unroll,
  writeShorthand,
  type Phrase,
} from '../src/notation/index.ts';
import {
  assemble,
  cutKey,
  cutPieces,
  cutPoints,
  floorTempo,
  halvesOf,
  LEARNING_SCHOOLS,
  needsOf,
  phraseToCut,
  replan,
  runOf,
  startTempo,
  type Cut,
  type CutPhrase,
  type PlannedPiece,
} from '../src/pieces/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';
import { readCorpus } from './corpus.ts';

const read = (text: string): Phrase => readShorthand(text, { tuning: TUNINGS.standard, meter: COMMON_TIME }).phrase;
const write = (phrase: Phrase) => writeShorthand(phrase, { strings: 'letters' });
const BAR = 80_640;

const phrase = (id: string, more: Partial<CutPhrase> = {}): CutPhrase => ({
  id,
  sectionId: '1A',
  length: 2 * BAR,
  bars: 2,
  middle: BAR,
  hard: null,
  headTo: 2 * BAR,
  tailFrom: 0,
  difficulty: 20,
  ...more,
});
const say = ({ kind, parts }: Cut) =>
  `${kind} ${parts.map(({ phraseId, from, to }) => phraseId + (from === 0 ? '' : '…') + (to === null ? '' : '<')).join('+')}`;

describe('cutting a song into pieces', () => {
  const song = [phrase('a'), phrase('b'), phrase('c', { sectionId: '1B' })];

  // The three schools as common practice has them.
  test('front to back adds each phrase to all before it', () =>
    expect(cutPieces(song, 'front to back').map(say)).toEqual([
      'phrase a',
      'phrase b',
      'join a+b',
      'phrase c',
      'join b+c',
      'run a+b+c',
    ]));

  test('alone, then joined has every phrase first, then pairs, halves and the whole', () => {
    const four = ['a', 'b', 'c', 'd', 'e'].map((id) => phrase(id));
    expect(cutPieces(four, 'alone, then joined').map(say)).toEqual([
      ...['a', 'b', 'c', 'd', 'e'].map((id) => `phrase ${id}`),
      'join a+b',
      'join c+d',
      'join b+c',
      'run a+b+c+d',
      'join d+e',
      'run a+b+c+d+e',
    ]);
  });

  test('hardest first goes by difficulty, and joins as soon as both sides are there', () => {
    const some = [phrase('a', { difficulty: 10 }), phrase('b', { difficulty: 30 }), phrase('c', { difficulty: 20 })];
    expect(cutPieces(some, 'hardest first').map(say)).toEqual([
      'phrase b',
      'phrase c',
      'join b+c',
      'phrase a',
      'join a+b',
      'run a+b+c',
    ]);
  });

  test('a hard or long phrase is halved, its hard spot drilled', () => {
    const hard = phrase('a', { difficulty: 60, hard: { from: 10, to: 20 } });
    expect(cutPieces([hard], 'front to back').map(say)).toEqual(['drill a…<', 'half a<', 'half a…', 'phrase a']);
    expect(cutPieces([phrase('a', { bars: 4 })], 'front to back').map(say)).toContain('half a<');
  });

  test('long neighbours are joined across the seam alone', () => {
    const long = { bars: 8, length: 8 * BAR, headTo: 2 * BAR, tailFrom: 6 * BAR };
    expect(cutPieces([phrase('a', long), phrase('b', long)], 'front to back').map(say)).toEqual(
      expect.arrayContaining(['join a…+b<', 'run a+b']),
    );
  });

  const songs = fc
    .array(
      fc.record({
        section: fc.integer({ min: 0, max: 3 }),
        difficulty: fc.integer({ min: 0, max: 100 }),
        bars: fc.integer({ min: 1, max: 9 }),
      }),
      {
        minLength: 1,
        maxLength: 14,
      },
    )
    .map((some) =>
      some
        .toSorted((a, b) => a.section - b.section)
        .map(({ section, difficulty, bars }, index) =>
          phrase(`p${index}`, {
            sectionId: `s${section}`,
            difficulty,
            bars,
            length: bars * BAR,
            tailFrom: Math.max(0, bars - 2) * BAR,
            headTo: Math.min(bars, 2) * BAR,
            middle: bars > 1 ? BAR : null,
          }),
        ),
    );

  test.each(LEARNING_SCHOOLS)(
    '%s: every phrase, every seam and the whole are there, nothing twice, nothing before what it needs',
    (school) => {
      fc.assert(
        fc.property(songs, (some) => {
          const cuts = cutPieces(some, school);
          const keys = cuts.map(cutKey);
          expect(new Set(keys).size).toBe(keys.length);
          for (const { id } of some) expect(cuts.map(say)).toContain(`phrase ${id}`);
          some.slice(1).forEach(({ id }, index) => {
            const before = some[index]?.id ?? '';
            expect(
              cuts.some(
                ({ parts }) => parts.length === 2 && parts[0]?.phraseId === before && parts[1]?.phraseId === id,
              ),
            ).toBe(true);
          });
          if (some.length > 1) {
            const whole = cuts.at(-1);
            expect(whole?.parts.map(({ phraseId }) => phraseId)).toEqual(some.map(({ id }) => id));
          }
          const pieces = cuts.map((cut, index) => ({ ...cut, id: String(index) }));
          const needs = needsOf(pieces);
          for (const { id } of pieces)
            for (const needed of needs.get(id) ?? []) expect(Number(needed)).toBeLessThan(Number(id));
        }),
        { numRuns: 60 },
      );
    },
  );
});

describe('what depends on what', () => {
  const hard = phrase('a', { difficulty: 60, hard: { from: 10, to: 20 } });
  const cuts = cutPieces([hard, phrase('b'), phrase('c')], 'front to back').map((cut) => ({ ...cut, id: say(cut) }));
  const needs = needsOf(cuts);
  test.each([
    ['drill a…<', []],
    ['half a<', ['drill a…<']],
    ['phrase a', ['half a<', 'half a…']],
    ['join a+b', ['phrase a', 'phrase b']],
    ['join b+c', ['phrase b', 'phrase c']],
    ['run a+b+c', ['join a+b', 'join b+c']],
  ])('%s needs %j', (id, direct) => expect([...(needs.get(id) ?? [])].sort()).toEqual([...direct].sort()));
});

describe('a plan made anew', () => {
  const planned = (cut: Cut, more: Partial<PlannedPiece> = {}): PlannedPiece => ({
    ...cut,
    id: say(cut),
    name: say(cut),
    held: false,
    slipping: false,
    share: 0,
    stuck: false,
    given: false,
    fixed: false,
    ...more,
  });
  const plan = (states: Readonly<Record<string, Partial<PlannedPiece>>> = {}) =>
    cutPieces([phrase('a', { bars: 4 }), phrase('b'), phrase('c')], 'front to back').map((cut) =>
      planned(cut, states[say(cut)]),
    );
  const changes = (pieces: readonly PlannedPiece[]) => replan(pieces).changes.map(({ id, what }) => `${what} ${id}`);

  test('a plan in order stays as it is', () => {
    expect(replan(plan()).order).toEqual(plan().map(({ id }) => id));
    expect(replan(plan()).changes).toEqual([]);
  });

  test('a piece put before what it needs goes behind it, and it is said', () => {
    const [run, ...rest] = plan().toReversed();
    if (!run) throw new Error('the plan has pieces');
    const { order, changes: made } = replan([run, ...rest.toReversed()]);
    expect(order.at(-1)).toBe('run a+b+c');
    expect(made).toContainEqual({ id: 'run a+b+c', what: 'later', why: expect.stringContaining('needs') });
  });

  test('held early: what it was built from is not needed, what it was needed for can be given', () => {
    const held = { held: true, share: 1, given: true };
    expect(changes(plan({ 'phrase a': held }))).toEqual(['drop half a<', 'drop half a…']);
    expect(changes(plan({ 'phrase a': held, 'phrase b': { share: 0.85, given: true } }))).toContain('give join a+b');
    expect(changes(plan({ 'phrase a': held, 'phrase b': { share: 0.85, slipping: true, given: true } }))).not.toContain(
      'give join a+b',
    );
  });

  test('stuck: what needs it waits behind what does not, unless the teacher put it there', () => {
    const stuck = { stuck: true, given: true };
    const { order } = replan(plan({ 'phrase b': stuck }));
    expect(order.indexOf('phrase c')).toBeLessThan(order.indexOf('join a+b'));
    const kept = replan(plan({ 'phrase b': stuck, 'join a+b': { fixed: true } })).order;
    expect(kept.indexOf('join a+b')).toBeLessThan(kept.indexOf('phrase c'));
    expect(changes(plan({ 'phrase b': stuck }))).toContain('halve phrase b');
    expect(changes(plan({ 'phrase a': stuck }))).not.toContain('halve phrase a');
  });

  test('whatever the order, each piece comes after what it needs, none is lost, and the answer is the same again', () => {
    fc.assert(
      fc.property(
        fc.shuffledSubarray(plan(), { minLength: plan().length }),
        fc.array(fc.boolean(), { minLength: 12, maxLength: 12 }),
        (shuffled, flags) => {
          const pieces = shuffled.map((piece, index) => ({ ...piece, stuck: flags[index] ?? false }));
          const { order } = replan(pieces);
          expect([...order].sort()).toEqual(pieces.map(({ id }) => id).sort());
          const needs = needsOf(pieces);
          for (const id of order)
            for (const needed of needs.get(id) ?? []) expect(order.indexOf(needed)).toBeLessThan(order.indexOf(id));
          expect(replan(pieces)).toEqual(replan(pieces));
        },
      ),
    );
  });
});

describe('stretches of a phrase', () => {
  const two = read('/8 5G 7Gh9 5G 7D - 7D 5D | :D7 5B p3 5B 8B /2 7G~');
  const bar = (from: number, to: number | null) => write(assemble([{ phraseId: 'a', from, to }], () => two).phrase);

  test('the first bar and the second bar are the whole again', () => {
    expect(bar(0, BAR)).toBe('5G 7G h9G 5G 7D - 7D 5D |');
    expect(bar(BAR, null)).toBe(':D7 5B p3B 5B 8B /2 7G~');
  });

  test('a stretch from within a bar is a pick-up under the chord that holds there, without the slur into it', () => {
    const from = BAR + BAR / 8;
    expect(bar(from, null)).toMatch(/pickup/);
    expect(bar(from, null)).toContain(':D7 3B 5B');
  });

  test('it can be cut after a rest, at a bar line and on a beat, never within a repeat', () => {
    const places = cutPoints(two);
    expect(places).toContainEqual({ at: (BAR / 8) * 6, by: 'rest' });
    expect(places).toContainEqual({ at: BAR, by: 'bar' });
    expect(cutPoints(read('[ 5G 7G 5G 7G 5G 7G 5G 7G ]2'))).toEqual([]);
  });

  test('the middle is by the bar line, or after a rest near it', () => {
    const cut = phraseToCut(two, { id: 'a', sectionId: '1A', difficulty: 50 });
    expect(cut).toMatchObject({ bars: 2, length: 2 * BAR, middle: BAR, hard: null });
    expect(halvesOf(phraseToCut(read('/1 5G'), { id: 'a', sectionId: '1A', difficulty: 0 }))).toEqual([]);
  });

  test('the hard spot has the beat before it', () => {
    const spot = two.items.find((item) => item.kind === 'event' && item.link === 'hammer');
    const { hard } = phraseToCut(two, { id: 'a', sectionId: '1A', difficulty: 50, hardest: spot?.span });
    expect(hard).toEqual({ from: 0, to: BAR / 2 });
  });

  test('pieces put together last as long as their stretches, and every cut place cuts in two without loss', () => {
    const texts = [
      '/8 5G 7G 5G 7D /4 7D~ -',
      '/16 5Dh7 5G 7G 5B /4 10Bb1 | /8 8e 5e',
      '{m: 0E%2} 3E 5E [ 7G 5G ]2 /4 5G',
      '/8t 7D 5D 7D /4 5G 5G 5G | /8 5e 8B _ 5e 8B p5 7G 5G',
      // A hold that stands alone in a choice or a span goes with what it holds.
      '- 0E+xE {either: _ // }',
      '7G_ <5A7D {either: {m: } _ // }',
    ];
    for (const text of texts) {
      const whole = inRound(read(text), { round: 3, of: 3 });
      const { length, events } = unroll(whole);
      for (const { at } of cutPoints(whole)) {
        const halves = [
          assemble([{ phraseId: 'a', from: 0, to: at }], () => whole),
          assemble([{ phraseId: 'a', from: at, to: null }], () => whole),
        ];
        const [a, b] = halves.map(({ phrase: half }) => unroll(read(write(half))));
        expect((a?.length ?? 0) + (b?.length ?? 0)).toBe(length);
        expect((a?.events.length ?? 0) + (b?.events.length ?? 0)).toBeGreaterThanOrEqual(events.length);
      }
    }
  });

  test('joined phrases are bars one after the other, in their meters', () => {
    const waltz = readShorthand('5G 7G 5G 7G 5G 7G', { tuning: TUNINGS.standard, meter: { beats: 3, unit: 4 } }).phrase;
    const joined = assemble(
      [
        { phraseId: 'a', from: 0, to: null },
        { phraseId: 'b', from: 0, to: null },
      ],
      (id) => (id === 'a' ? two : waltz),
    );
    expect(joined.parts.map(({ at, length }) => [at, length])).toEqual([
      [0, 2 * BAR],
      [2 * BAR, (BAR / 4) * 3],
    ]);
    const { bars } = unroll(read(write(joined.phrase)));
    expect(bars.map(({ meter }) => meter.beats)).toEqual([4, 4, 3]);
  });

  test('a stretch that is no longer there gives what is left, a phrase that is gone nothing', () => {
    expect(bar(5 * BAR, 9 * BAR)).toBe('pickup :D7');
    expect(assemble([{ phraseId: 'gone', from: 0, to: null }], () => undefined).phrase.items).toEqual([]);
    expect(runOf([]).parts).toEqual([]);
  });
});

describe('where to begin', () => {
  test('at what was shown on pieces about as hard', () => {
    const shown = [
      { difficulty: 40, share: 0.6 },
      { difficulty: 45, share: 0.7 },
      { difficulty: 50, share: 0.8 },
      { difficulty: 90, share: 0.3 },
    ];
    expect(startTempo(100, { difficulty: 45, shown })).toEqual({
      bpm: 70,
      reason: expect.stringContaining('3 pieces about as hard'),
    });
  });
  test('else by rule, the harder the slower, and never under the floor', () => {
    const at = (difficulty: number, floor?: number) => startTempo(100, { difficulty, shown: [], floor }).bpm;
    expect([at(0), at(50), at(100)]).toEqual([70, 60, 50]);
    expect(at(100, 66)).toBe(66);
    expect(startTempo(100, { difficulty: 100, shown: [], floor: 66 }).reason).toContain('floor');
    expect(at(0, 500)).toBe(100);
  });
  test('a target of nothing is a mistake', () =>
    expect(() => startTempo(0, { difficulty: 0, shown: [] })).toThrow('0'));

  test.each([
    ['plain notes have no floor', '/8 5G 7G 5G 7G', 'straight', undefined],
    ['a whole note with vibrato dies away', '/1 5G~', 'straight', 60],
    ['a slur out of a half note', '/2 5G h7', 'straight', 100],
    ['a slide out of a quarter', '/4 5G s7', 'straight', 40],
    ['a bend held for a half', '/2 7Gb1', 'straight', 40],
    ['swing keeps its lilt', '/8 5G 7G', 'swing', 56],
  ] as const)('%s', (_name, text, feel, bpm) => expect(floorTempo(read(text), 200, feel)?.bpm).toBe(bpm));
  test('a floor leaves something to climb', () => expect(floorTempo(read('/1 5G~'), 50)?.bpm).toBe(40));
});

describe('a piece plays what the phrase plays there', () => {
  const setup = { tuning: TUNINGS.standard, capo: 0 };
  const heard = (phrase: Phrase, offset = 0) =>
    heardOf(phrase, setup).map(({ at, length, string, struck, rests, through }) => ({
      ...{ at: at + offset, length, string, struck, rests, through },
    }));
  const part = (phrase: Phrase, from: number, to: number | null) =>
    assemble([{ phraseId: 'f', from, to }], () => phrase).phrase;
  const inParts = (phrase: Phrase, at: number) => [...heard(part(phrase, 0, at)), ...heard(part(phrase, at, null), at)];

  test.each([
    ['holds at its end', '/4 7G 9G 7B _ | 9B _ _ _'],
    ['holds over a bar line', '/4 7G 9G 7B _ | _ 9B _ 7B'],
    ['a repeat', '/8 [ 5G 7G 5B 7B ]3 8B 5B'],
    ['a repeat of one event', '/8 [ 5G ]8 7G'],
    ['a repeat with passes', '/8 [ 5G 7G {1-2: 5B 7B} {last: 8B 10B} ]3 5G'],
    ['repeats in repeats', '/8 [ 5G [ 7G 5B ]2 7B ]2 5G'],
    ['a roll of one event', '/16 0Em%8 3E 5E'],
    ['spans', '/8 {m: 0E 0E 3E} {likely: {l: 5G 7G}} 5B'],
    ['graces and rests', '/8 7G/g 9G - 7G 5G - 7G/g 9G'],
    ['bends, releases and taps', '/4 12Bb1 t15 p12 10Bb1r | 7Gb1 9G 7G _'],
  ])('%s, wherever it is cut', (_, text) => {
    const { phrase } = readShorthand(text);
    const whole = heard(phrase);
    const starts = [...new Set(whole.map(({ at }) => at))].filter((at) => at > 0);
    const linked = new Set(heardOf(phrase, setup).flatMap(({ item, at }) => (item.link ? [at] : [])));
    for (const at of starts.filter((one) => !linked.has(one) && !isAfterGrace(whole, one)))
      expect([at, inParts(phrase, at)]).toEqual([at, whole]);
  });
  /** A note that a grace before it takes its time from does not begin where it is written. */
  const isAfterGrace = (notes: ReturnType<typeof heard>, at: number) =>
    notes.some((note) => note.at + note.length === at && note.length <= 2520);

  test('every phrase of the corpus, at every place it can be cut', () => {
    for (const { phrase, text } of readCorpus()) {
      const whole = heard(phrase);
      for (const { at } of cutPoints(phrase)) expect([text, at, inParts(phrase, at)]).toEqual([text, at, whole]);
    }
  });

  test('before a note that is slurred to it cannot be cut', () => {
    const points = cutPoints(readShorthand('/4 5G h7 p5 7G').phrase);
    expect(points.map(({ at }) => at / 20_160)).toEqual([3]);
  });
});
