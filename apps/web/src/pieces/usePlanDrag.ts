import { useEventListener } from '@vueuse/core';
import { ref } from 'vue';

/** A pointer that moves less far than this presses, and does not drag. Pixels, our choice. */
const DRAG_FROM = 5;

/**
 * Moves rows by mouse, pen or finger. A finger on a row scrolls the page, as everywhere; on the handle of the row it drags.
 *
 * @param rowAt the place in the list under a height of the window: a row’s upper half is before it, its lower half behind it
 * @param drop called with what was dragged and the place it was dropped at
 */
export function usePlanDrag(rowAt: (clientY: number) => number | undefined, drop: (id: string, to: number) => void) {
  /** Where it would be dropped now. */
  const over = ref<number>();
  let held: { readonly id: string; readonly pointer: number; readonly y: number } | undefined;

  function grab(event: PointerEvent, id: string): void {
    if (event.button === 0) held = { id, pointer: event.pointerId, y: event.clientY };
  }
  function letGo(): void {
    held = undefined;
    over.value = undefined;
  }
  useEventListener(window, 'pointermove', ({ pointerId, clientY }) => {
    if (held?.pointer !== pointerId) return;
    if (over.value === undefined && Math.abs(clientY - held.y) < DRAG_FROM) return;
    over.value = rowAt(clientY);
  });
  useEventListener(window, 'pointerup', ({ pointerId }) => {
    if (held?.pointer !== pointerId) return;
    const [{ id }, to] = [held, over.value];
    letGo();
    if (to !== undefined) drop(id, to);
  });
  // The browser took the pointer to scroll with.
  useEventListener(window, 'pointercancel', letGo);
  useEventListener(window, 'keydown', ({ key }) => {
    if (key === 'Escape') letGo();
  });
  return { over, grab };
}
