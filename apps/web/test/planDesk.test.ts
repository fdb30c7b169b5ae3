/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import type { Plan, PlanBody, PlannedLine, PlanPiece } from '@jam-ledger/contract';
import { PLAN_LIMITS } from '@jam-ledger/contract';
import type { Replanned } from '@jam-ledger/core/pieces';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { computed, shallowRef } from 'vue';
import type { PlanPhrase } from '../src/pieces/planEdits.ts';
import { usePlan } from '../src/pieces/usePlan.ts';
import { usePlanActions } from '../src/pieces/usePlanActions.ts';
import { usePlanKeys } from '../src/pieces/usePlanKeys.ts';
import { useNotices } from '../src/session/index.ts';
import { inScope } from './mounting.ts';
import { openStudio, partOf, Refusing, settle } from './studio.ts';

const BAR = 80_640;
const phrase = (id: string): PlanPhrase => ({
  ...{ name: id.toUpperCase(), section: '1A', bpm: 100, floorBpm: null, cutPoints: [BAR / 2, BAR, 1.5 * BAR] },
  cut: {
    ...{ id, sectionId: '1A', length: 2 * BAR, bars: 2, middle: BAR, difficulty: 20 },
    ...{ hard: { from: 0, to: BAR / 2 }, headTo: 2 * BAR, tailFrom: 0 },
  },
});
const line = (id: string, more: Partial<PlannedLine> = {}): PlannedLine => ({
  ...{ id, kind: 'phrase', parts: [{ phraseId: id, from: 0, to: null }], startBpm: 60, targetBpm: 100 },
  ...{ floorBpm: null, difficulty: 20, fixed: false, lesson: null, version: 1, name: id, assignedOn: null },
  ...{ state: 'not begun', share: 0, stuck: false, reason: '' },
  ...more,
});
const PLAN: Plan = {
  ...{ version: 3, learning: null, raising: null, targetPercent: 100 },
  rules: { cleanNeeded: 2, fallsAfter: 3, restMinutes: 10 },
  pieces: [line('a'), line('b'), line('c', { assignedOn: '2026-03-01' })],
};
const said = () => useNotices().notice?.text;
const ids = (pieces: readonly PlanPiece[]) => pieces.map(({ id }) => id).join('');

beforeEach(() => void jest.useFakeTimers({ doNotFake: ['setImmediate', 'performance'] }));
afterEach(() => void jest.useRealTimers());
/** The pause after which a plan is kept by itself. */
async function pause(): Promise<void> {
  jest.advanceTimersByTime(600);
  await settle();
}

/** A studio that keeps one plan, and the plan as it is worked on. */
async function open(refuse?: () => Refusing | undefined, wait?: () => Promise<void>) {
  let stored = PLAN;
  const studio = openStudio({
    plan: () => stored,
    keepPlan: async ({ body }) => {
      const refused = refuse?.();
      if (refused) return refused;
      await wait?.();
      const { version, pieces, ...rest } = body as PlanBody;
      const before = new Map(stored.pieces.map((one) => [one.id, one]));
      return (stored = {
        ...{ ...stored, ...rest, version: version + 1 },
        pieces: pieces.map((one) => ({ ...(before.get(one.id) ?? line(one.id)), ...one })),
      });
    },
    changePiece: ({ path, body }) => {
      const { given } = body as { given: boolean };
      const assignedOn = given ? '2026-03-14' : null;
      const pieces = stored.pieces.map((one) => (path.endsWith(one.id) ? { ...one, assignedOn } : one));
      stored = { ...stored, pieces };
      return partOf({});
    },
  });
  const phrases = shallowRef(['a', 'b', 'c'].map(phrase));
  const plan = inScope(() => usePlan('song', phrases));
  await plan.load();
  const put = (to: Partial<Plan>) => (stored = { ...stored, ...to });
  return { ...studio, plan, put, kept: () => stored };
}
const order = ({ plan }: { plan: { pieces: { value: readonly PlanPiece[] } } }) => ids(plan.pieces.value);

describe('a plan', () => {
  test('is kept by itself after a pause, once, over the version seen', async () => {
    const desk = await open();
    desk.plan.change({ targetPercent: 90 });
    desk.plan.change({ targetPercent: 80 });
    expect(desk.plan.saving.value).toBe('keeping');
    await pause();
    const sent = desk.asked.filter(({ name }) => name === 'keepPlan').map(({ body }) => body as PlanBody);
    expect(sent.map(({ version, targetPercent }) => [version, targetPercent])).toEqual([[3, 80]]);
    expect([desk.plan.saving.value, desk.plan.plan.value?.version]).toEqual(['kept', 4]);
  });

  test('what is changed while it is kept is kept after it, over the version that came of it', async () => {
    const desk = await open();
    desk.plan.change({ targetPercent: 90 });
    const keeping = desk.plan.keep();
    desk.plan.change({ targetPercent: 70 });
    expect(await keeping).toBe(false);
    await pause();
    expect([desk.kept().targetPercent, desk.kept().version]).toEqual([70, 5]);
  });

  test('on a slow line is kept once more when the first is through, never over the version before it', async () => {
    let pass: () => void = () => undefined;
    const slow = new Promise<void>((resolve) => (pass = resolve));
    const desk = await open(undefined, () => slow);
    desk.plan.change({ targetPercent: 90 });
    await pause();
    desk.plan.undo();
    await pause();
    pass();
    await settle();
    await pause();
    expect([desk.kept().targetPercent, desk.kept().version, said()]).toEqual([100, 5, undefined]);
    const versions = desk.asked.filter(({ name }) => name === 'keepPlan').map(({ body }) => (body as PlanBody).version);
    expect(versions).toEqual([3, 4]);
  });

  test('goes back step by step, over the newest version', async () => {
    const desk = await open();
    desk.plan.change({ targetPercent: 90 });
    await pause();
    desk.plan.change({ learning: 'hardest first' });
    desk.plan.undo();
    desk.plan.undo();
    desk.plan.undo();
    await pause();
    expect([desk.kept().targetPercent, desk.kept().learning, desk.kept().version]).toEqual([100, null, 5]);
  });

  test('the same pieces again are no step', async () => {
    const { plan } = await open();
    plan.change({ pieces: plan.pieces.value });
    expect([plan.undone.value, plan.saving.value]).toEqual([[], 'kept']);
  });

  test('changed elsewhere is shown as it stands there; undo puts one’s own in its place', async () => {
    let isStale = true;
    const desk = await open(() => (isStale ? new Refusing(409, 'stale') : undefined));
    desk.plan.change({ targetPercent: 90 });
    desk.put({ version: 9, targetPercent: 60 });
    await pause();
    expect([desk.plan.plan.value?.targetPercent, desk.plan.saving.value]).toEqual([60, 'kept']);
    expect(said()).toMatch(/^The plan was changed elsewhere/);
    isStale = false;
    await useNotices().takeBack();
    await pause();
    expect([desk.kept().targetPercent, desk.kept().version]).toEqual([90, 10]);
  });

  test('that cannot be kept says why, and nothing of it is lost', async () => {
    const desk = await open(() => new Refusing(500, 'broken'));
    desk.plan.change({ targetPercent: 90 });
    await pause();
    expect([said(), desk.plan.saving.value]).toEqual(['Not kept: It is refused.', 'waiting']);
    expect(desk.plan.plan.value?.targetPercent).toBe(90);
  });

  test('a piece is given with all that was changed before, and taken back', async () => {
    const desk = await open();
    desk.plan.change({ targetPercent: 90 });
    await desk.plan.give('a', true);
    expect(desk.asked.map(({ name }) => name)).toEqual(['plan', 'keepPlan', 'changePiece', 'plan']);
    expect([[...desk.plan.given.value], said()]).toEqual([['a', 'c'], '“A” is given.']);
    expect(desk.plan.undone.value).toHaveLength(1);
    await useNotices().takeBack();
    expect([...desk.plan.given.value]).toEqual(['c']);
  });

  test('one that could not be kept gives nothing', async () => {
    const desk = await open(() => new Refusing(500, 'broken'));
    desk.plan.change({ targetPercent: 90 });
    await desk.plan.give('a', true);
    expect(desk.asked.some(({ name }) => name === 'changePiece')).toBe(false);
  });
});

/** The plan with all that can be done to its pieces. */
async function openActions(proposed: readonly PlanPiece[] | null = []) {
  const desk = await open();
  let count = 0;
  const making = computed(() => ({
    ...{ phrases: ['a', 'b', 'c'].map(phrase), targetPercent: 100, shown: [] },
    newId: () => `new ${(count += 1)}`,
  }));
  const replanned: Replanned = { order: ['b', 'gone', 'a', 'c'], changes: [] };
  const actions = inScope(() =>
    usePlanActions({
      plan: desk.plan,
      lessons: {
        considered: shallowRef({ needs: new Map(), replanned, planned: undefined }),
        propose: () => Promise.resolve(proposed ?? undefined),
      },
      making,
      learning: computed(() => 'front to back' as const),
    }),
  );
  return { ...desk, actions };
}

describe('what can be done to pieces', () => {
  test('the first is chosen until another is; arrows stop at both ends', async () => {
    const { actions } = await openActions();
    const chosen = () => actions.chosen.value?.id;
    expect(chosen()).toBe('a');
    actions.step(-1);
    expect(chosen()).toBe('a');
    for (let turn = 0; turn < 5; turn += 1) actions.step(1);
    expect(chosen()).toBe('c');
  });

  test('a proposal takes the place of the plan, and can be undone', async () => {
    const desk = await openActions([line('c'), line('a')]);
    await desk.actions.proposeAnew();
    expect([order(desk), said(), desk.actions.chosen.value?.id]).toEqual([
      'ca',
      '2 pieces are proposed, front to back.',
      'c',
    ]);
    await useNotices().takeBack();
    expect(order(desk)).toBe('abc');
  });

  test('one that was stopped changes nothing; one that no plan holds says so', async () => {
    const stopped = await openActions(null);
    await stopped.actions.proposeAnew();
    expect([order(stopped), said()]).toEqual(['abc', undefined]);
    const many = Array.from({ length: PLAN_LIMITS.pieces + 1 }, (_, n) => line(`${n}`));
    const desk = await openActions(many);
    await desk.actions.proposeAnew();
    expect([order(desk), said()]).toEqual([
      'abc',
      `This song would be cut into ${many.length} pieces, and a plan holds ${PLAN_LIMITS.pieces}; nothing was changed.`,
    ]);
  });

  test('a new share moves the targets that followed the old one, and only those', async () => {
    const desk = await openActions();
    desk.actions.amend('b', { targetBpm: 77 });
    desk.actions.settle({ targetPercent: 80 });
    expect(desk.plan.pieces.value.map(({ targetBpm }) => targetBpm)).toEqual([80, 77, 80]);
    desk.actions.settle({ learning: 'hardest first' });
    expect(desk.plan.plan.value?.learning).toBe('hardest first');
  });

  test('one taken out leaves its neighbour chosen, and comes back', async () => {
    const desk = await openActions();
    desk.actions.chosenId.value = 'b';
    desk.actions.remove('b');
    expect([order(desk), desk.actions.chosen.value?.id, said()]).toEqual(['ac', 'c', '“B” is out of the plan.']);
    desk.actions.remove('gone');
    expect(order(desk)).toBe('ac');
    await useNotices().takeBack();
    expect(order(desk)).toBe('abc');
  });

  test('halves stand before it; what is there already is not made twice', async () => {
    const desk = await openActions();
    desk.actions.cut('b', 'halves');
    const kinds = () => desk.plan.pieces.value.map(({ kind }) => kind);
    expect(kinds()).toEqual(['phrase', 'half', 'half', 'phrase', 'phrase']);
    expect(said()).toMatch(/^“.+” and “.+” are in the plan\.$/);
    desk.actions.cut('b', 'halves');
    expect([kinds().length, said()]).toEqual([5, 'There is nothing more to make of it that way.']);
  });

  test('where a half ends can be moved; a piece that has no halves has no seam', async () => {
    const desk = await openActions();
    expect(desk.actions.seam.value).toBeUndefined();
    desk.actions.cut('a', 'halves');
    const half = () => desk.plan.pieces.value.find(({ kind }) => kind === 'half');
    desk.actions.chosenId.value = half()?.id;
    expect(desk.actions.seam.value?.says).toBe('bar 2, quarter 1');
    desk.actions.moveSeam(1.5 * BAR);
    expect([half()?.parts[0]?.to, desk.actions.seam.value?.says]).toEqual([1.5 * BAR, 'bar 2, quarter 3']);
  });

  test.each([
    ['drop', 'bc'],
    ['later', 'bac'],
  ] as const)('what is proposed to %s is done', async (what, after) => {
    const desk = await openActions();
    desk.actions.accept({ id: 'a', what, why: 'So it is better.' });
    expect(order(desk)).toBe(after);
  });

  test('what is proposed to halve or give is done', async () => {
    const desk = await openActions();
    desk.actions.accept({ id: 'a', what: 'halve', why: 'It is stuck.' });
    expect(desk.plan.pieces.value).toHaveLength(5);
    desk.actions.accept({ id: 'b', what: 'give', why: 'It is next.' });
    await settle();
    expect([...desk.plan.given.value]).toContain('b');
  });
});

describe('the plan without a mouse', () => {
  async function openKeys() {
    const desk = await openActions();
    inScope(() => usePlanKeys(desk.plan, desk.actions));
    const press = (key: string, more: KeyboardEventInit = {}, target: HTMLElement = document.body) => {
      const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
      target.dispatchEvent(event);
      return event.defaultPrevented;
    };
    return { ...desk, press };
  }

  test('arrows choose, with Alt they move; Ctrl-z takes back', async () => {
    const desk = await openKeys();
    desk.press('ArrowDown');
    expect(desk.actions.chosen.value?.id).toBe('b');
    desk.press('ArrowUp', { altKey: true });
    expect(order(desk)).toBe('bac');
    desk.press('z', { ctrlKey: true });
    expect(order(desk)).toBe('abc');
    desk.press('ArrowUp');
    expect(desk.actions.chosen.value?.id).toBe('a');
  });

  test('letters cut, give and take out', async () => {
    const desk = await openKeys();
    expect(desk.press('h')).toBe(true);
    expect(desk.plan.pieces.value).toHaveLength(5);
    desk.actions.chosenId.value = 'b';
    desk.press('g');
    await settle();
    expect(desk.plan.given.value.has('b')).toBe(true);
    desk.actions.chosenId.value = 'c';
    desk.press('Delete');
    expect(order(desk)).not.toContain('c');
  });

  test('a letter with Ctrl or in a field is not for the plan', async () => {
    const desk = await openKeys();
    const field = document.createElement('input');
    document.body.append(field);
    expect([desk.press('h', { ctrlKey: true }), desk.press('h', {}, field), desk.press('x')]).toEqual([
      false,
      false,
      false,
    ]);
    expect(desk.press('z', { ctrlKey: true }, field)).toBe(false);
    expect(order(desk)).toBe('abc');
  });
});
