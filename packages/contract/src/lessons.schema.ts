import { HEARING_KINDS } from '@jam-ledger/core/hearing';
import { LESSON_LIMITS, type AssignedTempo, type HearingBody, type HomeQuery, type LessonNoteBody } from './lessons.ts';
import { tempo } from './pieces.schema.ts';
import { flag, id, line, list, oneOf, optional, shape, text, ticks, version } from './typed.ts';

/** Checks `LessonNoteBody`. */
export const lessonNoteSchema = shape<LessonNoteBody>({
  version: version(0),
  words: text(LESSON_LIMITS.words),
  home: text(LESSON_LIMITS.home),
  assigned: list(shape<AssignedTempo>({ pieceId: id(), name: line(LESSON_LIMITS.name), bpm: tempo() }), {
    max: LESSON_LIMITS.assigned,
    unique: 'pieceId',
  }),
  send: flag(),
});

/** Checks `HomeQuery`. */
export const homeQuerySchema = shape<HomeQuery>({ studentId: optional(id()) });

/** Checks `HearingBody`. */
export const hearingSchema = shape<HearingBody>({
  id: id(),
  at: ticks(),
  kind: oneOf(HEARING_KINDS),
  isRight: flag(),
  remark: text(LESSON_LIMITS.remark),
});
