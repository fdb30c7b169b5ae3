export { makeVariant, VARIANT_KINDS } from './makeVariant.ts';
export type { Variant, VariantKind, VariantOptions } from './makeVariant.ts';
