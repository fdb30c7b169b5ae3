import type Joi from 'joi';
import type { Checked, FieldProblem } from './problems.ts';

/** What some schemas must know besides the value. */
export interface CheckContext {
  /** Today in the studio's zone, `2026-03-14`. */
  readonly today?: string;
}

const MESSAGES: Record<string, string> = {
  'any.required': 'This is missing.',
  'any.only': 'This must be one of: {#valids}.',
  'object.base': 'This must be an object with named fields.',
  'object.unknown': 'This field is not known here.',
  'object.min': 'Nothing to change was sent.',
  'string.base': 'This must be text.',
  'string.empty': 'This must not be empty.',
  'string.max': 'This is too long: at most {#limit} characters.',
  'string.min': 'This is too short: at least {#limit} characters.',
  'string.guid': 'This is not a valid id.',
  'string.email': 'This is no address for mail, such as pia@home.example.',
  'string.pattern.base': 'This is not written as expected.',
  'number.base': 'This must be a number.',
  'number.integer': 'This must be a whole number.',
  'number.min': 'This must be at least {#limit}.',
  'number.max': 'This must be at most {#limit}.',
  'number.infinity': 'This must be a number.',
  'number.unsafe': 'This number is too large.',
  'boolean.base': 'This must be yes or no.',
  'date.past': 'This day has passed; choose today or later.',
  'date.none': 'This is not a day of the calendar, such as 2026-03-14.',
  'array.base': 'This must be a list.',
  'array.min': 'Name at least one.',
  'array.max': 'At most {#limit} of these.',
  'parts.both': 'A part is either wanted or not: “{#part}” stands on both sides.',
  'meter.none': 'This is not a meter such as 4/4 or 6/8.',
  'key.none': 'This is no key: write it such as A minor, B flat, E dorian or A blues, or leave it empty.',
  'tuning.none':
    'This is no tuning: name one, or write 4 to 9 open strings from the thickest with their octaves, such as C2 G2 D3 A3 E4.',
  'number.greater': 'This must be after the start.',
  'alternatives.types': 'This must be a pass, such as 2 or last.',
  'alternatives.match': 'This must be a pass, such as 2 or last.',
  'ladder.order': 'The start tempo must not be above the target.',
  'excerpt.empty': 'An excerpt ends after it begins.',
  'array.unique': 'This stands here twice.',
  'string.isoDate': 'This is not a moment such as 2026-03-14T10:00:00Z.',
  'object.and': 'When it was played and when it is sent belong together.',
};

/** A list of words stands in a sentence without brackets. */
const WRITTEN: Joi.ErrorFormattingOptions = { wrap: { array: false } };

/** Checks a value against a schema; every problem is listed, each at its field. */
export function check<T>(schema: Joi.AnySchema<T>, value: unknown, context: CheckContext = {}): Checked<T> {
  const result = schema.validate(value ?? {}, {
    abortEarly: false,
    messages: MESSAGES,
    errors: WRITTEN,
    context,
    convert: false,
  });
  const problems = result.error
    ? result.error.details.map(({ path, message }) => ({ field: fieldAt(path), message }))
    : unkeepable(result.value, []);
  if (result.error || problems.length > 0) return { ok: false, problems };
  return { ok: true, value: result.value };
}

const fieldAt = (path: readonly (string | number)[]) => (path.length === 0 ? 'body' : path.join('.'));

/** Texts that the database cannot keep as they are, wherever they stand in a value: with U+0000, or with half of a pair of signs. */
function unkeepable(value: unknown, path: readonly (string | number)[]): readonly FieldProblem[] {
  if (typeof value === 'string')
    return UNKEEPABLE.test(value) ? [{ field: fieldAt(path), message: UNKEEPABLE_SAYS }] : [];
  if (Array.isArray(value)) return value.flatMap((one: unknown, index) => unkeepable(one, [...path, index]));
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([name, one]) => unkeepable(one, [...path, name]));
}

const UNKEEPABLE = /\0|\p{Surrogate}/u;
const UNKEEPABLE_SAYS = 'This holds a character that cannot be kept (U+0000, or half of one).';
