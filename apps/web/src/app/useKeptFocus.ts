import { useEventListener, useMutationObserver } from '@vueuse/core';
import type { Ref } from 'vue';

/** What an act leaves the keyboard on: no field, so that no keyboard of a phone comes up by itself. */
const WAYS_ON = 'button:not(:disabled), a[href], [tabindex="0"]';

/** Where the keyboard was: the elements around it, the nearest first, and which of the ways on in the nearest it was. */
interface Place {
  readonly element: HTMLElement;
  readonly around: readonly HTMLElement[];
  readonly index: number;
}

/**
 * Where an act takes away what had the keyboard, as a line that is struck out takes its button, the keyboard goes to what stands
 * in its place, or else to the page: never to the top of everything.
 *
 * @param page what has the keyboard where nothing in it is left
 */
export function useKeptFocus(page: Readonly<Ref<HTMLElement | null>>): void {
  let last: Place | undefined;
  /** The last place in the page itself: dialogs go away as a whole. */
  let inPage: Place | undefined;

  useEventListener(document, 'focusin', ({ target }) => {
    if (!(target instanceof HTMLElement) || target === document.body) return;
    last = placeOf(target);
    if (page.value?.contains(target)) inPage = last;
  });

  /** Asked after everybody else who moves the keyboard as something goes. */
  function keep(): void {
    if (!last || last.element.isConnected || document.activeElement !== document.body) return;
    const to = insteadOf(last, page.value) ?? (inPage && insteadOf(inPage, page.value)) ?? page.value;
    last = undefined;
    to?.focus({ preventScroll: true });
  }
  let asked = false;
  function ask(): void {
    if (asked || !last || last.element.isConnected) return;
    asked = true;
    requestAnimationFrame(() => {
      asked = false;
      keep();
    });
  }
  useMutationObserver(() => document.body, ask, { childList: true, subtree: true });
}

function placeOf(element: HTMLElement): Place {
  const around: HTMLElement[] = [];
  for (let one = element.parentElement; one && one !== document.body; one = one.parentElement) around.push(one);
  const siblings = [...(around.find((one) => waysIn(one).length > 1) ?? document.body).querySelectorAll(WAYS_ON)];
  return { element, around, index: Math.max(0, siblings.indexOf(element)) };
}

const waysIn = (one: HTMLElement) => [...one.querySelectorAll<HTMLElement>(WAYS_ON)];

/** What stands where something was: it itself, or what is next to it in the nearest element around it that is left. */
function insteadOf({ element, around, index }: Place, page: HTMLElement | null): HTMLElement | undefined {
  if (element.isConnected) return element;
  const left = around.find((one) => one.isConnected && page?.contains(one) && waysIn(one).length > 0);
  if (!left || left === page) return undefined;
  const ways = waysIn(left);
  return ways[Math.min(index, ways.length - 1)];
}
