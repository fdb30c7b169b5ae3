import type { Directive } from 'vue';

/** What had the keyboard before a form took it, and what it was called. */
const openers = new WeakMap<HTMLElement, { readonly opener: HTMLElement; readonly says: string }>();

/**
 * A form that opens takes the keyboard to its first field; as it closes, the keyboard goes back to what opened it, or to what
 * stands in that one’s place by then.
 *
 *     <form v-first-field>
 */
export const vFirstField: Directive<HTMLElement> = {
  created(form) {
    const opener = document.activeElement;
    if (opener instanceof HTMLElement && opener !== document.body) openers.set(form, { opener, says: saysOf(opener) });
  },
  mounted(form) {
    const first = ['[autofocus]', 'input:not([type=hidden]), textarea, [role=combobox]'].map((one) =>
      form.querySelector<HTMLElement>(one),
    );
    first.find((field) => field !== null)?.focus();
  },
  unmounted(form) {
    const before = openers.get(form);
    // Whoever put the keyboard elsewhere meanwhile is right.
    if (!before || (document.activeElement !== null && document.activeElement !== document.body)) return;
    const { opener, says } = before;
    const again = () => [...document.querySelectorAll('button')].find((one) => saysOf(one) === says);
    (opener.isConnected ? opener : again())?.focus();
  },
};

/** What an element is called, or says. */
const saysOf = (one: HTMLElement): string => one.getAttribute('aria-label') ?? one.textContent.trim();
