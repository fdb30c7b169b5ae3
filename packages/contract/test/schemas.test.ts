import { describe, expect, test } from '@jest/globals';
import { check, ROUTE_SCHEMAS } from '../src/schemas.ts';
import { pathsIn, put } from './paths.ts';
import { BODIES, ID, QUERIES, type WithBody, type WithQuery } from './samples.ts';

const TODAY = { today: '2026-03-14' };
const bodies = Object.keys(BODIES) as readonly WithBody[];
const queries = Object.keys(QUERIES) as readonly WithQuery[];

/** Where something is wrong with a body. */
function wrongIn(name: WithBody, body: unknown): readonly string[] {
  const checked = check<unknown>(ROUTE_SCHEMAS[name].body, body, TODAY);
  return checked.ok ? [] : checked.problems.map(({ field }) => field);
}
/** The same of a query. */
function wrongInQuery(name: WithQuery, query: unknown): readonly string[] {
  const checked = check<unknown>(ROUTE_SCHEMAS[name].query, query, TODAY);
  return checked.ok ? [] : checked.problems.map(({ field }) => field);
}

/** Fields that may be left out, and those that may be null. */
const OPTIONAL: Readonly<Record<string, readonly string[]>> = {
  addAlternate: ['name', 'text', 'reason'],
  assignPiece: ['floorBpm', 'difficulty'],
  postEntry: ['percent', 'loop', 'playedAt', 'sentAt'],
  addSection: ['passes.0.bars'],
  changeSection: ['passes.0.bars'],
  changePerson: ['email', 'role'],
};
/** Fields that belong together: without one, the whole is wrong. */
const TOGETHER: Readonly<Record<string, readonly string[]>> = {
  addAlternate: ['name', 'text', 'reason'],
  postEntry: ['playedAt', 'sentAt'],
};

describe.each(bodies)('the body of %s', (name) => {
  const sample = BODIES[name];
  const fields = pathsIn(sample).filter((path) => typeof path.at(-1) === 'string');

  test('is let through as it is', () => expect(wrongIn(name, sample)).toEqual([]));

  test.each(fields.map((path) => [path.join('.'), path] as const))('without %s is refused there', (field, path) => {
    const wrong = wrongIn(name, put(sample, path, undefined));
    if (TOGETHER[name]?.includes(field)) expect(wrong).toEqual(['body']);
    else if (OPTIONAL[name]?.includes(field)) expect(wrong).toEqual([]);
    else expect(wrong).toContain(field);
  });

  test.each(fields.map((path) => [path.join('.'), path] as const))(
    'with a thing for %s is refused there',
    (field, path) => {
      const wrong = wrongIn(name, put(sample, path, { toString: 1 }));
      expect(wrong.filter((one) => one === field || one.startsWith(`${field}.`))).not.toEqual([]);
    },
  );

  test('with a field nobody knows is refused there', () =>
    expect(wrongIn(name, { ...sample, unasked: 1 })).toEqual(['unasked']));

  test.each([null, [], 'text', 5])('that is %j is refused', (body) =>
    expect(wrongIn(name, body).length).toBeGreaterThan(name === 'addAlternate' && body === null ? -1 : 0),
  );
});

describe.each(queries)('the query of %s', (name) => {
  const sample = QUERIES[name];
  test('is let through as it is', () => expect(wrongInQuery(name, sample)).toEqual([]));
  test('with a field nobody knows is refused there', () =>
    expect(wrongInQuery(name, { ...sample, unasked: '1' })).toEqual(['unasked']));
  test.each(Object.keys(sample))('with nonsense for %s is refused there', (field) => {
    const nonsense = ['chord', 'words', 'q'].includes(field) ? 'x'.repeat(1000) : '$';
    expect(wrongInQuery(name, { ...sample, [field]: nonsense })).toEqual([field]);
  });
  test('numbers come out as numbers', () => {
    const checked = check<unknown>(ROUTE_SCHEMAS[name].query, sample, TODAY);
    const value: Readonly<Record<string, unknown>> = checked.ok ? (checked.value as Record<string, unknown>) : {};
    for (const field of ['parts', 'days', 'from', 'lowestFret', 'highestFret', 'slowest', 'fastest'])
      if (field in sample) expect(value[field]).toBe(Number(sample[field]));
  });
});

describe('what fields must be to each other', () => {
  test.each([
    ['keepPlan', ['pieces', 0, 'startBpm'], 130, 'pieces.0.targetBpm'],
    ['assignPiece', ['startBpm'], 121, 'targetBpm'],
    ['changePiece', ['startBpm'], 121, 'targetBpm'],
    ['keepPlan', ['pieces', 0, 'parts', 0, 'to'], 0, 'pieces.0.parts.0.to'],
    ['keepPlan', ['pieces', 0, 'parts', 0, 'from'], 960, 'pieces.0.parts.0'],
    ['changeSetUp', ['rig', 0, 'fromSeconds'], 30, 'rig.0.toSeconds'],
    ['postEntry', ['loop', 'from'], 960, 'loop.to'],
    ['askForSong', ['notWanted'], ['solo'], 'notWanted'],
    ['askForSong', ['wanted'], [], 'wanted'],
    ['askForSong', ['wantedBy'], '2026-03-13', 'wantedBy'],
    ['promise', ['promisedFor'], '2026-03-13', 'promisedFor'],
    ['moveRequest', ['scope'], null, 'scope'],
    ['moveRequest', ['scope'], ' ', 'scope'],
    ['moveRequest', ['state'], 'in work', 'scope'],
    ['markPhrase', ['against'], ' ', 'against'],
    ['enterPerson', ['wards'], [ID, ID], 'wards.1'],
    ['enterPerson', ['role'], 'owner', 'role'],
    ['changeSetUp', ['meter'], '4/5', 'meter'],
    ['changeSetUp', ['tuning'], 'sideways', 'tuning'],
    ['changeSetUp', ['capo'], 1.5, 'capo'],
    ['addSection', ['passes', 1, 'pass'], 'first', 'passes.1.pass'],
    ['addSection', ['jump', 'times'], 0, 'jump.times'],
    ['beginSeries', ['rule', 'weekdays'], [5, 5], 'rule.weekdays.1'],
    ['beginSeries', ['rule', 'weekdays'], [8], 'rule.weekdays.0'],
    ['beginSeries', ['rule', 'minutes'], 5, 'rule.minutes'],
    ['swapLessons', ['lessons', 1, 'seriesId'], ID, 'lessons.1'],
    ['keepLessonNote', ['assigned', 0, 'bpm'], 19, 'assigned.0.bpm'],
    ['accept', ['password'], 'short', 'password'],
    ['changeStudent', ['guitar', 'spanFrets'], 10, 'guitar.spanFrets'],
    ['changeSchools', ['picking'], 'all up', 'picking'],
    ['changeSchools', ['workMinutes'], -1, 'workMinutes'],
    ['referPhrase', ['move', 'semitones'], 37, 'move.semitones'],
  ] as const)('%s with %j of %j is wrong at %s', (name, path, value, field) =>
    expect(wrongIn(name, put(BODIES[name], path, value))).toContain(field),
  );

  test.each([
    ['markPhrase', { version: 1, status: 'draft', against: '' }],
    ['moveRequest', { version: 1, state: 'in work', reason: '', scope: null }],
    ['addAlternate', {}],
    ['assignPiece', { phraseId: ID, startBpm: 120, targetBpm: 120 }],
    ['postEntry', { id: ID.toUpperCase(), bpm: 20, outcome: 'not-yet', remark: '' }],
    ['enterPerson', { role: 'student', name: 'Pia', wards: [] }],
  ] as const)('%s may be as little as %j', (name, body) => expect(wrongIn(name, body)).toEqual([]));
});
