import type { NextStep } from '@jam-ledger/core/pieces';
import type { Memory, Mastery } from '@jam-ledger/core/progress';
import type { AgendaKind } from '@jam-ledger/core/series';
import type { RequestState } from './requests.ts';
import type { Lesson } from './series.ts';

/** Where a piece stands, as far as it does not change by itself from day to day; kept beside the piece. */
export interface KeptStanding {
  readonly next: NextStep;
  readonly mastery: Mastery;
  readonly memory: Memory | null;
  readonly share: number;
  readonly cleanBpm: number | null;
  readonly lastDay: string | null;
}

/** Why a piece calls for the teacher, the most urgent first. */
export const CALL_KINDS = ['stuck', 'slipping', 'wants to be heard', 'came down'] as const;
/** One of the `CALL_KINDS`. */
export type CallKind = (typeof CALL_KINDS)[number];

interface Named {
  readonly id: string;
  readonly name: string;
}

/** A lesson and what it opens with; null where nothing is given yet, or due. */
export interface DeskLesson extends Lesson {
  readonly opensWith: { readonly kind: AgendaKind; readonly name: string; readonly why: string } | null;
}

/** A request that waits for the teacher, and what the hours say of it. */
export interface DeskRequest {
  readonly id: string;
  readonly title: string;
  readonly student: Named;
  readonly state: RequestState;
  /** The day it is promised for, else wanted by. */
  readonly due: string | null;
  readonly isAtRisk: boolean;
  readonly why: string;
}

/** A piece that calls. */
export interface DeskCall {
  readonly piece: Named;
  readonly section: string;
  readonly song: string;
  readonly student: Named;
  readonly kind: CallKind;
  readonly why: string;
}

/** What a student wrote since their last lesson. */
export interface DeskNote {
  readonly id: string;
  readonly student: Named;
  readonly piece: Named | null;
  readonly song: string;
  readonly text: string;
  readonly at: string;
}

/** More pieces that call are not counted, so that counting stays short. Our choice. */
export const MAX_CALLING = 100;

/** What needs the teacher today, in the order of urgency. */
export interface Desk {
  readonly today: string;
  readonly lessons: readonly DeskLesson[];
  readonly requests: readonly DeskRequest[];
  readonly calls: readonly DeskCall[];
  /** How many pieces call, up to `MAX_CALLING`. */
  readonly calling: number;
  readonly notes: readonly DeskNote[];
}

/** Words to look for; longest, characters. */
export const SEARCH_LIMITS = { min: 2, max: 80, perKind: 8 } as const;
export interface SearchQuery {
  readonly q: string;
}

/** What can be found, in the order it is shown. */
export const FOUND_KINDS = [
  'student',
  'request',
  'song',
  'section',
  'phrase',
  'series',
  'note',
  'remark',
  'lesson',
] as const;
/** One of the `FOUND_KINDS`. */
export type FoundKind = (typeof FOUND_KINDS)[number];

/** Something found, with the ids that lead to its place. */
export interface Found {
  readonly kind: FoundKind;
  readonly id: string;
  /** What was found. */
  readonly text: string;
  /** Where it stands, in words. */
  readonly where: string;
  readonly studentId: string | null;
  readonly songId: string | null;
}
