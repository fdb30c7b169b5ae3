import type { EarlierEntries } from '@jam-ledger/contract';
import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { addressOf, ask, firstPiece, processesWith, signIn, start } from './starting.ts';

/** What came of killing a database again and again while results are posted. */
export interface KillReport {
  readonly kills: number;
  /** How often each status was answered; 0 where the line was cut. */
  readonly statuses: Readonly<Record<number, number>>;
  readonly acknowledged: number;
  /** Results that were acknowledged and are not there, or are there twice. */
  readonly lost: number;
  /** The longest time from a kill until a result was acknowledged again, milliseconds. */
  readonly longestMs: number;
  readonly said: string;
}

/** Senders at once. */
const SENDERS = 6;
/** So long the studio may take to come back, milliseconds: the disk may be shared with others who wait for it. */
const BACK_MS = 120_000;

/** The process of the database in a data folder. */
export async function postmasterOf(data: string): Promise<number> {
  const [id = ''] = (await readFile(join(data, 'postgres', 'postmaster.pid'), 'utf8')).split('\n');
  return Number(id);
}

/** Kills the database of a studio so many times, so long apart, while a student posts results. */
export async function killDatabase(
  data: string,
  { kills, everyMs }: { readonly kills: number; readonly everyMs: number },
): Promise<KillReport> {
  const run = start(['--port', '0', '--data', data]);
  const address = await addressOf(run);
  const cookie = await signIn(address, 'ines');
  const path = `${await firstPiece(address, cookie)}/entries`;
  const acknowledged = new Set<string>();
  const statuses: Record<number, number> = {};
  let isOver = false;
  const sender = async () => {
    while (!isOver) {
      const entry = { id: randomUUID(), bpm: 60, outcome: 'clean', remark: '' };
      const status = await ask(address, path, entry, cookie).then(
        (answer) => answer.status,
        () => 0,
      );
      statuses[status] = (statuses[status] ?? 0) + 1;
      if (status === 201) acknowledged.add(entry.id);
      else await pause(20);
    }
  };
  const senders = Array.from({ length: SENDERS }, sender);
  let longestMs = 0;
  for (let kill = 0; kill < kills; kill += 1) {
    await pause(everyMs);
    process.kill(await postmasterOf(data), 'SIGKILL');
    longestMs = Math.max(longestMs, await untilMore(acknowledged, () => `${JSON.stringify(statuses)}, ${run.said()}`));
  }
  isOver = true;
  await Promise.all(senders);
  const kept = await entriesOf(address, path, cookie);
  const times = new Map<string, number>();
  for (const id of kept) times.set(id, (times.get(id) ?? 0) + 1);
  const lost = [...acknowledged].filter((id) => times.get(id) !== 1).length;
  run.child.kill('SIGINT');
  await run.ended;
  return { kills, statuses, acknowledged: acknowledged.size, lost, longestMs, said: run.said() };
}

/** The ids of all lines of a piece, page by page. */
async function entriesOf(address: string, path: string, cookie: string): Promise<readonly string[]> {
  const ids: string[] = [];
  for (let from = path.replace('/entries', ''); ; from = `${path}?before=${ids[0] ?? ''}`) {
    const page: EarlierEntries = await (await ask(address, from, undefined, cookie)).json();
    ids.unshift(...page.entries.map(({ id }) => id));
    if (!page.hasEarlier) return ids;
  }
}

/** How long it takes until more is acknowledged, milliseconds. @throws where it does not come back, with what was answered and said */
async function untilMore(acknowledged: ReadonlySet<string>, soFar: () => string): Promise<number> {
  const killed = Date.now();
  // What was under way when the database was killed may still be acknowledged.
  await pause(100);
  const before = acknowledged.size;
  while (acknowledged.size === before) {
    if (Date.now() - killed > BACK_MS) throw new Error(`the studio did not come back: ${soFar()}`);
    await pause(10);
  }
  return Date.now() - killed;
}

/**
 * Kills a first start at a moment, then starts again in the same folder, which must open, and leave nothing running when it is closed.
 * Gives what is wrong; nothing where all is well.
 */
export async function killFirstStart(data: string, moment: () => Promise<unknown>): Promise<string | undefined> {
  const first = start(['--port', '0', '--data', data]);
  await Promise.race([moment(), first.ended]);
  first.child.kill('SIGKILL');
  await first.ended;
  const second = start(['--port', '0', '--data', data]);
  const address = await addressOf(second).catch((error: unknown) => String(error));
  if (!address.startsWith('http')) return address;
  const health = await (await ask(address, '/health')).text();
  second.child.kill('SIGINT');
  await second.ended;
  const left = await processesWith(data);
  const files = (await readdir(data)).filter((name) => name.startsWith('new-') || name === 'password');
  if (!health.includes('"up"')) return health;
  return left.length + files.length > 0 ? `left behind: ${[...left, ...files].join(', ')}` : undefined;
}

/** The moment at which a cluster is being made in a folder. */
export async function inTheMiddleOfMaking(data: string): Promise<void> {
  const isMaking = async () =>
    existsSync(data) &&
    (await readdir(data)).some((name) => name.startsWith('new-') && existsSync(join(data, name, 'data', 'PG_VERSION')));
  while (!(await isMaking())) await pause(5);
}
