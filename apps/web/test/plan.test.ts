import type { LedgerPiece, PlanPiece } from '@jam-ledger/contract';
import { describe, expect, test } from '@jest/globals';
import { cutKey, sayCut } from '@jam-ledger/core/pieces';
import { ALL_ROWS, filterRows } from '../src/ledger/ledgerFilter.ts';
import {
  addCut,
  bodyOf,
  movePiece,
  pieceFor,
  propose,
  recut,
  retarget,
  seamOf,
  type PlanMaking,
  type PlanPhrase,
} from '../src/pieces/planEdits.ts';
import { barOf, laneOf } from '../src/pieces/planLane.ts';

const BAR = 80_640;
const phrase = (id: string, bpm = 100, more: Partial<PlanPhrase> = {}): PlanPhrase => ({
  name: id.toUpperCase(),
  section: '1A',
  bpm,
  floorBpm: null,
  cutPoints: [BAR / 2, BAR],
  cut: {
    id,
    sectionId: '1A',
    length: 2 * BAR,
    bars: 2,
    middle: BAR,
    hard: { from: 0, to: BAR / 2 },
    headTo: 2 * BAR,
    tailFrom: 0,
    difficulty: 20,
  },
  ...more,
});
let count = 0;
const making = (more: Partial<PlanMaking> = {}): PlanMaking => ({
  phrases: [phrase('a'), phrase('b', 80), phrase('c')],
  targetPercent: 100,
  shown: [],
  newId: () => `id ${(count += 1)}`,
  ...more,
});
const say = (pieces: readonly PlanPiece[]) => pieces.map((piece) => sayCut(piece, (id) => id.toUpperCase()));
const start = () => propose([], 'front to back', making(), new Set());

describe('a new piece', () => {
  test('goes for the tempo of its slowest phrase, at the share the plan says', () => {
    const [a, b] = [
      { phraseId: 'a', from: 0, to: null },
      { phraseId: 'b', from: 0, to: null },
    ];
    expect(pieceFor({ kind: 'join', parts: [a, b] }, making()).targetBpm).toBe(80);
    expect(pieceFor({ kind: 'phrase', parts: [a] }, making({ targetPercent: 90 })).targetBpm).toBe(90);
  });
  test('begins where the student was first clean, not under the floor', () => {
    const shown = [
      { difficulty: 20, share: 0.5 },
      { difficulty: 22, share: 0.5 },
    ];
    const a = { kind: 'phrase', parts: [{ phraseId: 'a', from: 0, to: null }] } as const;
    expect(pieceFor(a, making({ shown })).startBpm).toBe(50);
    expect(pieceFor(a, making({ shown, phrases: [phrase('a', 100, { floorBpm: 64 })] }))).toMatchObject({
      startBpm: 64,
      floorBpm: 64,
    });
  });
});

describe('proposing a plan', () => {
  test('front to back', () => expect(say(start())).toEqual(['A', 'B', 'A into B', 'C', 'B into C', 'A through C']));

  test('again keeps tempos, ids and what was given or put by hand', () => {
    const first = start().map((piece) => (say([piece])[0] === 'B' ? { ...piece, startBpm: 33 } : piece));
    const halves = addCut(first, first[0]?.id ?? '', 'halves', making());
    const given = new Set(halves.slice(0, 1).map(({ id }) => id));
    const again = propose(halves, 'alone, then joined', making(), given);
    expect(say(again)).toEqual(['A, first half', 'A', 'B', 'C', 'A into B', 'B into C', 'A through C']);
    expect(again.find((piece) => piece.startBpm === 33)?.id).toBe(first[1]?.id);
  });
});

describe('changing a plan', () => {
  test('a piece that is moved stays at its place by hand, never outside the plan', () => {
    const pieces = start();
    const id = pieces[5]?.id ?? '';
    expect(say(movePiece(pieces, id, 0))[0]).toBe('A through C');
    expect(movePiece(pieces, id, 0)[0]?.fixed).toBe(true);
    expect(say(movePiece(pieces, id, 99)).at(-1)).toBe('A through C');
    expect(movePiece(pieces, 'nobody', 0)).toBe(pieces);
  });

  test.each([
    ['halves', ['A, first half', 'A, second half', 'A']],
    ['drill', ['A, the hard spot', 'A']],
    ['join', ['A']],
  ] as const)('%s are made of a piece once', (what, first) => {
    const pieces = start();
    const made = addCut(pieces, pieces[0]?.id ?? '', what, making());
    expect(say(made).slice(0, first.length)).toEqual(first);
    const id = made.find((piece) => say([piece])[0] === 'A')?.id ?? '';
    expect(say(addCut(made, id, what, making()))).toEqual(say(made));
  });

  test('a run from the top to a phrase stands behind it; from the first there is none', () => {
    const pieces = start();
    const b = pieces[1]?.id ?? '';
    expect(say(addCut(pieces, b, 'top', making()))).toContain('A through B');
    expect(addCut(pieces, pieces[0]?.id ?? '', 'top', making())).toBe(pieces);
  });

  test('halves that are cut elsewhere are other pieces', () => {
    const pieces = start();
    const halved = addCut(pieces, pieces[0]?.id ?? '', 'halves', making());
    expect(seamOf(halved, 'a')).toBe(BAR);
    const moved = recut(halved, 'a', BAR / 2, making());
    expect(seamOf(moved, 'a')).toBe(BAR / 2);
    expect(moved.slice(0, 2).map(({ id }) => id)).not.toEqual(halved.slice(0, 2).map(({ id }) => id));
    expect(moved.slice(2)).toEqual(halved.slice(2));
    expect(seamOf(pieces, 'a')).toBeUndefined();
    expect(moved.map(cutKey)).not.toEqual(halved.map(cutKey));
  });

  test('a new share of the song’s tempo moves targets that followed the old one, not typed ones', () => {
    const pieces = start().map((piece, index) => (index === 0 ? { ...piece, targetBpm: 77 } : piece));
    const slower = retarget(pieces, 100, making({ targetPercent: 80 }));
    expect(slower.map(({ targetBpm }) => targetBpm)).toEqual([77, 64, 64, 80, 64, 64]);
    for (const { startBpm, targetBpm } of slower) expect(startBpm).toBeLessThanOrEqual(targetBpm);
  });

  test('only what belongs to the plan is kept', () => {
    const rules = { cleanNeeded: 2, fallsAfter: 2, restMinutes: 10 };
    const noisy = start().map((piece) => ({ ...piece, name: 'x', state: 'held' }));
    const body = bodyOf({ version: 1, learning: null, raising: null, targetPercent: 100, rules, pieces: noisy });
    expect(Object.keys(body.pieces[0] ?? {}).sort()).toEqual([
      'difficulty',
      'fixed',
      'floorBpm',
      'id',
      'kind',
      'lesson',
      'parts',
      'startBpm',
      'targetBpm',
    ]);
  });
});

describe('pieces along the form', () => {
  test('lie to scale where their music is', () => {
    const lane = laneOf(making().phrases);
    const third = lane.width / 3;
    const [a, , join] = start();
    if (!a || !join) throw new Error('the plan has pieces');
    expect(parseFloat(barOf(a, lane).width)).toBeCloseTo(third - 2, 3);
    expect(parseFloat(barOf(join, lane).width)).toBeCloseTo(2 * third - 2, 3);
    expect(lane.sections).toEqual([{ id: '1A', label: '1A', left: 0, width: expect.closeTo(lane.width, 6) }]);
  });
});

describe('the rows of the ledger', () => {
  const row = (name: string, more: object): LedgerPiece =>
    ({
      kind: 'phrase',
      song: { id: 's1', title: 'T' },
      section: { label: '1A', role: 'solo' },
      phrase: { id: name, name },
      next: { move: 'up' },
      mastery: { state: 'building' },
      due: null,
      ...more,
    }) as unknown as LedgerPiece;
  const rows = [
    row('Riff', {}),
    row('Break', { mastery: { state: 'held' }, due: { day: '2026-03-10' } }),
    row('Outro', { kind: 'run', next: { move: 'split' }, song: { id: 's2', title: 'U' } }),
  ];
  test.each([
    [{}, ['Riff', 'Break', 'Outro']],
    [{ song: 's2' }, ['Outro']],
    [{ kind: 'phrase' }, ['Riff', 'Break']],
    [{ state: 'held' }, ['Break']],
    [{ state: 'stuck' }, ['Outro']],
    [{ state: 'due again' }, ['Break']],
    [{ state: 'being built' }, ['Riff', 'Outro']],
    [{ words: ' rif' }, ['Riff']],
    [{ words: 'solo', state: 'slipping' }, []],
  ] as const)('that %j shows are %j', (filter, names) => {
    expect(filterRows(rows, { ...ALL_ROWS, ...filter }, '2026-03-14').map(({ phrase: { name } }) => name)).toEqual(
      names,
    );
  });
});
