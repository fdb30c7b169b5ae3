import { execFile } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { setMaxListeners } from 'node:events';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { promisify } from 'node:util';
import { demoSignIns } from '../apps/server/src/demo/index.ts';
import { noiseOf } from '../packages/core/src/sound/index.ts';
import { fillStudio, SIZE, STUDIO } from '../bench/largeStudio.ts';
import { bytesOf, timingOf } from '../bench/measure.ts';
import { startServer, type RunningServer } from '../e2e/serving.ts';
import { ask, signIn } from '../e2e/starting.ts';
import { startCluster } from './cluster.ts';
import { query } from './tortureReplica.ts';

const run = promisify(execFile);

/** How long, minutes; the first quarter warms up and counts for nothing but what is lost. */
const MINUTES = Number(process.env['SOAK_MINUTES'] ?? 60);
const WARM = 0.25;
/** A device is in reach for some acts, then out of it, seconds; while it is, its student goes on practising. */
const ACTS = { most: 4, apartSeconds: 25 } as const;
const AWAY = { fromSeconds: 10, toSeconds: 60, results: 4 } as const;
/** Of the results that are sent, the share whose answer is lost on the way, so that they are sent again. */
const CUT = { share: 0.05, afterMs: 8 } as const;
/** What may grow over the measured part: memory of a server, bytes; and its last third may be slower than its first, or work more an answer, by so much. */
const MOST = { bytes: 24e6, slower: 1.5, slowerMs: 15, work: 1.25 } as const;
/** A minute is calm that the machine gave to others no more of than that share; how long answers take is told by some of them. */
const CALM = { share: 0.02, minutes: 3 } as const;
/**
 * Fixed work of the kind that a server does, to tell how fast the machine is in that minute: writes and reads a thousand lines forty times, and
 * prints its time of a processor, milliseconds.
 */
const YARDSTICK = `
  const lines = Array.from({ length: 1000 }, (_, n) => ({ id: 'line ' + n, bpm: n % 180, outcome: 'clean', remark: '' }));
  const from = process.cpuUsage();
  for (let turn = 0; turn < 40; turn += 1) JSON.parse(JSON.stringify(lines));
  const { user, system } = process.cpuUsage(from);
  console.log((user + system) / 1000);
`;
/** After so many seconds without an answer the servers have closed what they do not need; then the fewest connections of so many seconds. */
const REST = { quiet: 30, looked: 15 } as const;

/** The simulated studio of one run: its servers, and what was told of it so far. */
interface Studio {
  readonly servers: readonly RunningServer[];
  readonly over: AbortSignal;
  readonly acknowledged: Set<string>;
  /** Answers since the last look: how long each took, milliseconds. */
  times: number[];
  /** How the time of the processors was spent until the last look. */
  spent: Spent;
  readonly wrong: string[];
}

/** Time of all processors, milliseconds: what this machine worked, what it gave to others, and all of it. */
interface Spent {
  readonly busy: number;
  readonly elsewhere: number;
  readonly all: number;
}

/** A minute of it. */
interface Look {
  readonly bytes: readonly number[];
  readonly connections: number;
  readonly p50: number;
  readonly p95: number;
  readonly answers: number;
  /** Time of the processors an answer, milliseconds: of servers, database and devices. */
  readonly work: number;
  /** The same of the yardstick in that minute, milliseconds. */
  readonly yardstick: number;
  /** Of the time of the processors, the share that the machine gave to others. */
  readonly elsewhere: number;
}

/**
 * An hour of a studio: the devices of all students, in reach and out of it, two servers, one durable database with a million lines. Memory
 * and connections of the servers do not grow, nothing acknowledged is lost or there twice, and answers take as long and as much work at the
 * end.
 */
export async function tortureSoak(folder: string, say: (line: string) => void): Promise<readonly string[]> {
  const cluster = await startCluster({ folder: join(folder, 'soak'), durable: true });
  const start = () => startServer(cluster.databaseUrl, { LOG_LEVEL: 'fatal' });
  const servers = [await start(), await start()];
  try {
    await fillStudio(cluster.databaseUrl);
    const cookies = await letIn(cluster.databaseUrl, servers);
    say(`  ${SIZE}; ${cookies.length} devices signed in`);
    const atRest = await connectionsAtRest(cluster.databaseUrl);
    const over = new AbortController();
    setMaxListeners(cookies.length, over.signal);
    const studio: Studio = {
      servers,
      over: over.signal,
      acknowledged: new Set(),
      times: [],
      spent: await spentUntilNow(),
      wrong: [],
    };
    const devices = cookies.map((cookie, index) => device(studio, cookie, noiseOf(index + 1)));
    const looks: Look[] = [];
    for (let minute = 0; minute < MINUTES; minute += 1) {
      await pause(60_000);
      const look = await lookAt(studio, cluster.databaseUrl);
      looks.push(look);
      const megabytes = look.bytes.map((bytes) => (bytes / 1e6).toFixed(0)).join(' and ');
      say(
        `  minute ${minute + 1}: ${look.answers} answers, ${look.p50.toFixed(0)} ms, 95th percentile ${look.p95.toFixed(0)} ms; ${megabytes} MB; ${look.connections} connections; ${look.work.toFixed(0)} ms of the processors an answer, ${(look.work / look.yardstick).toFixed(2)} × the yardstick, ${(100 * look.elsewhere).toFixed(0)} % of them given to others`,
      );
    }
    over.abort();
    await Promise.all(devices);
    const lost = await lostOf(studio, cluster.databaseUrl, say);
    const more = (await connectionsAtRest(cluster.databaseUrl)) - atRest;
    say(`  connections at rest: ${atRest} before, ${more} more after it`);
    const left = more > 0 ? [`${more} connections were left open`] : [];
    return [...studio.wrong, ...judge(looks, say), ...lost, ...left];
  } finally {
    for (const { child } of servers) child.kill('SIGTERM');
    await cluster.stop();
  }
}

/** Every student of the studio gets the password of one of the demo, and signs in. */
async function letIn(databaseUrl: string, servers: readonly RunningServer[]): Promise<readonly string[]> {
  const ines = demoSignIns.find(({ signInName }) => signInName === 'ines');
  await query(
    databaseUrl,
    `UPDATE people SET sign_in_name = lower(replace(name, ' ', '-')),
            password_hash = (SELECT password_hash FROM people WHERE sign_in_name = 'ines')
      WHERE name LIKE 'Student %'`,
  );
  const cookies: string[] = [];
  for (let student = 1; student <= STUDIO.students; student += 1)
    cookies.push(await signIn(servers[student % 2]?.url ?? '', `student-${student}`, ines?.password));
  return cookies;
}

/** A student’s device until it is over: what is made out of reach is kept, and sent when the line is back, each result until it is acknowledged. */
async function device(studio: Studio, cookie: string, noise: () => number): Promise<void> {
  const chance = () => (noise() + 1) / 2;
  const rest = (seconds: number) => pause(1000 * seconds, undefined, { signal: studio.over }).catch(() => undefined);
  const server = () => studio.servers[chance() < 0.5 ? 0 : 1]?.url ?? '';
  await rest(60 * chance());
  let pieces: readonly string[] = [];
  const isOver = () => studio.over.aborted;
  while (!isOver()) {
    const ledger = await read<{ readonly pieces: readonly { readonly id: string }[] }>(
      studio,
      server(),
      '/ledger',
      cookie,
    );
    if (ledger) pieces = ledger.pieces.map(({ id }) => id);
    for (let act = 0; act < Math.ceil(ACTS.most * chance()) && !isOver(); act += 1) {
      await rest(ACTS.apartSeconds * chance());
      await read(studio, server(), `/pieces/${pieces[Math.floor(chance() * pieces.length)] ?? ''}`, cookie);
    }
    const made = Array.from({ length: Math.ceil(AWAY.results * chance()) }, () => ({
      piece: pieces[Math.floor(chance() * pieces.length)] ?? '',
      entry: { id: randomUUID(), bpm: 50 + Math.floor(70 * chance()), outcome: 'clean', remark: '' },
    }));
    await rest(AWAY.fromSeconds + (AWAY.toSeconds - AWAY.fromSeconds) * chance());
    for (const { piece, entry } of made)
      for (let sent = false; !sent;) {
        sent = await send(studio, {
          url: server(),
          path: `/pieces/${piece}/entries`,
          cookie,
          entry,
          isCut: chance() < CUT.share,
        });
        if (!sent && isOver()) return;
      }
  }
}

async function read<Answer>(studio: Studio, url: string, path: string, cookie: string): Promise<Answer | undefined> {
  const from = performance.now();
  const answer = await ask(url, path, undefined, cookie);
  const body = await answer.text();
  studio.times.push(performance.now() - from);
  if (answer.status === 200) return JSON.parse(body) as Answer;
  studio.wrong.push(`${path} was answered ${answer.status}`);
  return undefined;
}

/** Sends a result; false where its answer did not come. */
async function send(
  studio: Studio,
  {
    url,
    path,
    cookie,
    entry,
    isCut,
  }: { url: string; path: string; cookie: string; entry: { id: string }; isCut: boolean },
): Promise<boolean> {
  const from = performance.now();
  const headers = { 'Content-Type': 'application/json', Cookie: cookie };
  const signal = isCut ? AbortSignal.timeout(CUT.afterMs) : undefined;
  const answer = await fetch(`${url}/api${path}`, {
    method: 'POST',
    headers,
    body: JSON.stringify(entry),
    ...(signal && { signal }),
  }).catch(() => undefined);
  if (!answer) return false;
  await answer.text().catch(() => undefined);
  studio.times.push(performance.now() - from);
  if (answer.status === 201) studio.acknowledged.add(entry.id);
  else studio.wrong.push(`a result was answered ${answer.status}`);
  return true;
}

async function lookAt(studio: Studio, databaseUrl: string): Promise<Look> {
  const { median, p95 } = timingOf(studio.times);
  const answers = studio.times.length;
  // Before anything is waited for: what is answered meanwhile is of the next look.
  studio.times = [];
  const [before, now] = [studio.spent, await spentUntilNow()];
  studio.spent = now;
  const elsewhere = (now.elsewhere - before.elsewhere) / (now.all - before.all);
  const work = (now.busy - before.busy) / answers;
  const { stdout } = await run(process.execPath, ['-e', YARDSTICK]);
  const bytes = await Promise.all(studio.servers.map(({ child }) => bytesOf(child.pid ?? 0)));
  const connections = await connectionsOf(databaseUrl);
  return { bytes, connections, p50: median, p95, answers, work, yardstick: Number(stdout), elsewhere };
}

async function connectionsOf(databaseUrl: string): Promise<number> {
  const [row] = await query(
    databaseUrl,
    'SELECT count(*)::int AS count FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()',
  );
  return Number(row?.['count']);
}

async function connectionsAtRest(databaseUrl: string): Promise<number> {
  await pause(1000 * REST.quiet);
  let fewest = Infinity;
  for (let second = 0; second < REST.looked; second += 1) {
    await pause(1000);
    fewest = Math.min(fewest, await connectionsOf(databaseUrl));
  }
  return fewest;
}

/** Source: proc_stat(5): user, nice, system, idle, iowait, irq, softirq, steal, in hundredths of a second; steal is what another system took. */
async function spentUntilNow(): Promise<Spent> {
  const [line = ''] = (await readFile('/proc/stat', 'utf8')).split('\n');
  const spent = line
    .trim()
    .split(/\s+/)
    .slice(1, 9)
    .map((ticks) => 10 * Number(ticks));
  const all = spent.reduce((sum, one) => sum + one, 0);
  const [idle = 0, waiting = 0, elsewhere = 0] = [spent[3], spent[4], spent[7]];
  return { busy: all - idle - waiting - elsewhere, elsewhere, all };
}

/** What grew from the first third of the measured part to its last. */
function judge(looks: readonly Look[], say: (line: string) => void): readonly string[] {
  const measured = looks.slice(Math.floor(WARM * looks.length));
  const third = Math.max(1, Math.floor(measured.length / 3));
  const [first, last] = [measured.slice(0, third), measured.slice(-third)];
  const of = (part: readonly Look[], value: (look: Look) => number) => timingOf(part.map(value)).median;
  const bytes = [0, 1].map((server) => {
    const own = (look: Look) => look.bytes[server] ?? 0;
    return of(last, own) - of(first, own);
  });
  const isCalm = ({ elsewhere }: Look) => elsewhere <= CALM.share;
  const [calm, calmAfter] = [first.filter(isCalm), last.filter(isCalm)];
  const isTold = Math.min(calm.length, calmAfter.length) >= CALM.minutes;
  const workOf = (part: readonly Look[]) => of(part, ({ work, yardstick }) => work / yardstick);
  const p95Of = (part: readonly Look[]) => of(part, ({ p95 }) => p95);
  say(
    `  from the first third to the last: memory ${bytes.map((one) => (one / 1e6).toFixed(1)).join(' and ')} MB more, an answer ${workOf(first).toFixed(2)} to ${workOf(last).toFixed(2)} × the work of the yardstick, 95th percentile ${p95Of(first).toFixed(0)} to ${p95Of(last).toFixed(0)} ms`,
  );
  say(
    `  the same of minutes that others left alone, ${calm.length} and ${calmAfter.length}: ${isTold ? `${p95Of(calm).toFixed(0)} to ${p95Of(calmAfter).toFixed(0)} ms` : 'too few to tell'}`,
  );
  return [
    ...bytes.filter((one) => one > MOST.bytes).map((one) => `a server grew by ${(one / 1e6).toFixed(0)} MB`),
    ...(workOf(last) > MOST.work * workOf(first) ? ['answers became more work'] : []),
    ...(isTold && p95Of(calmAfter) > Math.max(MOST.slower * p95Of(calm), p95Of(calm) + MOST.slowerMs)
      ? ['answers became slower']
      : []),
  ];
}

/** Every acknowledged result is there, once: its name is the key of its line. */
async function lostOf(studio: Studio, databaseUrl: string, say: (line: string) => void): Promise<readonly string[]> {
  const rows = await query(databaseUrl, `SELECT id FROM entries WHERE posted_at > now() - interval '1 day'`);
  const there = new Set(rows.map(({ id }) => String(id)));
  const lost = [...studio.acknowledged].filter((id) => !there.has(id)).length;
  say(`  ${studio.acknowledged.size} results acknowledged, ${lost} lost`);
  return lost === 0 ? [] : [`${lost} results were lost`];
}
