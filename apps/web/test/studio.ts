import { ROUTE_NAMES, ROUTES, type Answer, type Me, type Route, type RouteName } from '@jam-ledger/contract';
import { createPinia, setActivePinia } from 'pinia';

/** What was asked of a studio that only these tests have. */
export interface Asked {
  readonly name: RouteName;
  readonly path: string;
  readonly query: Readonly<Record<string, string>>;
  readonly body: unknown;
}

type Answering = {
  readonly [Name in RouteName]?: (asked: Asked) => Answer<Name> | Refusing | Promise<Answer<Name> | Refusing>;
};

/** A refusal, as the server sends it; status 0 for a line that is cut. */
export class Refusing {
  readonly status: number;
  readonly error: object;

  constructor(status: number, code: string, more: object = {}) {
    this.status = status;
    this.error = { code, message: 'It is refused.', ...more };
  }
}

/** A line that is cut. */
export const CUT = new Refusing(0, '');

/** Begins anew with empty stores, and with a studio that answers as it is told; everything asked is kept. */
export function openStudio(answers: Answering): { readonly asked: Asked[]; answers: Answering } {
  setActivePinia(createPinia());
  const studio = { asked: [] as Asked[], answers };
  globalThis.fetch = async (input, init) => {
    const url = new URL(typeof input === 'string' ? input : '', 'http://studio.test');
    const one = read(init?.method ?? 'GET', url, init?.body);
    studio.asked.push(one);
    const answer = await (studio.answers[one.name] as ((asked: Asked) => unknown) | undefined)?.(one);
    if (answer === CUT) throw new TypeError('Failed to fetch');
    const { status, body } =
      answer instanceof Refusing
        ? { status: answer.status, body: { error: answer.error } }
        : { status: 200, body: answer };
    // What the client reads of an answer; not every environment of these tests has a whole one.
    const text = () => Promise.resolve(JSON.stringify(body ?? null));
    return partOf<Response>({ ok: status < 300, status, text });
  };
  return studio;
}

function read(method: string, url: URL, body: unknown): Asked {
  const path = url.pathname.replace('/api', '');
  const name = ROUTE_NAMES.filter((one) => {
    const route: Route = ROUTES[one];
    return route.method === method && new RegExp(`^${route.path.replace(/:\w+/g, '[^/]+')}$`).test(path);
  }).sort((a, b) => ROUTES[a].path.split(':').length - ROUTES[b].path.split(':').length)[0];
  if (!name) throw new Error(`nothing is at ${method} ${path}`);
  const sent: unknown = typeof body === 'string' ? JSON.parse(body) : undefined;
  return { name, path, query: Object.fromEntries(url.searchParams), body: sent };
}

/** Somebody of the studio. */
export function meAs(role: Me['role'], id: string = role): Me {
  return {
    ...{ id, role, name: 'Somebody', signInName: 'somebody', taught: null, wards: [] },
    studio: { name: 'Test Loft', demo: false, zone: 'Europe/Oslo', today: '2026-03-14', holidays: [] },
  };
}

/** A thing of which only a part matters to a test. */
export function partOf<T>(some: Partial<T>): T {
  return some as T;
}

/** Lets what was begun come to its end. */
export async function settle(): Promise<void> {
  for (let count = 0; count < 120; count += 1)
    if (typeof setImmediate === 'function') await new Promise((done) => setImmediate(done));
    // A page has no `setImmediate`; what is waited for there are promises alone.
    else await Promise.resolve();
}
