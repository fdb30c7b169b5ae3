import type { OpenWork, WorkEstimate } from '@jam-ledger/core/desk';
import Joi from 'joi';
import { FIDELITY_SAYS, type FidelitySchool } from './students.ts';
import { dayFromToday, line, oneOf, text, version } from './check.ts';

/** Longest texts of a request, characters; most parts in a list. */
export const REQUEST_LIMITS = {
  title: 120,
  whose: 120,
  part: 120,
  parts: 16,
  guitar: 120,
  remarks: 2000,
  scope: 400,
  reason: 400,
} as const;

/** The parts a song is usually asked for by; anything else is added in one’s own words. */
export const USUAL_PARTS = ['riff', 'rhythm', 'lead fills', 'solo', 'intro', 'outro'] as const;

/** Which playing of the song is meant. */
export const RENDITIONS = ['recorded', 'live', 'either'] as const;
/** One of the `RENDITIONS`. */
export type Rendition = (typeof RENDITIONS)[number];

/** Which guitar of the song is meant. */
export const GUITARS_MEANT = ['the only guitar', 'the first of two', 'the second of two', 'blended into one'] as const;
/** One of the `GUITARS_MEANT`. */
export type GuitarMeant = (typeof GUITARS_MEANT)[number];

/**
 * Where a request stands. Asked: on the desk. Agreed: both know the scope. In work: a transcription was begun.
 * To be checked, delivered, in practice, closed: as it goes on. Declined: said no to. Withdrawn by the student.
 */
export const REQUEST_STATES = [
  'asked',
  'agreed',
  'in work',
  'to be checked',
  'delivered',
  'in practice',
  'closed',
  'declined',
  'withdrawn',
] as const;
/** One of the `REQUEST_STATES`. */
export type RequestState = (typeof REQUEST_STATES)[number];

/** The version that is meant at first, by how close a student is taught to keep to the record. */
export const USUAL_RENDITION: Readonly<Record<FidelitySchool, Rendition>> = {
  'note for note': 'recorded',
  'as played live': 'live',
  'in the ballpark': 'either',
};

/** Who may bring a request from one state into which others; every move has a way back. */
export const REQUEST_MOVES: Readonly<
  Record<'teacher' | 'student', Readonly<Partial<Record<RequestState, readonly RequestState[]>>>>
> = {
  teacher: {
    asked: ['agreed', 'declined'],
    agreed: ['in work', 'asked', 'declined'],
    'in work': ['to be checked', 'agreed'],
    'to be checked': ['delivered', 'in work'],
    delivered: ['in practice', 'to be checked'],
    'in practice': ['closed', 'delivered'],
    closed: ['in practice'],
    declined: ['asked'],
  },
  student: { asked: ['withdrawn'], withdrawn: ['asked'] },
};

/** What a student asks for. */
export interface RequestBody {
  readonly title: string;
  readonly whose: string;
  readonly wanted: readonly string[];
  readonly notWanted: readonly string[];
  readonly rendition: Rendition;
  readonly guitarMeant: GuitarMeant;
  /** The student’s own guitar, in words: frets, tremolo arm. */
  readonly guitar: string;
  /** A day in the studio's zone, or null. */
  readonly wantedBy: string | null;
  readonly remarks: string;
  /** The request this one adds to (“part two”), or null. */
  readonly followsId: string | null;
}

const parts = () => Joi.array().items(line(REQUEST_LIMITS.part).optional()).max(REQUEST_LIMITS.parts).required();

/** The parts wanted, of the body in which a list stands. */
function wantedOf(ancestors: unknown): readonly unknown[] {
  const body: unknown = Array.isArray(ancestors) ? ancestors[0] : undefined;
  const has = typeof body === 'object' && body !== null && 'wanted' in body;
  return has && Array.isArray(body.wanted) ? body.wanted : [];
}

const fields = {
  title: line(REQUEST_LIMITS.title),
  whose: text(REQUEST_LIMITS.whose),
  wanted: parts().min(1),
  notWanted: parts().custom((out: readonly string[], helpers) => {
    const wanted = wantedOf(helpers.state.ancestors);
    const both = out.find((part) => wanted.includes(part));
    return both === undefined ? out : helpers.error('parts.both', { part: both });
  }),
  rendition: oneOf(RENDITIONS),
  guitarMeant: oneOf(GUITARS_MEANT),
  guitar: text(REQUEST_LIMITS.guitar),
  wantedBy: dayFromToday(),
  remarks: text(REQUEST_LIMITS.remarks),
  followsId: Joi.string().guid({ version: 'uuidv4' }).allow(null).required(),
};
/** Checks `RequestBody`; `context.today` keeps days in the past out, and no part is both in and out. */
export const requestSchema: Joi.ObjectSchema<RequestBody> = Joi.object<RequestBody>(fields);

/** A move of a request from one state to another, and back as its undoing. */
export interface RequestMove {
  readonly version: number;
  readonly state: RequestState;
  /** Why, where it is declined; else a word for the history, perhaps empty. */
  readonly reason: string;
  /** The scope in one sentence, where it is agreed; null leaves it as it is. */
  readonly scope: string | null;
}
/** Checks `RequestMove`. */
export const requestMoveSchema: Joi.ObjectSchema<RequestMove> = Joi.object<RequestMove>({
  version: version(),
  state: oneOf(REQUEST_STATES),
  reason: Joi.when('state', {
    is: 'declined',
    then: line(REQUEST_LIMITS.reason),
    otherwise: text(REQUEST_LIMITS.reason),
  }),
  scope: Joi.when('state', { is: 'agreed', then: line(REQUEST_LIMITS.scope), otherwise: Joi.valid(null).required() }),
});

/** One line of a request’s history. */
export interface RequestEvent {
  readonly at: string;
  readonly by: string;
  readonly state: RequestState;
  /** The reason, or the scope that was agreed. */
  readonly note: string;
}

/** A request as it stands. */
export interface SongRequest extends RequestBody {
  readonly id: string;
  readonly version: number;
  readonly state: RequestState;
  /** What was agreed, in one sentence; empty until then. */
  readonly scope: string;
  /** The day it is promised for; null where none is. */
  readonly promisedFor: string | null;
  readonly student: { readonly id: string; readonly name: string };
  readonly askedAt: string;
  readonly transcriptionId: string | null;
  /** 1, or 2 for “part two” and so on. */
  readonly part: number;
  readonly history: readonly RequestEvent[];
}

const SAID_GUITARS: Readonly<Record<GuitarMeant, string>> = {
  'the only guitar': '',
  'the first of two': ', the first of two guitars',
  'the second of two': ', the second of two guitars',
  'blended into one': ', both guitars blended into one',
};

/** Proposes the scope of a request in one sentence, for the teacher to confirm or reword. */
export function proposeScope(
  request: Pick<RequestBody, 'wanted' | 'notWanted' | 'rendition' | 'guitarMeant'>,
  fidelity: FidelitySchool = 'note for note',
): string {
  const { wanted, notWanted, rendition, guitarMeant } = request;
  const played = rendition === 'either' ? '' : rendition === 'live' ? ', as played live' : ', as recorded';
  const guitar = SAID_GUITARS[guitarMeant];
  const without = notWanted.length === 0 ? '' : `; without ${listed(notWanted)}`;
  const sentence = `${listed(wanted)}${played}${guitar}${without}.`;
  const promise = fidelity === 'note for note' ? '' : ` ${FIDELITY_SAYS[fidelity]}`;
  return sentence.charAt(0).toUpperCase() + sentence.slice(1) + promise;
}

function listed(words: readonly string[]): string {
  if (words.length < 2) return words.join('');
  return `${words.slice(0, -1).join(', ')} and ${words.at(-1) ?? ''}`;
}

/** What is done about the timer of a request: started, a sign of life given, stopped. */
export interface WorkAction {
  readonly action: 'start' | 'seen' | 'stop';
}
/** Checks `WorkAction`. */
export const workActionSchema: Joi.ObjectSchema<WorkAction> = Joi.object<WorkAction>({
  action: oneOf(['start', 'seen', 'stop']),
});

/** The day a request is promised for; null takes the promise back. */
export interface RequestPromiseBody {
  readonly version: number;
  readonly promisedFor: string | null;
}
/** Checks `RequestPromiseBody`. */
export const requestPromiseSchema: Joi.ObjectSchema<RequestPromiseBody> = Joi.object<RequestPromiseBody>({
  version: version(),
  promisedFor: dayFromToday(),
});

/** A request as it is typed, as far as its earliest day hangs on it. */
export interface EarliestQuery {
  readonly parts: number;
  readonly blended: boolean;
}
/** Checks `EarliestQuery`. */
export const earliestQuerySchema: Joi.ObjectSchema<EarliestQuery> = Joi.object<EarliestQuery>({
  parts: Joi.number().prefs({ convert: true }).integer().min(1).max(REQUEST_LIMITS.parts).required(),
  blended: Joi.boolean().prefs({ convert: true }).required(),
});

/** The earliest day for which a request could be promised today without breaking another; null where there is none. */
export interface Earliest {
  readonly day: string | null;
}

/** What is on the desk as work, the minutes there are in a week, and the timer of whoever asks. */
export interface RequestHours {
  readonly works: readonly (OpenWork & {
    readonly state: RequestState;
    readonly student: { readonly id: string; readonly name: string };
    /** How close the student is taught to keep to the record. */
    readonly fidelity: FidelitySchool;
    readonly estimate: WorkEstimate;
    readonly spentMinutes: number;
  })[];
  readonly workMinutes: number;
  readonly running: { readonly requestId: string; readonly since: string } | null;
}

/** What a request took, and what was estimated for it from those before it. */
export interface WorkPast {
  readonly requestId: string;
  readonly title: string;
  readonly student: string;
  readonly minutes: number;
  readonly estimate: WorkEstimate;
}
