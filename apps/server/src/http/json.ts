import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { Response } from 'express';

/** A body as text, and pressed for those who take it so. */
interface Body {
  readonly text: string;
  pressed?: Promise<Buffer>;
}

/** A shorter body is sent as it is. Source: the `compression` package presses from here on. */
const WORTH_PRESSING = 1024;

/** Bodies of what was answered; several requests may share an answer, which is then written and pressed once. */
const bodies = new WeakMap<object, Body>();

const press = promisify(gzip);

/** Answers a value as JSON, pressed where the client takes that. */
export async function giveJson(response: Response, value: unknown): Promise<void> {
  const body = bodyOf(value);
  response.type('json');
  if (body.text.length < WORTH_PRESSING) {
    response.send(body.text);
    return;
  }
  response.vary('Accept-Encoding');
  if (response.req.acceptsEncodings('gzip') === 'gzip') {
    body.pressed ??= press(body.text);
    response.set('Content-Encoding', 'gzip').send(await body.pressed);
  } else response.send(body.text);
}

function bodyOf(value: unknown): Body {
  if (typeof value !== 'object' || value === null) return { text: JSON.stringify(value) };
  let body = bodies.get(value);
  if (!body) {
    body = { text: JSON.stringify(value) };
    bodies.set(value, body);
  }
  return body;
}
