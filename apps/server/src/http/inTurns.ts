import { AsyncResource } from 'node:async_hooks';
import type { RequestHandler } from 'express';
import onHeaders from 'on-headers';
import { READING } from './router.ts';

/** So many requests that only read are answered at once; the processor is one, and of more at once each would only take longer. Our choice. */
const AT_ONCE = 4;

/** What a browser has here: how many requests that are being answered, and what begins those that wait, in order. */
interface Browser {
  inside: number;
  readonly waiting: (() => void)[];
}

/**
 * Lets requests that only read in by turns: of each browser the first to come first, and the browsers one after the other, each with no more
 * than its share of the places, so that one that asks for much keeps nobody else waiting. A request has its place until it begins to be
 * answered or its line is cut: a file that is long on its way, or a slow line, keeps nobody out. One that has a body has no place at all,
 * since the body may be long on its way, or never come.
 */
export function inTurns(): RequestHandler {
  let free = AT_ONCE;
  /** The browsers that have something here; the one whose turn is next comes first. */
  const browsers = new Map<string, Browser>();
  const letIn = () => {
    while (free > 0) {
      const share = Math.max(1, Math.floor(AT_ONCE / browsers.size));
      const [name, browser] =
        [...browsers].find(([, { inside, waiting }]) => inside < share && waiting.length > 0) ?? [];
      const begin = browser?.waiting.shift();
      if (name === undefined || !browser || !begin) return;
      browsers.delete(name);
      browsers.set(name, browser);
      browser.inside += 1;
      free -= 1;
      begin();
    }
  };
  return (request, response, next) => {
    const { cookie, 'content-length': length, 'transfer-encoding': coding } = request.headers;
    if (!READING.has(request.method) || length !== undefined || coding !== undefined) {
      next();
      return;
    }
    const name = cookie ?? request.ip ?? '';
    const browser = browsers.get(name) ?? { inside: 0, waiting: [] };
    browsers.set(name, browser);
    let isHere = true;
    const leave = () => {
      if (!isHere) return;
      isHere = false;
      const turn = browser.waiting.indexOf(begin);
      if (turn >= 0) browser.waiting.splice(turn, 1);
      else {
        browser.inside -= 1;
        free += 1;
      }
      if (browser.inside === 0 && browser.waiting.length === 0) browsers.delete(name);
      letIn();
    };
    // What runs for this request is none of what runs for the one whose place it takes.
    const begin = AsyncResource.bind(() => {
      onHeaders(response, leave);
      next();
    });
    response.once('close', leave);
    browser.waiting.push(begin);
    letIn();
  };
}
