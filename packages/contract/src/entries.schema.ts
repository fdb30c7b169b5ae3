import { ENTRIES_LIMITS, type EntriesBody, type EntriesQuery, type EntriesStruck, type OldEntry } from './entries.ts';
import { ENTRY_LIMITS, OUTCOMES } from './pieces.ts';
import { tempo } from './pieces.schema.ts';
import { day, flag, id, list, oneOf, optional, shape, text } from './typed.ts';

/** Checks `EntriesQuery`. */
export const entriesQuerySchema = shape<EntriesQuery>({ studentId: optional(id()) });

/** Checks `EntriesBody`. */
export const entriesSchema = shape<EntriesBody>({
  studentId: id(),
  entries: list(
    shape<OldEntry>({
      pieceId: id(),
      day: day(),
      bpm: tempo(),
      outcome: oneOf(OUTCOMES),
      remark: text(ENTRY_LIMITS.remark),
    }),
    { min: 1, max: ENTRIES_LIMITS.together },
  ),
});

/** Checks `EntriesStruck`. */
export const entriesStruckSchema = shape<EntriesStruck>({
  ids: list(id(), { min: 1, max: ENTRIES_LIMITS.together, unique: true }),
  struck: flag(),
});
