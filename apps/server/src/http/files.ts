import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import type { FileGiven } from '@jam-ledger/contract';
import type { Response } from 'express';

/** Gives a file to whoever asks, under the name it has there; a line that is cut ends it. */
export async function giveFile(response: Response, type: string, given: unknown): Promise<void> {
  // Routes with a type answer files; the table says so.
  const file = given as FileGiven;
  const { name, path, stream } = file;
  if (file.range) return giveRange(response, file, type);
  response.type(type).attachment(name);
  if (path !== undefined) {
    await new Promise<void>((done, fail) => {
      response.sendFile(path, { cacheControl: false, dotfiles: 'allow' }, (error) => {
        if (error && !response.headersSent) fail(error);
        else done();
      });
    });
    return;
  }
  if (stream instanceof Readable) await pipeline(stream, response).catch(() => response.destroy());
}

/** Gives a stretch of a file that is heard while it comes; the whole of it where no range is asked. Source: RFC 9110, chapter 14. */
async function giveRange(
  response: Response,
  { name, bytes = 0, range, type }: FileGiven,
  usual: string,
): Promise<void> {
  response
    .type(type ?? usual)
    .set('Accept-Ranges', 'bytes')
    .set('Cache-Control', 'private, no-store');
  response.set('Content-Disposition', contentDisposition(name));
  const asked = response.req.range(bytes);
  if (asked === -1) {
    response.status(416).set('Content-Range', `bytes */${bytes}`).end();
    return;
  }
  const first = Array.isArray(asked) && asked.type === 'bytes' ? asked[0] : undefined;
  const { start, end } = first ?? { start: 0, end: bytes - 1 };
  if (first) response.status(206).set('Content-Range', `bytes ${start}-${end}/${bytes}`);
  response.set('Content-Length', String(end - start + 1));
  const made = range?.(start, end);
  if (made instanceof Readable) await pipeline(made, response).catch(() => response.destroy());
}

/** A name for whoever keeps the file; it is heard in the page all the same. Source: RFC 6266. */
function contentDisposition(name: string): string {
  return `inline; filename*=UTF-8''${encodeURIComponent(name).replaceAll("'", '%27')}`;
}
