import { execFile, execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { existsSync } from 'node:fs';
import { chown, mkdir, mkdtemp, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import pg from 'pg';
import { Plain } from './plain.ts';

const run = promisify(execFile);

/** The account that PostgreSQL runs under; nothing said for one’s own. */
export interface Account {
  readonly uid?: number;
  readonly gid?: number;
}

/** PostgreSQL refuses to run as root, so then its own account runs it. */
export function postgresAccount(): Account {
  if (process.getuid?.() !== 0) return {};
  const id = (flag: string) => Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8' }));
  return { uid: id('-u'), gid: id('-g') };
}

/** Where the newest installed PostgreSQL has its commands. @throws Plain when there is none */
export async function findBinaries(): Promise<string> {
  const root = '/usr/lib/postgresql';
  const versions = existsSync(root) ? await readdir(root) : [];
  const newest = versions.filter((version) => /^\d+$/.test(version)).sort((a, b) => Number(b) - Number(a));
  const folder = newest.map((version) => join(root, version, 'bin')).find((bin) => existsSync(join(bin, 'initdb')));
  if (!folder) throw new Plain('PostgreSQL is not installed; install the Debian package “postgresql”.');
  return folder;
}

/** A cluster on disk and how it is run. */
export interface ClusterFiles {
  readonly bin: string;
  /** The data folder of PostgreSQL. */
  readonly data: string;
  readonly account: Account;
}

/** What a cluster is made under, until it is whole. */
const HALF_MADE = /^new-/;

/** Makes a cluster beside its place and puts it there when it is whole, so that one cut in the middle is never taken for one. */
export async function initialise(files: ClusterFiles, folder: string, secret: string): Promise<void> {
  const { bin, data, account } = files;
  const making = await mkdtemp(join(folder, 'new-'));
  const give = async (path: string) => {
    if (account.uid !== undefined && account.gid !== undefined) await chown(path, account.uid, account.gid);
  };
  const [made, passwordFile] = [join(making, 'data'), join(making, 'password')];
  await mkdir(made, { mode: 0o700 });
  await writeFile(passwordFile, secret, { mode: 0o600 });
  for (const path of [making, made, passwordFile]) await give(path);
  const settings = ['--username=jam', '--auth=scram-sha-256', '--encoding=UTF8', '--locale=C.UTF-8'];
  await run(join(bin, 'initdb'), ['-D', made, `--pwfile=${passwordFile}`, ...settings], { ...account, cwd: '/' });
  await rename(made, data);
  await rm(making, { recursive: true, force: true });
}

/** Takes away what a start that was cut inside `initialise` left: its files, and what still writes them. */
export async function clearHalfMade(folder: string): Promise<void> {
  for (const name of (await readdir(folder)).filter((one) => HALF_MADE.test(one))) {
    const making = join(folder, name);
    await endProcessesOf(making);
    await rm(making, { recursive: true, force: true, maxRetries: 5, retryDelay: 100 });
  }
  // Versions before this one made clusters in their place; the password lay beside them just as long as they were not whole.
  const password = join(folder, 'password');
  if (!existsSync(password)) return;
  await endProcessesOf(join(folder, 'postgres'));
  await rm(join(folder, 'postgres'), { recursive: true, force: true, maxRetries: 5, retryDelay: 100 });
  await rm(password);
}

/** Ends every process whose command names a folder. */
async function endProcessesOf(folder: string): Promise<void> {
  const ids = (await readdir('/proc')).filter((name) => /^\d+$/.test(name)).map(Number);
  const named = await Promise.all(
    ids.map(async (id) => {
      const words = (await readFile(`/proc/${id}/cmdline`, 'utf8').catch(() => '')).split('\0');
      return words.some((word) => word === folder || word.startsWith(`${folder}/`)) ? id : undefined;
    }),
  );
  for (const id of named)
    if (id !== undefined && id !== process.pid) {
      try {
        process.kill(id, 'SIGKILL');
      } catch {
        // It has ended by itself.
      }
    }
}

/** Stops a server that an earlier run left behind in this folder. */
export async function stopLeftOver({ bin, data, account }: ClusterFiles): Promise<void> {
  const control = (...words: string[]) => run(join(bin, 'pg_ctl'), ['-D', data, ...words], { ...account, cwd: '/' });
  const running = await control('status').then(
    () => true,
    () => false,
  );
  if (running) await control('stop', '-m', 'fast');
}

/** How a server is started. */
export interface LaunchOptions {
  readonly port: number;
  /** Whether a power cut must lose nothing. Only throw-away clusters say no. */
  readonly durable: boolean;
  /** Where it is asked whether it answers. */
  readonly url: string;
}

const READY_SECONDS = 30;
/** Said while what is left of a killed server has not ended yet: then it is tried again. */
const IN_THE_WAY = /shared memory block|lock file "postmaster\.pid" already exists/;

/** Starts a server and waits until it answers. @throws Plain with what it said when it does not */
export async function launch(files: ClusterFiles, options: LaunchOptions): Promise<ChildProcess> {
  const deadline = Date.now() + READY_SECONDS * 1000;
  for (;;) {
    const started = await tryLaunch(files, options, deadline);
    if (typeof started !== 'string') return started;
    if (!IN_THE_WAY.test(started) || Date.now() > deadline) throw new Plain(`PostgreSQL did not start: ${started}`);
    await new Promise((done) => setTimeout(done, 200));
    await stopLeftOver(files);
  }
}

/** A server that answers, or what one that ended said. */
async function tryLaunch(
  { bin, data, account }: ClusterFiles,
  { port, durable, url }: LaunchOptions,
  deadline: number,
): Promise<ChildProcess | string> {
  const server = spawn(join(bin, 'postgres'), serverArguments(data, port, durable), {
    ...account,
    cwd: '/',
    stdio: ['ignore', 'ignore', 'pipe'],
    detached: true,
  });
  let said = '';
  server.stderr.on('data', (chunk: Buffer) => (said = (said + chunk.toString()).slice(-2000)));
  while (Date.now() < deadline) {
    if (hasEnded(server)) return said.trim();
    if (await answers(url)) return server;
    await new Promise((done) => setTimeout(done, 60));
  }
  server.kill('SIGKILL');
  throw new Plain(`PostgreSQL did not answer within ${READY_SECONDS} seconds: ${said.trim()}`);
}

function serverArguments(data: string, port: number, durable: boolean): readonly string[] {
  const settings = [
    'listen_addresses=127.0.0.1',
    'unix_socket_directories=',
    `port=${port}`,
    'log_min_messages=fatal',
    ...(durable ? [] : ['fsync=off', 'synchronous_commit=off', 'full_page_writes=off']),
  ];
  return ['-D', data, ...settings.flatMap((setting) => ['-c', setting])];
}

async function answers(url: string): Promise<boolean> {
  const client = new pg.Client({ connectionString: url });
  client.on('error', () => undefined);
  try {
    await client.connect();
    await client.end();
    return true;
  } catch {
    return false;
  }
}

/** Whether a process has ended. */
export function hasEnded(child: ChildProcess): boolean {
  return child.exitCode !== null || child.signalCode !== null;
}

/** Stops a server and waits until it is down. */
export async function stopServer(server: ChildProcess): Promise<void> {
  if (hasEnded(server)) return;
  const ended = new Promise((done) => server.once('exit', done));
  // SIGINT asks PostgreSQL for its fast shutdown: open transactions are rolled back, nothing is lost.
  server.kill('SIGINT');
  await ended;
}
