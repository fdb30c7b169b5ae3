import { defineStore } from 'pinia';
import { onScopeDispose, ref, shallowRef, watchEffect } from 'vue';
import { Refused } from '../api/index.ts';

/** Why a page could not be opened. */
export interface PageTrouble {
  readonly why: string;
  /** Whether there is nothing to be opened, so that trying again would not help. */
  readonly isGone: boolean;
  readonly again: () => Promise<void>;
}

/** A page that takes longer than this to open says so, milliseconds. Our choice. */
const SLOW_MS = 400;
const NO_ADDRESS: readonly number[] = [400, 422];
const GONE: readonly number[] = [...NO_ADDRESS, 403, 404];

/** The page that is open: what it is about, and whether it could be opened at all. */
export const usePage = defineStore('page', () => {
  /** What it is about, for the title of the window: a song, a piece, a student. Empty where its name says enough. */
  const about = ref('');
  const trouble = shallowRef<PageTrouble>();
  const isOpening = ref(false);
  const isSlow = ref(false);
  let turn = 0;
  let slow: ReturnType<typeof setTimeout> | undefined;

  /** Another page is opened. */
  function begin(): void {
    turn += 1;
    clearTimeout(slow);
    [about.value, trouble.value, isOpening.value, isSlow.value] = ['', undefined, false, false];
  }

  /** Fetches what a page shows; what fails is told in its place, with a way on. */
  async function open(work: () => Promise<unknown>): Promise<void> {
    turn += 1;
    const mine = turn;
    isOpening.value = true;
    clearTimeout(slow);
    slow = setTimeout(() => (isSlow.value = turn === mine), SLOW_MS);
    try {
      await work();
      if (turn === mine) trouble.value = undefined;
    } catch (error) {
      if (turn !== mine) return;
      const isGone = error instanceof Refused && GONE.includes(error.status);
      trouble.value = { why: isGone ? sayGone(error) : sayError(error), isGone, again: () => open(work) };
    } finally {
      if (turn === mine) {
        clearTimeout(slow);
        [isOpening.value, isSlow.value] = [false, false];
      }
    }
  }

  return { about, trouble, isOpening, isSlow, begin, open };
});

/** An address that says something no thing is called has a sentence of its own; the server speaks of what is sent. */
function sayGone({ status, message }: Refused): string {
  return NO_ADDRESS.includes(status) ? 'No song, piece or person has such an address.' : message;
}

function sayError(error: unknown): string {
  return error instanceof Error ? error.message : 'Something went wrong.';
}

/** Says what a page is about as long as it is open. */
export function usePageAbout(name: () => string | undefined): void {
  const page = usePage();
  watchEffect(() => (page.about = name() ?? ''));
  onScopeDispose(() => (page.about = ''));
}
