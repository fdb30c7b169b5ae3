import { isWhole, NEAR_TARGET, standingOf, type Result } from '../pieces/index.ts';

/** A result with its day in the studio’s zone, `2026-03-14`. */
export interface DatedResult extends Result {
  readonly day: string;
}

/**
 * How far a piece is held. At target: clean there, in pencil or in ink. Held: clean at the target in ink, and again after
 * days away. Slipping: it was at the target, and the last time near it was not clean.
 */
export type MasteryState = 'not begun' | 'building' | 'at target in pencil' | 'at target in ink' | 'held' | 'slipping';

/** What is really held of a piece. */
export interface Mastery {
  readonly state: MasteryState;
  /** Why, in words for student and teacher. */
  readonly reason: string;
  /** The day it was held from; null where it is not, or no longer. */
  readonly heldSince: string | null;
}

/** So long a piece must rest before clean again counts, days. Our choice: longer than the memory of one sitting. */
export const DAYS_AWAY = 3;

/** Clean takes in pencil that weigh as one in ink. Our choice. */
const PENCIL_FOR_INK = 2;

/** What is really held, from the results in the order they were posted. Pencil and ink are weighed. Linear. */
export function masteryOf(history: readonly DatedResult[], target: number): Mastery {
  const { share, by } = standingOf(history, target);
  const near = history.filter((result) => result.bpm >= target * NEAR_TARGET && isWhole(result));
  const clean = near.filter(({ outcome }) => outcome === 'clean');
  const [first] = clean;
  if (history.length === 0) return { state: 'not begun', reason: 'Nothing is posted yet.', heldSince: null };
  if (!first) {
    const percent = Math.round(share * 100);
    const reason = by === null ? 'Not clean at any tempo yet.' : `Clean at ${percent} % of the target, in ${by}.`;
    return { state: 'building', reason, heldSince: null };
  }
  const last = near.at(-1);
  if (last?.outcome === 'not-yet')
    return {
      state: 'slipping',
      reason: `It was clean at ${target}, but not on ${last.day}; play it before it goes.`,
      heldSince: null,
    };
  const inked = clean.find(({ medium }) => medium === 'ink');
  if (!inked)
    return {
      state: 'at target in pencil',
      reason: `Clean at ${target} at home; the teacher has not heard it yet.`,
      heldSince: null,
    };
  const heldSince = heldFrom(clean, first.day, inked.day);
  if (heldSince === undefined)
    return {
      state: 'at target in ink',
      reason: `Clean at ${target} in a lesson; clean again after ${DAYS_AWAY} days away, and it is held.`,
      heldSince: null,
    };
  return { state: 'held', reason: `Clean at ${target} in a lesson, and again after days away; it is held.`, heldSince };
}

/** The day on which a clean take after days away, and the one in ink, are both there. */
function heldFrom(clean: readonly DatedResult[], first: string, inked: string): string | undefined {
  let weight = 0;
  for (const { day, medium } of clean) {
    if (daysBetween(first, day) < DAYS_AWAY) continue;
    weight += medium === 'ink' ? 1 : 1 / PENCIL_FOR_INK;
    if (weight >= 1) return day > inked ? day : inked;
  }
  return undefined;
}

/** Whole days from one day to another; both of the calendar, `2026-03-14`. */
export function daysBetween(from: string, to: string): number {
  return Math.round((noon(to) - noon(from)) / DAY_MS);
}

const DAY_MS = 24 * 60 * 60 * 1000;

/** Noon of a day, so that clock changes do not matter, milliseconds since 1970; NaN for what is no day. Read by hand: a history is nothing but days. */
export function noon(day: string): number {
  return Date.UTC(Number(day.slice(0, 4)), Number(day.slice(5, 7)) - 1, Number(day.slice(8, 10)), 12);
}

/** The day so many whole days after one. */
export function dayAfter(day: string, days: number): string {
  return new Date(noon(day) + days * DAY_MS).toISOString().slice(0, 10);
}
