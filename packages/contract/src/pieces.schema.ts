import { OUTCOMES, PRACTICE_TEMPO_RANGE } from '@jam-ledger/core/pieces';
import Joi from 'joi';
import {
  ENTRY_LIMITS,
  type EntryBody,
  type EarlierQuery,
  type LedgerQuery,
  type Loop,
  type PieceBody,
  type PieceChange,
  type PinBody,
  type Strike,
} from './pieces.ts';
import {
  between,
  day,
  flag,
  id,
  line,
  moment,
  oneOf,
  optional,
  orNull,
  shape,
  text,
  ticks,
  typed,
  version,
  whole,
  type SchemaOf,
} from './typed.ts';

/** A practice tempo, quarter notes a minute. */
export const tempo = (): SchemaOf<number> => whole(PRACTICE_TEMPO_RANGE);

/** Start and target, the start not above the target. */
export const tempos = {
  startBpm: tempo(),
  targetBpm: typed<number>(
    tempo().custom((value: number, helpers) => {
      const ancestors: unknown = helpers.state.ancestors;
      const body: unknown = Array.isArray(ancestors) ? ancestors[0] : undefined;
      const start = typeof body === 'object' && body !== null && 'startBpm' in body ? body.startBpm : undefined;
      return typeof start === 'number' && start > value ? helpers.error('ladder.order') : value;
    }),
  ),
} as const;

/** How hard a piece is, on the scale of difficulty; null where nobody computed it. */
export const difficulty = (): SchemaOf<number | null> => orNull(between({ min: 0, max: 100 }));

/** Checks `PieceBody`. */
export const pieceSchema = shape<PieceBody>({
  phraseId: id(),
  ...tempos,
  floorBpm: optional(orNull(tempo())),
  difficulty: optional(difficulty()),
});

/** Checks `PieceChange`. */
export const pieceChangeSchema = shape<PieceChange>({ ...tempos, version: version(), given: flag(), struck: flag() });

const loop = shape<Loop>({
  from: ticks(),
  to: typed<number>(Joi.number().integer().min(0).max(2_000_000_000).greater(Joi.ref('from'))),
});

/** Checks `EntryBody`. */
export const entrySchema = shape<EntryBody>(
  {
    id: id(),
    bpm: tempo(),
    outcome: oneOf(OUTCOMES),
    remark: text(ENTRY_LIMITS.remark),
    percent: optional(whole({ min: 1, max: 100 })),
    loop: optional(orNull(loop)),
    playedAt: optional(moment()),
    sentAt: optional(moment()),
  },
  (schema) => schema.and('playedAt', 'sentAt'),
);

/** Checks `Strike`. */
export const strikeSchema = shape<Strike>({ version: version(), struck: flag() });

/** Checks `PinBody`. */
export const pinSchema = shape<PinBody>({ id: id(), phraseId: id(), at: ticks(), text: line(ENTRY_LIMITS.pin) });

/** Checks `EarlierQuery`. */
export const earlierQuerySchema = shape<EarlierQuery>({ before: id() });

/** Checks `LedgerQuery`. */
export const ledgerQuerySchema = shape<LedgerQuery>({ studentId: optional(id()), until: optional(day()) });
