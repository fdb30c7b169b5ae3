import { workEstimateAnswer } from './standings.answers.ts';
import {
  GUITARS_MEANT,
  RENDITIONS,
  REQUEST_STATES,
  type Earliest,
  type RequestEvent,
  type RequestHours,
  type SongRequest,
  type WorkPast,
} from './requests.ts';
import { FIDELITY_SCHOOLS } from './schools.ts';
import { anyNumber, anyText, day, id, list, named, oneOf, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `RequestEvent` as it is answered. */
export const requestEventAnswer: SchemaOf<RequestEvent> = shape<RequestEvent>({
  at: anyText(),
  by: anyText(),
  state: oneOf(REQUEST_STATES),
  note: anyText(),
});

/** Checks `SongRequest` as it is answered. */
export const songRequestAnswer: SchemaOf<SongRequest> = shape<SongRequest>({
  id: id(),
  version: anyNumber(),
  state: oneOf(REQUEST_STATES),
  scope: anyText(),
  promisedFor: orNull(anyText()),
  student: named(),
  askedAt: anyText(),
  transcriptionId: orNull(id()),
  part: anyNumber(),
  history: list(requestEventAnswer),
  title: anyText(),
  whose: anyText(),
  wanted: list(anyText()),
  notWanted: list(anyText()),
  rendition: oneOf(RENDITIONS),
  guitarMeant: oneOf(GUITARS_MEANT),
  guitar: anyText(),
  wantedBy: orNull(day()),
  remarks: anyText(),
  followsId: orNull(id()),
});

/** Checks `RequestHours` as it is answered. */
export const requestHoursAnswer: SchemaOf<RequestHours> = shape<RequestHours>({
  works: list(
    shape<RequestHours['works'][number]>({
      id: id(),
      title: anyText(),
      minutesLeft: anyNumber(),
      due: orNull(anyText()),
      instalments: list(anyText()),
      state: oneOf(REQUEST_STATES),
      student: named(),
      fidelity: oneOf(FIDELITY_SCHOOLS),
      estimate: workEstimateAnswer,
      spentMinutes: anyNumber(),
    }),
  ),
  workMinutes: anyNumber(),
  running: orNull(
    shape<NonNullable<RequestHours['running']>>({
      requestId: id(),
      since: anyText(),
    }),
  ),
});

/** Checks `Earliest` as it is answered. */
export const earliestAnswer: SchemaOf<Earliest> = shape<Earliest>({
  day: orNull(day()),
});

/** Checks `WorkPast` as it is answered. */
export const workPastAnswer: SchemaOf<WorkPast> = shape<WorkPast>({
  requestId: id(),
  title: anyText(),
  student: anyText(),
  minutes: anyNumber(),
  estimate: workEstimateAnswer,
});
