import { execFile } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { chown, mkdir } from 'node:fs/promises';
import { connect, createServer, type AddressInfo, type Server } from 'node:net';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { promisify } from 'node:util';
import pg from 'pg';
import { postmasterOf } from '../e2e/killing.ts';
import { startServer, type RunningServer } from '../e2e/serving.ts';
import { ask, firstPiece, signIn } from '../e2e/starting.ts';
import { freePort, startCluster } from './cluster.ts';
import { findBinaries, launch, postgresAccount, stopServer } from './postgres.ts';

const run = promisify(execFile);
/** Rows that are followed to the copy, and senders of results at once. */
const FOLLOWED = 100;
const SENDERS = 6;
/** So long results are posted before and after the first is killed, milliseconds. */
const POSTING_MS = 4000;
const BACK_MS = 60_000;

/**
 * Two PostgreSQL of one book, the second streaming from the first: how far it lags, then the first is killed while results are posted, the
 * second takes its place behind the address that both share, and nothing that was acknowledged is lost. What went wrong.
 */
export async function tortureReplica(folder: string, say: (line: string) => void): Promise<readonly string[]> {
  const account = postgresAccount();
  const bin = await findBinaries();
  const first = await startCluster({ folder: join(folder, 'first'), durable: true });
  const url = new URL(first.databaseUrl);
  const data = join(folder, 'second', 'postgres');
  await mkdir(join(folder, 'second'), { recursive: true, mode: 0o755 });
  if (account.uid !== undefined && account.gid !== undefined)
    await chown(join(folder, 'second'), account.uid, account.gid);
  await run(join(bin, 'pg_basebackup'), ['-D', data, '-R', '-X', 'stream', '-d', url.href], { ...account, cwd: '/' });
  const at = await freePort();
  const second = new URL(url);
  second.port = String(at);
  const copy = await launch({ bin, data, account }, { port: at, durable: true, url: second.href });
  const address = await forwardTo(Number(url.port));
  const shared = new URL(url);
  shared.port = String(address.port);
  const server = await startServer(shared.href, { REPLICA_URL: second.href, LOG_LEVEL: 'fatal' });
  const wrong: string[] = [];
  try {
    say(`  the copy shows what was written after ${await lagOf(url.href, second.href)}`);
    // What is acknowledged from now on is on both.
    await query(url.href, `ALTER SYSTEM SET synchronous_standby_names = '*'`);
    await query(url.href, 'SELECT pg_reload_conf()');
    const { statuses, lost, acknowledged, backMs } = await failOver({ server, address, second, folder });
    say(
      `  ${acknowledged} acknowledged, ${lost} lost, ${JSON.stringify(statuses)}; the second in its place after ${backMs} ms`,
    );
    if (lost > 0) wrong.push(`${lost} results were lost`);
    for (const status of Object.keys(statuses))
      if (!['0', '201', '503'].includes(status)) wrong.push(`${status} was answered`);
  } finally {
    server.child.kill('SIGTERM');
    address.close();
    await stopServer(copy);
    await first.stop().catch(() => undefined);
  }
  return wrong;
}

/** Asks a database something over a connection of its own. */
export async function query(url: string, sql: string): Promise<readonly Record<string, unknown>[]> {
  const client = new pg.Client({ connectionString: url });
  client.on('error', () => undefined);
  await client.connect();
  try {
    return (await client.query<Record<string, unknown>>(sql)).rows;
  } finally {
    await client.end();
  }
}

/** How long a row takes from the acknowledgement of its writer to a reader of the copy: median and longest. */
async function lagOf(first: string, second: string): Promise<string> {
  const [writer, reader] = [first, second].map((url) => new pg.Client({ connectionString: url }));
  if (!writer || !reader) throw new Error('there are two');
  await Promise.all([writer.connect(), reader.connect()]);
  await writer.query('CREATE TABLE followed (id integer)');
  const waits: number[] = [];
  for (let id = 0; id < FOLLOWED; id += 1) {
    await writer.query('INSERT INTO followed VALUES ($1)', [id]);
    const written = performance.now();
    for (let seen = 0; seen === 0;) {
      const { rowCount } = await reader
        .query('SELECT 1 FROM followed WHERE id = $1', [id])
        .catch(() => ({ rowCount: 0 }));
      seen = rowCount ?? 0;
    }
    waits.push(performance.now() - written);
  }
  await writer.query('DROP TABLE followed');
  await Promise.all([writer.end(), reader.end()]);
  const sorted = waits.toSorted((a, b) => a - b);
  return `${(sorted[FOLLOWED / 2] ?? 0).toFixed(1)} ms (median of ${FOLLOWED}), at most ${(sorted.at(-1) ?? 0).toFixed(1)} ms`;
}

/** One address that stands before whichever is the first, as a managed database gives it. */
async function forwardTo(target: number): Promise<{ readonly port: number; to(port: number): void; close(): void }> {
  let to = target;
  const server: Server = createServer((socket) => {
    const upstream = connect(to, '127.0.0.1');
    socket.pipe(upstream).pipe(socket);
    for (const one of [socket, upstream]) one.on('error', () => [socket, upstream].forEach((end) => end.destroy()));
    for (const one of [socket, upstream]) one.on('close', () => [socket, upstream].forEach((end) => end.destroy()));
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const { port } = server.address() as AddressInfo;
  return { port, to: (next) => void (to = next), close: () => void server.close() };
}

async function failOver({
  server,
  address,
  second,
  folder,
}: {
  readonly server: RunningServer;
  readonly address: { to(port: number): void };
  readonly second: URL;
  readonly folder: string;
}) {
  const cookie = await signIn(server.url, 'ines');
  const path = await firstPiece(server.url, cookie);
  const acknowledged = new Set<string>();
  const statuses: Record<number, number> = {};
  const over = new AbortController();
  const sender = async () => {
    while (!over.signal.aborted) {
      const entry = { id: randomUUID(), bpm: 60, outcome: 'clean', remark: '' };
      const status = await ask(server.url, `${path}/entries`, entry, cookie).then(
        (answer) => answer.status,
        () => 0,
      );
      statuses[status] = (statuses[status] ?? 0) + 1;
      if (status === 201) acknowledged.add(entry.id);
      else await pause(50);
    }
  };
  const senders = Array.from({ length: SENDERS }, sender);
  await pause(POSTING_MS);
  process.kill(await postmasterOf(join(folder, 'first')), 'SIGKILL');
  const killed = Date.now();
  await pause(200);
  const before = acknowledged.size;
  // Nobody follows the second yet, so that it waits for nobody.
  await query(second.href, 'SELECT pg_promote(true, 30)');
  await query(second.href, 'ALTER SYSTEM RESET synchronous_standby_names');
  await query(second.href, 'SELECT pg_reload_conf()');
  address.to(Number(second.port));
  while (acknowledged.size === before && Date.now() - killed < BACK_MS) await pause(20);
  const backMs = Date.now() - killed;
  await pause(POSTING_MS);
  over.abort();
  await Promise.all(senders);
  const rows = await query(second.href, 'SELECT id FROM entries');
  const there = new Set(rows.map(({ id }) => String(id)));
  const lost = [...acknowledged].filter((id) => !there.has(id)).length;
  return { statuses, lost, acknowledged: acknowledged.size, backMs };
}
