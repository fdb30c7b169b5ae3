import { describe, expect, test } from '@jest/globals';
import { ROUTE_SCHEMAS } from '../src/schemas.ts';
import { ROUTES } from '../src/index.ts';
import { ANSWERS } from './answers.ts';
import { at, pathsIn, put } from './paths.ts';

const names = Object.keys(ANSWERS) as readonly (keyof typeof ANSWERS)[];

/** Where an answer is not what it should be; a line stands in a list where the route answers one. */
function wrongIn(name: keyof typeof ANSWERS, line: unknown): readonly string[] {
  const isList = ROUTES[name].answer([]);
  const { error } = ROUTE_SCHEMAS[name].answer.validate(isList ? [line] : line, { abortEarly: false, convert: false });
  const paths = error?.details.map(({ path }) => (isList ? path.slice(1) : path).join('.')) ?? [];
  return paths.map((path) => (path === '' ? 'answer' : path));
}

/** Fields that may be left out. */
const OPTIONAL: readonly string[] = ['passes.0.bars', 'sections.0.passes.0.bars'];
/** Fields of one of two shapes: told at the whole. */
const EITHER = /(^|\.)(expected\.(early|middle|late|wanted)(\..*)?|passes\.0\.pass)$/;
const placesOf = (field: string) => [field, ...(EITHER.test(field) ? [field.replace(/(expected)\..*$/, '$1')] : [])];

describe.each(names)('an answer of %s', (name) => {
  const sample = ANSWERS[name];
  const paths = pathsIn(sample).filter((path) => typeof path.at(-1) === 'string');

  test('is let through with everything in it', () => expect(wrongIn(name, sample)).toEqual([]));

  test('is refused with a field nobody knows', () =>
    expect(wrongIn(name, { ...sample, password: 'ink' })).toEqual(['password']));

  test.each(paths.map((path) => [path.join('.'), path] as const))('is refused without %s', (field, path) => {
    const wrong = wrongIn(name, put(sample, path, undefined));
    if (OPTIONAL.includes(field)) expect(wrong).toEqual([]);
    else expect(placesOf(field).some((place) => wrong.includes(place))).toBe(true);
  });

  test.each(paths.map((path) => [path.join('.'), path] as const))(
    'is refused with another kind of %s',
    (field, path) => {
      const other = typeof at(sample, path) === 'string' ? true : 'five';
      const wrong = wrongIn(name, put(sample, path, other));
      expect(placesOf(field).some((place) => wrong.includes(place))).toBe(true);
    },
  );
});

test('there is an answer of each kind', () => {
  const answered = new Set<unknown>(names.map((name) => ROUTE_SCHEMAS[name].answer));
  const left = (Object.keys(ROUTES) as readonly (keyof typeof ROUTES)[])
    .filter((name) => !ROUTES[name].answer(null) && !answered.has(ROUTE_SCHEMAS[name].answer))
    .filter((name) => name !== 'openApi' && !('type' in ROUTES[name]));
  // Each of these answers one line of a list above, or a list of what is answered alone there.
  expect(left).toEqual([
    'enterPerson',
    'enterStudents',
    'changeStudent',
    'askForSong',
    'promise',
    'moveRequest',
    'bringIn',
    'swapLessons',
    'sendTake',
    'answerTake',
  ]);
});
