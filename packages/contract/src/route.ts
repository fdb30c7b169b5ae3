import type { Role } from './session.ts';

/** Whether what came back is what a route promises, by its outermost shape: an object, a list or nothing. */
export type Promised<T> = (value: unknown) => value is T;

/** An object comes back. */
export const one =
  <T extends object>(): Promised<T> =>
  (value): value is T =>
    typeof value === 'object' && value !== null && !Array.isArray(value);

/** An object comes back, or nothing. */
export const oneOrNone =
  <T extends object>(): Promised<T | null> =>
  (value): value is T | null =>
    value === null || one<T>()(value);

/** A list comes back. */
export const many =
  <T>(): Promised<readonly T[]> =>
  (value): value is readonly T[] =>
    Array.isArray(value);

/** Nothing comes back. */
export const nothing: Promised<null> = (value) => value === null;

/** Text comes back, of the type that the route names. */
export const words: Promised<string> = (value) => typeof value === 'string';

/** A file that is given to whoever asks: where it lies, or what makes it, and what it is called there. */
export interface FileGiven {
  readonly name: string;
  /** Where it lies; else `stream` makes it, or `range` any stretch of its bytes, both ends included. */
  readonly path?: string;
  readonly stream?: object;
  readonly range?: (from: number, to: number) => object;
  /** Its length and media type, where it is given in ranges. */
  readonly bytes?: number;
  readonly type?: string;
}

/** A file comes back, of the type that the route names; it is no JSON, and asked for by a link. */
export const file: Promised<FileGiven> = (_value): _value is FileGiven => false;

declare const sent: unique symbol;

/** Stands for the type of what is sent; there is nothing in it at run time. */
export interface Sent<T> {
  readonly [sent]?: T;
}

/** Names the type of what is sent. */
export const type = <T>(): Sent<T> => ({});

/** Rows that are one student’s. */
export type StudentsRow = 'request' | 'piece' | 'series' | 'song' | 'sound';
/** Rows that are whoever wrote them, whatever else that person may do. */
export type AuthorsRow = 'entry' | 'pin';

/**
 * Whose things a route is about. `studio`: everybody’s there. `self`: of whoever asks; a list holds what they may see. `query`: of
 * the student named by `studentId` in the query, else as `self`. Else of those who have the row with the id in the path: of a
 * student’s row, teachers and the owner come to all of them, a student to their own, a guardian to those of their wards; an
 * author’s row is changed by its author alone.
 */
export type Of = 'studio' | 'self' | 'query' | StudentsRow | AuthorsRow;

/** A thing that can be asked of the server. */
export interface Route<
  Path extends string = string,
  Query = unknown,
  Body = unknown,
  Answer = unknown,
  Who extends readonly Role[] | 'anybody' = readonly Role[] | 'anybody',
> {
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  /** Below `/api`; ids, days, tokens and files stand in it as `:id`, `:day`, `:token`, `:file`. */
  readonly path: Path;
  /** Who may ask; `anybody` also while nobody is signed in. */
  readonly who: Who;
  readonly of: Of;
  /** What it does, in half a sentence. */
  readonly does: string;
  readonly query?: Sent<Query>;
  readonly body?: Sent<Body>;
  readonly answer: Promised<Answer>;
  /** The type of what is answered where it is no JSON. */
  readonly type?: string;
  /** The type of what is sent where it is no JSON: a file, read as it comes in. */
  readonly takes?: string;
  /** Whether something new is answered (201). */
  readonly creates?: true;
}

/** Puts a route together; types of path, query, body and answer are kept. */
export function route<
  const Path extends string,
  Answer,
  const Who extends readonly Role[] | 'anybody',
  Query = never,
  Body = never,
>(given: Route<Path, Query, Body, Answer, Who>): Route<Path, Query, Body, Answer, Who> {
  return given;
}

/** The names in a path: `/a/:id/:day` has `id` and `day`. */
export type NamesIn<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | NamesIn<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never;

/** What is given with a route: what stands in its path by name, `query` and `body`. */
export type InputOf<One extends Route> =
  One extends Route<infer Path, infer Query, infer Body>
    ? { readonly [Name in NamesIn<Path>]: string } & QueryPart<Query> & BodyPart<Body>
    : never;

type QueryPart<Query> = [Query] extends [never]
  ? unknown
  : object extends Query
    ? { readonly query?: Query }
    : { readonly query: Query };
type BodyPart<Body> = [Body] extends [never] ? unknown : { readonly body: Body };

/** What a route answers. */
export type AnswerOf<One extends Route> =
  One extends Route<string, infer _Query, infer _Body, infer Answer> ? Answer : never;

/** The path of a route with what stands in it. */
export function pathOf({ path }: Pick<Route, 'path'>, names: Readonly<Record<string, unknown>>): string {
  return path.replace(/:(\w+)/g, (_whole, name: string) => encodeURIComponent(String(names[name])));
}
