import { randomUUID } from 'node:crypto';
import { chmod, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { closeServer, startServer } from '../e2e/serving.ts';
import { ask, firstPiece, signIn } from '../e2e/starting.ts';
import { startCluster } from '../tools/cluster.ts';
import { ms, ratio, timesInTurn, type Figure } from './measure.ts';

/** Results that are posted, one after the other; the first are to warm up. */
const POSTS = 300;
const WARM = 50;

/**
 * How long a result takes until it is acknowledged by a PostgreSQL that a power cut takes nothing from (fsync on), as studios run it. The
 * yardsticks, in turns with it: one row inserted there by pg alone; and the same result with fsync off, as all other figures are measured.
 */
export async function durableFigures(): Promise<readonly Figure[]> {
  const folder = await mkdtemp(join(tmpdir(), 'jam-ledger-durable-'));
  await chmod(folder, 0o755);
  const closing: (() => unknown)[] = [];
  try {
    const posters = [];
    for (const durable of [true, false]) {
      const cluster = await startCluster({ folder: join(folder, durable ? 'durable' : 'quick'), durable });
      closing.unshift(() => cluster.stop());
      const server = await startServer(cluster.databaseUrl);
      closing.unshift(() => closeServer(server));
      posters.push({ post: await posterOf(server.url), ...(await inserterOf(cluster.databaseUrl, closing)) });
    }
    const [durable, quick] = posters;
    if (!durable || !quick) throw new Error('both were started');
    const times = await timesInTurn([durable.post, durable.insert, quick.post], POSTS, WARM);
    const [posted = NaN, inserted = NaN, quickly = NaN] = times.map(({ p95 }) => p95);
    return [
      {
        what: 'Posting a result to a durable PostgreSQL (fsync on), 95th percentile',
        measured: ms(posted),
        target: '',
        met: null,
        yardstick: `one row inserted there by pg, ${ms(inserted)}; the same with fsync off, ${ms(quickly)}`,
        ratio: ratio(posted, inserted),
      },
    ];
  } finally {
    for (const close of closing) await close();
    await rm(folder, { recursive: true, force: true });
  }
}

/** Posts one result of a student of the demo. */
async function posterOf(url: string): Promise<() => Promise<void>> {
  const cookie = await signIn(url, 'ines');
  const path = `${await firstPiece(url, cookie)}/entries`;
  return async () => {
    const entry = { id: randomUUID(), bpm: 60, outcome: 'clean', remark: '' };
    const answer = await ask(url, path, entry, cookie);
    if (answer.status !== 201) throw new Error(`a result was answered ${answer.status}`);
    await answer.text();
  };
}

/** Inserts one row of two columns, over a connection of its own. */
async function inserterOf(databaseUrl: string, closing: (() => unknown)[]) {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  closing.unshift(() => client.end());
  await client.query('CREATE TABLE bare (id uuid PRIMARY KEY, bpm integer NOT NULL)');
  return {
    insert: async () => void (await client.query('INSERT INTO bare VALUES ($1, $2)', [randomUUID(), 60])),
  };
}
