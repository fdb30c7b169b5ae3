import { fsrs, Rating, type FSRSState, type Grade } from 'ts-fsrs';
import { isWhole, NEAR_TARGET } from '../pieces/index.ts';
import { dayAfter, daysBetween, type DatedResult } from './mastery.ts';

/** What is known of how well a piece is remembered. */
export interface Memory {
  /** The day it is to be played again, `2026-03-14`, and the day it was played last. */
  readonly day: string;
  readonly lastDay: string;
  /** Days from the last time to that day. */
  readonly intervalDays: number;
  /** Days after which it is clean with a chance of 9 in 10. */
  readonly stabilityDays: number;
}

/** When a piece that reached its target is to be played again, before it goes. */
export interface Due extends Memory {
  /** How likely it is still clean on the day asked about, 0 to 1. */
  readonly recall: number;
}

/** Played again when so likely to be clean still. Our choice: the package’s own default. */
const WANTED_RECALL = 0.9;

// The review scheduler FSRS of the package ts-fsrs, without chance and without steps within a day.
const scheduler = fsrs({ enable_fuzz: false, enable_short_term: false, request_retention: WANTED_RECALL });

/**
 * When to play a piece again, from its results near the target since it was first clean there; null before that. One result a
 * day counts, the last. Ink is graded “good”, pencil “hard” (heard by nobody else), not yet “again”. Linear.
 *
 * Source: the spaced-review scheduler FSRS as published with the package ts-fsrs 5.4; the gradings are our choice.
 */
export function dueAgain(history: readonly DatedResult[], target: number, today: string): Due | null {
  const memory = memoryOf(history, target);
  return memory && dueOn(memory, today);
}

/** How likely a piece is still clean on a day, from what is known of it. */
export function dueOn(memory: Memory, today: string): Due {
  const recall = scheduler.forgetting_curve(daysBetween(memory.lastDay, today), memory.stabilityDays);
  return { ...memory, recall };
}

function memoryOf(history: readonly DatedResult[], target: number): Memory | null {
  const near = history.filter((result) => result.bpm >= target * NEAR_TARGET && isWhole(result));
  const from = near.findIndex(({ outcome }) => outcome === 'clean');
  if (from < 0) return null;
  const byDay = new Map(near.slice(from).map((result) => [result.day, result]));
  const days = [...byDay.keys()].sort();
  const [first] = days;
  if (first === undefined) return null;
  let memory: FSRSState | null = null;
  let before = first;
  for (const day of days) {
    const result = byDay.get(day);
    if (result) memory = scheduler.next_state(memory, daysBetween(before, day), gradeOf(result));
    before = day;
  }
  if (!memory) return null;
  const intervalDays = scheduler.next_interval(memory.stability, 0);
  return { day: dayAfter(before, intervalDays), lastDay: before, intervalDays, stabilityDays: memory.stability };
}

function gradeOf({ outcome, medium }: DatedResult): Grade {
  if (outcome === 'not-yet') return Rating.Again;
  return medium === 'ink' ? Rating.Good : Rating.Hard;
}
