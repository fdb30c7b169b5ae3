import {
  ROUTE_NAMES,
  ROUTES,
  type PhraseBody,
  type RequestBody,
  type Route,
  type RouteName,
  type SectionBody,
  type Series,
  type SeriesBody,
  type SetUp,
} from '@jam-ledger/contract';
import { ROUTE_SCHEMAS } from '@jam-ledger/contract/schemas';
import type { Express, Response } from 'express';
import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { makeApp, type App } from '../src/app.ts';
import type { Config } from '../src/config.ts';
import { enterDemoStudio } from '../src/demo/index.ts';
import { addPerson, addStudio, migrate, type Store } from '../src/store/index.ts';
import { hashPassword } from '../src/studio/index.ts';
import { freshDatabase } from '../../../tools/cluster.ts';

/** The moment at which the test studios live. */
export const NOW = new Date('2026-03-14T10:00:00Z');

/** A server over a database, as the tests use it. */
export interface TestServer {
  readonly app: App;
  readonly databaseUrl: string;
  /** A browser of its own, signed in. */
  signIn(name: string, password?: string): Promise<Browser>;
  anonymous(): Browser;
  close(): Promise<void>;
}

/** Keeps its cookies, like a browser. */
export type Browser = ReturnType<typeof request.agent>;

const PASSWORD = 'correct-horse';

/** Starts the application over a fresh database with one studio: mara teaches ines and tomas, odile owns it. */
export async function openTestStudio(): Promise<TestServer> {
  const databaseUrl = await freshDatabase();
  await migrate(databaseUrl);
  const server = await openServer(databaseUrl);
  await enterPeople(server.app.store, 'Test Loft', ['mara', 'ines', 'tomas', 'odile']);
  return server;
}

/** Starts the application with the demo studio. */
export async function openDemoStudio(): Promise<TestServer> {
  const databaseUrl = await freshDatabase();
  await migrate(databaseUrl);
  const server = await openServer(databaseUrl);
  await enterDemoStudio(server.app.store, NOW);
  return server;
}

/** Starts the application over a migrated database. */
export async function openServer(databaseUrl: string, more: Partial<Config> = {}): Promise<TestServer> {
  const config = {
    databaseUrl,
    host: '127.0.0.1',
    port: 0,
    webFolder: undefined,
    secureCookie: false,
    logLevel: process.env['LOG_LEVEL'] ?? 'silent',
    logFolder: undefined,
    trustedProxies: 0,
    beginKey: undefined,
    replicaUrl: undefined,
    backupFolder: undefined,
    backupEveryHours: 0,
    backupKeep: 14,
    mailFolder: undefined,
    publicUrl: undefined,
    metricsPort: undefined,
    ...more,
  };
  const app = await makeApp(config, () => NOW);
  const broken = holdAnswers(app.express);
  return {
    app,
    databaseUrl,
    anonymous: () => request.agent(app.express),
    async signIn(name, password = PASSWORD) {
      const browser = request.agent(app.express);
      await browser.post('/api/session').send({ name, password }).expect(200);
      return browser;
    },
    async close() {
      await app.close();
      if (broken.length > 0) throw new Error(`answers that are not what the contract says:\n${broken.join('\n')}`);
    },
  };
}

/** Holds every answer of a server against the schema of its route; what does not fit is told. */
function holdAnswers(express: Express): readonly string[] {
  const broken: string[] = [];
  const { json } = express.response;
  express.response.json = function holding(this: Response, value: unknown) {
    const name = this.statusCode < 300 ? routeOf(this.req.method, this.req.originalUrl) : undefined;
    const sent: unknown = value === undefined ? undefined : JSON.parse(JSON.stringify(value));
    const trouble = name && ROUTE_SCHEMAS[name].answer.validate(sent, { abortEarly: false, convert: false }).error;
    if (trouble) broken.push(`${name}: ${trouble.message}`);
    return json.call(this, value);
  };
  return broken;
}

/** The route of the table that a request is for. */
function routeOf(method: string, url: string): RouteName | undefined {
  const [path = ''] = url.replace('/api', '').split('?');
  const fits = (one: Route) =>
    one.method === method && new RegExp(`^${one.path.replace(/:\w+/g, '[^/]+')}$`).test(path);
  // A path that is spelled out stands before one with names in it.
  return ROUTE_NAMES.filter((name) => fits(ROUTES[name])).sort(
    (a, b) => ROUTES[a].path.split(':').length - ROUTES[b].path.split(':').length,
  )[0];
}

/** Enters a studio whose people all have the same password. */
export async function enterPeople(store: Store, studio: string, names: readonly string[]): Promise<void> {
  const studioId = await addStudio(store, { name: studio, zone: 'Europe/Oslo' });
  const passwordHash = await hashPassword(PASSWORD);
  const roles: Readonly<Record<string, string>> = { mara: 'teacher', odile: 'owner', otto: 'teacher' };
  for (const name of names)
    await addPerson(store, {
      studioId,
      role: roles[name] ?? 'student',
      name,
      signInName: name,
      passwordHash,
      frets: 22,
    });
}

/** A sound request. */
export const REQUEST: RequestBody = {
  title: 'Slow Tide',
  whose: 'The Brinewick Parade',
  wanted: ['solo', 'that lick at 1:09'],
  notWanted: ['rhythm'],
  rendition: 'recorded',
  guitarMeant: 'the first of two',
  guitar: '22 frets',
  followsId: null,
  wantedBy: '2026-05-01',
  remarks: 'slow version please',
};

/** What nobody can finish in time: four parts in two days. */
export const REQUEST_SOON = {
  whose: '',
  wanted: ['riff', 'rhythm', 'solo', 'outro'],
  notWanted: [],
  rendition: 'recorded',
  guitarMeant: 'blended into one',
  guitar: '',
  followsId: null,
  wantedBy: '2026-03-16',
  remarks: '',
};

/** A sound section. */
export const SECTION: SectionBody = {
  label: '1A',
  role: 'solo',
  startSeconds: 0,
  startKnown: true,
  barsKnown: true,
  tuning: null,
  capo: null,
  bars: 4,
  times: 1,
  open: false,
  passes: [],
  jump: null,
};

/** A sound phrase. */
export const PHRASE: PhraseBody = { name: 'Phrase', text: '7G', layer: 'lead', certainty: 'heard', reason: '' };

/** A sound set-up. */
export const SET_UP: SetUp = {
  title: 'T',
  whose: '',
  tuning: 'standard',
  capo: 0,
  key: '',
  secondKey: '',
  tempo: 90,
  tempoKnown: true,
  rhythm: 'counted',
  meter: '4/4',
  feel: 'straight',
  changes: [],
  rig: [],
  frets: 22,
  scaleLengthMm: 648,
  songSeconds: null,
  offsetCents: 0,
  pitchWay: 'tune the guitar',
  studentLayer: 'lead',
};

/** The scope that the teacher of the tests agrees to. */
export const SCOPE = 'The solo and the lick at 1:09, as recorded.';

/** A move of a request. */
export function moveTo(version: number, state: string, scope: string | null = null, reason = '') {
  return { version, state, scope, reason };
}

/** A result to be posted, with an id of its own. */
export const take = (more: object = {}) => ({ id: randomUUID(), bpm: 84, outcome: 'clean', remark: '', ...more });

/** Everything up to an assigned piece, as the story goes; gives the ids on the way. */
export async function tellStory(server: TestServer) {
  const ines = await server.signIn('ines');
  const mara = await server.signIn('mara');
  const asked = await ines.post('/api/requests').send(REQUEST).expect(201);
  await mara
    .post(`/api/requests/${asked.body.id}/state`)
    .send(moveTo(1, 'agreed', SCOPE))
    .expect(200);
  const accepted = await mara.post(`/api/requests/${asked.body.id}/state`).send(moveTo(2, 'in work')).expect(200);
  const songId: string = accepted.body.transcriptionId;
  const section = await mara
    .post(`/api/transcriptions/${songId}/sections`)
    .send({ ...SECTION, startSeconds: 17 })
    .expect(201);
  const phrase = await mara
    .post(`/api/sections/${section.body.id}/phrases`)
    .send({ ...PHRASE, name: 'Opening', text: '/8 5G 7Gb1r 5G 7D' })
    .expect(201);
  const piece = await mara
    .post('/api/pieces')
    .send({ phraseId: phrase.body.id, startBpm: 60, targetBpm: 120 })
    .expect(201);
  return { ines, mara, request: accepted.body, songId, section: section.body, phrase: phrase.body, piece: piece.body };
}

/** Four Saturdays from the day of the tests on. */
export function seriesOf(
  studentId: string,
  more: Partial<SeriesBody> = {},
  rule: Partial<SeriesBody['rule']> = {},
): SeriesBody {
  const firstDay = NOW.toISOString().slice(0, 10);
  return {
    studentId,
    title: 'Saturdays',
    rule: { firstDay, time: '17:00', minutes: 45, everyWeeks: 1, weekdays: [], count: 4, until: null, ...rule },
    changes: { skips: [], moves: [], extras: [] },
    goal: '',
    goalDay: null,
    instalments: [],
    ...more,
  };
}

/** Ends a series. */
export async function endSeries(by: Browser, series: Series): Promise<void> {
  const { id, version, studentId, title, rule, changes, goal, goalDay, instalments } = series;
  await by
    .put(`/api/series/${id}`)
    .send({ studentId, title, rule, changes, goal, goalDay, instalments, version, struck: true })
    .expect(200);
}
