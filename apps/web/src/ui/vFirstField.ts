import type { Directive } from 'vue';

/**
 * A form that opens takes the keyboard to its first field.
 *
 *     <form v-first-field>
 */
export const vFirstField: Directive<HTMLElement> = {
  mounted(form) {
    const first = ['[autofocus]', 'input:not([type=hidden]), textarea, [role=combobox]'].map((one) =>
      form.querySelector<HTMLElement>(one),
    );
    first.find((field) => field !== null)?.focus();
  },
};
