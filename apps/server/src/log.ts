import { join } from 'node:path';
import { pino, type Logger, type SerializedError, type SerializedRequest, type SerializedResponse } from 'pino';
import roll from 'pino-roll';
import type { Config } from './config.ts';
import { databaseTrouble } from './store/index.ts';

/** A new log file is begun each day and at this size; so many old ones are kept. Our choice. */
const ROTATION = { frequency: 'daily', size: '5m', keep: 20 } as const;

/** What follows these in a path is a secret. */
const SECRET_PATHS = /\/(invitations|welcome|calendar)\/[^/]+/g;

/** The path of a request as it may be written down: without its query, since that holds what people look for, and without secrets. */
export function loggedPath(url: string): string {
  return (url.split('?')[0] ?? '').replace(SECRET_PATHS, '/$1/…');
}

/** An error as it may be written down: of one from the database neither what was asked nor with which values. */
export function loggedError(error: Error): object {
  const database = databaseTrouble(error);
  const stack = (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  return { type: error.name, ...(database ? { database } : { message: error.message }), stack: stack.join('\n') };
}

/** How requests, their answers and what went wrong with them are written down. */
export const REQUEST_SERIALIZERS = {
  req: ({ id, method, url }: SerializedRequest) => ({ id, method, path: loggedPath(url) }),
  res: ({ statusCode }: SerializedResponse) => ({ statusCode }),
  err: ({ raw }: SerializedError) => loggedError(raw),
} as const;

/**
 * The log: lines of JSON, in files of its own that only the account of the server reads where a folder is named, else on standard output.
 * Each line is written before the next thing is done, so that a number told to somebody is in it.
 */
export async function makeLog({ logLevel, logFolder }: Pick<Config, 'logLevel' | 'logFolder'>): Promise<Logger> {
  const err = (error: unknown) => (error instanceof Error ? loggedError(error) : { type: typeof error });
  const options = { serializers: { err }, level: logLevel };
  if (logFolder === undefined) return pino(options);
  const { frequency, size, keep } = ROTATION;
  const file = join(logFolder, 'server');
  const limit = { count: keep, removeOtherLogFiles: true };
  return pino(options, await roll({ file, frequency, size, limit, mkdir: true, sync: true, mode: 0o600 }));
}
