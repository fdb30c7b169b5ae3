import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { useSession } from '../session/index.ts';

/** A step of the guided start: what to do in the real page, and how it is seen to be done. */
export interface GuideStep {
  readonly says: string;
  /** The page on which it is done, by the name of its route; the step before leads there. */
  readonly on: string;
  /** Done when this page is opened, */
  readonly opens?: string;
  /** or a button is pressed that is called so, */
  readonly presses?: RegExp;
  /** or something is typed into the text of a phrase. */
  readonly types?: boolean;
}

const TEACHER: readonly GuideStep[] = [
  { on: 'desk', says: 'This is the desk: what needs you today. Open “Songs”.', opens: 'songs' },
  { on: 'songs', says: 'Each line is a transcription for one student. Open one.', opens: 'song' },
  { on: 'song', says: 'Click into the text under the tab and type a note, such as 7G. The tab follows.', types: true },
  { on: 'song', says: 'Press “Hear it”: what is written is what sounds.', presses: /^Hear it/ },
  { on: 'song', says: 'Open “Pieces” at the top: there the song is cut into practice pieces.', opens: 'pieces' },
  { on: 'pieces', says: 'Pieces have a start and a target tempo. Now open “Lesson”.', opens: 'lesson' },
  { on: 'lesson', says: 'Here results are posted in ink. Last, open “Ledger”.', opens: 'ledger' },
];
const STUDENT: readonly GuideStep[] = [
  { on: 'practice', says: 'Open a piece from the list of today.', opens: 'piece' },
  { on: 'piece', says: 'Press “Hear it” and listen to it first.', presses: /^Hear / },
  { on: 'piece', says: 'Go through it note by note: press the arrow to the right.', presses: /^One step on/ },
  {
    on: 'piece',
    says: 'Play it with the click, then say how it went: “Clean” or “Not yet”.',
    presses: /^(Clean|Not yet)$/,
  },
  { on: 'piece', says: 'Open “Ledger”: there it stands in pencil.', opens: 'ledger' },
];

/** The guided start of whoever is signed in; each device remembers where they are. */
export const useGuide = defineStore('guide', () => {
  const session = useSession();
  /** At which step somebody is, by their id; −1 for those who are through or did not want it. */
  const places = useLocalStorage<Record<string, number>>('jam-guide', {});
  const steps = computed(() => (session.isTeacher ? TEACHER : session.isStudent ? STUDENT : []));
  const place = computed(() => places.value[session.me?.id ?? '']);
  const step = computed(() => (place.value === undefined ? undefined : steps.value[place.value]));
  /** Whether it is still to be asked if it is wanted. */
  const isOffered = computed(() => session.me !== null && steps.value.length > 0 && place.value === undefined);

  function go(to: number): void {
    const { id } = session.me ?? {};
    if (id !== undefined) places.value = { ...places.value, [id]: to < steps.value.length ? to : -1 };
  }
  const begin = (): void => go(0);
  const next = (): void => go((place.value ?? 0) + 1);
  const end = (): void => go(-1);

  /** Something was done on a page: a step that waited for it is over. */
  function saw(done: { readonly opened?: unknown; readonly pressed?: string; readonly typed?: boolean }): void {
    const now = step.value;
    if (!now) return;
    const isOver =
      (now.opens !== undefined && done.opened === now.opens) ||
      (done.pressed !== undefined && now.presses?.test(done.pressed)) ||
      (now.types && done.typed);
    if (isOver) next();
  }

  return { steps, place, step, isOffered, begin, next, end, saw };
});
