import type { OpenWork, WorkEstimate } from '@jam-ledger/core/desk';
import { FIDELITY_SAYS, type FidelitySchool } from './schools.ts';

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
  /** For which student a teacher writes it down; left out by students, who ask for themselves. */
  readonly studentId?: string;
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

/** A move of a request from one state to another, and back as its undoing. */
export interface RequestMove {
  readonly version: number;
  readonly state: RequestState;
  /** Why, where it is declined; else a word for the history, perhaps empty. */
  readonly reason: string;
  /** The scope in one sentence, where it is agreed; null leaves it as it is. */
  readonly scope: string | null;
}

/** One line of a request’s history. */
export interface RequestEvent {
  readonly at: string;
  readonly by: string;
  readonly state: RequestState;
  /** The reason, or the scope that was agreed. */
  readonly note: string;
}

/** A request as it stands. */
export interface SongRequest extends Omit<RequestBody, 'studentId'> {
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

/** What can be done about the timer of a request: it is started, a sign of life is given, it is stopped. */
export const WORK_ACTIONS = ['start', 'seen', 'stop'] as const;
/** One of the `WORK_ACTIONS`. */
export interface WorkAction {
  readonly action: (typeof WORK_ACTIONS)[number];
}

/** The day a request is promised for; null takes the promise back. */
export interface RequestPromiseBody {
  readonly version: number;
  readonly promisedFor: string | null;
}

/** A request as it is typed, as far as its earliest day hangs on it. */
export interface EarliestQuery {
  readonly parts: number;
  readonly blended: boolean;
}

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
