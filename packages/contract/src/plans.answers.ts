import { LEARNING_SCHOOLS, PIECE_KINDS, TEMPO_SCHOOLS } from '@jam-ledger/core/pieces';
import { excerptAnswer, ladderRulesAnswer } from './standings.answers.ts';
import type { Plan, PlannedLine } from './plans.ts';
import { anyNumber, anyText, day, flag, id, list, oneOf, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `PlannedLine` as it is answered. */
export const plannedLineAnswer: SchemaOf<PlannedLine> = shape<PlannedLine>({
  version: anyNumber(),
  name: anyText(),
  assignedOn: orNull(day()),
  state: oneOf(['not begun', 'building', 'at target in pencil', 'at target in ink', 'held', 'slipping']),
  share: anyNumber(),
  stuck: flag(),
  reason: anyText(),
  id: id(),
  kind: oneOf(PIECE_KINDS),
  parts: list(excerptAnswer),
  startBpm: anyNumber(),
  targetBpm: anyNumber(),
  floorBpm: orNull(anyNumber()),
  difficulty: orNull(anyNumber()),
  fixed: flag(),
  lesson: orNull(
    shape<NonNullable<PlannedLine['lesson']>>({
      day: day(),
      fixed: flag(),
    }),
  ),
});

/** Checks `Plan` as it is answered. */
export const planAnswer: SchemaOf<Plan> = shape<Plan>({
  pieces: list(plannedLineAnswer),
  version: anyNumber(),
  learning: orNull(oneOf(LEARNING_SCHOOLS)),
  raising: orNull(oneOf(TEMPO_SCHOOLS)),
  targetPercent: anyNumber(),
  rules: ladderRulesAnswer,
});
