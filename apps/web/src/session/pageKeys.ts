import { useLocalStorage } from '@vueuse/core';

/** Whether single letters, digits and signs act on the page; each device can switch them off. Source: WCAG 2.1, 2.1.4. */
export const lettersAct = useLocalStorage('jam-letters-act', true);

/** Whether a key goes into a field that is being filled in, or a list that is being chosen from by letters. */
export function isTyping({ target }: KeyboardEvent): boolean {
  return (
    target instanceof HTMLElement &&
    target.closest('input, textarea, select, [contenteditable], [role=combobox]') !== null
  );
}

/** Whether a key is meant for the page: not for a field, and not with a key that makes it a command of the browser. */
export function isForPage(event: KeyboardEvent): boolean {
  if (!lettersAct.value && event.key.length === 1) return false;
  return !event.ctrlKey && !event.metaKey && !event.altKey && !isTyping(event);
}
