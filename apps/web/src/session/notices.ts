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

/** How long a notice stays that only tells something, milliseconds. Our choice. */
const NOTICE_MS = 12_000;

/** Notices of things done and of trouble met. */
export const useNotices = defineStore('notices', () => {
  const notice = ref<Notice | null>(null);
  let count = 0;

  function say(text: string, undo?: Notice['undo']): void {
    count += 1;
    const id = count;
    notice.value = { id, text, ...(undo && { undo }) };
    // What can be taken back waits until it is, or is put away, or something else is said.
    if (undo) return;
    setTimeout(() => {
      if (notice.value?.id === id) notice.value = null;
    }, NOTICE_MS);
  }

  /** Says something that asks for something to be done; it stays until it is done or put away. */
  function ask(text: string, label: string, work: NonNullable<Notice['undo']>): void {
    count += 1;
    notice.value = { id: count, text, label, undo: work };
  }

  /** Does something and says in words when it fails. */
  async function tell(work: () => Promise<void> | void): Promise<void> {
    try {
      await work();
    } catch (error) {
      say(error instanceof Error ? error.message : 'Something went wrong.');
    }
  }

  async function takeBack(): Promise<void> {
    const undo = notice.value?.undo;
    notice.value = null;
    if (undo) await tell(undo);
  }

  return { notice, say, ask, tell, takeBack };
});
