import { lazyWorker } from '../sound/index.ts';
import type { Files } from './files.worker.ts';

/** The worker that writes and reads files; `endFiles` ends what it is at. */
export const { ask: askFiles, end: endFiles } = lazyWorker<Files>(
  'The file',
  () => new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module' }),
);
