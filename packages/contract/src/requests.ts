import Joi from 'joi';
import { dayFromToday, text, line, version } from './check.ts';

/** Longest texts of a request, characters. */
export const REQUEST_LIMITS = { title: 120, whose: 120, parts: 500, remarks: 2000 } as const;

/** Asked: on the desk. Accepted: a transcription was begun. Declined: said no to. Withdrawn by the student. */
export const REQUEST_STATES = ['asked', 'accepted', 'declined', 'withdrawn'] as const;
/** One of the `REQUEST_STATES`. */
export type RequestState = (typeof REQUEST_STATES)[number];

/** What a student asks for. */
export interface RequestBody {
  readonly title: string;
  readonly whose: string;
  readonly partsWanted: string;
  readonly partsNotWanted: string;
  /** A day in the studio's zone, or null. */
  readonly wantedBy: string | null;
  readonly remarks: string;
}

const fields = {
  title: line(REQUEST_LIMITS.title),
  whose: text(REQUEST_LIMITS.whose),
  partsWanted: line(REQUEST_LIMITS.parts),
  partsNotWanted: text(REQUEST_LIMITS.parts),
  wantedBy: dayFromToday(),
  remarks: text(REQUEST_LIMITS.remarks),
};
/** Checks `RequestBody`; `context.today` keeps days in the past out. */
export const requestSchema: Joi.ObjectSchema<RequestBody> = Joi.object<RequestBody, true>(fields);

/** A move of a request from one state to another, and back as its undoing. */
export interface RequestMove {
  readonly version: number;
  readonly state: RequestState;
}
/** Checks `RequestMove`. */
export const requestMoveSchema: Joi.ObjectSchema<RequestMove> = Joi.object<RequestMove, true>({
  version: version(),
  state: Joi.string()
    .valid(...REQUEST_STATES)
    .required(),
});

/** A request as it stands. */
export interface SongRequest extends RequestBody {
  readonly id: string;
  readonly version: number;
  readonly state: RequestState;
  readonly student: { readonly id: string; readonly name: string };
  readonly askedAt: string;
  readonly transcriptionId: string | null;
}
