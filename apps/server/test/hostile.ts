import { gzipSync } from 'node:zlib';
import { ROUTES, type Route, type RouteName } from '@jam-ledger/contract';
import { ROUTE_SCHEMAS } from '@jam-ledger/contract/schemas';
import type Joi from 'joi';
import type { Store } from '../src/store/index.ts';
import { chanceOf } from './chance.ts';
import type { Browser } from './studio.ts';

const ID = '7f0c2d1e-3b4a-4c5d-8e6f-0a1b2c3d4e5f';
const TEXTS = [
  '',
  ' ',
  '\0',
  'a\0b',
  '\ud800',
  'x\udfff',
  '\u202e',
  'é'.repeat(300),
  'x'.repeat(70_000),
  '%00',
  "'; --",
  '${1}',
  '$1',
  '__proto__',
];
const BAD_IDS = [
  `(${ID})`,
  `[${ID}]`,
  `{${ID}}`,
  ID.replaceAll('-', ':'),
  ID.replaceAll('-', ''),
  ID.toUpperCase(),
  '0',
  'null',
  '%',
  '..',
];
const BAD_DAYS = [
  '2026-02-30',
  '-000001-01-01',
  '+275760-09-13',
  '0000-00-00',
  '9999-12-31',
  '2026-3-1',
  '2026-03-14T10:00:00Z',
  'tomorrow',
];
const NUMBERS = [0, -0, -1, 0.5, 1e308, -1e308, 1e21, 2 ** 31, 2 ** 53 + 2, Number.NaN];
const THINGS: readonly unknown[] = [
  null,
  true,
  [],
  {},
  [[]],
  [null],
  { toString: 1 },
  { length: -1 },
  JSON.parse('{"__proto__":{"a":1}}'),
  { constructor: 1 },
];

/** Values as somebody sends them who means no good, some of them sound, so that not all stop at the door. */
export class Hostile {
  readonly #chance: () => number;
  readonly #ids: readonly string[];

  /** @param ids ids of rows that exist, so that what is sent reaches them */
  constructor(seed: number, ids: readonly string[]) {
    this.#chance = chanceOf(seed);
    this.#ids = ids;
  }

  pick<One>(some: readonly One[]): One {
    const one = some[Math.floor(this.#chance() * some.length)];
    if (one === undefined && some.length === 0) throw new Error('there is nothing to pick from');
    return one as One;
  }

  /** Whether something with this probability happens. */
  happens(probability: number): boolean {
    return this.#chance() < probability;
  }

  /** An id: of a row that exists mostly, in capitals sometimes, or none. */
  id(wild = 0.15): string {
    if (this.happens(wild)) return this.pick(BAD_IDS);
    const id = this.happens(0.1) ? ID : this.pick(this.#ids);
    return this.happens(0.1) ? id.toUpperCase() : id;
  }

  #anything(): unknown {
    return this.pick<() => unknown>([
      () => this.pick(TEXTS),
      () => this.pick(NUMBERS),
      () => this.pick(THINGS),
      () => this.pick(BAD_DAYS),
      () => this.id(),
    ])();
  }

  /** A value for a schema, sound or nearly so, or anything at all. `wild` is how often it is anything. */
  valueOf(schema: Joi.Description, wild: number): unknown {
    if (this.happens(wild)) return this.#anything();
    const allowed = (schema['allow'] as readonly unknown[] | undefined) ?? [];
    const only = (schema.flags as { only?: boolean } | undefined)?.only === true;
    if (allowed.length > 0 && (only || this.happens(0.3))) return this.pick(allowed);
    switch (schema.type) {
      case 'object':
        return this.#objectOf(schema, wild);
      case 'array':
        return this.#listOf(schema, wild);
      case 'number':
        return this.#numberOf(schema);
      case 'boolean':
        return this.happens(0.5);
      case 'alternatives': {
        const matches = (schema['matches'] as readonly { readonly schema: Joi.Description }[] | undefined) ?? [];
        return this.valueOf(this.pick(matches).schema, wild);
      }
      default:
        return this.#textOf(schema, wild);
    }
  }

  #objectOf(schema: Joi.Description, wild: number): unknown {
    const keys = Object.entries((schema['keys'] as Record<string, Joi.Description> | undefined) ?? {});
    const kept = keys.filter(() => !this.happens(wild / 4));
    const value = Object.fromEntries(kept.map(([name, one]) => [name, this.valueOf(one, wild)]));
    return this.happens(wild / 4) ? { ...value, unasked: this.#anything() } : value;
  }

  #listOf(schema: Joi.Description, wild: number): unknown {
    const items = (schema['items'] as readonly Joi.Description[] | undefined) ?? [];
    const count = Math.floor(this.#chance() * 4);
    return items.length === 0 ? [] : Array.from({ length: count }, () => this.valueOf(this.pick(items), wild));
  }

  #numberOf(schema: Joi.Description): number {
    const limit = (name: string) =>
      (schema['rules'] as readonly { name: string; args?: { limit?: unknown } }[] | undefined)?.find(
        (rule) => rule.name === name,
      )?.args?.limit;
    const [min, max] = [limit('min'), limit('max')].map((one) => (typeof one === 'number' ? one : undefined));
    if (this.happens(0.4)) return this.pick([min ?? 0, max ?? 100, (max ?? 100) + 1, (min ?? 0) - 1]);
    return Math.round((min ?? 0) + this.#chance() * Math.min(200, (max ?? 100) - (min ?? 0)));
  }

  #textOf(schema: Joi.Description, wild: number): string {
    const rules = (schema['rules'] as readonly { name: string }[] | undefined) ?? [];
    if (rules.some(({ name }) => name === 'guid')) return this.id(wild);
    if (this.happens(wild)) return this.pick(TEXTS);
    return this.pick(['5G 7G', '1A', 'C', '2026-03-14', '17:30', '4/4', 'standard', '2026-03-14T10:00:00Z', 'clean']);
  }
}

/** One thing asked, and what came of it. */
export interface Asked {
  readonly route: RouteName;
  readonly url: string;
  readonly sent: string;
  readonly status: number;
}

/** Ids of rows of every table that has them. */
export async function idsOf(store: Store): Promise<readonly string[]> {
  const tables = await store.rows<{ name: string }>(
    `SELECT table_name AS name FROM information_schema.columns
      WHERE table_schema = 'public' AND column_name = 'id' AND data_type = 'uuid' ORDER BY 1`,
    [],
  );
  const ids: string[] = [];
  for (const { name } of tables)
    for (const { id } of await store.rows<{ id: string }>(`SELECT id FROM "${name}" ORDER BY id LIMIT 12`, []))
      ids.push(id);
  return ids;
}

/** Asks every route so many times for what nobody sound would, and tells what was answered with a 5xx. */
export async function askHostile(
  browser: Browser,
  { seed, rounds, ids }: { readonly seed: number; readonly rounds: number; readonly ids: readonly string[] },
): Promise<{
  readonly asked: number;
  readonly broken: readonly Asked[];
  /** How often each status was answered. */
  readonly statuses: ReadonlyMap<number, number>;
}> {
  const hostile = new Hostile(seed, ids);
  const broken: Asked[] = [];
  const statuses = new Map<number, number>();
  const names = (Object.keys(ROUTES) as RouteName[]).filter((name) => name !== 'signOut');
  for (let round = 0; round < rounds; round += 1)
    for (const name of names) {
      const one = await askOnce(browser, hostile, name);
      if (one.status >= 500) broken.push(one);
      statuses.set(one.status, (statuses.get(one.status) ?? 0) + 1);
    }
  return { asked: rounds * names.length, broken, statuses };
}

async function askOnce(browser: Browser, hostile: Hostile, name: RouteName): Promise<Asked> {
  const route: Route = ROUTES[name];
  const { body, query }: { readonly body?: Joi.Schema; readonly query?: Joi.Schema; readonly answer: Joi.Schema } =
    ROUTE_SCHEMAS[name];
  const wild = hostile.pick([0, 0.05, 0.3]);
  const url = `/api${pathOf(route, { hostile, wild })}${queryOf(query, { hostile, wild })}`;
  const method = route.method === 'GET' ? 'get' : route.method === 'POST' ? 'post' : 'put';
  const ask = browser[method](url);
  const value = body ? hostile.valueOf(body.describe(), wild) : undefined;
  const text = value === undefined ? '' : JSON.stringify(value);
  if (value !== undefined)
    void (wild > 0 && hostile.happens(0.2) ? sendOddly(ask, text, hostile) : ask.type('json').send(text));
  const { status } = await ask.ok(() => true);
  return { route: name, url: url.slice(0, 200), sent: text.slice(0, 400), status };
}

/** As what it says it is not. */
function sendOddly(ask: ReturnType<Browser['post']>, text: string, hostile: Hostile): unknown {
  return hostile.pick<() => unknown>([
    () => ask.type('json').set('Content-Encoding', 'gzip').send(text),
    () => ask.type('json').set('Content-Encoding', 'br').send(text),
    () => ask.type('json').set('Content-Encoding', 'nonsense').send(text),
    () => ask.type('json').set('Content-Encoding', 'gzip').send(gzipSync(text).subarray(0, 12).toString('latin1')),
    () => ask.type('application/json; charset=klingon').send(text),
    () => ask.type('text/plain').send(text),
    () => ask.type('json').send(`${text}}`),
    () => ask.type('json').send('['.repeat(50_000)),
  ])();
}

function pathOf({ path }: Route, { hostile, wild }: { readonly hostile: Hostile; readonly wild: number }): string {
  return path.replace(/:(\w+)/g, (_, name: string) => {
    if (name === 'day') return encodeURIComponent(hostile.pick(['2026-03-14', '2026-03-07', ...BAD_DAYS]));
    if (name === 'token')
      return encodeURIComponent(hostile.pick(['A'.repeat(43), 'A'.repeat(42), ...TEXTS.slice(0, 3), '-']));
    return encodeURIComponent(hostile.id(wild));
  });
}

function queryOf(
  schema: Joi.Schema | undefined,
  { hostile, wild }: { readonly hostile: Hostile; readonly wild: number },
): string {
  const value = schema ? hostile.valueOf(schema.describe(), wild) : undefined;
  if (typeof value !== 'object' || value === null) return hostile.happens(0.1) ? '?a[b]=c&a=%00&__proto__=1' : '';
  const words = Object.entries(value).map(([name, one]) => `${encodeURIComponent(name)}=${escaped(one)}`);
  return words.length === 0 ? '' : `?${words.join('&')}`;
}

/** A value in a query; what cannot be written there is sent as the sign for nothing. */
function escaped(value: unknown): string {
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  return !/\p{Surrogate}/u.test(text) ? encodeURIComponent(text.slice(0, 2000)) : '%ED%A0%80';
}
