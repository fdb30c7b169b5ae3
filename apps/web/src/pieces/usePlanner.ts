import type { PlanPiece } from '@jam-ledger/contract';
import type { LearningSchool } from '@jam-ledger/core/pieces';
import { proxy } from 'comlink';
import { onScopeDispose, ref, shallowRef, toRaw, watch } from 'vue';
import type { PlanConsidered, PlanJob, Planner, PlanStuff } from './plan.worker.ts';
import { lazyWorker } from '../sound/index.ts';

/** What takes longer is told, and can be stopped, milliseconds. Our choice. */
const TELL_AFTER_MS = 400;
/** A job under way is ended for a newer one when it has taken so long; shorter ones are waited for. Our choice. */
const END_AFTER_MS = 250;

/** Nothing follows from an empty plan. */
const NOTHING: PlanConsidered = { needs: new Map(), replanned: { order: [], changes: [] }, planned: undefined };

/** What is under way, in words, with how much of it is done where that can be told. */
export interface PlannerProgress {
  readonly what: string;
  readonly done: number;
  readonly of: number;
}

/** What follows from a plan, computed off the page whenever it changes; told and stopped where it takes long. */
export function usePlanner(job: () => PlanJob | undefined) {
  const worker = lazyWorker<Planner>(
    'The planning',
    () => new Worker(new URL('./plan.worker.ts', import.meta.url), { type: 'module' }),
  );
  const considered = shallowRef(NOTHING);
  const progress = shallowRef<PlannerProgress>();
  /** Whether the last word on the plan was stopped, so that what is shown is of an earlier one. */
  const isStopped = ref(false);
  let begunAt: number | undefined;
  let newest = 0;

  /** Runs a job alone; undefined where it was stopped, or another came after it. */
  async function run<Answer>(
    what: string,
    ask: (tell: (done: number, of: number) => void) => Promise<Answer>,
  ): Promise<Answer | undefined> {
    if (begunAt !== undefined && performance.now() - begunAt > END_AFTER_MS) worker.end();
    newest += 1;
    const mine = newest;
    begunAt = performance.now();
    let told = { what, done: 0, of: 0 };
    const timer = setTimeout(() => (progress.value = told), TELL_AFTER_MS);
    const tell = (done: number, of: number) => {
      told = { what, done, of };
      if (mine === newest && progress.value) progress.value = told;
    };
    try {
      const answer = await ask(tell);
      return mine === newest ? answer : undefined;
    } finally {
      clearTimeout(timer);
      if (mine === newest) {
        begunAt = undefined;
        progress.value = undefined;
      }
    }
  }

  watch(
    job,
    async (now) => {
      if (!now) return;
      isStopped.value = false;
      const plain = { ...now, pieces: now.pieces.map(toRaw), lessons: now.lessons.map(toRaw) };
      const made = await run('Spreading the pieces over the lessons', (tell) =>
        worker.ask((planner) => planner.consider(plain, proxy(tell))),
      ).catch(() => undefined);
      if (made) considered.value = made;
    },
    { immediate: true },
  );

  /** The pieces that a school proposes; undefined where that was stopped. */
  function propose(
    pieces: readonly PlanPiece[],
    school: LearningSchool,
    { stuff, given }: { readonly stuff: PlanStuff; readonly given: ReadonlySet<string> },
  ) {
    const plain = {
      phrases: stuff.phrases.map(toRaw),
      targetPercent: stuff.targetPercent,
      shown: stuff.shown.map(toRaw),
    };
    return run('Cutting the song', () =>
      worker.ask((planner) => planner.propose(pieces.map(toRaw), { school, stuff: plain, given })),
    );
  }

  function stop(): void {
    newest += 1;
    begunAt = undefined;
    progress.value = undefined;
    isStopped.value = true;
    worker.end();
  }
  onScopeDispose(() => worker.end());
  return { considered, progress, isStopped, propose, stop };
}
