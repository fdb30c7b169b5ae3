import ICAL from 'ical.js';
import { IANAZone } from 'luxon';
import { holidayOn, lessonDates, ruleDays, type Holiday, type LessonRule, type StudioChanges } from './lessonDates.ts';

/** A series as it stands in a calendar. */
export interface CalendarSeries {
  /** The same series has the same id in each file. */
  readonly id: string;
  readonly rule: LessonRule;
  readonly changes: StudioChanges;
  /** What each lesson is called. */
  readonly summary: string;
}

/** What all of a calendar shares. */
export interface CalendarOptions {
  readonly name: string;
  /** Where lessons are. */
  readonly place: string;
  /** The zone of the wall that times are read from, as the tz database names it. */
  readonly zone: string;
  /** When it is written, UTC, `2026-03-14T10:00:00Z`. */
  readonly stamp: string;
}

/**
 * Lessons as a calendar: a rule for each series, with the days that are left out, the lessons that are elsewhere, and those besides
 * the rule. Times are those on the wall of the zone, which the file describes for the years it reaches.
 *
 * @throws RangeError where a rule is none, as `lessonDates`
 *
 * Source: RFC 5545 (iCalendar), sections 3.6.1, 3.6.5, 3.8.4.4, 3.8.5; made by the package ical.js.
 */
export function writeCalendar(all: readonly CalendarSeries[], options: CalendarOptions): string {
  const calendar = new ICAL.Component(['vcalendar', [], []]);
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', '-//Jam Ledger//Lessons//EN');
  calendar.updatePropertyWithValue('x-wr-calname', options.name);
  const days = all.flatMap(({ rule, changes }) => lessonDates(rule, changes, options.zone).map(({ day }) => day));
  const years = days.map((day) => Number(day.slice(0, 4)));
  if (years.length > 0)
    calendar.addSubcomponent(zoneComponent(options.zone, { from: Math.min(...years) - 1, to: Math.max(...years) + 1 }));
  for (const series of all) for (const event of eventsOf(series, options)) calendar.addSubcomponent(event);
  return `${calendar.toString()}\r\n`;
}

function eventsOf({ id, rule, changes, summary }: CalendarSeries, options: CalendarOptions): readonly ICAL.Component[] {
  const days = ruleDays(rule);
  const moves = new Map(changes.moves.map((move) => [move.from, move]));
  const holidays = changes.holidays ?? [];
  const skipped = new Set(changes.skips);
  const isOut = (day: string) => !moves.has(day) && (skipped.has(day) || holidayOn(day, holidays) !== undefined);
  const make = (uid: string, day: string, time: string) =>
    eventAt({ uid, day, time, minutes: rule.minutes, summary }, options);
  const [first] = days;
  const events: ICAL.Component[] = [];
  if (first !== undefined && days.some((day) => !isOut(day))) {
    const event = make(`${id}@lessons`, first, rule.time);
    event.updatePropertyWithValue('rrule', recurOf(rule, days.length));
    for (const day of days.filter(isOut)) addMoment(event, 'exdate', { day, time: rule.time, zone: options.zone });
    events.push(event);
    for (const day of days) {
      const move = moves.get(day);
      if (!move) continue;
      const moved = make(`${id}@lessons`, move.day, move.time);
      addMoment(moved, 'recurrence-id', { day, time: rule.time, zone: options.zone });
      events.push(moved);
    }
  }
  changes.extras.forEach(({ day, time }) =>
    events.push(make(`${id}-${day}-${time.replace(':', '')}@lessons`, day, time)),
  );
  return events;
}

/** The rule, counted: a day that is left out is counted with it. */
function recurOf({ everyWeeks, weekdays }: LessonRule, count: number): ICAL.Recur {
  const recur = new ICAL.Recur({ freq: 'WEEKLY', interval: everyWeeks, wkst: ICAL.Time.MONDAY, count });
  if (weekdays.length > 0)
    recur.setComponent(
      'BYDAY',
      weekdays.map((day) => WEEKDAYS[day - 1]),
    );
  return recur;
}

const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;

function eventAt(
  {
    uid,
    day,
    time,
    minutes,
    summary,
  }: {
    readonly uid: string;
    readonly day: string;
    readonly time: string;
    readonly minutes: number;
    readonly summary: string;
  },
  { place, zone, stamp }: CalendarOptions,
): ICAL.Component {
  const event = new ICAL.Component('vevent');
  event.updatePropertyWithValue('uid', uid);
  event.updatePropertyWithValue('dtstamp', ICAL.Time.fromDateTimeString(stamp));
  addMoment(event, 'dtstart', { day, time, zone });
  event.updatePropertyWithValue('duration', ICAL.Duration.fromSeconds(minutes * 60));
  event.updatePropertyWithValue('summary', summary);
  if (place !== '') event.updatePropertyWithValue('location', place);
  return event;
}

function addMoment(
  event: ICAL.Component,
  name: string,
  { day, time, zone }: { readonly day: string; readonly time: string; readonly zone: string },
): void {
  const property = new ICAL.Property(name, event);
  property.setParameter('tzid', zone);
  property.setValue(ICAL.Time.fromDateTimeString(`${day}T${time}:00`));
  event.addProperty(property);
}

const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;

/** A zone described by each change of its clocks in some years. Source: RFC 5545, section 3.6.5. */
function zoneComponent(name: string, years: { readonly from: number; readonly to: number }): ICAL.Component {
  const zone = IANAZone.create(name);
  const component = new ICAL.Component('vtimezone');
  component.updatePropertyWithValue('tzid', name);
  const begin = Date.UTC(years.from, 0, 1);
  const end = Date.UTC(years.to + 1, 0, 1);
  component.addSubcomponent(
    observance('standard', { at: begin, before: zone.offset(begin), after: zone.offset(begin) }),
  );
  for (let day = begin; day < end; day += DAY_MS) {
    const [before, after] = [zone.offset(day), zone.offset(day + DAY_MS)];
    if (before === after) continue;
    let [low, high] = [day, day + DAY_MS];
    while (high - low > MINUTE_MS) {
      const middle = low + Math.floor((high - low) / 2 / MINUTE_MS) * MINUTE_MS;
      if (zone.offset(middle) === before) low = middle;
      else high = middle;
    }
    component.addSubcomponent(observance(after > before ? 'daylight' : 'standard', { at: high, before, after }));
  }
  return component;
}

/** From when on a zone is so far from UTC; offsets in minutes. */
function observance(
  kind: 'standard' | 'daylight',
  { at, before, after }: { readonly at: number; readonly before: number; readonly after: number },
): ICAL.Component {
  const component = new ICAL.Component(kind);
  const wall = new Date(at + before * MINUTE_MS).toISOString().slice(0, 19);
  component.updatePropertyWithValue('dtstart', ICAL.Time.fromDateTimeString(wall));
  component.updatePropertyWithValue('tzoffsetfrom', ICAL.UtcOffset.fromSeconds(before * 60));
  component.updatePropertyWithValue('tzoffsetto', ICAL.UtcOffset.fromSeconds(after * 60));
  return component;
}

/** Most days closed that are read of a file, and longest file, characters. Our choice. */
const MAX_CLOSED = 200;
const MAX_TEXT = 2_000_000;

/** Holidays that a calendar names, in their order, and what could not be read. */
export interface ClosedDays {
  readonly holidays: readonly Holiday[];
  readonly problems: readonly string[];
}

/**
 * The days on which a calendar has something that lasts whole days: holidays, closed weeks. What recurs is read for so many years from
 * a day on. Never throws. Source: RFC 5545, section 3.6.1: the end of whole days is not included.
 */
export function readClosedDays(
  text: string,
  { from, years }: { readonly from: string; readonly years: number },
): ClosedDays {
  if (text.length > MAX_TEXT) return { holidays: [], problems: ['The file is too long to be read.'] };
  let events: readonly ICAL.Component[];
  try {
    const parsed: unknown = ICAL.parse(text);
    events = new ICAL.Component(parsed as never).getAllSubcomponents('vevent');
  } catch {
    return { holidays: [], problems: ['This is no calendar file that can be read.'] };
  }
  const until = `${Number(from.slice(0, 4)) + years}${from.slice(4)}`;
  const problems: string[] = [];
  const found: Holiday[] = [];
  for (const component of events) {
    try {
      found.push(...holidaysOf(new ICAL.Event(component), { from, until }));
    } catch {
      problems.push('An entry without a day that can be read is left out.');
    }
    if (found.length > MAX_CLOSED) break;
  }
  if (events.length > 0 && found.length === 0 && problems.length === 0)
    problems.push('No entry of this calendar lasts whole days in the time to come.');
  if (events.length === 0) problems.push('There is no entry in this calendar.');
  const sorted = found.toSorted((a, b) => (a.from < b.from ? -1 : 1));
  return { holidays: sorted.slice(0, MAX_CLOSED), problems };
}

function holidaysOf(
  event: ICAL.Event,
  { from, until }: { readonly from: string; readonly until: string },
): readonly Holiday[] {
  if (!event.startDate.isDate) return [];
  const summary: unknown = event.component.getFirstPropertyValue('summary');
  const days = Math.max(1, Math.round(event.duration.toSeconds() / 86_400));
  const name = (typeof summary === 'string' ? summary : '').trim().slice(0, 60) || 'Closed';
  const of = (start: ICAL.Time): Holiday => {
    const end = start.clone();
    end.adjust(days - 1, 0, 0, 0);
    return { from: start.toString().slice(0, 10), to: end.toString().slice(0, 10), name };
  };
  const isAhead = ({ from: first, to }: Holiday) => to >= from && first <= until;
  if (!event.isRecurring()) return [of(event.startDate)].filter(isAhead);
  const found: Holiday[] = [];
  const iterator = event.iterator();
  for (let count = 0; count < 1000 && found.length <= MAX_CLOSED; count += 1) {
    const next = iterator.next() as ICAL.Time | null;
    if (!next) break;
    const holiday = of(next);
    if (holiday.from > until) break;
    if (isAhead(holiday)) found.push(holiday);
  }
  return found;
}
