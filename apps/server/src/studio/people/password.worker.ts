import { parentPort } from 'node:worker_threads';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary as common } from '@zxcvbn-ts/language-common';
import { dictionary, translations } from '@zxcvbn-ts/language-en';

/** A password to be measured, and words that lie near whoever chooses it. */
export interface Measure {
  readonly id: number;
  readonly password: string;
  readonly near: readonly string[];
}

/** How well it stands up to guessing, 0 to 4 (zxcvbn’s score), and what is wrong with it, if anything. */
export interface Measured {
  readonly id: number;
  readonly score: number;
  readonly warning: string | null;
}

const estimator = new ZxcvbnFactory({
  dictionary: { ...common, ...dictionary },
  graphs: adjacencyGraphs,
  translations,
});

parentPort?.on('message', ({ id, password, near }: Measure) => {
  const { score, feedback } = estimator.check(password, [...near]);
  const measured: Measured = { id, score, warning: feedback.warning };
  parentPort?.postMessage(measured);
});
