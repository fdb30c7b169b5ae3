import { fork, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { rm, writeFile } from 'node:fs/promises';
import { createServer } from 'node:net';
import { dirname, join, resolve } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { fileURLToPath } from 'node:url';
import { demoSignIns, demoStudio } from '../apps/server/src/demo/people.ts';
import { releaseFolder, startCluster, type Cluster } from './cluster.ts';
import { BACKUPS, defaultFolder, LOGS, MAIL, MARK, runFile } from './dataFolder.ts';
import { fieldOf, parsedBy, Plain, reasonOf } from './plain.ts';

const HELP = `bin/start [--port N] [--data DIR] [--own] [--fresh [--yes]]

  --port N     the port to serve on, 4180 unless told otherwise; 0 for any free one
  --data DIR   the folder of the private database; made when it is not there
  --own        an empty folder is not given the demo studio: begin one of your own on its first page
  --fresh      throws the private database away and begins anew (asks first, unless --yes)

DATABASE_URL names a PostgreSQL database of your own; then no private one is started.`;

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '..');
const DEFAULT_PORT = 4180;

/** How long a server may take to stop before it is ended, milliseconds. */
const STOP_MS = 5000;

async function main(): Promise<void> {
  const options = readOptions();
  if (options.help) {
    process.stdout.write(`${HELP}\n`);
    return;
  }
  const ownUrl = process.env['DATABASE_URL'];
  await requireFreePort(options.port);
  if (!ownUrl) await requireNotRunning(options.folder);
  if (options.fresh) await throwAway(options.folder, ownUrl, options.yes);
  const closing: { stop?: (code: number) => Promise<never> } = {};
  const cluster = ownUrl
    ? undefined
    : await startCluster({
        folder: options.folder,
        durable: true,
        onEnd(fate, why) {
          process.stderr.write(`${why}\n`);
          if (fate !== 'lost') return;
          process.stderr.write('Without its database nothing can be kept, so Jam Ledger closes.\n');
          void closing.stop?.(1);
        },
      });
  const beginKey = process.env['BEGIN_KEY'] ?? randomBytes(18).toString('base64url');
  const server = startServer(ownUrl ?? cluster?.databaseUrl ?? '', options, beginKey);
  const stop = stopper(server, cluster, options.folder);
  closing.stop = stop;
  const opened = await openedOf(server, stop);
  const { port } = opened;
  if (cluster) await writeFile(runFile(options.folder), JSON.stringify({ pid: process.pid, port }));
  sayWhere(opened, { folder: options.folder, isOwnDatabase: ownUrl !== undefined, beginKey });
}

interface Options {
  readonly port: number;
  readonly folder: string;
  readonly own: boolean;
  readonly fresh: boolean;
  readonly yes: boolean;
  readonly help: boolean;
}

function readOptions(): Options {
  const values = parsedBy(
    {
      port: { type: 'string' },
      data: { type: 'string' },
      own: { type: 'boolean' },
      fresh: { type: 'boolean' },
      yes: { type: 'boolean' },
      help: { type: 'boolean' },
    } as const,
    HELP,
  );
  const port = Number(values.port ?? DEFAULT_PORT);
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new Plain(`--port wants a number from 0 to 65535, not “${values.port ?? ''}”.`);
  const { own = false, fresh = false, yes = false, help = false } = values;
  return {
    port,
    own,
    fresh,
    yes,
    help,
    folder: values.data === undefined ? defaultFolder(ROOT) : resolve(values.data),
  };
}

async function requireFreePort(port: number): Promise<void> {
  if (port === 0) return;
  const probe = createServer();
  await new Promise<void>((done, fail) => {
    probe.once('error', (error) => {
      const reason = reasonOf(error);
      const why = reason === 'EADDRINUSE' ? 'is already taken' : `cannot be used (${reason})`;
      fail(new Plain(`Port ${port} ${why}; choose another with --port.`));
    });
    probe.listen(port, '127.0.0.1', done);
  });
  await new Promise((done) => probe.close(done));
}

/** Two at one data folder would stop each other's database. */
async function requireNotRunning(folder: string): Promise<void> {
  const file = runFile(folder);
  if (!existsSync(file)) return;
  const text = readFileSync(file, 'utf8');
  const pid = fieldOf(text, 'pid');
  if (typeof pid === 'number' && isAlive(pid))
    throw new Plain(
      `This studio is already open at http://127.0.0.1:${String(fieldOf(text, 'port'))}; stop it there, or choose another folder with --data.`,
    );
  await rm(file);
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('start.ts');
  } catch {
    return false;
  }
}

async function throwAway(folder: string, ownUrl: string | undefined, yes: boolean): Promise<void> {
  if (ownUrl) throw new Plain('--fresh is for the private database only; empty your own by its own tools.');
  if (!existsSync(folder)) return;
  if (!existsSync(join(folder, MARK)))
    throw new Plain(`The folder ${folder} was not made by Jam Ledger; it is left alone.`);
  if (!yes) {
    if (!process.stdin.isTTY)
      throw new Plain('--fresh asks before it throws a studio away; add --yes to do it unasked.');
    const terminal = createInterface({ input: process.stdin, output: process.stdout });
    const answer = await terminal.question(`Throw away everything in ${folder}? (yes/no) `);
    terminal.close();
    if (answer.trim() !== 'yes') throw new Plain('Nothing was thrown away.');
  }
  await releaseFolder(folder);
  await rm(folder, { recursive: true });
}

function startServer(databaseUrl: string, { port, folder, own }: Options, beginKey: string): ChildProcess {
  return fork(join(ROOT, 'apps/server/dist/main.js'), [], {
    execArgv: [],
    // A group of its own: Ctrl-C reaches this program alone, which then stops everything in order.
    detached: true,
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      WEB_FOLDER: join(ROOT, 'apps/web/dist'),
      LOG_FOLDER: join(folder, LOGS),
      BACKUP_FOLDER: process.env['BACKUP_FOLDER'] ?? join(folder, BACKUPS),
      MAIL_FOLDER: process.env['MAIL_FOLDER'] ?? join(folder, MAIL),
      BEGIN_KEY: beginKey,
      ...(own && { DEMO: 'no' }),
    },
  });
}

function stopper(server: ChildProcess, cluster: Cluster | undefined, folder: string): (code: number) => Promise<never> {
  let stopping: Promise<never> | undefined;
  const stop = (code: number): Promise<never> => (stopping ??= stopAll(server, cluster, folder, code));
  process.on('SIGINT', () => void stop(0));
  process.on('SIGTERM', () => void stop(0));
  process.on('SIGHUP', () => void stop(0));
  server.once('exit', (code) => void stop(code ?? 1));
  return stop;
}

async function stopAll(
  server: ChildProcess,
  cluster: Cluster | undefined,
  folder: string,
  code: number,
): Promise<never> {
  if (server.exitCode === null && server.signalCode === null) {
    const ended = new Promise((done) => server.once('exit', done));
    server.kill('SIGTERM');
    const timer = setTimeout(() => server.kill('SIGKILL'), STOP_MS);
    await ended;
    clearTimeout(timer);
  }
  await cluster?.stop();
  if (cluster) await rm(runFile(folder), { force: true });
  process.exit(code);
}

/** Where the server listens, and what is in its book. */
interface Opened {
  readonly port: number;
  /** Whether a studio of one’s own can be begun. */
  readonly open: boolean;
  readonly demo: boolean;
}

/** What the first message of the server says. */
async function openedOf(server: ChildProcess, stop: (code: number) => Promise<never>): Promise<Opened> {
  return new Promise((done) => {
    server.once('message', (message) => {
      if (isOpened(message)) done(message);
      else void stop(1);
    });
  });
}

function isOpened(message: unknown): message is Opened {
  return typeof message === 'object' && message !== null && 'port' in message && typeof message.port === 'number';
}

function sayWhere(
  { port, open, demo }: Opened,
  {
    folder,
    isOwnDatabase,
    beginKey,
  }: { readonly folder: string; readonly isOwnDatabase: boolean; readonly beginKey: string },
): void {
  const width = Math.max(...demoSignIns.map(({ signInName }) => signInName.length));
  const people = demoSignIns.map(
    ({ signInName, password, role, name }) =>
      `    ${signInName.padEnd(width)}  ${password.padEnd(15)} ${role.padEnd(8)} ${name}`,
  );
  process.stdout.write(
    [
      '',
      `  Jam Ledger is open at http://127.0.0.1:${port}`,
      isOwnDatabase ? '  It uses the database that DATABASE_URL names.' : `  Its data lies in ${folder}`,
      `  Backups are made each day into ${process.env['BACKUP_FOLDER'] ?? join(folder, BACKUPS)}`,
      `  Its log lies in ${join(folder, LOGS)}; a number that is told with a trouble stands there.`,
      '',
      ...(demo ? [`  Sign-ins of the demo studio, ${demoStudio.name}:`, ...people, ''] : []),
      // Behind the #, so that no log of any server has it.
      ...(open ? ['  Begin a studio of your own at', `    http://127.0.0.1:${port}/begin#${beginKey}`, ''] : []),
      '  Ctrl-C closes it.',
      '',
      '',
    ].join('\n'),
  );
}

await main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Plain ? error.message : `Jam Ledger could not start: ${String(error)}`}\n`);
  process.exit(1);
});
