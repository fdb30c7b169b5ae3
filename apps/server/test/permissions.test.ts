import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { pathOf, ROUTE_NAMES, ROUTES, type Route, type RouteName } from '@jam-ledger/contract';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { addPerson, addStudio, keepWards, migrate } from '../src/store/index.ts';
import { hashPassword, makeBackup } from '../src/studio/index.ts';
import { INPUTS, NAMED_ELSEWHERE, PASSWORD, seriesIn, takeOf, type Asker, type World } from './inputs.ts';
import { NOW, openServer, PHRASE, REQUEST, SECTION, moveTo, type TestServer } from './studio.ts';
import { freshDatabase } from '../../../tools/cluster.ts';

/** Who is in each of two studios; the first student has the rows that are asked for. */
const PEOPLE = {
  owner: 'owner',
  teacher: 'teacher',
  'other teacher': 'teacher',
  student: 'student',
  'other student': 'student',
  guardian: 'guardian',
} as const;
type Name = keyof typeof PEOPLE;
const NAMES = Object.keys(PEOPLE) as readonly Name[];

let server: TestServer;
let here: World;
let folder: string;
const askers = new Map<string, Asker>();

beforeAll(async () => {
  const url = await freshDatabase();
  await migrate(url);
  folder = await mkdtemp(join(tmpdir(), 'backups-'));
  server = await openServer(url, { backupFolder: folder });
  here = await makeWorld('here');
  await makeWorld('elsewhere');
  askers.set('nobody', { name: 'nobody', role: undefined, browser: server.anonymous() });
}, 60_000);
afterAll(async () => {
  await server.close();
  await rm(folder, { recursive: true });
});

/** A studio with people of every kind and one student’s rows of every kind. */
async function makeWorld(place: string): Promise<World> {
  const { store } = server.app;
  const studioId = await addStudio(store, { name: `The loft ${place}`, zone: 'Europe/Oslo' });
  const passwordHash = await hashPassword(PASSWORD);
  const people = new Map<string, string>();
  for (const name of NAMES) {
    const signInName = `${name} ${place}`;
    const person = { studioId, role: PEOPLE[name], name, signInName, passwordHash, frets: 22 };
    people.set(name, await addPerson(store, person));
  }
  const idOf = (name: string) => people.get(name) ?? '';
  await keepWards(store, { studioId, guardianId: idOf('guardian') }, [idOf('student')]);
  for (const name of NAMES) {
    const browser = await server.signIn(`${name} ${place}`, PASSWORD);
    askers.set(`${name} ${place}`, { name: `${name} ${place}`, role: PEOPLE[name], browser });
  }
  const browserOf = (name: Name) => askerOf(`${name} ${place}`).browser;
  const [teacher, student] = [browserOf('teacher'), browserOf('student')];
  const make = async (path: string, body: object, by = teacher) => {
    const made: { readonly id: string } = (await by.post(`/api${path}`).send(body).expect(201)).body;
    return made;
  };
  const nobodys = await make('/people', { role: 'student', name: 'Nobody’s student', wards: [] }, browserOf('owner'));
  const request = await make('/requests', REQUEST, student);
  const move = (to: object) => teacher.post(`/api/requests/${request.id}/state`).send(to).expect(200);
  await move(moveTo(1, 'agreed', 'All of it.'));
  const song: string = (await move(moveTo(2, 'in work'))).body.transcriptionId;
  const section = await make(`/transcriptions/${song}/sections`, SECTION);
  const phrase = await make(`/sections/${section.id}/phrases`, PHRASE);
  const piece = await make('/pieces', { phraseId: phrase.id, startBpm: 60, targetBpm: 120 });
  const id = () => crypto.randomUUID();
  const entry = { id: id(), bpm: 80, outcome: 'clean', remark: '' };
  await make(`/pieces/${piece.id}/entries`, entry, student);
  const pin = { id: id(), phraseId: phrase.id, at: 0, text: 'mind this' };
  await make(`/pieces/${piece.id}/pins`, pin, student);
  const hearing = { id: id(), at: 0, kind: 'bend', isRight: true, remark: '' };
  await make(`/pieces/${piece.id}/hearings`, hearing);
  const series = await make('/series', seriesIn(idOf('student'), 500));
  const other = await make('/series', seriesIn(idOf('other student'), 501));
  const take = await make(`/pieces/${piece.id}/takes`, takeOf(id()), student);
  await student
    .put(`/api/sounds/${take.id}`)
    .query({ part: 0 })
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.alloc(44))
    .expect(200);
  const { file } = await makeBackup(server.databaseUrl, folder, { why: 'by hand', now: NOW, keep: 9 });
  return {
    studioId,
    backup: file,
    teacher,
    student,
    async versionOf(table, rowId) {
      const rows = await store.rows<{ version: number }>(`SELECT version FROM ${table} WHERE id = $1`, [rowId]);
      return rows[0]?.version ?? 0;
    },
    ids: {
      ...{ student: idOf('student'), nobodys: nobodys.id, request: request.id, song, section: section.id },
      ...{ phrase: phrase.id, piece: piece.id, entry: entry.id, pin: pin.id, hearing: hearing.id },
      ...{ series: series.id, otherSeries: other.id, take: take.id },
    },
  };
}

function askerOf(name: string): Asker {
  const asker = askers.get(name);
  if (!asker) throw new Error(`there is no ${name}`);
  return asker;
}

/** Every row of every table, but for what is computed anew from others and who is signed in. */
async function bookOf(): Promise<string> {
  const { store } = server.app;
  const tables = await store.rows<{ name: string }>(
    `SELECT table_name AS name FROM information_schema.tables WHERE table_schema = current_schema() AND table_type = 'BASE TABLE'
        AND NOT (table_name = ANY ($1::text[])) ORDER BY 1`,
    [['sessions', 'counted_sign_ins', 'phrase_facts', 'book_jobs']],
  );
  const parts = tables.map(
    ({ name }) =>
      `SELECT '${name}' AS name, md5(string_agg(row, '' ORDER BY row)) AS rows
         FROM (SELECT (to_jsonb(t) - ARRAY['kept', 'call', 'learning_rate'])::text AS row FROM "${name}" t) r`,
  );
  return JSON.stringify(await store.rows(parts.join(' UNION ALL '), []));
}

/** Sends a route with what belongs to it; its status. */
async function ask(name: RouteName, world: World, asker: Asker): Promise<{ status: number; isBookSame: boolean }> {
  const route: Route = ROUTES[name];
  const input: { readonly query?: object; readonly body?: object } = await INPUTS[name](world, asker);
  const method = ({ GET: 'get', POST: 'post', PUT: 'put', DELETE: 'delete' } as const)[route.method];
  const before = await bookOf();
  // Nobody keeps no cookies, even after signing in.
  const browser = asker.role ? asker.browser : server.anonymous();
  const sent = browser[method](`/api${pathOf(route, { ...input })}`).query({ ...input.query });
  const { status } = await (input.body ? sent.send(input.body) : sent).ok(() => true);
  return { status, isBookSame: before === (await bookOf()) };
}

/** What the table says somebody of the studio is answered about the first student’s rows. */
function expected(name: RouteName, who: Name | 'nobody'): number {
  const { who: roles, of }: Route = ROUTES[name];
  // A server without a key, and one with a studio, begins none.
  if (name === 'begin') return 403;
  if (roles === 'anybody') return 200;
  if (who === 'nobody') return 401;
  if (!roles.includes(PEOPLE[who])) return 403;
  if (of === 'entry' || of === 'pin') return who === 'student' ? 200 : 403;
  if (name === 'putBack') return who === 'student' ? 200 : 403;
  const isOthers = of === 'studio' || of === 'self';
  if (who === 'other student' && !isOthers) return 403;
  // Nothing is sent that is a backup, or a part of a sound, nor a password that holds.
  return name === 'bringBackup' || name === 'restore' || name === 'sendPart' ? 422 : 200;
}

/** What is taken out leaves a line in the trail; whoever signs in on a new device does, too. */
const TRACED: ReadonlySet<RouteName> = new Set<RouteName>(['takeBackup', 'everything']);
const readsOnly = (name: RouteName) => ROUTES[name].method === 'GET' && !TRACED.has(name);
// Who signs out asks nothing after it.
const names = ROUTE_NAMES.filter((name) => name !== 'signOut' && name !== 'signOutEverywhere');

describe.each(['nobody', ...NAMES] as const)('%s', (who) => {
  test.each(names)('%s, about what is a student’s here', async (name) => {
    const asker = askerOf(who === 'nobody' ? who : `${who} here`);
    const { status, isBookSame } = await ask(name, here, asker);
    const allowed = expected(name, who);
    expect([who, name, status === 201 ? 200 : status]).toEqual([who, name, allowed]);
    if (allowed !== 200 || readsOnly(name)) expect([who, name, isBookSame]).toEqual([who, name, true]);
  });
});

describe.each(['owner', 'teacher', 'student', 'guardian'] as const)('the %s of another studio', (who) => {
  const about = names.filter((name) => ROUTES[name].path.includes(':id') || NAMED_ELSEWHERE.has(name));
  test.each(about)('%s, about what is a student’s here', async (name) => {
    const { status, isBookSame } = await ask(name, here, askerOf(`${who} elsewhere`));
    const { who: roles }: Route = ROUTES[name];
    const isAsked = roles === 'anybody' || roles.includes(PEOPLE[who]);
    // Whoever may ask such a thing does not learn that it is there; a student or guardian who names somebody else is told no.
    const isNamed =
      NAMED_ELSEWHERE.has(name) && ROUTES[name].of === 'query' && PEOPLE[who] !== 'owner' && PEOPLE[who] !== 'teacher';
    const refusals = !isAsked || isNamed ? [403] : [404, 422];
    expect([who, name, refusals.includes(status) ? 'refused' : status]).toEqual([who, name, 'refused']);
    expect([who, name, isBookSame]).toEqual([who, name, true]);
  });
});

test.each(NAMES)('%s signs out and is nobody', async (who) => {
  const { browser } = askerOf(`${who} elsewhere`);
  await browser.delete(who === 'owner' ? '/api/session/everywhere' : '/api/session').ok(({ status }) => status < 300);
  await browser.get('/api/counts').expect(401);
});
