import { useEventListener, useResizeObserver, type MaybeComputedElementRef } from '@vueuse/core';
import { computed, ref, type ComputedRef } from 'vue';

/** What a page of A4 or Letter has between its margins, upright, pixels: the narrower of both. */
const PAPER_PIXELS = 660;

/**
 * How wide an element is, pixels; while the page is printed, as wide as paper has room for. It is 0 until the browser has laid the page out
 * for the first time: asking before would make it do so at once, and again for whatever follows.
 */
export function usePageWidth(element: MaybeComputedElementRef): ComputedRef<number> {
  const width = ref(0);
  useResizeObserver(element, ([entry]) => (width.value = entry?.contentRect.width ?? width.value));
  const isPrinting = ref(false);
  useEventListener('beforeprint', () => (isPrinting.value = true));
  useEventListener('afterprint', () => (isPrinting.value = false));
  return computed(() => (isPrinting.value ? PAPER_PIXELS : width.value));
}
