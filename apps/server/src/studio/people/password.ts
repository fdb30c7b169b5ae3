import { Worker } from 'node:worker_threads';
import type { Measure, Measured } from './password.worker.ts';
import { Invalid } from '../context/errors.ts';

/** Least score that is taken: “safely unguessable, moderate protection from offline guessing” (zxcvbn’s own words). */
const MIN_SCORE = 3;
/** So much of a password is measured, characters; what is strong this far is strong. Our choice, since time grows fast. */
const MEASURED_CHARACTERS = 40;

/**
 * Lets a password go on that stands up to guessing: measured by a library with lists of common passwords, names and words, away
 * from the thread that answers requests. @throws Invalid with what is wrong with it
 */
export async function requireStrong(password: string, near: readonly string[]): Promise<void> {
  const words = near.flatMap((word) => [word, ...word.split(/\s+/)]).filter((word) => word.length > 2);
  const { score, warning } = await measure(password.slice(0, MEASURED_CHARACTERS), words);
  if (score >= MIN_SCORE) return;
  const why = warning ?? 'This is too easy to guess.';
  throw new Invalid([
    { field: 'password', message: `${why} Take something longer, such as a few words that do not belong together.` },
  ]);
}

const BUILT = '../../../dist/studio/people/password.worker.js';

let worker: Worker | undefined;
let measured = 0;
const waiting = new Map<number, { done: (answer: Measured) => void; fail: (error: Error) => void }>();

function measure(password: string, near: readonly string[]): Promise<Measured> {
  worker ??= startWorker();
  worker.ref();
  const question: Measure = { id: (measured += 1), password, near };
  return new Promise((done, fail) => {
    waiting.set(question.id, { done, fail });
    worker?.postMessage(question);
  });
}

function startWorker(): Worker {
  // Node reads no TypeScript in a worker, so that also what runs from its sources takes the one that was built.
  const isSource = import.meta.url.endsWith('.ts');
  const started = new Worker(new URL(isSource ? BUILT : './password.worker.js', import.meta.url));
  started.on('message', (answer: Measured) => {
    waiting.get(answer.id)?.done(answer);
    waiting.delete(answer.id);
    if (waiting.size === 0) started.unref();
  });
  started.on('error', (error) => {
    for (const { fail } of waiting.values()) fail(error);
    waiting.clear();
    worker = undefined;
  });
  return started;
}
