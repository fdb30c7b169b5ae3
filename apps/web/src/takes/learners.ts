import type { Learner } from '@jam-ledger/core/listen';

/** Somebody of the practice room, who can be asked to play. */
export interface RoomLearner {
  readonly name: string;
  readonly learner: Omit<Learner, 'seed'>;
}

/** The learners of the practice room, from a steady one to one with everything to learn. Invented for trying things out. */
export const LEARNERS: readonly RoomLearner[] = [
  { name: 'A steady player', learner: { noiseDb: 40 } },
  { name: 'One who is slow and misses notes', learner: { tempo: 0.85, noiseDb: 30, slips: { missed: 14, wrong: 10 } } },
  { name: 'One who rushes', learner: { rushing: 0.06, noiseDb: 30, unsteadySeconds: 0.02, slips: { early: 16 } } },
  { name: 'One whose bends fall short', learner: { noiseDb: 30, tuningCents: -18, slips: { 'short bend': 100 } } },
];
