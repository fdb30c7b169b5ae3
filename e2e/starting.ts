import { spawn, type ChildProcess } from 'node:child_process';
import { readdir, readFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';

const ROOT = resolve(import.meta.dirname, '..');

/** Start commands that have not ended. */
const running = new Set<ChildProcess>();
/** Stops every start command that still runs. */
export function stopAll(): void {
  for (const child of running) child.kill('SIGINT');
}

/** A start command that runs, what it said so far, and its exit code. */
export interface Run {
  readonly child: ChildProcess;
  readonly said: () => string;
  readonly ended: Promise<number | null>;
}

/** Runs the start command as a person at a terminal would. */
export function start(words: readonly string[], env: Readonly<Record<string, string>> = {}): Run {
  const own: NodeJS.ProcessEnv = { ...process.env, ...env };
  if (!env['DATABASE_URL']) delete own['DATABASE_URL'];
  const child = spawn(join(ROOT, 'bin/start'), words, { env: own, stdio: ['ignore', 'pipe', 'pipe'] });
  running.add(child);
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (said += chunk.toString()));
  const ended = new Promise<number | null>((done) =>
    child.once('close', (code) => {
      running.delete(child);
      done(code);
    }),
  );
  return { child, said: () => said, ended };
}

/** The address it prints once it serves. */
export async function addressOf({ child, said, ended }: Run): Promise<string> {
  await new Promise<void>((done, fail) => {
    child.stdout?.on('data', () => {
      if (said().includes('Ctrl-C closes it.')) done();
    });
    void ended.then((code) => fail(new Error(`it ended with ${code}: ${said()}`)));
  });
  const [address] = /http:\/\/127\.0\.0\.1:\d+/.exec(said()) ?? [];
  if (!address) throw new Error(`no address in: ${said()}`);
  return address;
}

/** A browser without a window: signs in and keeps its cookie. */
export async function ask(address: string, path: string, body?: unknown, cookie = ''): Promise<Response> {
  return fetch(`${address}/api${path}`, {
    method: body === undefined ? 'GET' : 'POST',
    headers: { 'Content-Type': 'application/json', Cookie: cookie },
    ...(body !== undefined && { body: JSON.stringify(body) }),
  });
}

/** Signs somebody of the demo in, and gives their cookie. */
export async function signIn(address: string, name = 'pia', password = 'pencil-case'): Promise<string> {
  const answer = await ask(address, '/session', { name, password });
  if (answer.status !== 200) throw new Error(`${name} was not let in: ${answer.status}`);
  return answer.headers
    .getSetCookie()
    .map((cookie) => cookie.split(';')[0])
    .join('; ');
}

/** The path of the first piece in the ledger of whoever has a cookie, `/pieces/…`. */
export async function firstPiece(address: string, cookie: string): Promise<string> {
  const ledger: { pieces: readonly { id: string }[] } = await (await ask(address, '/ledger', undefined, cookie)).json();
  return `/pieces/${ledger.pieces[0]?.id ?? ''}`;
}

/** Command lines of the processes that still name a folder or port. */
export async function processesWith(text: string): Promise<readonly string[]> {
  const ids = (await readdir('/proc')).filter((name) => /^\d+$/.test(name));
  const lines = await Promise.all(ids.map((id) => readFile(`/proc/${id}/cmdline`, 'utf8').catch(() => '')));
  return lines.filter((line) => line.includes(text));
}
