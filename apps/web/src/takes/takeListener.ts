import { lazyWorker } from '../sound/index.ts';
import type { TakeListener } from './takes.worker.ts';

/** Listens to takes away from the page. */
export const listener = lazyWorker<TakeListener>(
  'What listens',
  () => new Worker(new URL('./takes.worker.ts', import.meta.url), { type: 'module' }),
);
