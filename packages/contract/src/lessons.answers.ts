import { HEARING_KINDS } from '@jam-ledger/core/hearing';
import type { AssignedTempo, Hearing, HomeNote, InkedLine, LessonDay, LessonNote, LessonNoteText } from './lessons.ts';
import { ledgerPieceAnswer } from './pieces.answers.ts';
import { OUTCOMES } from './pieces.ts';
import { lessonAnswer } from './series.answers.ts';
import { anyNumber, anyText, day, flag, id, list, named, oneOf, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `Hearing` as it is answered. */
export const hearingAnswer: SchemaOf<Hearing> = shape<Hearing>({
  version: anyNumber(),
  pieceId: id(),
  id: id(),
  at: anyNumber(),
  kind: oneOf(HEARING_KINDS),
  isRight: flag(),
  remark: anyText(),
});

/** Checks `AssignedTempo` as it is answered. */
export const assignedTempoAnswer: SchemaOf<AssignedTempo> = shape<AssignedTempo>({
  pieceId: id(),
  name: anyText(),
  bpm: anyNumber(),
});

/** Checks `HomeNote` as it is answered. */
export const homeNoteAnswer: SchemaOf<HomeNote> = shape<HomeNote>({
  day: day(),
  student: named(),
  home: anyText(),
  assigned: list(assignedTempoAnswer),
  writtenBy: anyText(),
});

/** Checks `InkedLine` as it is answered. */
export const inkedLineAnswer: SchemaOf<InkedLine> = shape<InkedLine>({
  entryId: id(),
  pieceId: id(),
  bpm: anyNumber(),
  outcome: oneOf(OUTCOMES),
  percent: anyNumber(),
});

/** Checks `LessonNoteText` as it is answered. */
export const lessonNoteTextAnswer: SchemaOf<LessonNoteText> = shape<LessonNoteText>({
  words: anyText(),
  home: anyText(),
  assigned: list(assignedTempoAnswer),
  writtenBy: anyText(),
  writtenAt: anyText(),
});

/** Checks `LessonNote` as it is answered. */
export const lessonNoteAnswer: SchemaOf<LessonNote> = shape<LessonNote>({
  version: anyNumber(),
  day: day(),
  isOpen: flag(),
  before: list(lessonNoteTextAnswer),
  words: anyText(),
  home: anyText(),
  assigned: list(assignedTempoAnswer),
  writtenBy: anyText(),
  writtenAt: anyText(),
});

/** Checks `LessonDay` as it is answered. */
export const lessonDayAnswer: SchemaOf<LessonDay> = shape<LessonDay>({
  day: day(),
  lesson: orNull(lessonAnswer),
  next: orNull(lessonAnswer),
  student: named(),
  pieces: list(ledgerPieceAnswer),
  planned: list(ledgerPieceAnswer),
  inked: list(inkedLineAnswer),
  hearings: list(hearingAnswer),
  note: orNull(lessonNoteAnswer),
  last: orNull(lessonNoteAnswer),
});
