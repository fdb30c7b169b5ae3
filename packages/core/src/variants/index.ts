export { makeVariant, VARIANT_KINDS } from './makeVariant.ts';
export { sayUnread } from './sayUnread.ts';
export type { Variant, VariantKind, VariantOptions } from './makeVariant.ts';
