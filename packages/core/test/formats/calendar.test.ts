import { describe, expect, test } from '@jest/globals';
import {
  lessonDates,
  NO_CHANGES,
  readClosedDays,
  writeCalendar,
  type LessonRule,
  type StudioChanges,
} from '../../src/series/index.ts';
import { printed } from './outside.ts';

const ZONE = 'Europe/Oslo';
const OPTIONS = { name: 'Lessons', place: 'The loft above the boat shed', zone: ZONE, stamp: '2026-03-14T10:00:00Z' };
const RULE: LessonRule = {
  firstDay: '2026-03-06',
  time: '17:30',
  minutes: 45,
  everyWeeks: 1,
  weekdays: [5],
  count: 40,
  until: null,
};

/** Every occurrence as python3-icalendar and dateutil read it: begin and end in UTC. */
const PYTHON = `
import sys, json, datetime
from icalendar import Calendar
from dateutil.rrule import rrulestr
import pytz
calendar = Calendar.from_ical(sys.stdin.buffer.read())
utc = pytz.utc
found, masters, overrides = [], [], {}
def moments(prop):
    out = []
    for one in (prop if isinstance(prop, list) else [prop]):
        out += [value.dt for value in one.dts]
    return out
for event in calendar.walk('VEVENT'):
    if 'RECURRENCE-ID' in event:
        overrides[(str(event['UID']), event['RECURRENCE-ID'].dt.astimezone(utc))] = event
    else:
        masters.append(event)
for event in masters:
    start, duration, uid = event['DTSTART'].dt, event['DURATION'].dt, str(event['UID'])
    if 'RRULE' not in event:
        found.append((start.astimezone(utc), duration, str(event['SUMMARY'])))
        continue
    # On the wall: the rule is read without a zone, then each is put into it.
    naive = start.replace(tzinfo=None)
    zone = pytz.timezone(str(event['DTSTART'].params['TZID']))
    out = set(one.astimezone(utc) for one in moments(event['EXDATE'])) if 'EXDATE' in event else set()
    for one in rrulestr(event['RRULE'].to_ical().decode(), dtstart=naive):
        moment = zone.localize(one).astimezone(utc)
        if moment in out:
            continue
        other = overrides.get((uid, moment))
        if other is not None:
            found.append((other['DTSTART'].dt.astimezone(utc), other['DURATION'].dt, str(other['SUMMARY'])))
        else:
            found.append((moment, duration, str(event['SUMMARY'])))
print(json.dumps(sorted([[a.strftime('%Y-%m-%dT%H:%M:%SZ'), (a + b).strftime('%Y-%m-%dT%H:%M:%SZ')] for a, b, c in found])))
`;

function readByPython(file: string): unknown {
  return JSON.parse(printed('/usr/bin/python3', ['-c', PYTHON], file));
}

function occurrences(rule: LessonRule, changes: StudioChanges): unknown {
  return lessonDates(rule, changes, ZONE)
    .map(({ startsAt, endsAt }) => [startsAt, endsAt])
    .sort();
}

// Source: python3-icalendar and python3-dateutil of Debian, with pytz for the zones.
describe('lessons as a calendar', () => {
  const holidays = [{ from: '2026-07-01', to: '2026-08-10', name: 'summer' }];
  test.each<readonly [string, LessonRule, StudioChanges]>([
    ['weekly through two clock changes', RULE, NO_CHANGES],
    [
      'left out, moved, besides the rule, closed',
      RULE,
      {
        skips: ['2026-03-13'],
        moves: [
          { from: '2026-03-27', day: '2026-03-29', time: '11:00' },
          { from: '2026-07-03', day: '2026-07-02', time: '09:15' },
        ],
        extras: [{ day: '2026-10-25', time: '12:00' }],
        holidays,
      },
    ],
    [
      'every second week on two days, until a day',
      { ...RULE, everyWeeks: 2, weekdays: [1, 4], count: null, until: '2026-12-20' },
      { ...NO_CHANGES, holidays },
    ],
    [
      'irregular ones alone',
      { ...RULE, count: 0 },
      {
        ...NO_CHANGES,
        extras: [
          { day: '2026-05-01', time: '10:00' },
          { day: '2026-11-01', time: '10:00' },
        ],
      },
    ],
    [
      'all of the rule left out',
      { ...RULE, count: 2 },
      { ...NO_CHANGES, skips: ['2026-03-06', '2026-03-13'], extras: [{ day: '2026-05-01', time: '10:00' }] },
    ],
  ])('%s', (_name, rule, changes) => {
    const file = writeCalendar([{ id: 'a', rule, changes, summary: 'Lesson' }], OPTIONS);
    expect(readByPython(file)).toEqual(occurrences(rule, changes));
  });

  test('lines are folded, texts escaped, names of nobody in it; the stamp is UTC', () => {
    const file = writeCalendar(
      [{ id: 'a', rule: RULE, changes: NO_CHANGES, summary: 'Lesson; “first, half”' }],
      OPTIONS,
    );
    // Source: RFC 5545, sections 3.1 (lines of 75 octets, ended by CRLF) and 3.3.11 (text).
    expect(file.split('\r\n').every((line) => Buffer.byteLength(line) <= 75)).toBe(true);
    expect(file).toContain('SUMMARY:Lesson\\; “first\\, half”');
    expect(file).toContain('DTSTAMP:20260314T100000Z');
    expect(writeCalendar([], OPTIONS)).toContain('BEGIN:VCALENDAR');
  });
});

describe('closed days of a calendar', () => {
  const event = (...lines: readonly string[]) =>
    [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:x',
      'BEGIN:VEVENT',
      'UID:1',
      ...lines,
      'END:VEVENT',
      'END:VCALENDAR',
    ].join('\r\n');
  const ahead = { from: '2026-03-14', years: 2 };

  test('whole days, the end not included; one day without an end; what recurs', () => {
    expect(
      readClosedDays(event('SUMMARY:Easter week', 'DTSTART;VALUE=DATE:20260330', 'DTEND;VALUE=DATE:20260407'), ahead)
        .holidays,
    ).toEqual([{ from: '2026-03-30', to: '2026-04-06', name: 'Easter week' }]);
    expect(readClosedDays(event('DTSTART;VALUE=DATE:20260501'), ahead).holidays).toEqual([
      { from: '2026-05-01', to: '2026-05-01', name: 'Closed' },
    ]);
    const yearly = readClosedDays(
      event('SUMMARY:Midsummer', 'DTSTART;VALUE=DATE:20200624', 'RRULE:FREQ=YEARLY'),
      ahead,
    );
    expect(yearly.holidays.map(({ from }) => from)).toEqual(['2026-06-24', '2027-06-24']);
  });

  test('what is no whole day, no calendar, nothing', () => {
    expect(readClosedDays(event('DTSTART:20260501T100000Z'), ahead)).toEqual({
      holidays: [],
      problems: ['No entry of this calendar lasts whole days in the time to come.'],
    });
    for (const text of ['', 'hello', 'BEGIN:VCALENDAR\nBEGIN:VEVENT', '\u0000'.repeat(50)])
      expect(readClosedDays(text, ahead).problems).toHaveLength(1);
    expect(readClosedDays(event('SUMMARY:when?'), ahead).problems).toEqual([
      'An entry without a day that can be read is left out.',
    ]);
  });
});
