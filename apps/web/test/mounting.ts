import { mount, type DOMWrapper, type VueWrapper } from '@vue/test-utils';
import PrimeVue from 'primevue/config';
import type { Component, ComponentPublicInstance, Plugin } from 'vue';

/** A component in a page. */
export type Shown = VueWrapper<ComponentPublicInstance>;

/** Puts a component into a page, with plugins beside the library’s. */
export function show(
  component: Component,
  props: Readonly<Record<string, unknown>>,
  plugins: readonly Plugin[] = [],
): Shown {
  const shown: unknown = mount(component, { props, global: { plugins: [PrimeVue, ...plugins] } });
  return shown as Shown;
}

/** What is read, with single spaces. */
export function words(wrapper: { text(): string }): string {
  return wrapper.text().replace(/\s+/g, ' ').trim();
}

/** A button by what it says, or is called. @throws where there is none */
export function button(wrapper: Shown, name: string | RegExp): DOMWrapper<Element> {
  const saysOf = (one: DOMWrapper<Element>) => one.attributes('aria-label') ?? words(one);
  const found = wrapper
    .findAll('button')
    .find((one) => (typeof name === 'string' ? saysOf(one) === name : name.test(saysOf(one))));
  if (!found)
    throw new Error(`there is no button “${String(name)}” among ${wrapper.findAll('button').map(saysOf).join(', ')}`);
  return found;
}

/** What a composable gives, used as a component would. */
export function inScope<T>(use: () => T): T {
  let made: { readonly given: T } | undefined;
  mount({
    setup() {
      made = { given: use() };
      return () => null;
    },
  });
  if (!made) throw new Error('nothing was set up');
  return made.given;
}
