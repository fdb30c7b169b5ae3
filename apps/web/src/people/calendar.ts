import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/index.ts';

/** The secret address by which one’s own calendars ask for one’s lessons. */
export const useCalendar = defineStore('calendar', () => {
  const madeAt = ref<string | null>(null);
  /** Told once, when it is made. */
  const path = ref<string>();

  async function load(): Promise<void> {
    path.value = undefined;
    madeAt.value = (await api.calendarFeed()).madeAt;
  }

  /** Makes an address; one that was there before ends. */
  async function open(): Promise<void> {
    const made = await api.openCalendarFeed();
    madeAt.value = (await api.calendarFeed()).madeAt;
    path.value = made.path;
  }

  async function close(): Promise<void> {
    await api.closeCalendarFeed();
    await load();
  }

  return { madeAt, path, load, open, close };
});
