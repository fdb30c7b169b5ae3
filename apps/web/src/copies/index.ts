export { default as CopyButton } from './CopyButton.vue';
export type { Copyable } from './copies.ts';
