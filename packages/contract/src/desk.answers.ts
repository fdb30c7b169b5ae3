import { AGENDA_KINDS } from '@jam-ledger/core/series';
import {
  CALL_KINDS,
  FOUND_KINDS,
  type Desk,
  type DeskCall,
  type DeskLesson,
  type DeskNote,
  type DeskRequest,
  type Found,
} from './desk.ts';
import { REQUEST_STATES } from './requests.ts';
import { anyNumber, anyText, day, flag, id, list, named, oneOf, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `DeskLesson` as it is answered. */
export const deskLessonAnswer: SchemaOf<DeskLesson> = shape<DeskLesson>({
  opensWith: orNull(
    shape<NonNullable<DeskLesson['opensWith']>>({
      kind: oneOf(AGENDA_KINDS),
      name: anyText(),
      why: anyText(),
    }),
  ),
  id: id(),
  series: shape<DeskLesson['series']>({
    id: id(),
    title: anyText(),
  }),
  student: named(),
  day: day(),
  time: anyText(),
  minutes: anyNumber(),
  why: oneOf(['rule', 'moved', 'extra']),
  number: anyNumber(),
  of: anyNumber(),
});

/** Checks `DeskRequest` as it is answered. */
export const deskRequestAnswer: SchemaOf<DeskRequest> = shape<DeskRequest>({
  id: id(),
  title: anyText(),
  student: named(),
  state: oneOf(REQUEST_STATES),
  due: orNull(anyText()),
  isAtRisk: flag(),
  why: anyText(),
});

/** Checks `DeskCall` as it is answered. */
export const deskCallAnswer: SchemaOf<DeskCall> = shape<DeskCall>({
  piece: named(),
  section: anyText(),
  song: anyText(),
  student: named(),
  kind: oneOf(CALL_KINDS),
  why: anyText(),
});

/** Checks `DeskNote` as it is answered. */
export const deskNoteAnswer: SchemaOf<DeskNote> = shape<DeskNote>({
  id: id(),
  student: named(),
  piece: orNull(named()),
  song: anyText(),
  text: anyText(),
  at: anyText(),
});

/** Checks `Desk` as it is answered. */
export const deskAnswer: SchemaOf<Desk> = shape<Desk>({
  today: anyText(),
  lessons: list(deskLessonAnswer),
  requests: list(deskRequestAnswer),
  calls: list(deskCallAnswer),
  calling: anyNumber(),
  notes: list(deskNoteAnswer),
});

/** Checks `Found` as it is answered. */
export const foundAnswer: SchemaOf<Found> = shape<Found>({
  kind: oneOf(FOUND_KINDS),
  id: id(),
  text: anyText(),
  where: anyText(),
  studentId: orNull(id()),
  songId: orNull(id()),
});
