import { AsyncResource } from 'node:async_hooks';
import type { RequestHandler } from 'express';
import onHeaders from 'on-headers';
import { READING } from './router.ts';

/** So many requests that only read are answered at once; the processor is one, and of more at once each would only take longer. Our choice. */
const AT_ONCE = 4;

/**
 * Lets requests that only read in by turns: of each browser the first to come first, and the browsers one after the other, so that one that
 * asks for much keeps nobody else waiting. A request has its place until it begins to be answered or its line is cut: a file that is long
 * on its way, or a slow line, keeps nobody out. One that has a body has no place at all, since the body may be long on its way, or never come.
 */
export function inTurns(): RequestHandler {
  let free = AT_ONCE;
  /** Who waits, by browser; the one whose turn is next comes first. */
  const waiting = new Map<string, (() => void)[]>();
  const leave = () => {
    const [next] = waiting;
    if (!next) {
      free += 1;
      return;
    }
    const [browser, queue] = next;
    const begin = queue.shift();
    waiting.delete(browser);
    if (queue.length > 0) waiting.set(browser, queue);
    begin?.();
  };
  return (request, response, next) => {
    const { cookie, 'content-length': length, 'transfer-encoding': coding } = request.headers;
    if (!READING.has(request.method) || length !== undefined || coding !== undefined) {
      next();
      return;
    }
    // What runs for this request is none of what runs for the one whose place it takes.
    const begin = AsyncResource.bind(() => {
      if (response.destroyed) {
        leave();
        return;
      }
      let isIn = true;
      const done = () => {
        if (isIn) leave();
        isIn = false;
      };
      onHeaders(response, done);
      response.once('close', done);
      next();
    });
    const browser = cookie ?? request.ip ?? '';
    const queue = waiting.get(browser);
    if (free > 0) {
      free -= 1;
      begin();
    } else if (queue) queue.push(begin);
    else waiting.set(browser, [begin]);
  };
}
