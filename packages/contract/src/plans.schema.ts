import { LEARNING_SCHOOLS, PIECE_KINDS, TEMPO_SCHOOLS, type LadderRules, type Excerpt } from '@jam-ledger/core/pieces';
import Joi from 'joi';
import { difficulty, tempo, tempos } from './pieces.schema.ts';
import { PLAN_LIMITS, type PlanBody, type PlanPiece } from './plans.ts';
import { day, flag, id, list, oneOf, orNull, shape, ticks, typed, version, whole, type FieldsOf } from './typed.ts';

const excerpt = shape<Excerpt>({ phraseId: id(), from: ticks(), to: orNull(ticks(1)) }, (schema) =>
  schema.custom((value: Excerpt, helpers) =>
    value.to !== null && value.to <= value.from ? helpers.error('excerpt.empty') : value,
  ),
);

/** Checks `PlanPiece`. */
export const planPieceSchema = shape<PlanPiece>({
  id: id(),
  kind: oneOf(PIECE_KINDS),
  parts: list(excerpt, { min: 1, max: PLAN_LIMITS.parts }),
  ...tempos,
  floorBpm: orNull(tempo()),
  difficulty: difficulty(),
  fixed: flag(),
  lesson: orNull(shape<NonNullable<PlanPiece['lesson']>>({ day: day(), fixed: flag() })),
});

const frame: FieldsOf<Omit<PlanBody, 'pieces'>> = {
  version: version(),
  learning: orNull(oneOf(LEARNING_SCHOOLS)),
  raising: orNull(oneOf(TEMPO_SCHOOLS)),
  targetPercent: whole(PLAN_LIMITS.targetPercent),
  rules: shape<LadderRules>({
    cleanNeeded: whole({ min: 1, max: 6 }),
    fallsAfter: whole({ min: 1, max: 6 }),
    restMinutes: whole({ min: 3, max: 15 }),
  }),
};

/** Checks `PlanBody`. */
export const planSchema = shape<PlanBody>({
  ...frame,
  pieces: list(planPieceSchema, { max: PLAN_LIMITS.pieces, unique: 'id' }),
});

/** The same but for what stands in its pieces, which may be many and are checked one by one by `planPieceSchema`. */
export const planFrameSchema = shape<PlanBody>({
  ...frame,
  pieces: typed<PlanBody['pieces']>(Joi.array().max(PLAN_LIMITS.pieces)),
});
