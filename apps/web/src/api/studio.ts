import { pathOf, ROUTE_NAMES, ROUTES, type Answer, type Input, type Route, type RouteName } from '@jam-ledger/contract';
import { ask } from './http.ts';

/** Asks a route; what is given may be left out where nothing must be. */
type Asking<Name extends RouteName> = (
  ...given: object extends Input<Name> ? [given?: Input<Name>] : [given: Input<Name>]
) => Promise<Answer<Name>>;

/** Everything that can be asked of the server, by the names of its routes. @throws Refused, Unreachable */
export type Client = { readonly [Name in RouteName]: Asking<Name> };

interface Given {
  readonly query?: object;
  readonly body?: unknown;
}

function askingOf<Answered>({ method, path, answer }: Route<string, unknown, unknown, Answered>) {
  return (given: Given & Readonly<Record<string, unknown>> = {}): Promise<Answered> => {
    const query = given.query ? `?${new URLSearchParams(wordsOf(given.query)).toString()}` : '';
    return ask(method, pathOf({ path }, given) + query, given.body, answer);
  };
}

/** A query as text, what is left out left out. */
function wordsOf(query: object): Record<string, string> {
  return Object.fromEntries(
    Object.entries(query).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]])),
  );
}

/** The client, made of the table of routes; each name has the route of that name, which types cannot follow through a loop. */
export const api: Client = Object.fromEntries(
  ROUTE_NAMES.map((name): [string, unknown] => [name, askingOf<unknown>(ROUTES[name])]),
) as unknown as Client;

/** Sends a file to a route that takes one. @throws Refused, Unreachable */
export function sendFile<Answered>(
  { method, path, takes, answer }: Route<string, unknown, unknown, Answered>,
  file: Blob,
): Promise<Answered> {
  return ask(method, path, new Blob([file], { type: takes ?? file.type }), answer);
}

/** Where a file is that a route gives, for a link. */
export function fileAddress(
  { path }: Route,
  given: Readonly<Record<string, string>> = {},
  query: Readonly<Record<string, string>> = {},
): string {
  const words = new URLSearchParams(query).toString();
  return `/api${pathOf({ path }, given)}${words === '' ? '' : `?${words}`}`;
}
