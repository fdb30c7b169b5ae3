import { randomUUID } from 'node:crypto';
import { Worker } from 'node:worker_threads';
import { openStore, type Store } from '../apps/server/src/store/index.ts';
import { showDesk, showLessonDay, contextOf } from '../apps/server/src/studio/index.ts';
import type { Stage } from '../e2e/stage.ts';
import {
  addTenYears,
  computeEverything,
  cookieOf,
  fillStudio,
  openMeasured,
  send,
  SIZE,
  STUDIO,
  WRITE,
  type Ids,
} from './largeStudio.ts';
import { ms, ratio, time, timesInTurn, timingOf, type Figure } from './measure.ts';

/** How long both servers are under load, entries sent to them, and how many at once. */
const LOAD = { entries: 2000, atOnce: 24 } as const;

/** So many ask for the Desk at once, for so long, seconds; meanwhile others ask for something else, so far apart, milliseconds. */
const CROWD = { atOnce: 32, seconds: 60, busySeconds: 20, othersMs: 250 } as const;

/** The tables that grow; nothing may read one of them from end to end. */
const LARGE = ['entries', 'pieces', 'lessons', 'phrases', 'sections'] as const;

/**
 * Desk and Lesson in a studio with 300 students, 40,000 lessons and a million entries; which indexes they are answered from; and
 * two servers of one database under load. The yardstick is the health request, one small query.
 */
export async function weekFigures(): Promise<readonly Figure[]> {
  const { stage, metrics } = await openMeasured();
  const store = openStore(stage.databaseUrl);
  try {
    const ids = await fillStudio(stage.databaseUrl);
    const old = await addTenYears(stage.databaseUrl);
    const [mara, odile] = [await cookieOf(stage, 'mara'), await cookieOf(stage, 'odile')];
    const ask = (path: string, cookie: string) => () => send(`${stage.url}/api${path}`, { cookie });
    const stretch = stretchIn(metrics);
    const idle = watchIdle();
    const stretches = async () => ({ server: await stretch(), idle: await idle.longestMs() });
    // What the start took is none of what is measured.
    await stretches();
    const computed = await computeEverything(ask('/desk', odile), store);
    const stood = { 'computing all pieces anew': await stretches() };
    // What the database does by itself within minutes.
    await store.rows('ANALYZE pieces', []);
    const health = await time(ask('/health', mara), 100);
    const write = () => store.rows(WRITE, []);
    const [, desk, all] = await timesInTurn([write, ask('/desk', mara), ask('/desk', odile)], 100, 3);
    if (!desk || !all) throw new Error('both were timed');
    const lesson = await time(ask(`/lessons/of/${ids.student}`, mara), 100);
    const found = await time(ask('/search?q=phrase%201', mara), 40);
    const series = await time(ask('/series', odile), 40);
    const oneSeries = await time(ask(`/series/${ids.series}`, odile), 40);
    const students = await time(ask('/students', odile), 40);
    const licks = await time(ask('/licks', odile), 40);
    const ledger = await time(ask(`/ledger?studentId=${ids.student}`, mara), 40);
    const oldLedger = await time(ask(`/ledger?studentId=${old.student}`, mara), 40);
    const piece = await time(ask(`/pieces/${ids.piece}`, mara), 40);
    const oldPiece = await time(ask(`/pieces/${old.piece}`, mara), 40);
    Object.assign(stood, { 'desks, lessons, searches and series': await stretches() });
    const elsewhere = await cookieOf(stage, 'mara');
    const desks = [ask('/desk', mara), ask('/desk', odile)];
    const writing = setInterval(() => void write(), CROWD.othersMs);
    const busy = await crowdOf(desks, [], CROWD.busySeconds);
    clearInterval(writing);
    const crowd = await crowdOf(
      desks,
      [`/lessons/of/${ids.student}`, `/ledger?studentId=${ids.student}`, `/pieces/${ids.piece}`, '/session'].map(
        (path) => ask(path, elsewhere),
      ),
      CROWD.seconds,
    );
    const moved = await moveZone(stage.url, odile);
    Object.assign(stood, { 'laying all lessons anew in another zone': await stretches() });
    const start = await startWithoutFacts(stage, store);
    const plans = await plansOf(store, ids);
    const load = await loadBoth(stage, { ...ids, store });
    const figure = (what: string, p95: number): Figure => ({
      what,
      measured: ms(p95),
      target: 'under 150 ms',
      met: p95 < 150,
      yardstick: `health request, ${ms(health.p95)}`,
      ratio: ratio(p95, health.p95),
    });
    return [
      figure(
        `Desk of a teacher with ${STUDIO.students / STUDIO.teachers} students, something written since it was looked at last (${SIZE}), 95th percentile`,
        desk.p95,
      ),
      figure('Desk of the owner, all students, as before, 95th percentile', all.p95),
      figure('Lesson of one student, 95th percentile', lesson.p95),
      {
        what: `Desks of a teacher and of the owner, ${CROWD.atOnce} at once for a minute in which nothing is written (${crowd.desk.perSecond} a second), 95th percentile`,
        measured: ms(crowd.desk.p95),
        target: 'at most 150 ms',
        met: crowd.desk.p95 <= 150,
        yardstick: `one after another, looked at anew, ${ms(desk.p95)}`,
        ratio: ratio(crowd.desk.p95, desk.p95),
      },
      {
        what: `The same while something is written four times a second (${busy.desk.perSecond} a second), 95th percentile`,
        measured: ms(busy.desk.p95),
        target: '',
        met: null,
        yardstick: `nothing written, ${ms(crowd.desk.p95)}`,
        ratio: ratio(busy.desk.p95, crowd.desk.p95),
      },
      {
        what: 'Longest of other requests in that minute, of another browser: Lesson, Ledger, piece, who one is',
        measured: ms(crowd.longestOther),
        target: 'at most 250 ms',
        met: crowd.longestOther <= 250,
        yardstick: `Lesson alone, 95th percentile, ${ms(lesson.p95)}`,
        ratio: ratio(crowd.longestOther, lesson.p95),
      },
      { ...figure('Search over everything, 95th percentile', found.p95), target: '', met: null },
      figure(`Series of the owner, the first 100 of ${STUDIO.students}, 95th percentile`, series.p95),
      figure('One series of weekly lessons, 95th percentile', oneSeries.p95),
      figure(`Students, all ${STUDIO.students}, 95th percentile`, students.p95),
      figure('Licks, 95th percentile', licks.p95),
      ...[
        { what: 'Ledger', young: ledger.p95, old: oldLedger.p95 },
        { what: 'Page of a piece', young: piece.p95, old: oldPiece.p95 },
      ].map(({ what, young, old: grown }): Figure => ({
        what: `${what} of a student with a line a day for ten years at three pieces, 95th percentile`,
        measured: ms(grown),
        target: 'under 150 ms',
        met: grown < 150,
        yardstick: `of one with ${STUDIO.entries} lines at each, ${ms(young)}`,
        ratio: ratio(grown, young),
      })),
      {
        what: `Laying the lessons of all ${STUDIO.students} series anew in another zone`,
        measured: `${(moved / 1000).toFixed(1)} s`,
        target: '',
        met: null,
        yardstick: `health request, ${ms(health.p95)}`,
        ratio: ratio(moved, health.p95),
      },
      ...Object.entries(stood).map(([what, { server, idle: nothing }]): Figure => ({
        what: `Longest time the server answered nobody: ${what}`,
        measured: ms(server),
        target: 'under 50 ms',
        met: server < 50,
        yardstick: `a thread beside it with nothing to do, ${ms(nothing)}`,
        ratio: ratio(server, nothing),
      })),
      {
        what: `Starting with ${STUDIO.students * STUDIO.pieces} phrases and pieces of which nothing is kept, until it listens (all is gathered ${(start.gatheredMs / 1000).toFixed(0)} s later; health requests meanwhile, 95th percentile ${ms(start.health)})`,
        measured: ms(start.listensMs),
        target: 'under 5 s',
        met: start.listensMs < 5000,
        yardstick: `the same with everything kept, ${ms(start.keptMs)}`,
        ratio: ratio(start.listensMs, start.keptMs),
      },
      {
        what: `Where all ${STUDIO.students * STUDIO.pieces} pieces stand, computed anew from every entry`,
        measured: `${(computed / 1000).toFixed(1)} s`,
        target: '',
        met: null,
        yardstick: `health request, ${ms(health.p95)}`,
        ratio: ratio(computed, health.p95),
      },
      {
        what: `Large tables that Desk and Lesson read from end to end, by EXPLAIN of their ${plans.queries} queries (indexes: ${plans.indexes.join(', ')})`,
        measured: plans.scanned.length === 0 ? 'none' : plans.scanned.join(', '),
        target: 'none',
        met: plans.scanned.length === 0,
        yardstick: `large tables, ${LARGE.length}`,
        ratio: ratio(plans.scanned.length, LARGE.length),
      },
      {
        what: `Entries lost of ${LOAD.entries} sent twice each to two servers, ${LOAD.atOnce} at once (${load.perSecond} answers a second, 95th percentile ${ms(load.p95)})`,
        measured: String(load.lost),
        target: 'none',
        met: load.lost === 0,
        yardstick: `entries kept, ${load.kept}`,
        ratio: ratio(load.lost, LOAD.entries),
      },
    ];
  } finally {
    await store.close();
    await stage.close();
  }
}

/** Tells how long the event loop of a server stood still since this was asked last, milliseconds. */
function stretchIn(port: number): () => Promise<number> {
  return async () => {
    const text = await (await fetch(`http://127.0.0.1:${port}/metrics`)).text();
    const [, seconds] = /^jam_ledger_event_loop_longest_stretch_seconds (\S+)$/m.exec(text) ?? [];
    if (seconds === undefined) throw new Error('the server tells no stretch');
    return Number(seconds) * 1000;
  };
}

/** How long a thread with nothing to do waited for its turn, measured as the server measures itself: what the machine takes. */
function watchIdle() {
  const thread = new Worker(
    `const { parentPort } = require('node:worker_threads');
     const delay = require('node:perf_hooks').monitorEventLoopDelay({ resolution: 10 });
     delay.enable();
     parentPort.on('message', () => { parentPort.postMessage(Math.max(0, delay.max / 1e6 - 10)); delay.reset(); });`,
    { eval: true },
  );
  thread.unref();
  return {
    longestMs: () =>
      new Promise<number>((done) => {
        thread.once('message', done);
        thread.postMessage('');
      }),
  };
}

/** Moves the studio into another zone and back; milliseconds of one way. */
async function moveZone(url: string, cookie: string): Promise<number> {
  const headers = { Cookie: cookie, 'Content-Type': 'application/json' };
  const before = (await (await fetch(`${url}/api/studio`, { headers })).json()) as { zone: string; version: number };
  const from = performance.now();
  for (const [index, zone] of ['America/New_York', before.zone].entries()) {
    const body = JSON.stringify({ ...before, version: before.version + index, zone });
    const answer = await fetch(`${url}/api/studio`, { method: 'PUT', headers, body });
    if (!answer.ok) throw new Error(`the zone was answered ${answer.status}: ${await answer.text()}`);
  }
  return (performance.now() - from) / 2;
}

/** Starts another server while everything is kept, and once more when nothing is. */
async function startWithoutFacts(stage: Stage, store: Store) {
  const start = async () => {
    const from = performance.now();
    const url = await stage.second();
    return { url, took: performance.now() - from };
  };
  const { took: keptMs } = await start();
  await store.rows('DELETE FROM phrase_facts RETURNING id', []);
  await store.rows('UPDATE pieces SET kept = NULL RETURNING id', []);
  const { url, took: listensMs } = await start();
  const from = performance.now();
  const times: number[] = [];
  for (;;) {
    const asked = performance.now();
    await (await fetch(`${url}/api/health`)).text();
    times.push(performance.now() - asked);
    const [left] = await store.rows<{ count: number }>(
      `SELECT (SELECT count(*) FROM phrases p WHERE NOT EXISTS (SELECT 1 FROM phrase_facts f WHERE f.id = p.id))::int
            + (SELECT count(*) FROM pieces WHERE kept IS NULL AND assigned_on IS NOT NULL AND NOT struck)::int AS count`,
      [],
    );
    if (left?.count === 0) break;
    await new Promise((done) => setTimeout(done, 100));
  }
  return { keptMs, listensMs, gatheredMs: performance.now() - from, health: timingOf(times).p95 };
}

/** What the planner says of every query of Desk and Lesson: the indexes used, and large tables read from end to end. */
async function plansOf(store: Store, { mara, student }: Ids) {
  const indexes = new Set<string>();
  const scanned = new Set<string>();
  let queries = 0;
  const explaining: Store = {
    ...store,
    async rows<Row extends object>(sql: string, bind: readonly unknown[]) {
      if (/^\s*(SELECT|WITH)/.test(sql)) {
        queries += 1;
        const plan = await store.rows<Record<string, string>>(`EXPLAIN ${sql}`, bind);
        for (const line of plan.map((one) => Object.values(one).join(' '))) {
          const index = /Index (?:Only )?Scan(?: Backward)? using (\w+)|Bitmap Index Scan on (\w+)/.exec(line);
          const table = /Seq Scan on (\w+)/.exec(line)?.[1];
          const name = index?.[1] ?? index?.[2];
          if (name !== undefined && LARGE.some((large) => name.startsWith(large.slice(0, 6)))) indexes.add(name);
          if (table !== undefined && LARGE.some((large) => large === table)) scanned.add(table);
        }
      }
      return store.rows<Row>(sql, bind);
    },
  };
  const context = await contextOf(explaining, { personId: mara, now: new Date() });
  if (!context) throw new Error('mara is not in the studio');
  await showDesk(context);
  await showLessonDay(context, student);
  return { queries, indexes: [...indexes].sort(), scanned: [...scanned].sort() };
}

/** Many ask for the Desk, each again as soon as it is answered, and another browser beside them for something else. */
async function crowdOf(
  desks: readonly (() => Promise<unknown>)[],
  others: readonly (() => Promise<unknown>)[],
  seconds: number,
) {
  const until = performance.now() + 1000 * seconds;
  const times: number[] = [];
  let longestOther = 0;
  const one = async (index: number) => {
    while (performance.now() < until) {
      const from = performance.now();
      await desks[index % desks.length]?.();
      times.push(performance.now() - from);
    }
  };
  const other = async () => {
    for (let turn = 0; performance.now() < until; turn += 1) {
      const from = performance.now();
      await others[turn % others.length]?.();
      longestOther = Math.max(longestOther, performance.now() - from);
      await new Promise((done) => setTimeout(done, CROWD.othersMs));
    }
  };
  await Promise.all([...Array.from({ length: CROWD.atOnce }, (_, index) => one(index)), other()]);
  const perSecond = Math.round(times.length / seconds);
  return { desk: { p95: timingOf(times).p95, perSecond }, longestOther };
}

/** Sends entries to two servers of the database, each to both; counts what is lost. */
async function loadBoth(stage: Stage, { studio, student, store }: Ids & { readonly store: Store }) {
  const addresses = [stage.url, await stage.second()];
  const pieces = await store.rows<{ id: string }>(
    'SELECT id FROM pieces WHERE studio_id = $1 AND student_id = $2 AND assigned_on IS NOT NULL',
    [studio, student],
  );
  const cookie = await cookieOf(stage, 'mara');
  const ids = Array.from({ length: LOAD.entries }, () => randomUUID());
  const times: number[] = [];
  let next = 0;
  const from = performance.now();
  const worker = async () => {
    for (let index = next++; index < ids.length; index = next++) {
      const body = JSON.stringify({ id: ids[index], bpm: 50 + (index % 60), outcome: 'clean', remark: '' });
      const path = `/api/pieces/${pieces[index % pieces.length]?.id ?? ''}/entries`;
      for (const address of index % 2 === 0 ? addresses : addresses.toReversed()) {
        const sent = performance.now();
        const headers = { Cookie: cookie, 'Content-Type': 'application/json' };
        const answer = await fetch(`${address}${path}`, { method: 'POST', headers, body });
        if (answer.status !== 201) throw new Error(`an entry was answered ${answer.status}`);
        await answer.text();
        times.push(performance.now() - sent);
      }
    }
  };
  await Promise.all(Array.from({ length: LOAD.atOnce }, worker));
  const seconds = (performance.now() - from) / 1000;
  const [row] = await store.rows<{ kept: number }>(
    'SELECT count(*)::int AS kept FROM entries WHERE id = ANY ($1::uuid[]) AND NOT struck',
    [ids],
  );
  const kept = row?.kept ?? 0;
  return { kept, lost: ids.length - kept, perSecond: Math.round(times.length / seconds), p95: timingOf(times).p95 };
}
