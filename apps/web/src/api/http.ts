import { ERROR_CODES, type ErrorAnswer, type FieldProblem, type Route } from '@jam-ledger/contract';

/** The server refused: why, in words, and field by field. */
export class Refused extends Error {
  readonly status: number;
  readonly code: ErrorAnswer['error']['code'];
  readonly problems: readonly FieldProblem[];
  readonly current: unknown;

  constructor(status: number, { error }: ErrorAnswer) {
    super(error.message);
    this.status = status;
    this.code = error.code;
    this.problems = error.problems ?? [];
    this.current = error.current;
  }
}

/** The server could not be reached, or it was not the server that answered; what was typed is still here. */
export class Unreachable extends Error {
  constructor(why = 'The studio cannot be reached just now.') {
    super(why);
  }
}

declare global {
  /** What was asked for by a script before all others while the code was on its way, by path. */
  var askedAhead: Map<string, Promise<Response>> | undefined;
}

/** So old may be what was asked ahead, milliseconds since the page was opened: on a slow line its code comes late. Our choice. */
const AHEAD_MS = 60_000;

/** What was asked ahead, once; what is changed meanwhile makes all of it old. */
function takeAhead(method: Route['method'], path: string): Promise<Response> | undefined {
  const answers = (globalThis.askedAhead ??= new Map<string, Promise<Response>>());
  const answer = answers.get(path);
  if (method === 'GET') answers.delete(path);
  else answers.clear();
  return method === 'GET' && performance.now() < AHEAD_MS ? answer : undefined;
}

/** Asks the server for something and gives its answer, which is what `isPromised` says. @throws Refused, Unreachable */
export async function ask<Answer>(
  method: Route['method'],
  path: string,
  body: unknown,
  isPromised: (said: unknown) => said is Answer,
): Promise<Answer> {
  const init: RequestInit = { method, credentials: 'same-origin' };
  if (body instanceof Blob) {
    init.body = body;
    init.headers = { 'Content-Type': body.type };
  } else if (body !== undefined) {
    init.body = JSON.stringify(body);
    init.headers = { 'Content-Type': 'application/json' };
  }
  const reach = () =>
    fetch(`/api${path}`, init).catch(() => {
      throw new Unreachable();
    });
  const response = await (takeAhead(method, `/api${path}`)?.catch(reach) ?? reach());
  // A line cut in the middle of an answer is a line that was cut.
  const text = await response.text().catch(() => {
    throw new Unreachable();
  });
  const said = readJson(text);
  // What a proxy or a sign-in page of somebody else’s network answers says nothing of the studio, whatever its status.
  if (said === undefined) throw new Unreachable();
  if (response.ok) {
    if (!isPromised(said)) throw new Unreachable();
    return said;
  }
  if (!isErrorAnswer(said)) throw new Unreachable();
  if (said.error.code === 'away') throw new Unreachable(said.error.message);
  throw new Refused(response.status, said);
}

/** What a text says as JSON, null for an empty one; undefined where it is something else. */
function readJson(text: string): unknown {
  try {
    return JSON.parse(text || 'null') as unknown;
  } catch {
    return undefined;
  }
}

function isErrorAnswer(said: unknown): said is ErrorAnswer {
  if (typeof said !== 'object' || said === null || !('error' in said)) return false;
  const { error } = said;
  if (typeof error !== 'object' || error === null || !('code' in error) || !('message' in error)) return false;
  return typeof error.message === 'string' && ERROR_CODES.some((code) => code === error.code);
}
