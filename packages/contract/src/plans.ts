import type { LadderRules, LearningSchool, PieceKind, Excerpt, TempoSchool } from '@jam-ledger/core/pieces';
import type { MasteryState } from '@jam-ledger/core/progress';

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
