import { describe, expect, test } from '@jest/globals';
import { check } from '../src/check.schema.ts';
import {
  asText,
  between,
  day,
  dayFromToday,
  either,
  flag,
  id,
  line,
  list,
  moment,
  named,
  oneOf,
  optional,
  orNull,
  shape,
  text,
  ticks,
  version,
  whole,
  type SchemaOf,
} from '../src/typed.ts';

const ID = '7f0c2d1e-3b4a-4c5d-8e6f-0a1b2c3d4e5f';

/** What is said of a value, field by field. */
function said<T>(schema: SchemaOf<T>, value: unknown, context = {}): readonly string[] {
  const checked = check(schema, value, context);
  return checked.ok ? [] : checked.problems.map(({ field, message }) => `${field}: ${message}`);
}
/** The same of one value, as the only one in a list. */
const of = <T>(schema: SchemaOf<T>, value: unknown, context = {}) =>
  said(list(schema), [value], context).map((one) => one.replace(/^0/, 'one'));

describe('an object', () => {
  interface Note {
    readonly text: string;
    readonly at?: number;
    readonly by: { readonly id: string; readonly name: string } | null;
  }
  const note = shape<Note>({ text: text(10), at: optional(ticks()), by: orNull(named()) });

  test('is let through whole', () => {
    expect(check(note, { text: 'a', by: null })).toEqual({ ok: true, value: { text: 'a', by: null } });
    expect(check(note, { text: '', at: 3, by: { id: ID, name: 'Mara' } }).ok).toBe(true);
  });

  test('with a field too many, too few, or of another kind is refused with all that is wrong', () => {
    expect(said(note, { at: 'soon', by: null, more: 1 })).toEqual([
      'text: This is missing.',
      'at: This must be a number.',
      'more: This field is not known here.',
    ]);
    expect(said(note, undefined)).toEqual(['text: This is missing.', 'by: This is missing.']);
    expect(said(note, [])).toEqual(['body: This must be an object with named fields.']);
  });

  test('may be held to what its fields are to each other', () => {
    const both = shape<{ a?: number; b?: number }>({ a: optional(ticks()), b: optional(ticks()) }, (schema) =>
      schema.and('a', 'b'),
    );
    expect(check(both, {}).ok).toBe(true);
    expect(said(both, { a: 1 })).toEqual(['body: When it was played and when it is sent belong together.']);
  });
});

describe('a list', () => {
  test('may be empty, and its items are checked', () => {
    expect(of(list(whole({ min: 1, max: 3 })), [])).toEqual([]);
    expect(of(list(whole({ min: 1, max: 3 })), [1, 4, 2.5])).toEqual([
      'one.1: This must be at most 3.',
      'one.2: This must be a whole number.',
    ]);
    expect(of(list(flag()), 'x')).toEqual(['one: This must be a list.']);
  });

  test('may be held to a length and to what stands in it once', () => {
    expect(of(list(flag(), { min: 1, max: 2 }), [])).toEqual(['one: Name at least one.']);
    expect(of(list(flag(), { min: 1, max: 2 }), [true, true, true])).toEqual(['one: At most 2 of these.']);
    expect(of(list(text(5), { unique: true }), ['a', 'b', 'a'])).toEqual(['one.2: This stands here twice.']);
    expect(
      of(list(named(), { unique: 'id' }), [
        { id: ID, name: 'a' },
        { id: ID, name: 'b' },
      ]),
    ).toEqual(['one.1: This stands here twice.']);
  });
});

describe('words and texts', () => {
  test('one of some words, whatever their kind', () => {
    expect(of(oneOf(['up', 'down']), 'up')).toEqual([]);
    expect(of(oneOf(['up', 'down']), 'UP')).toEqual(['one: This must be one of: up, down.']);
    expect(of(either(whole({ min: 1, max: 9 }), oneOf(['last'])), 'last')).toEqual([]);
    expect(of(either(whole({ min: 1, max: 9 }), oneOf(['last'])), 3)).toEqual([]);
    expect(of(either(whole({ min: 1, max: 9 }), oneOf(['last'])), 'first')).toHaveLength(1);
  });

  test('a line says something', () => {
    expect(of(line(5), 'abc')).toEqual([]);
    expect(of(line(5), '   ')).toEqual(['one: This must not be empty.']);
    expect(of(line(5), 'abcdef')).toEqual(['one: This is too long: at most 5 characters.']);
    expect(of(text(5), '')).toEqual([]);
  });

  test('what the database cannot keep is refused at its place', () => {
    expect(of(text(5), 'a\0')).toEqual(['one: This holds a character that cannot be kept (U+0000, or half of one).']);
    expect(of(list(text(5)), ['a', '\ud800'])).toEqual([
      'one.1: This holds a character that cannot be kept (U+0000, or half of one).',
    ]);
  });

  test('an id in capitals is the same one', () => {
    const checked = check(named(), { id: ID.toUpperCase(), name: '' });
    expect(checked).toEqual({ ok: true, value: { id: ID, name: '' } });
    expect(of(id(), `{${ID}}`)).toEqual(['one: This is not a valid id.']);
  });
});

describe('numbers', () => {
  test('between two, both included', () => {
    expect(of(between({ min: -1, max: 1 }), -1)).toEqual([]);
    expect(of(between({ min: -1, max: 1 }), 1)).toEqual([]);
    expect(of(between({ min: -1, max: 1 }), 1.01)).toEqual(['one: This must be at most 1.']);
    expect(of(between({ min: -1, max: 1 }), '0')).toEqual(['one: This must be a number.']);
  });

  test('are read from a query, where everything is text', () => {
    const query = shape<{ days: number; soon: boolean }>({
      days: asText(whole({ min: 1, max: 60 })),
      soon: asText(flag()),
    });
    expect(check(query, { days: '7', soon: 'true' })).toEqual({ ok: true, value: { days: 7, soon: true } });
    expect(said(query, { days: '0', soon: 'maybe' })).toEqual([
      'days: This must be at least 1.',
      'soon: This must be yes or no.',
    ]);
  });

  test('versions begin with one, or with none where nothing is kept yet', () => {
    expect(of(version(), 0)).toEqual(['one: This must be at least 1.']);
    expect(of(version(0), 0)).toEqual([]);
    expect(of(version(), 2 ** 31)).toEqual(['one: This must be at most 2000000000.']);
  });
});

describe('days and moments', () => {
  test.each(['2026-02-30', '2026-3-1', '2025-02-29', 'tomorrow', '2026-03-14T10:00:00Z'])('%s is no day', (bad) => {
    expect(of(day(), bad)).toEqual(['one: This is not a day of the calendar, such as 2026-03-14.']);
  });

  test('a leap day is one', () => expect(of(day(), '2028-02-29')).toEqual([]));

  test('not before today, or none', () => {
    const today = { today: '2026-03-14' };
    expect(of(dayFromToday(), '2026-03-14', today)).toEqual([]);
    expect(of(dayFromToday(), null, today)).toEqual([]);
    expect(of(dayFromToday(), '2026-03-13', today)).toEqual(['one: This day has passed; choose today or later.']);
    expect(of(dayFromToday(), '2026-03-13')).toEqual([]);
  });

  test('a moment is written by ISO 8601', () => {
    expect(of(moment(), '2026-03-14T10:00:00Z')).toEqual([]);
    expect(of(moment(), 'ten')).toEqual(['one: This is not a moment such as 2026-03-14T10:00:00Z.']);
  });
});
