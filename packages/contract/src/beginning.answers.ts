import type { Beginning } from './beginning.ts';
import { flag, shape, type SchemaOf } from './typed.ts';

/** Checks `Beginning` as it is answered. */
export const beginningAnswer: SchemaOf<Beginning> = shape<Beginning>({ open: flag(), demo: flag() });
