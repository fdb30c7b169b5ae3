import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import type { FileGiven } from '@jam-ledger/contract';
import type { Response } from 'express';

/** Gives a file to whoever asks, under the name it has there; a line that is cut ends it. */
export async function giveFile(response: Response, type: string, given: unknown): Promise<void> {
  // Routes with a type answer files; the table says so.
  const { name, path, stream } = given as FileGiven;
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
