import { LEARNING_SCHOOLS, PIECE_KINDS, TEMPO_SCHOOLS } from '@jam-ledger/core/pieces';
import type { LadderRules, LearningSchool, PieceKind, Excerpt, TempoSchool } from '@jam-ledger/core/pieces';
import type { MasteryState } from '@jam-ledger/core/progress';
import Joi from 'joi';
import { day, id, oneOf, version } from './check.ts';
import { tempo, tempos } from './pieces.ts';

/** Most pieces of a plan, and phrases of one piece: a song of some 400 phrases, cut as any school does. Our choice. */
export const PLAN_LIMITS = { pieces: 3000, parts: 500, targetPercent: { min: 30, max: 120 } } as const;

/** A piece in the plan of a song. The id is made by the sender. */
export interface PlanPiece {
  readonly id: string;
  readonly kind: PieceKind;
  readonly parts: readonly Excerpt[];
  readonly startBpm: number;
  readonly targetBpm: number;
  /** Slower than this the phrase loses its sense; null where slower is only slower. */
  readonly floorBpm: number | null;
  /** How hard it is for this student at the target, 0 to 100; null where nobody computed it. */
  readonly difficulty: number | null;
  /** Whether the teacher put it at its place. */
  readonly fixed: boolean;
  /** The lesson in which it is to be begun, and whether the teacher chose that by hand; null where none is accepted yet. */
  readonly lesson: { readonly day: string; readonly fixed: boolean } | null;
}

/** The plan of a song, its pieces in the order they are learned. Schools are null where the student’s hold. */
export interface PlanBody {
  readonly version: number;
  readonly learning: LearningSchool | null;
  readonly raising: TempoSchool | null;
  /** Targets as a share of the song’s tempo, in hundredths. */
  readonly targetPercent: number;
  readonly rules: LadderRules;
  readonly pieces: readonly PlanPiece[];
}

const stretch = Joi.object<Excerpt>({
  phraseId: id(),
  from: Joi.number().integer().min(0).max(2_000_000_000).required(),
  to: Joi.number().integer().min(1).max(2_000_000_000).allow(null).required(),
}).custom((value: Excerpt, helpers) =>
  value.to !== null && value.to <= value.from ? helpers.error('stretch.empty') : value,
);
const planPiece = Joi.object<PlanPiece>({
  id: id(),
  kind: oneOf(PIECE_KINDS),
  parts: Joi.array().items(stretch).min(1).max(PLAN_LIMITS.parts).required(),
  ...tempos,
  floorBpm: tempo().allow(null),
  difficulty: Joi.number().min(0).max(100).allow(null).required(),
  fixed: Joi.boolean().required(),
  lesson: Joi.object({ day: day(), fixed: Joi.boolean().required() }).allow(null).required(),
});
const count = (min: number, max: number) => Joi.number().integer().min(min).max(max).required();
/** Checks `PlanBody`. */
export const planSchema: Joi.ObjectSchema<PlanBody> = Joi.object<PlanBody>({
  version: version(),
  learning: oneOf(LEARNING_SCHOOLS).allow(null),
  raising: oneOf(TEMPO_SCHOOLS).allow(null),
  targetPercent: count(PLAN_LIMITS.targetPercent.min, PLAN_LIMITS.targetPercent.max),
  rules: Joi.object<LadderRules>({
    cleanNeeded: count(1, 6),
    fallsAfter: count(1, 6),
    restMinutes: count(3, 15),
  }).required(),
  pieces: Joi.array().items(planPiece).max(PLAN_LIMITS.pieces).unique('id').required(),
});

/** The same but for what stands in its pieces, which may be many and are checked one by one by `planPieceSchema`. */
export const planFrameSchema: Joi.ObjectSchema<PlanBody> = planSchema.keys({
  pieces: Joi.array().max(PLAN_LIMITS.pieces).required(),
});
/** Checks `PlanPiece`. */
export const planPieceSchema: Joi.ObjectSchema<PlanPiece> = planPiece;

/** A planned piece as it stands. */
export interface PlannedLine extends PlanPiece {
  readonly version: number;
  readonly name: string;
  readonly assignedOn: string | null;
  readonly state: MasteryState;
  readonly share: number;
  readonly stuck: boolean;
  /** The next step in words. */
  readonly reason: string;
}

/** The plan of a song as it stands. */
export interface Plan extends Omit<PlanBody, 'pieces'> {
  readonly pieces: readonly PlannedLine[];
}

export type { LearningSchool };
