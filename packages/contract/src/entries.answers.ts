import type { EntriesBrought, EntryRow } from './entries.ts';
import { MEDIA, OUTCOMES } from './pieces.ts';
import { anyNumber, anyText, id, list, oneOf, shape, type SchemaOf } from './typed.ts';

/** Checks `EntryRow` as it is answered. */
export const entryRowAnswer: SchemaOf<EntryRow> = shape<EntryRow>({
  id: id(),
  day: anyText(),
  song: anyText(),
  section: anyText(),
  piece: anyText(),
  bpm: anyNumber(),
  outcome: oneOf(OUTCOMES),
  medium: oneOf(MEDIA),
  percent: anyNumber(),
  remark: anyText(),
  postedBy: anyText(),
});

/** Checks `EntriesBrought` as it is answered. */
export const entriesBroughtAnswer: SchemaOf<EntriesBrought> = shape<EntriesBrought>({ ids: list(id()) });
