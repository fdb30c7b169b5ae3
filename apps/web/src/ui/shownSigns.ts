import { computed, shallowReactive } from 'vue';

/** A sign of a page, and what it means. */
export type SignLine = readonly [sign: string, meaning: string];

/** The legends of what is shown just now, by the part of the page that shows it; the help of a page has them together. */
export const shownLegends = shallowReactive(new Map<string, readonly SignLine[]>());

/** Every sign that is shown, once. */
export const shownSigns = computed(() => [
  ...new Map([...shownLegends.values()].flat().map((line) => [line[0], line])).values(),
]);
