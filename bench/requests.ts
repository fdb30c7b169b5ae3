import { fork, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import pg from 'pg';
import { makeApp } from '../apps/server/src/app.ts';
import { readConfig } from '../apps/server/src/config.ts';
import { queriesOf, type Query } from '../tools/queries.ts';
import { computeAll } from '../apps/server/src/studio/index.ts';
import { cookieOf, fillStudio, openMeasured, send, SIZE, WRITE } from './largeStudio.ts';
import { figure, ratio, timingOf, type Figure } from './measure.ts';

/** Requests of one turn, one after another, and turns of each side. */
const LOAD = { requests: 60, turns: 9 } as const;

/**
 * The processor time of the server for its main requests, beside that of a bare handler of Express and pg that asks the same queries. Both
 * run beside each other on the same data and take turns; the medians of the turns are compared.
 */
export async function requestFigures(): Promise<readonly Figure[]> {
  const { stage, metrics } = await openMeasured();
  const bare = await startBare(stage.databaseUrl);
  const writer = new pg.Client({ connectionString: stage.databaseUrl });
  await writer.connect();
  const write = () => writer.query(WRITE);
  try {
    const { student, piece } = await fillStudio(stage.databaseUrl);
    const cookie = await cookieOf(stage, 'mara');
    const entry = () => ({ id: randomUUID(), bpm: 60 + Math.floor(Math.random() * 60), outcome: 'clean', remark: '' });
    const asked: readonly Asked[] = [
      { name: 'Desk', path: '/desk', cookie },
      { name: 'Lesson', path: `/lessons/of/${student}`, cookie },
      { name: 'Ledger', path: `/ledger?studentId=${student}`, cookie },
      { name: 'Piece', path: `/pieces/${piece}`, cookie },
      { name: 'Posting', path: `/pieces/${piece}/entries`, cookie, body: entry },
    ];
    const captured = await capture(stage.databaseUrl, asked);
    const figures: Figure[] = [];
    for (const one of asked) {
      const queries = captured.get(one.name) ?? [];
      await bare.answer(one.name, queries);
      const product = { url: `${stage.url}/api${one.path}`, cpu: () => cpuOf(metrics), asked: one };
      const yardstick = { url: `${bare.url}/${one.name}`, cpu: () => bare.cpu(), asked: { ...one, body: undefined } };
      await turn(product, write);
      await turn(yardstick, write);
      const ours: number[] = [];
      const theirs: number[] = [];
      for (let index = 0; index < LOAD.turns; index += 1) {
        ours.push(await turn(product, write));
        theirs.push(await turn(yardstick, write));
      }
      const [own, other] = [timingOf(ours).median, timingOf(theirs).median];
      const per = (value: number) => `${value.toFixed(2)} ms of processor time`;
      const name = `${one.name}: a request (${queries.length} queries), ${SIZE}`;
      figures.push(
        figure(
          name,
          per(own),
          'at most 3 ×',
          own <= 3 * other,
          `bare Express and pg, ${per(other)}`,
          ratio(own, other),
        ),
      );
    }
    return figures;
  } finally {
    bare.stop();
    await writer.end();
    await stage.close();
  }
}

interface Asked {
  readonly name: string;
  readonly path: string;
  readonly cookie: string;
  readonly body?: (() => object) | undefined;
}

/** Asks one of them many times, something written before each, so that it is answered anew; processor time of one request, milliseconds. */
async function turn(
  { url, cpu, asked }: { readonly url: string; readonly cpu: () => Promise<number>; readonly asked: Asked },
  write: () => Promise<unknown>,
): Promise<number> {
  const from = await cpu();
  for (let index = 0; index < LOAD.requests; index += 1) {
    await write();
    await send(url, asked);
  }
  return ((await cpu()) - from) / LOAD.requests;
}

/** Processor time of the server so far, milliseconds. */
async function cpuOf(port: number): Promise<number> {
  const text = await (await fetch(`http://127.0.0.1:${port}/metrics`)).text();
  const [, seconds] = /^process_cpu_seconds_total (\S+)$/m.exec(text) ?? [];
  return Number(seconds) * 1000;
}

/** The queries that each request sends to the database, by a server of our own over the same data. */
async function capture(databaseUrl: string, asked: readonly Asked[]): Promise<ReadonlyMap<string, readonly Query[]>> {
  const app = await makeApp(readConfig({ DATABASE_URL: databaseUrl, LOG_LEVEL: 'silent' }));
  const server = app.express.listen(0, '127.0.0.1');
  await new Promise((done) => server.once('listening', done));
  const address = server.address();
  const url = `http://127.0.0.1:${typeof address === 'object' && address ? address.port : 0}/api`;
  // What was never computed is none of what is compared.
  await computeAll(app.store);
  // What the database does by itself within minutes.
  await app.store.rows('ANALYZE pieces', []);
  const captured = new Map<string, readonly Query[]>();
  for (const one of asked) {
    const ask = () => send(`${url}${one.path}`, one);
    // The connections that it needs are open by the third time.
    for (let index = 0; index < 2; index += 1) await ask();
    await app.store.rows(WRITE, []);
    captured.set(one.name, takenBack(await queriesOf(ask)));
  }
  await new Promise((done) => server.close(done));
  await app.close();
  return captured;
}

/** What was written is written under another id, and taken back by the yardstick, so that it can be written again. */
function takenBack(queries: readonly Query[]): readonly Query[] {
  const entry = queries.find(({ text }) => text.includes('INSERT INTO entries'))?.values[3];
  const other = randomUUID();
  return queries.map(({ text, values }) => ({
    text: text === 'COMMIT;' ? 'ROLLBACK;' : text,
    values: values.map((value) => (value === entry ? other : value)),
  }));
}

async function startBare(databaseUrl: string) {
  const child: ChildProcess = fork(join(import.meta.dirname, 'bareServer.ts'), [], {
    env: { ...process.env, DATABASE_URL: databaseUrl, NODE_ENV: 'production' },
  });
  const told = <T>(message: object | string | undefined) =>
    new Promise<T>((done) => {
      child.once('message', (answer: T) => done(answer));
      if (message !== undefined) child.send(message);
    });
  const { port } = await told<{ readonly port: number }>(undefined);
  return {
    url: `http://127.0.0.1:${port}`,
    async cpu() {
      const { cpu } = await told<{ readonly cpu: NodeJS.CpuUsage }>('cpu');
      return (cpu.user + cpu.system) / 1000;
    },
    answer: (name: string, queries: readonly Query[]) => told({ name, queries }),
    stop: () => void child.kill('SIGTERM'),
  };
}
