import { defineStore } from 'pinia';
import { ref } from 'vue';

/** A line at the foot of the page: what was done, and how to take it back. */
export interface Notice {
  readonly id: number;
  readonly text: string;
  readonly undo?: () => Promise<void> | void;
  /** What the button says that does so; “Undo” where left out. */
  readonly label?: string;
}

/** An act that takes longer says that it is going on. */
const LONG_MS = 500;

/** Notices of things done and of trouble met. */
export const useNotices = defineStore('notices', () => {
  const notice = ref<Notice | null>(null);
  let count = 0;
  /** The notice that stood when the page was opened. */
  let seen = 0;

  /** Says something that was done; it stays until it is read: put away, followed by another, or left behind with its page. */
  function say(text: string, undo?: Notice['undo']): void {
    count += 1;
    notice.value = { id: count, text, ...(undo && { undo }) };
  }

  /** Another page is opened: what only told something there is over, unless it was said on the way. */
  function turnPage(): void {
    if (notice.value && !notice.value.undo && notice.value.id === seen) notice.value = null;
    seen = notice.value?.id ?? 0;
  }

  /** Says something that asks for something to be done; it stays until it is done or put away. */
  function ask(text: string, label: string, work: NonNullable<Notice['undo']>): void {
    count += 1;
    notice.value = { id: count, text, label, undo: work };
  }

  /** How many acts have taken long enough by now to say that they are going on. */
  const going = ref(0);

  /** Does something, tells that it is going on where it takes long, and says in words when it fails. */
  async function tell(work: () => Promise<void> | void): Promise<void> {
    let long = 0;
    const timer = setTimeout(() => {
      long = 1;
      going.value += long;
    }, LONG_MS);
    try {
      await work();
    } catch (error) {
      say(error instanceof Error ? error.message : 'Something went wrong.');
    } finally {
      clearTimeout(timer);
      going.value -= long;
    }
  }

  async function takeBack(): Promise<void> {
    const undo = notice.value?.undo;
    notice.value = null;
    if (undo) await tell(undo);
  }

  return { notice, going, say, ask, turnPage, tell, takeBack };
});
