import ICAL from 'ical.js';
import { DateTime, IANAZone } from 'luxon';

/** When the lessons of a series are: by a weekly rule, with what is different about single ones. Days `2026-03-14`, times `17:30`. */
export interface LessonRule {
  readonly firstDay: string;
  readonly time: string;
  readonly minutes: number;
  /** Every so many weeks. */
  readonly everyWeeks: number;
  /** Days of the week, 1 Monday to 7 Sunday; that of the first day when empty. */
  readonly weekdays: readonly number[];
  /** So many lessons, or until a day (that day included); one of them is named. */
  readonly count: number | null;
  readonly until: string | null;
}

/** What is different about single lessons. */
export interface LessonChanges {
  /** Days without a lesson. A lesson counted by the rule is lost with them. */
  readonly skips: readonly string[];
  /** A lesson of the rule on another day or at another time. */
  readonly moves: readonly { readonly from: string; readonly day: string; readonly time: string }[];
  /** Lessons besides the rule: a make-up, or all of an irregular series. */
  readonly extras: readonly { readonly day: string; readonly time: string }[];
}

/** Days on which the studio is closed, the first and the last included. */
export interface Holiday {
  readonly from: string;
  readonly to: string;
  readonly name: string;
}

/** What is different about single lessons, and when the studio is closed; a lesson that was moved by hand stays where it is. */
export interface StudioChanges extends LessonChanges {
  readonly holidays?: readonly Holiday[];
}

/** Nothing is different. */
export const NO_CHANGES: LessonChanges = { skips: [], moves: [], extras: [] };

/** One lesson of a series. */
export interface LessonDate {
  /** By the clock on the studio’s wall. */
  readonly day: string;
  readonly time: string;
  /** The moment it begins and ends, in UTC. */
  readonly startsAt: string;
  readonly endsAt: string;
  readonly why: 'rule' | 'moved' | 'extra';
}

/** What is wrong with a rule, at its field, in words. */
export interface RuleProblem {
  readonly field: keyof LessonRule | 'zone' | 'moves' | 'skips' | 'extras' | 'holidays';
  readonly message: string;
}

/** Most lessons of a series. Our choice: four years of weekly ones. */
export const MAX_LESSONS = 208;

/** Shortest and longest lesson, minutes. Our choice. */
export const LESSON_MINUTES = { min: 10, max: 240 } as const;

const TIME = /^([01]\d|2[0-3]):[0-5]\d$/;

/** What is wrong with a rule and its changes; nothing where dates can be made of it. */
export function checkRule(rule: LessonRule, changes: StudioChanges, zone: string): readonly RuleProblem[] {
  const { firstDay, time, minutes, everyWeeks, weekdays, count, until } = rule;
  const problems: RuleProblem[] = [];
  const wrong = (field: RuleProblem['field'], message: string) => problems.push({ field, message });
  if (!IANAZone.isValidZone(zone)) wrong('zone', `There is no time zone “${zone}”.`);
  if (!isDay(firstDay)) wrong('firstDay', 'This is not a day of the calendar.');
  if (!TIME.test(time)) wrong('time', 'This is not a time such as 17:30.');
  const { min, max } = LESSON_MINUTES;
  if (!Number.isInteger(minutes) || minutes < min || minutes > max)
    wrong('minutes', `A lesson takes ${min} to ${max} minutes.`);
  if (!Number.isInteger(everyWeeks) || everyWeeks < 1 || everyWeeks > 52) wrong('everyWeeks', 'Every 1 to 52 weeks.');
  if (weekdays.some((day) => !Number.isInteger(day) || day < 1 || day > 7))
    wrong('weekdays', 'Monday is 1, Sunday is 7.');
  if (count === null && until === null) wrong('count', 'A series ends: say how many lessons, or until which day.');
  if (count !== null && until !== null) wrong('until', 'Either so many lessons, or until a day; not both.');
  if (count !== null && (!Number.isInteger(count) || count < 0 || count > MAX_LESSONS))
    wrong('count', `A series has at most ${MAX_LESSONS} lessons.`);
  if (until !== null && !isDay(until)) wrong('until', 'This is not a day of the calendar.');
  else if (until !== null && isDay(firstDay) && until < firstDay) wrong('until', 'It ends before it begins.');
  else if (
    until !== null &&
    isDay(firstDay) &&
    weeksBetween(firstDay, until) * Math.max(1, weekdays.length) > MAX_LESSONS * everyWeeks
  )
    wrong('until', `A series has at most ${MAX_LESSONS} lessons; let it end earlier.`);
  if (changes.skips.some((day) => !isDay(day))) wrong('skips', 'A day that is skipped is not a day of the calendar.');
  problems.push(...checkHolidays(changes.holidays ?? []));
  const badMoment = (one: { readonly day: string; readonly time: string }) => !isDay(one.day) || !TIME.test(one.time);
  if (changes.moves.some((move) => badMoment(move) || !isDay(move.from)))
    wrong('moves', 'A lesson is moved to a day or time that does not exist.');
  if (changes.extras.some(badMoment))
    wrong('extras', 'A lesson besides the rule has a day or time that does not exist.');
  return problems;
}

/**
 * The lessons of a series in the order of the clock. They keep the time on the wall when clocks change; a time that a clock
 * change leaves out is as much later, one that comes twice is the first of both.
 *
 * @throws RangeError where `checkRule` finds something wrong.
 *
 * Source: recurrence as RFC 5545 §3.3.10 by the package ical.js; zones as the runtime carries the tz database, by luxon.
 */
export function lessonDates(rule: LessonRule, changes: StudioChanges, zone: string): readonly LessonDate[] {
  const [problem] = checkRule(rule, changes, zone);
  if (problem) throw new RangeError(`${problem.field}: ${problem.message}`);
  const skipped = new Set(changes.skips);
  const holidays = changes.holidays ?? [];
  const moves = new Map(changes.moves.map((move) => [move.from, move]));
  const date = (day: string, time: string, why: LessonDate['why']) =>
    dateOf({ day, time }, { why, minutes: rule.minutes, zone });
  const made = ruleDays(rule).flatMap((day): readonly LessonDate[] => {
    const move = moves.get(day);
    if (move) return [date(move.day, move.time, 'moved')];
    return skipped.has(day) || holidayOn(day, holidays) ? [] : [date(day, rule.time, 'rule')];
  });
  const extras = changes.extras.map(({ day, time }) => date(day, time, 'extra'));
  return [...made, ...extras].sort((a, b) => (a.startsAt < b.startsAt ? -1 : 1));
}

/** What is wrong with holidays; nothing where each ends no sooner than it begins. */
export function checkHolidays(holidays: readonly Holiday[]): readonly RuleProblem[] {
  const bad = holidays.find(({ from, to }) => !isDay(from) || !isDay(to) || to < from);
  return bad ? [{ field: 'holidays', message: `“${bad.name}” is no stretch of days: it ends before it begins.` }] : [];
}

/** The holiday that a day lies in. */
export function holidayOn(day: string, holidays: readonly Holiday[]): Holiday | undefined {
  return holidays.find(({ from, to }) => from <= day && day <= to);
}

/** Lessons of the rule that fall out since the studio is closed, with the holiday. @throws RangeError as `lessonDates` */
export function closedDays(
  rule: LessonRule,
  changes: StudioChanges,
  zone: string,
): readonly { readonly day: string; readonly holiday: Holiday }[] {
  const [problem] = checkRule(rule, changes, zone);
  if (problem) throw new RangeError(`${problem.field}: ${problem.message}`);
  const away = new Set([...changes.skips, ...changes.moves.map(({ from }) => from)]);
  return ruleDays(rule).flatMap((day) => {
    const holiday = away.has(day) ? undefined : holidayOn(day, changes.holidays ?? []);
    return holiday ? [{ day, holiday }] : [];
  });
}

/** The days of a rule, as it is without changes. */
export function ruleDays({ firstDay, time, everyWeeks, weekdays, count, until }: LessonRule): readonly string[] {
  if (count === 0) return [];
  const recur = new ICAL.Recur({ freq: 'WEEKLY', interval: everyWeeks, wkst: ICAL.Time.MONDAY });
  if (weekdays.length > 0)
    recur.setComponent(
      'BYDAY',
      weekdays.map((day) => WEEKDAYS[day - 1]),
    );
  if (count !== null) recur.count = count;
  // Without a zone: days and times on the wall, which is what a rule of lessons means.
  if (until !== null) recur.until = ICAL.Time.fromDateTimeString(`${until}T23:59:59`);
  const iterator = recur.iterator(ICAL.Time.fromDateTimeString(`${firstDay}T${time}:00`));
  const days: string[] = [];
  for (let next = nextOf(iterator); next && days.length < MAX_LESSONS; next = nextOf(iterator))
    days.push(next.toString().slice(0, 10));
  return days;
}

/** The next of a recurrence; null after the last, which the types of the package leave out. */
function nextOf(iterator: ReturnType<ICAL.Recur['iterator']>): ICAL.Time | null {
  return iterator.next();
}

const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;

function dateOf(
  { day, time }: { readonly day: string; readonly time: string },
  { why, minutes, zone }: { readonly why: LessonDate['why']; readonly minutes: number; readonly zone: string },
): LessonDate {
  const start = momentOf(`${day}T${time}:00Z`, IANAZone.create(zone));
  if (Number.isNaN(start.utc)) throw new RangeError(`${day} ${time} is no moment in ${zone}`);
  const wall = new Date(start.wall).toISOString();
  return {
    day: wall.slice(0, 10),
    time: wall.slice(11, 16),
    startsAt: utcText(start.utc),
    endsAt: utcText(start.utc + minutes * MINUTE_MS),
    why,
  };
}

const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;
const utcText = (moment: number) => `${new Date(moment).toISOString().slice(0, 19)}Z`;

/**
 * When a clock on the wall of a zone shows what is written, and what it then shows. Both in milliseconds since 1970, what is written
 * as if in UTC. What it shows twice is the first of both; what it never shows, since it was put forward, is as much later.
 */
function momentOf(written: string, zone: IANAZone): { readonly utc: number; readonly wall: number } {
  const shown = Date.parse(written);
  const offset = (moment: number) => zone.offset(moment) * MINUTE_MS;
  // Clocks change by less than a day, and not twice within two.
  const [before, after] = [offset(shown - DAY_MS), offset(shown + DAY_MS)];
  const utc = [before, after].map((one) => shown - one).find((one) => shown - offset(one) === one) ?? shown - before;
  return { utc, wall: utc + offset(utc) };
}

/** Lessons of which one begins before another has ended, in pairs, of whatever series. */
export function overlapsOf<Lesson extends Pick<LessonDate, 'startsAt' | 'endsAt'>>(
  lessons: readonly Lesson[],
): readonly (readonly [Lesson, Lesson])[] {
  const sorted = lessons.toSorted((a, b) => (a.startsAt < b.startsAt ? -1 : 1));
  const pairs: [Lesson, Lesson][] = [];
  for (const [index, lesson] of sorted.entries())
    for (let after = index + 1; after < sorted.length; after += 1) {
      const other = sorted[after];
      if (!other || other.startsAt >= lesson.endsAt) break;
      pairs.push([lesson, other]);
    }
  return pairs;
}

function isDay(text: string): boolean {
  return /^\d{4}-\d{2}-\d{2}$/.test(text) && DateTime.fromISO(text, { zone: 'utc' }).isValid;
}

function weeksBetween(from: string, to: string): number {
  return Math.ceil((Date.parse(to) - Date.parse(from)) / (7 * 86_400_000));
}
