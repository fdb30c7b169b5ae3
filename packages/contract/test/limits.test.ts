import { describe, expect, test } from '@jest/globals';
import { check, ROUTE_SCHEMAS } from '../src/schemas.ts';
import { put, type Path } from './paths.ts';
import { BODIES, ID, QUERIES, type WithBody, type WithQuery } from './samples.ts';

const TODAY = { today: '2026-03-14' };
const letters = (count: number) => 'x'.repeat(count);
const many = <T>(count: number, one: T): readonly T[] => Array.from({ length: count }, () => one);
/** So many different ids. */
const ids = (count: number) =>
  Array.from({ length: count }, (_, index) => `${String(index).padStart(8, '0')}-3b4a-4c5d-8e6f-0a1b2c3d4e5f`);

/** What is said at a field of a body that holds a value; nothing where it may be. */
function saidOf(name: WithBody, path: Path, value: unknown): string | undefined {
  const checked = check<unknown>(ROUTE_SCHEMAS[name].body, put(BODIES[name], path, value), TODAY);
  if (checked.ok) return undefined;
  const field = path.join('.');
  return checked.problems.find((problem) => problem.field === field || problem.field.startsWith(`${field}.`))?.message;
}

type Edge = readonly [name: WithBody, path: Path, last: unknown, beyond: unknown];

const LONG: readonly (readonly [WithBody, Path, number])[] = [
  ['signIn', ['name'], 64],
  ['signIn', ['password'], 200],
  ['changePassword', ['old'], 200],
  ['changePassword', ['password'], 200],
  ['accept', ['signInName'], 64],
  ['accept', ['password'], 200],
  ['changeNames', ['name'], 120],
  ['changeNames', ['signInName'], 64],
  ['changeNames', ['password'], 200],
  ['begin', ['key'], 64],
  ['begin', ['studio'], 120],
  ['begin', ['zone'], 64],
  ['begin', ['name'], 120],
  ['begin', ['signInName'], 64],
  ['begin', ['password'], 200],
  ['changeSchools', ['name'], 120],
  ['writeLick', ['name'], 80],
  ['writeLick', ['text'], 65_536],
  ['writeLick', ['key'], 24],
  ['askErasure', ['name'], 120],
  ['restore', ['password'], 200],
  ['enterPerson', ['name'], 120],
  ['changePerson', ['name'], 120],
  ['changeSchools', ['zone'], 64],
  ['changeSchools', ['holidays', 0, 'name'], 60],
  ['beginSong', ['title'], 120],
  ['beginSong', ['whose'], 120],
  ['askForSong', ['title'], 120],
  ['askForSong', ['whose'], 120],
  ['askForSong', ['wanted', 0], 120],
  ['askForSong', ['notWanted', 0], 120],
  ['askForSong', ['guitar'], 120],
  ['askForSong', ['remarks'], 2000],
  ['moveRequest', ['reason'], 400],
  ['moveRequest', ['scope'], 400],
  ['changeSetUp', ['title'], 120],
  ['changeSetUp', ['whose'], 120],
  ['changeSetUp', ['key'], 24],
  ['changeSetUp', ['secondKey'], 24],
  ['changeSetUp', ['rig', 0, 'note'], 200],
  ['addSection', ['label'], 24],
  ['addSection', ['role'], 24],
  ['addSection', ['passes', 0, 'change'], 200],
  ['addPhrase', ['name'], 80],
  ['addPhrase', ['text'], 65_536],
  ['addPhrase', ['reason'], 1000],
  ['markPhrase', ['against'], 200],
  ['postEntry', ['remark'], 500],
  ['pinNote', ['text'], 500],
  ['hear', ['remark'], 500],
  ['knowRecording', ['name'], 200],
  ['knowRecording', ['type'], 80],
  ['sendTake', ['name'], 200],
  ['sendTake', ['came'], 200],
  ['answerTake', ['answer'], 500],
  ['beginSeries', ['title'], 120],
  ['beginSeries', ['goal'], 120],
  ['beginSeries', ['instalments', 0, 'part'], 120],
  ['keepLessonNote', ['words'], 4000],
  ['keepLessonNote', ['home'], 4000],
  ['keepLessonNote', ['assigned', 0, 'name'], 300],
];

describe('texts', () => {
  test.each(LONG)('%s: %j holds %i characters, and not one more', (name, path, max) => {
    expect(saidOf(name, path, letters(max)) ?? '').not.toMatch(/too long/);
    expect(saidOf(name, path, letters(max + 1))).toBe(`This is too long: at most ${max} characters.`);
  });

  test.each([
    ['enterPerson', ['name']],
    ['askForSong', ['title']],
    ['askForSong', ['wanted', 0]],
    ['changeSetUp', ['title']],
    ['changeSetUp', ['rig', 0, 'note']],
    ['addSection', ['label']],
    ['addSection', ['passes', 0, 'change']],
    ['addPhrase', ['name']],
    ['pinNote', ['text']],
    ['beginSeries', ['title']],
  ] as const)('%s: %j must say something', (name, path) => {
    for (const empty of ['', ' ', '\t\n']) expect(saidOf(name, path, empty)).toBe('This must not be empty.');
    expect(saidOf(name, path, ' x ')).toBeUndefined();
  });

  test.each([
    ['askForSong', ['remarks']],
    ['askForSong', ['guitar']],
    ['moveRequest', ['reason']],
    ['changeSetUp', ['whose']],
    ['changeSetUp', ['secondKey']],
    ['addPhrase', ['text']],
    ['keepLessonNote', ['home']],
    ['beginSeries', ['goal']],
  ] as const)('%s: %j may be empty', (name, path) => expect(saidOf(name, path, '')).toBeUndefined());

  test('what the database cannot keep is told at its place', () => {
    const says = 'This holds a character that cannot be kept (U+0000, or half of one).';
    expect(saidOf('addPhrase', ['text'], 'a\0b')).toBe(says);
    expect(saidOf('addPhrase', ['text'], '\ud800')).toBe(says);
    expect(saidOf('askForSong', ['wanted', 0], 'so\0lo')).toBe(says);
    expect(saidOf('addPhrase', ['text'], '🎸 ü é')).toBeUndefined();
  });

  test('a password is at least ten characters', () => {
    for (const [name, path] of [
      ['accept', ['password']],
      ['begin', ['password']],
      ['changePassword', ['password']],
    ] as const) {
      expect(saidOf(name, path, letters(10))).toBeUndefined();
      expect(saidOf(name, path, letters(9))).toBe('This is too short: at least 10 characters.');
    }
  });
});

const LOWEST: readonly Edge[] = [
  ['changeSetUp', ['capo'], 0, -1],
  ['changeSetUp', ['frets'], 12, 11],
  ['changeSetUp', ['scaleLengthMm'], 300, 299.9],
  ['changeSetUp', ['offsetCents'], -100, -100.1],
  ['changeSetUp', ['songSeconds'], 1, 0.9],
  ['changeSetUp', ['rig', 0, 'fromSeconds'], 0, -0.1],
  ['changeSetUp', ['version'], 1, 0],
  ['addSection', ['startSeconds'], 0, -1],
  ['addSection', ['bars'], 1, 0],
  ['addSection', ['times'], 1, 0],
  ['addSection', ['passes', 0, 'bars'], 1, 0],
  ['changeStudent', ['guitar', 'strings'], 4, 3],
  ['changeStudent', ['guitar', 'spanFrets'], 2, 1],
  ['changeSchools', ['workMinutes'], 0, -1],
  ['assignPiece', ['startBpm'], 20, 19],
  ['assignPiece', ['difficulty'], 0, -0.1],
  ['postEntry', ['bpm'], 20, 19],
  ['postEntry', ['percent'], 1, 0],
  ['postEntry', ['loop', 'from'], 0, -1],
  ['pinNote', ['at'], 0, -1],
  ['hear', ['at'], 0, -1],
  ['keepPlan', ['targetPercent'], 30, 29],
  ['beginSeries', ['rule', 'everyWeeks'], 1, 0],
  ['beginSeries', ['rule', 'weekdays', 0], 1, 0],
  ['keepLessonNote', ['version'], 0, -1],
];
const HIGHEST: readonly Edge[] = [
  ['changeSetUp', ['capo'], 12, 13],
  ['changeSetUp', ['frets'], 36, 37],
  ['changeSetUp', ['scaleLengthMm'], 1000, 1000.1],
  ['changeSetUp', ['offsetCents'], 100, 100.1],
  ['changeSetUp', ['songSeconds'], 7200, 7200.1],
  ['changeSetUp', ['rig', 0, 'toSeconds'], 7200, 7201],
  ['addSection', ['startSeconds'], 7200, 7201],
  ['addSection', ['bars'], 999, 1000],
  ['addSection', ['times'], 99, 100],
  ['addSection', ['passes', 0, 'bars'], 999, 1000],
  ['changeStudent', ['guitar', 'strings'], 9, 10],
  ['changeStudent', ['guitar', 'spanFrets'], 9, 10],
  ['changeSchools', ['workMinutes'], 5000, 5001],
  ['assignPiece', ['difficulty'], 100, 100.1],
  ['postEntry', ['percent'], 100, 101],
  ['keepPlan', ['targetPercent'], 120, 121],
  ['beginSeries', ['rule', 'everyWeeks'], 52, 53],
  ['beginSeries', ['rule', 'weekdays', 0], 7, 8],
  ['referPhrase', ['move', 'semitones'], 36, 37],
  ['referPhrase', ['move', 'strings'], 9, 10],
  ['choosePhrase', ['version'], 2_000_000_000, 2_000_000_001],
];

describe('numbers', () => {
  test.each(LOWEST)('%s: %j may be %d, and not %d', (name, path, last, beyond) => {
    expect(saidOf(name, path, last)).toBeUndefined();
    expect(saidOf(name, path, beyond)).toBe(`This must be at least ${String(last)}.`);
  });
  test.each(HIGHEST)('%s: %j may be %d, and no more: not %d', (name, path, last, beyond) => {
    expect(saidOf(name, path, last)).toBeUndefined();
    expect(saidOf(name, path, beyond)).toBe(`This must be at most ${String(last)}.`);
  });
  test.each([
    ['changeSetUp', ['capo']],
    ['changeSetUp', ['frets']],
    ['addSection', ['bars']],
    ['assignPiece', ['startBpm']],
    ['postEntry', ['percent']],
    ['referPhrase', ['move', 'semitones']],
    ['referPhrase', ['move', 'strings']],
    ['beginSeries', ['rule', 'minutes']],
  ] as const)('%s: %j is whole', (name, path) => expect(saidOf(name, path, 30.5)).toBe('This must be a whole number.'));
  test('text is no number, and neither is what lies beyond all of them', () => {
    expect(saidOf('changeSetUp', ['capo'], '2')).toBe('This must be a number.');
    expect(saidOf('changeSetUp', ['tempo'], Infinity)).toBe('This must be a number.');
    expect(saidOf('choosePhrase', ['version'], 2 ** 60)).toBe('This number is too large.');
  });
});

describe('lists', () => {
  test.each([
    ['enterPerson', ['wards'], ids(12), ids(13), 12],
    ['askForSong', ['wanted'], many(16, 'a'), many(17, 'a'), 16],
    ['askForSong', ['notWanted'], many(16, 'a'), many(17, 'a'), 16],
    [
      'changeSchools',
      ['holidays'],
      many(60, BODIES.changeSchools.holidays[0]),
      many(61, BODIES.changeSchools.holidays[0]),
      60,
    ],
    ['changeSetUp', ['changes'], many(60, BODIES.changeSetUp.changes[0]), many(61, BODIES.changeSetUp.changes[0]), 60],
    ['changeSetUp', ['rig'], many(60, BODIES.changeSetUp.rig[0]), many(61, BODIES.changeSetUp.rig[0]), 60],
    ['addSection', ['passes'], many(99, BODIES.addSection.passes[0]), many(100, BODIES.addSection.passes[0]), 99],
    ['beginSeries', ['changes', 'skips'], many(100, '2026-03-27'), many(101, '2026-03-27'), 100],
    [
      'beginSeries',
      ['instalments'],
      many(24, BODIES.beginSeries.instalments[0]),
      many(25, BODIES.beginSeries.instalments[0]),
      24,
    ],
    [
      'keepLessonNote',
      ['assigned'],
      many(60, BODIES.keepLessonNote.assigned[0]),
      many(61, BODIES.keepLessonNote.assigned[0]),
      60,
    ],
  ] as const)('%s: %j', (name, path, last, beyond, max) => {
    expect(saidOf(name, path, last) ?? '').not.toMatch(/At most/);
    expect(saidOf(name, path, beyond)).toBe(`At most ${max} of these.`);
  });
  test('a request wants at least one part, and no part twice over', () => {
    expect(saidOf('askForSong', ['wanted'], [])).toBe('Name at least one.');
    expect(saidOf('askForSong', ['notWanted'], ['solo'])).toBe(
      'A part is either wanted or not: “solo” stands on both sides.',
    );
  });
  test('a ward and a weekday stand once', () => {
    expect(saidOf('enterPerson', ['wards'], [ID, ID])).toBe('This stands here twice.');
    expect(saidOf('beginSeries', ['rule', 'weekdays'], [5, 5])).toBe('This stands here twice.');
  });
});

describe('days, moments and ids', () => {
  test.each(['2024-02-29', '2026-12-31', '1999-01-01'])('%s is a day', (day) =>
    expect(saidOf('beginSeries', ['rule', 'firstDay'], day)).toBeUndefined(),
  );
  test.each(['2023-02-29', '2026-13-01', '2026-04-31', '2026-3-1', '14.3.2026', '2026-03-14T10:00:00Z', 'tomorrow'])(
    '%s is none',
    (day) =>
      expect(saidOf('beginSeries', ['rule', 'firstDay'], day)).toBe(
        'This is not a day of the calendar, such as 2026-03-14.',
      ),
  );
  test('what is wanted or promised is wanted from today on', () => {
    expect(saidOf('askForSong', ['wantedBy'], '2026-03-14')).toBeUndefined();
    expect(saidOf('promise', ['promisedFor'], null)).toBeUndefined();
    for (const [name, field] of [
      ['askForSong', 'wantedBy'],
      ['promise', 'promisedFor'],
    ] as const)
      expect(saidOf(name, [field], '2026-03-13')).toBe('This day has passed; choose today or later.');
  });
  test('a moment has a day and a time', () => {
    expect(saidOf('postEntry', ['playedAt'], '2026-03-14T10:00:00+01:00')).toBeUndefined();
    for (const wrong of ['at ten', '10:00'])
      expect(saidOf('postEntry', ['playedAt'], wrong)).toBe('This is not a moment such as 2026-03-14T10:00:00Z.');
  });
  test.each(['', '7', ID.slice(1), `{${ID}}`, ID.replaceAll('-', ''), ID.replace('4c5d', '1c5d')])(
    '“%s” is no id',
    (id) => expect(saidOf('assignPiece', ['phraseId'], id)).toMatch(/^This (is not a valid id|must not be empty)\.$/),
  );
  test('an id in capitals is the same id', () => {
    const checked = check<unknown>(ROUTE_SCHEMAS.assignPiece.body, {
      ...BODIES.assignPiece,
      phraseId: ID.toUpperCase(),
    });
    expect(checked).toMatchObject({ ok: true, value: { phraseId: ID } });
  });
});

describe('words', () => {
  test.each([
    ['changeSetUp', ['feel'], 'straight, swing, shuffle, counted in threes'],
    ['changeSetUp', ['pitchWay'], 'tune the guitar, shift the playback'],
    ['addPhrase', ['layer'], 'lead, rhythm, overdub, live alternative, easier'],
    ['addPhrase', ['certainty'], 'heard, seen, likely, guess, arranged, optional'],
    ['markPhrase', ['status'], 'draft, checked, proven'],
    ['askForSong', ['rendition'], 'recorded, live, either'],
    ['timeWork', ['action'], 'start, seen, stop'],
    ['postEntry', ['outcome'], 'clean, not-yet'],
    ['enterPerson', ['role'], 'teacher, student, guardian'],
  ] as const)('%s: %j is one of some words, which are said', (name, path, words) =>
    expect(saidOf(name, path, 'sideways')).toBe(`This must be one of: ${words}.`),
  );
  test.each(['4/4', '6/8', '12/8', '7/8', '5/4', '3/2'])('%s is a meter', (meter) =>
    expect(saidOf('changeSetUp', ['meter'], meter)).toBeUndefined(),
  );
  test.each(['4', '4/5', '0/4', 'four', '4/4/4'])('%s is none', (meter) =>
    expect(saidOf('changeSetUp', ['meter'], meter)).toBe('This is not a meter such as 4/4 or 6/8.'),
  );
  test.each(['', ' ', 'A minor', 'B flat', 'D harmonic minor', 'F# mixolydian', 'A blues'])('“%s” is a key', (key) => {
    for (const field of ['key', 'secondKey']) expect(saidOf('changeSetUp', [field], key)).toBeUndefined();
  });
  test.each(['H', 'A sideways', 'somewhere in G'])('%s is none', (key) =>
    expect(saidOf('changeSetUp', ['key'], key)).toMatch(/^This is no key: write it such as A minor/),
  );
  test.each(['standard', 'drop D', 'C2 G2 D3 A3 E4', 'E2 A2 D3 G3 B3 E4'])('%s is a tuning', (tuning) =>
    expect(saidOf('changeSetUp', ['tuning'], tuning)).toBeUndefined(),
  );
  test.each(['E A D', 'sideways', 'E2 A2 D3'])('%s is none', (tuning) =>
    expect(saidOf('changeSetUp', ['tuning'], tuning)).toMatch(/^This is no tuning: name one, or write 4 to 9/),
  );
});

describe('queries', () => {
  const saidOfQuery = (name: WithQuery, field: string, value: string) => {
    const checked = check<unknown>(ROUTE_SCHEMAS[name].query, { ...QUERIES[name], [field]: value });
    return checked.ok ? undefined : checked.problems.find((problem) => problem.field === field)?.message;
  };
  test.each([
    ['earliest', 'parts', '1', '0', 'This must be at least 1.'],
    ['earliest', 'parts', '16', '17', 'This must be at most 16.'],
    ['lessons', 'days', '60', '61', 'This must be at most 60.'],
    ['lessons', 'days', '1', '1.5', 'This must be a whole number.'],
    ['seriesList', 'from', '0', '-1', 'This must be at least 0.'],
    ['search', 'q', 'ab', 'a', 'This is too short: at least 2 characters.'],
    ['search', 'q', letters(80), letters(81), 'This is too long: at most 80 characters.'],
    ['licks', 'words', letters(80), letters(81), 'This is too long: at most 80 characters.'],
    ['licks', 'chord', letters(20), letters(21), 'This is too long: at most 20 characters.'],
    ['licks', 'fastest', '999', '1000', 'This must be at most 999.'],
    ['licks', 'highestFret', '36', 'high', 'This must be a number.'],
    ['ledger', 'until', '2026-03-14', '2026-02-30', 'This is not a day of the calendar, such as 2026-03-14.'],
  ] as const)('%s: %s may be “%s”, not “%s”', (name, field, last, beyond, says) => {
    expect(saidOfQuery(name, field, last)).toBeUndefined();
    expect(saidOfQuery(name, field, beyond)).toBe(says);
  });
});
