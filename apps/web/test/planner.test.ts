import type { PlanPiece, Series, SeriesLine } from '@jam-ledger/contract';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { expose } from 'comlink';
import { effectScope, nextTick, ref, shallowRef, type EffectScope } from 'vue';
import type { PlanConsidered, PlanJob } from '../src/pieces/plan.worker.ts';
import { usePlanLessons } from '../src/pieces/usePlanLessons.ts';
import { usePlanner } from '../src/pieces/usePlanner.ts';
import { useNotices, useSession } from '../src/session/index.ts';
import { meAs, openStudio, partOf, settle } from './studio.ts';

const NOTHING: PlanConsidered = { needs: new Map(), replanned: { order: [], changes: [] }, planned: undefined };
const job = (minutes: number): PlanJob => ({
  ...{ pieces: [], names: [], states: [], given: new Set(), lessons: [], today: '2026-03-14', minutes },
});

/** A plan that takes as long as a test lets it: each job is answered by hand, and can tell how far it is. */
interface Job {
  readonly minutes: number;
  readonly tell: (done: number, of: number) => void;
  readonly answer: (considered?: Partial<PlanConsidered>) => void;
}
let jobs: Job[] = [];
let ended = 0;
let ports: MessagePort[] = [];
const browsersWorker = globalThis.Worker;

beforeEach(() => {
  [jobs, ended, ports] = [[], 0, []];
  globalThis.Worker = class extends EventTarget {
    readonly #port: MessagePort;
    constructor() {
      super();
      const { port1, port2 } = new MessageChannel();
      ports.push(port1, port2);
      this.#port = port1;
      port1.start();
      const planner = {
        consider: ({ minutes }: PlanJob, tell: Job['tell']) =>
          new Promise<PlanConsidered>((answer) => {
            jobs.push({ minutes, tell, answer: (considered) => void answer({ ...NOTHING, ...considered }) });
          }),
        propose: (pieces: readonly PlanPiece[]) => [...pieces, partOf<PlanPiece>({ id: 'new' })],
      };
      expose(planner, port2);
    }
    postMessage(message: unknown, transfer: Transferable[]): void {
      this.#port.postMessage(message, transfer);
    }
    override addEventListener(type: string, listen: EventListener): void {
      if (type === 'message') this.#port.addEventListener(type, listen);
    }
    override removeEventListener(type: string, listen: EventListener): void {
      this.#port.removeEventListener(type, listen);
    }
    terminate(): void {
      ended += 1;
      this.#port.close();
    }
  } as unknown as typeof Worker;
});

let scope: EffectScope;
beforeEach(() => void (scope = effectScope(true)));
afterEach(() => {
  scope.stop();
  for (const port of ports) port.close();
  globalThis.Worker = browsersWorker;
});
function within<T>(use: () => T): T {
  const made = scope.run(() => ({ given: use() }));
  if (!made) throw new Error('nothing was set up');
  return made.given;
}
/** Until something holds; messages between workers take their time. */
async function until(holds: () => boolean): Promise<void> {
  for (let turn = 0; turn < 300 && !holds(); turn += 1) await new Promise((done) => setTimeout(done, 5));
  expect(holds()).toBe(true);
}

describe('what follows from a plan', () => {
  test('is asked for whenever the plan changes; only the last answer counts', async () => {
    const now = shallowRef<PlanJob | undefined>(job(30));
    const planner = within(() => usePlanner(() => now.value));
    await until(() => jobs.length === 1);
    now.value = job(45);
    await until(() => jobs.length === 2);
    jobs[1]?.answer({ replanned: { order: ['b'], changes: [] } });
    await until(() => planner.considered.value.replanned.order.length === 1);
    jobs[0]?.answer({ replanned: { order: ['a', 'c'], changes: [] } });
    await settle();
    await new Promise((done) => setTimeout(done, 30));
    expect(planner.considered.value.replanned.order).toEqual(['b']);
  });

  test('no plan asks nothing', async () => {
    within(() => usePlanner(() => undefined));
    await settle();
    expect(jobs).toEqual([]);
  });

  test('what takes long is told with how far it is, until it is done', async () => {
    const planner = within(() => usePlanner(() => job(30)));
    await until(() => jobs.length === 1);
    expect(planner.progress.value).toBeUndefined();
    await until(() => planner.progress.value !== undefined);
    expect(planner.progress.value).toEqual({ what: 'Spreading the pieces over the lessons', done: 0, of: 0 });
    jobs[0]?.tell(3, 40);
    await until(() => planner.progress.value?.done === 3);
    jobs[0]?.answer();
    await until(() => planner.progress.value === undefined);
  });

  test('a job that has taken long is ended for a newer one', async () => {
    const now = shallowRef(job(30));
    within(() => usePlanner(() => now.value));
    await until(() => jobs.length === 1);
    await new Promise((done) => setTimeout(done, 300));
    now.value = job(45);
    await until(() => jobs.length === 2);
    expect([ended, jobs[1]?.minutes]).toEqual([1, 45]);
  });

  test('stopped, it says so, and what comes of it later is not shown', async () => {
    const planner = within(() => usePlanner(() => job(30)));
    await until(() => jobs.length === 1);
    planner.stop();
    expect([planner.isStopped.value, planner.progress.value, ended]).toEqual([true, undefined, 1]);
    jobs[0]?.answer({ replanned: { order: ['late'], changes: [] } });
    await settle();
    expect(planner.considered.value.replanned.order).toEqual([]);
  });

  test('a proposal is made off the page, and none where it was stopped', async () => {
    const planner = within(() => usePlanner(() => undefined));
    const stuff = { phrases: [], targetPercent: 100, shown: [] };
    const ask = () => planner.propose([partOf<PlanPiece>({ id: 'a' })], 'front to back', { stuff, given: new Set() });
    expect((await ask())?.map(({ id }) => id)).toEqual(['a', 'new']);
    const asked = ask().catch(() => undefined);
    planner.stop();
    expect(await asked).toBeUndefined();
  });
});

describe('the lessons of a plan', () => {
  const lesson = (day: string) =>
    partOf<Series['lessons'][number]>({ day, time: '16:00', startsAt: `${day}T15:00:00Z` });
  const piece = (id: string): PlanPiece => ({
    ...{ id, kind: 'phrase', parts: [{ phraseId: id, from: 0, to: null }], startBpm: 60, targetBpm: 100 },
    ...{ floorBpm: null, difficulty: 20, fixed: false, lesson: null },
  });
  async function open() {
    const studio = openStudio({
      me: () => meAs('teacher'),
      seriesList: () => ({ total: 2, series: [partOf<SeriesLine>({ id: 's' }), partOf<SeriesLine>({ id: 't' })] }),
      series: ({ path }) =>
        partOf<Series>({
          rule: partOf<Series['rule']>({ minutes: path.endsWith('/s') ? 30 : 60 }),
          lessons: path.endsWith('/s') ? [lesson('2026-03-10'), lesson('2026-03-24')] : [lesson('2026-03-17')],
        }),
    });
    await useSession().load();
    const pieces = ref([piece('a'), piece('b')]);
    const undone: string[] = [];
    const lessons = within(() =>
      usePlanLessons({
        studentId: () => 'ines',
        plan: {
          ...{ pieces, given: shallowRef(new Set<string>()), undo: () => void undone.push('undo') },
          stateOf: () => ({
            ...{ state: 'not begun' as const, share: 0, stuck: false, reason: '' },
            version: 1,
            assignedOn: null,
          }),
          nameOf: ({ id }) => id.toUpperCase(),
          change: ({ pieces: changed }) => void (pieces.value = [...(changed ?? [])]),
        },
      }),
    );
    return { ...studio, lessons, pieces, undone };
  }

  test('those of all series that are still to come, in the order of their time', async () => {
    const { lessons } = await open();
    await lessons.loadLessons();
    expect(lessons.days.value).toEqual(['2026-03-17', '2026-03-24']);
  });

  test('are as long as the first series says, and as usual where there is none', async () => {
    const { lessons } = await open();
    await until(() => jobs.length === 1);
    await lessons.loadLessons();
    await until(() => jobs.length === 2);
    expect(jobs.map(({ minutes }) => minutes)).toEqual([45, 30]);
  });

  test('as they are planned can be accepted, all at once', async () => {
    const { lessons, pieces } = await open();
    lessons.acceptAll();
    expect(pieces.value.map((one) => one.lesson)).toEqual([null, null]);
    await until(() => jobs.length === 1);
    jobs[0]?.answer({ planned: { dayOf: new Map([['a', '2026-03-17']]), loads: [], moves: [], left: ['b'] } });
    await until(() => lessons.planned.value !== undefined);
    expect([lessons.beginOn('a'), lessons.beginOn('b')]).toEqual([expect.stringMatching(/17/), undefined]);
    lessons.acceptAll();
    expect(pieces.value.map((one) => one.lesson)).toEqual([{ day: '2026-03-17', fixed: false }, null]);
    expect(useNotices().notice?.text).toBe('The lessons are accepted.');
  });

  test('a piece is put into one by hand, and given back to the plan', async () => {
    const { lessons, pieces } = await open();
    lessons.beginIn('b', '2026-03-24');
    await nextTick();
    expect(pieces.value.map((one) => one.lesson)).toEqual([null, { day: '2026-03-24', fixed: true }]);
    lessons.beginIn('b', null);
    expect(pieces.value[1]?.lesson).toBeNull();
  });
});
