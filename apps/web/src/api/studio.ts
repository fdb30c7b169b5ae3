import { pathOf, ROUTE_NAMES, ROUTES, type Answer, type Input, type Route, type RouteName } from '@jam-ledger/contract';
import { ask, Refused, Unreachable } from './http.ts';
import { answerKept, asksAgain, keepAnswer } from './line.ts';

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

function askingOf<Answered>(name: RouteName, { method, path, who, answer }: Route<string, unknown, unknown, Answered>) {
  return async (given: Given & Readonly<Record<string, unknown>> = {}): Promise<Answered> => {
    const query = given.query ? `?${new URLSearchParams(wordsOf(given.query)).toString()}` : '';
    const at = pathOf({ path }, given) + query;
    try {
      const said = await askOr401(() => ask(method, at, given.body, answer), who !== 'anybody' && name);
      await keepAnswer(name, at, said);
      return said;
    } catch (error) {
      const kept = error instanceof Unreachable ? await answerKept(name, at) : undefined;
      if (kept === undefined || !answer(kept)) throw error;
      return kept;
    }
  };
}

/** Asks, and once more where the session had ended and somebody signs in again. */
async function askOr401<Answered>(asked: () => Promise<Answered>, name: RouteName | false): Promise<Answered> {
  try {
    return await asked();
  } catch (error) {
    const hasEnded = name && error instanceof Refused && error.status === 401;
    if (!hasEnded || !(await asksAgain(name))) throw error;
    return asked();
  }
}

/** A query as text, what is left out left out. */
function wordsOf(query: object): Record<string, string> {
  return Object.fromEntries(
    Object.entries(query).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]])),
  );
}

/** The client, made of the table of routes; each name has the route of that name, which types cannot follow through a loop. */
export const api: Client = Object.fromEntries(
  ROUTE_NAMES.map((name): [string, unknown] => [name, askingOf<unknown>(name, ROUTES[name])]),
) as unknown as Client;

/** Sends a file to a route that takes one. @throws Refused, Unreachable */
export function sendFile<Answered>(
  { method, path, takes, answer }: Route<string, unknown, unknown, Answered>,
  file: Blob,
): Promise<Answered> {
  return askOr401(() => ask(method, path, new Blob([file], { type: takes ?? file.type }), answer), 'sendPart');
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
