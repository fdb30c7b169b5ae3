import type { ErrorAnswer, FieldProblem } from '@jam-ledger/contract';

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

/** The server could not be reached; what was typed is still here. */
export class Unreachable extends Error {
  constructor() {
    super('The studio cannot be reached just now.');
  }
}

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

/** Asks the server for something and gives its answer. @throws Refused, Unreachable */
export async function ask<Answer>(method: Method, path: string, body?: unknown): Promise<Answer> {
  const init: RequestInit = { method, credentials: 'same-origin' };
  if (body !== undefined) {
    init.body = JSON.stringify(body);
    init.headers = { 'Content-Type': 'application/json' };
  }
  const response = await fetch(`/api${path}`, init).catch(() => {
    throw new Unreachable();
  });
  // A line cut in the middle of an answer is a line that was cut.
  const text = await response.text().catch(() => {
    throw new Unreachable();
  });
  if (!response.ok) throw new Refused(response.status, errorOf(text));
  // Server and page are built from one contract, so what the server answers is what the path promises.
  return JSON.parse(text || 'null') as Answer;
}

function errorOf(text: string): ErrorAnswer {
  try {
    return JSON.parse(text) as ErrorAnswer;
  } catch {
    return { error: { code: 'broken', message: 'The studio did not answer as expected.' } };
  }
}
