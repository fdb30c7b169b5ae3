import { COUNTED_LISTS, STRUCK_KINDS, type ListSeen, type PutBack, type StruckQuery } from './struck.ts';
import { id, oneOf, optional, shape, version } from './typed.ts';

/** Checks `StruckQuery`. */
export const struckQuerySchema = shape<StruckQuery>({ studentId: optional(id()), songId: optional(id()) });

/** Checks `PutBack`. */
export const putBackSchema = shape<PutBack>({ kind: oneOf(STRUCK_KINDS), id: id(), version: version() });

/** Checks `ListSeen`. */
export const listSeenSchema = shape<ListSeen>({ list: oneOf(COUNTED_LISTS) });
