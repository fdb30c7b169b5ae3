import connectPgSimple from 'connect-pg-simple';
import type session from 'express-session';
import type { ClientRateLimitInfo, Store as LimitStore } from 'express-rate-limit';
import pg from 'pg';
import type { Request } from 'express';
import type { Store } from './database.ts';
import { PERSON_COLUMNS, type PersonRow } from './people.ts';

/** A session is kept alive at most so often, milliseconds; it lives for two weeks. Our choice. */
const TOUCH_EVERY_MS = 60_000;

/** A session that is not over, with whoever is signed in there. */
const SESSION_WITH_PERSON = `
  SELECT x.sess, ${PERSON_COLUMNS}
    FROM sessions x LEFT JOIN people p ON p.id = (x.sess ->> 'personId')::uuid LEFT JOIN studios s ON s.id = p.studio_id
   WHERE x.sid = $1 AND x.expire >= now()`;

/** A session as it is kept, and the columns of a person, all of them null where nobody is signed in. */
type SessionRow = { readonly sess: session.SessionData } & (PersonRow | { readonly id: null });

/** Sessions of an application. */
export interface Sessions {
  readonly store: session.Store;
  /** Who is signed in where a request comes from, as of when its session was looked up. */
  personOf(request: Request): PersonRow | undefined;
  close(): Promise<void>;
}

/** Sessions kept in PostgreSQL, shared by every server of the database; each is looked up in one query with who is signed in there. */
export function sessionStore(databaseUrl: string, makeSession: typeof session): Sessions {
  const pool = new pg.Pool({ connectionString: databaseUrl, max: 4 });
  // A connection that is lost ends the query that used it; the pool opens another when one is needed.
  const lost = () => undefined;
  pool.on('error', lost);
  pool.on('connect', (client) => client.on('error', lost));
  const PgStore = connectPgSimple(makeSession);
  const touched = new Map<string, number>();
  const persons = new WeakMap<object, PersonRow>();
  /** Whoever cannot be kept signed in longer is answered all the same; who was so a moment ago is not written down again. */
  class PatientStore extends PgStore {
    override get(id: string, done: (error: unknown, data?: session.SessionData | null) => void): void {
      pool.query<SessionRow>({ name: 'session', text: SESSION_WITH_PERSON, values: [id] }).then(
        ({ rows: [row] }) => {
          if (row && row.id !== null) persons.set(row.sess, row);
          done(null, row?.sess);
        },
        (error: unknown) => done(error),
      );
    }

    override createSession(request: Request, data: session.SessionData): session.Session & session.SessionData {
      const person = persons.get(data);
      if (person) persons.set(request, person);
      return super.createSession(request, data);
    }

    override touch(id: string, data: session.SessionData, done?: () => void): void {
      const now = Date.now();
      if (now - (touched.get(id) ?? 0) < TOUCH_EVERY_MS) {
        done?.();
        return;
      }
      // The oldest stand first: those that are over are let go.
      touched.delete(id);
      touched.set(id, now);
      for (const [old, at] of touched) {
        if (now - at < TOUCH_EVERY_MS) break;
        touched.delete(old);
      }
      super.touch(id, data, () => done?.());
    }
  }
  const store = new PatientStore({ pool, tableName: 'sessions', pruneSessionInterval: false, errorLog: lost });
  return {
    store,
    personOf: (request) => persons.get(request),
    async close() {
      store.close();
      await pool.end();
    },
  };
}

/** The secret that signs session cookies, the same for every server of the database. */
export async function sessionSecret(store: Store): Promise<string> {
  const rows = await store.rows<{ value: string }>('SELECT value FROM secrets WHERE name = $1', ['session']);
  const value = rows[0]?.value;
  if (value === undefined) throw new Error('The database has no session secret; it is not migrated.');
  return value;
}

/** Takes away sessions and counts that are over. */
export async function sweepSessions(store: Store): Promise<void> {
  await store.rows('DELETE FROM sessions WHERE expire < now() RETURNING 1', []);
  await store.rows('DELETE FROM counted_sign_ins WHERE resets_at < now() RETURNING 1', []);
}

/** Counts sign-ins in PostgreSQL, so that servers of one database count together. */
export class SignInCounts implements LimitStore {
  readonly prefix: string;
  readonly localKeys = false;
  readonly #store: Store;
  #windowSeconds = 0;

  constructor(store: Store, prefix: string) {
    this.#store = store;
    this.prefix = prefix;
  }

  init({ windowMs }: { windowMs: number }): void {
    this.#windowSeconds = windowMs / 1000;
  }

  async increment(key: string): Promise<ClientRateLimitInfo> {
    const rows = await this.#store.rows<{ hits: number; resets_at: Date }>(
      `INSERT INTO counted_sign_ins AS counted (key, hits, resets_at)
       VALUES ($1, 1, now() + make_interval(secs => $2))
       ON CONFLICT (key) DO UPDATE SET
         hits = CASE WHEN counted.resets_at < now() THEN 1 ELSE counted.hits + 1 END,
         resets_at = CASE WHEN counted.resets_at < now() THEN excluded.resets_at ELSE counted.resets_at END
       RETURNING hits, resets_at`,
      [this.prefix + key, this.#windowSeconds],
    );
    return { totalHits: rows[0]?.hits ?? 1, resetTime: rows[0]?.resets_at };
  }

  async decrement(key: string): Promise<void> {
    await this.#store.rows('UPDATE counted_sign_ins SET hits = greatest(0, hits - 1) WHERE key = $1 RETURNING 1', [
      this.prefix + key,
    ]);
  }

  async resetKey(key: string): Promise<void> {
    await this.#store.rows('DELETE FROM counted_sign_ins WHERE key = $1 RETURNING 1', [this.prefix + key]);
  }
}

/** Whether a device is known for a name to sign in with. SQL by hand: names are compared as sign-in does. */
export async function findDevice(store: Store, signInName: string, tokenHash: string): Promise<boolean> {
  const rows = await store.rows(
    `SELECT 1 FROM devices d JOIN people p ON p.studio_id = d.studio_id AND p.id = d.person_id
      WHERE lower(p.sign_in_name) = lower($1) AND d.token_hash = $2`,
    [signInName, tokenHash],
  );
  return rows.length > 0;
}

/** Lets no device of somebody be known any more. */
export async function forgetDevices(store: Store, personId: string): Promise<void> {
  await store.devices.destroy({ where: { personId } });
}
