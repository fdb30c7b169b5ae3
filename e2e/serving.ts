import { fork, type ChildProcess } from 'node:child_process';
import { join, resolve } from 'node:path';

const SERVER = resolve(import.meta.dirname, '../apps/server/dist/main.js');
/** The pages that were built. */
export const PAGES = join(import.meta.dirname, '../apps/web/dist');

/** A built server that runs, and its address. */
export interface RunningServer {
  readonly child: ChildProcess;
  readonly url: string;
}

/** Starts the built server over a database, as a process of its own; on a free port where `env` names none. @throws where it ends at once */
export async function startServer(
  databaseUrl: string,
  env: Readonly<Record<string, string>> = {},
): Promise<RunningServer> {
  const child = fork(SERVER, [], {
    execArgv: [],
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: { ...process.env, DATABASE_URL: databaseUrl, PORT: '0', LOG_LEVEL: 'warn', ...env },
  });
  const port = await new Promise<number>((done, fail) => {
    child.once('exit', (code) => fail(new Error(`the server ended with ${code}`)));
    child.once('message', (message: { readonly port?: number }) => done(Number(message.port)));
  });
  return { child, url: `http://127.0.0.1:${port}` };
}

/** Stops a server, or kills it, and waits until it is gone. */
export async function closeServer({ child }: RunningServer, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((done) => child.once('close', done));
  child.kill(signal);
  await gone;
}
