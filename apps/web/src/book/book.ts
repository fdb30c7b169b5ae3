import { ROUTES, type Backup, type BookState, type TrailLine } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api, fileAddress, Refused, sendFile, Unreachable } from '../api/index.ts';

/** So often it is asked how far something is, milliseconds. Our choice. */
const ASK_MS = 500;

/** What a watched job came to. */
export type Ended = 'done' | 'failed' | 'stopped' | 'signed out';

/** The book as a whole: its backups, and who did what. */
export const useBook = defineStore('book', () => {
  const state = ref<BookState>();
  const trail = ref<readonly TrailLine[]>([]);
  const hasMore = ref(false);
  let watching: ReturnType<typeof setTimeout> | undefined;

  async function load(): Promise<void> {
    const [book, page] = await Promise.all([api.book(), api.trail()]);
    [state.value, trail.value, hasMore.value] = [book, page.lines, page.more];
  }

  async function showEarlier(): Promise<void> {
    const before = trail.value.at(-1)?.line;
    const page = await api.trail({ query: before === undefined ? {} : { before } });
    trail.value = [...trail.value, ...page.lines];
    hasMore.value = page.more;
  }

  /**
   * Asks how far the work on the book is until it has ended; what it came to. A restore signs everybody out, whoever watches, too; a line
   * that is cut meanwhile is asked again.
   */
  async function watch(): Promise<Ended> {
    for (;;) {
      const job = state.value?.job;
      if (!job || job.state !== 'running')
        return job?.state === undefined || job.state === 'running' ? 'done' : job.state;
      await new Promise((done) => {
        watching = setTimeout(done, ASK_MS);
      });
      try {
        state.value = await api.book();
      } catch (error) {
        if (error instanceof Refused && error.status === 401) return 'signed out';
        if (!(error instanceof Unreachable)) throw error;
      }
    }
  }

  /** Stops asking, since nobody looks any more. */
  function leave(): void {
    clearTimeout(watching);
  }

  async function makeBackup(): Promise<void> {
    state.value = await api.makeBackup();
  }

  async function restore(file: string, password: string): Promise<void> {
    state.value = await api.restore({ body: { file, password } });
  }

  async function stop(): Promise<void> {
    state.value = await api.stopJob();
  }

  async function bring(file: File): Promise<Backup> {
    const backup = await sendFile(ROUTES.bringBackup, file).catch((error: unknown) => {
      const [problem] = error instanceof Refused ? error.problems : [];
      throw problem ? new Error(problem.message) : error;
    });
    state.value = await api.book();
    return backup;
  }

  async function keep(id: string): Promise<void> {
    await api.keepFromErasing({ id });
    await load();
  }

  return { state, trail, hasMore, load, showEarlier, watch, leave, makeBackup, restore, stop, bring, keep };
});

/** Where a backup is taken from. */
export function addressOf({ file }: Backup): string {
  return fileAddress(ROUTES.takeBackup, { file });
}

const UNITS = ['bytes', 'KB', 'MB', 'GB'] as const;

/** A length in bytes as people say it: `340 KB`. Thousands, as disks are sold. */
export function sizeText(bytes: number): string {
  const power = Math.min(UNITS.length - 1, bytes < 1000 ? 0 : Math.floor(Math.log10(bytes) / 3));
  const value = bytes / 1000 ** power;
  return `${power === 0 || value >= 100 ? Math.round(value) : value.toFixed(1)} ${UNITS[power]}`;
}
