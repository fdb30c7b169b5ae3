import { useEventListener } from '@vueuse/core';
import { isForPage, isTyping, useNotices } from '../session/index.ts';
import type { usePlan } from './usePlan.ts';
import type { usePlanActions } from './usePlanActions.ts';

/** The plan without a mouse: arrows choose, with Alt they move; letters cut and give; Ctrl-Z takes back. */
export function usePlanKeys(
  { pieces, given, give, undo }: Pick<ReturnType<typeof usePlan>, 'pieces' | 'given' | 'give' | 'undo'>,
  { chosen, step, move, cut, remove }: ReturnType<typeof usePlanActions>,
): void {
  const notices = useNotices();
  useEventListener('keydown', (event) => {
    const id = chosen.value?.id;
    if ((event.ctrlKey || event.metaKey) && event.key === 'z' && !isTyping(event)) {
      event.preventDefault();
      return undo();
    }
    const at = pieces.value.findIndex((piece) => piece.id === id);
    if (event.altKey && id !== undefined && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault();
      return move(id, at + (event.key === 'ArrowUp' ? -1 : 1));
    }
    const act = isForPage(event) && id !== undefined ? KEYS[event.key]?.(id) : undefined;
    if (act) event.preventDefault();
  });
  const KEYS: Readonly<Record<string, (id: string) => true>> = {
    ArrowUp: () => (step(-1), true),
    ArrowDown: () => (step(1), true),
    g: (id) => (void notices.tell(() => give(id, !given.value.has(id))), true),
    h: (id) => (cut(id, 'halves'), true),
    d: (id) => (cut(id, 'drill'), true),
    j: (id) => (cut(id, 'join'), true),
    t: (id) => (cut(id, 'top'), true),
    Delete: (id) => (remove(id), true),
  };
}
