import { useElementSize, useEventListener, type MaybeComputedElementRef } from '@vueuse/core';
import { computed, ref, type ComputedRef } from 'vue';

/** What a page of A4 or Letter has between its margins, upright, pixels: the narrower of both. */
const PAPER_PIXELS = 660;

/** How wide an element is, pixels; while the page is printed, as wide as paper has room for. */
export function usePageWidth(element: MaybeComputedElementRef): ComputedRef<number> {
  const { width } = useElementSize(element);
  const isPrinting = ref(false);
  useEventListener('beforeprint', () => (isPrinting.value = true));
  useEventListener('afterprint', () => (isPrinting.value = false));
  return computed(() => (isPrinting.value ? PAPER_PIXELS : width.value));
}
