import { startValueOf, type PickingSchool, type Transcription } from '@jam-ledger/contract';
import { reachOfHand } from '@jam-ledger/core/fretboard';
import type { Meter, Problem } from '@jam-ledger/core/notation';
import type { PickingPolicy } from '@jam-ledger/core/picking';
import { readKey, type Tuning } from '@jam-ledger/core/pitch';
import { onScopeDispose, shallowRef, toRaw, toValue, watch, type MaybeRefOrGetter, type ShallowRef } from 'vue';
import { feelOf, lazyWorker } from '../sound/index.ts';
import type { HandJob, HandReport, Hands } from './hands.worker.ts';

/** The plan that a school stands for. */
export const POLICY_OF_SCHOOL: Readonly<Record<PickingSchool, PickingPolicy>> = {
  'the player’s choice': 'as given',
  'strict alternate': 'alternate from down',
  economy: 'economy',
  'all down': 'all down',
};

/** What hands are computed for: the text, how it is read, and for whom. */
export interface HandsFor {
  readonly text: string;
  readonly song: Transcription;
  readonly tuning: Tuning;
  readonly meter: Meter;
  readonly bpm: number;
  /** The key in force where it stands, as typed. */
  readonly key: string;
  readonly policy: PickingPolicy;
  /** Whether somebody has checked the text against what is heard. */
  readonly isTrusted: boolean;
}

/** The job of the worker for a phrase of a song: its guitar is the song’s, hand and arm are the student’s. */
export function jobOf({ text, song, tuning, meter, bpm, key, policy, isTrusted }: HandsFor): HandJob {
  const { capo, frets, scaleLengthMm, student } = song;
  const guitar = {
    tuning: toRaw(tuning),
    capo,
    frets,
    scaleLengthMm,
    reachMm: reachOfHand(student.guitar),
    names: student.schools.naming,
    tremoloArm: student.guitar.tremoloArm,
  };
  const known = [...student.played];
  return {
    ...guitar,
    text,
    meter: toRaw(meter),
    startValue: startValueOf(song.rhythm),
    bpm,
    key: readKey(key),
    known,
    policy,
    isTrusted,
    feel: feelOf(song.feel),
  };
}

/** The worker that computes hands. */
export const { ask: askHands } = lazyWorker<Hands>(
  'What is computed of hands',
  () => new Worker(new URL('./hands.worker.ts', import.meta.url), { type: 'module' }),
);

/** What the margin tells of hands, computed off the page whenever the text has settled; the last one until then. */
export function useHands(what: MaybeRefOrGetter<HandsFor>): Readonly<ShallowRef<HandReport | undefined>> {
  const report = shallowRef<HandReport>();
  let asked = 0;
  let gone = false;
  watch(
    () => toValue(what),
    async (now) => {
      asked += 1;
      const mine = asked;
      // What cannot be computed just now is computed after the next pause.
      const made = await askHands((worker) => worker.compute(jobOf(now))).catch(() => undefined);
      if (made && mine === asked && !gone) report.value = made;
    },
    { immediate: true },
  );
  onScopeDispose(() => (gone = true));
  return report;
}

/** What the reader could not read; a bend without a size is asked about once, with what hands propose for it. */
export function readerProblems(problems: readonly Problem[], report: HandReport | undefined): readonly Problem[] {
  if (!problems.some(({ code }) => code === 'bend-unsized')) return problems;
  const proposed = report?.problems.filter(({ code }) => code === 'bend-proposed').map(({ span }) => span) ?? [];
  return problems.filter(
    ({ code, span }) => code !== 'bend-unsized' || !proposed.some(({ from, to }) => from <= span.from && to >= span.to),
  );
}
