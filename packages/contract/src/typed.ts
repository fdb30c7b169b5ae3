import Joi from 'joi';
import { isDay } from './problems.ts';

declare const kind: unique symbol;

/**
 * A schema that lets through the values of a type. Only the functions of this module make one, so that a type and its schema
 * cannot drift apart: a field too many, one that is missing, another kind, a null or a word that only one of them knows do not
 * compile. In a list or as a field it is required, unless it is `optional`.
 */
export type SchemaOf<T> = Joi.AnySchema<T> & { readonly [kind]: (value: T) => T };

/** The schema of a field that may be left out. */
export interface OptionalOf<T> {
  /** How it is where it is not left out. */
  readonly left: SchemaOf<T>;
}

/** A schema for each field of an object: `optional` where it may be left out, and nowhere else. */
export type FieldsOf<T> = {
  readonly [Key in keyof T]-?: object extends Pick<T, Key> ? OptionalOf<Exclude<T[Key], undefined>> : SchemaOf<T[Key]>;
};

/** Says what a schema of Joi lets through, for what the functions below cannot say. */
export function typed<T>(schema: Joi.Schema): SchemaOf<T> {
  return schema.required() as unknown as SchemaOf<T>;
}

/** An object with just these fields; `refine` says what they must be to each other. */
export function shape<T extends object>(
  fields: FieldsOf<T>,
  refine: (schema: Joi.ObjectSchema) => Joi.Schema = (schema) => schema,
): SchemaOf<T> {
  // Which type each field has was checked by `FieldsOf`.
  const entries = Object.entries(fields) as readonly (readonly [string, Joi.AnySchema | OptionalField])[];
  const schemas = entries.map(([name, schema]) => [name, isOptional(schema) ? schema.left.optional() : schema]);
  return typed<T>(refine(Joi.object(Object.fromEntries(schemas) as Joi.PartialSchemaMap)));
}

/** A field that may be left out, whatever its type. */
type OptionalField = Readonly<Record<'left', Joi.AnySchema>>;

function isOptional(schema: Joi.AnySchema | OptionalField): schema is OptionalField {
  return !Joi.isSchema(schema);
}

/** A field that may be left out. */
export function optional<T>(schema: SchemaOf<T>): OptionalOf<T> {
  return { left: schema };
}

/** The same, or null. */
export function orNull<T>(schema: SchemaOf<T>): SchemaOf<T | null> {
  return typed<T | null>(schema.allow(null));
}

/** A list, at least and at most so long; without two of the same, or two with the same field, where that is said. */
export function list<T>(
  item: SchemaOf<T>,
  { min, max, unique }: { readonly min?: number; readonly max?: number; readonly unique?: true | string } = {},
): SchemaOf<readonly T[]> {
  // Required items would have to stand in every list.
  let schema = Joi.array().items(item.optional());
  if (min !== undefined) schema = schema.min(min);
  if (max !== undefined) schema = schema.max(max);
  if (unique !== undefined) schema = unique === true ? schema.unique() : schema.unique(unique);
  return typed<readonly T[]>(schema);
}

/** One of some kinds of values. */
export function either<const Schemas extends readonly Joi.AnySchema[]>(
  ...schemas: Schemas
): SchemaOf<Schemas[number] extends infer One ? (One extends SchemaOf<infer T> ? T : never) : never> {
  return typed(Joi.alternatives(...schemas));
}

/** One of some words. */
export function oneOf<const Word extends string | number | boolean | null>(words: readonly Word[]): SchemaOf<Word> {
  return typed<Word>(Joi.valid(...words));
}

/** Text up to a length, perhaps empty. */
export function text(max: number): SchemaOf<string> {
  return typed<string>(Joi.string().max(max).allow(''));
}

/** Any text, as answers hold it. */
export function anyText(): SchemaOf<string> {
  return typed<string>(Joi.string().allow(''));
}

/** Somebody or something by its name. */
export function named(): SchemaOf<{ readonly id: string; readonly name: string }> {
  return shape<{ readonly id: string; readonly name: string }>({ id: id(), name: anyText() });
}

/** A line of text that says something. */
export function line(max: number): SchemaOf<string> {
  return typed<string>(
    Joi.string()
      .max(max)
      .custom((value: string, helpers) => (value.trim() === '' ? helpers.error('string.empty') : value)),
  );
}

/** From where to where a number may be, both included. */
export interface Limits {
  readonly min: number;
  readonly max: number;
}

/** Any number, as answers hold it. */
export function anyNumber(): SchemaOf<number> {
  return typed<number>(Joi.number());
}

/** A number between two, both included. */
export function between({ min, max }: Limits): SchemaOf<number> {
  return typed<number>(Joi.number().min(min).max(max));
}

/** A whole number between two, both included. */
export function whole({ min, max }: Limits): SchemaOf<number> {
  return typed<number>(Joi.number().integer().min(min).max(max));
}

/** Yes or no. */
export function flag(): SchemaOf<boolean> {
  return typed<boolean>(Joi.boolean());
}

/** The same, read from a query, in which everything is text. */
export function asText<T>(schema: SchemaOf<T>): SchemaOf<T> {
  return typed<T>(schema.prefs({ convert: true }));
}

/** An id of ours; in capitals it is the same one, and comes out in small letters. */
export function id(): SchemaOf<string> {
  return typed<string>(
    Joi.string()
      .guid({ version: 'uuidv4', separator: '-', wrapper: false })
      .custom((value: string) => value.toLowerCase()),
  );
}

/** Largest number that a column of whole numbers keeps, rounded down. */
const MAX_INTEGER = 2_000_000_000;

/** The version of a row that the person saw when they changed it; from 0 where there may be none yet. */
export function version(min: 0 | 1 = 1): SchemaOf<number> {
  return whole({ min, max: MAX_INTEGER });
}

/** Ticks from the start of a phrase or a piece. */
export function ticks(min = 0): SchemaOf<number> {
  return whole({ min, max: MAX_INTEGER });
}

/** A day of the calendar. */
export function day(): SchemaOf<string> {
  return typed<string>(
    Joi.string().custom((value: string, helpers) => (isDay(value) ? value : helpers.error('date.none'))),
  );
}

/** A day, or null for none; not before `context.today`. */
export function dayFromToday(): SchemaOf<string | null> {
  return typed<string | null>(
    Joi.string()
      .allow(null)
      .custom((value: string, helpers) => {
        if (!isDay(value)) return helpers.error('date.none');
        const today: unknown = helpers.prefs.context?.['today'];
        return typeof today === 'string' && value < today ? helpers.error('date.past') : value;
      }),
  );
}

/** A moment as ISO 8601 writes it. */
export function moment(): SchemaOf<string> {
  return typed<string>(Joi.string().isoDate());
}
