import { AsyncLocalStorage, AsyncResource } from 'node:async_hooks';
import pg from 'pg';
import { Op, QueryTypes, Sequelize } from 'sequelize';
import { defineModels, type Models } from './models.ts';
import { isDeadlock } from './trouble.ts';

/** A connected database. */
export interface Store extends Models {
  /**
   * Does all of `work` or nothing of it. Every query that `work` makes, and whatever it calls makes, runs on the one connection
   * of this transaction: there is no other in its reach. Inside a transaction it is part of that one. Where two
   * transactions stood in each other’s way, `work` is done again from its beginning, so it must change nothing but the database.
   */
  inTransaction<T>(work: () => Promise<T>): Promise<T>;
  /** Waits until nobody else holds what is named, and holds it to the end of the transaction. @throws outside of one */
  lock(name: string): Promise<void>;
  /** Runs SQL with bound parameters ($1 …) and gives its rows. */
  rows<Row extends object>(sql: string, bind: readonly unknown[]): Promise<readonly Row[]>;
  /** How many queries were asked so far. */
  asked(): number;
  close(): Promise<void>;
}

/** Connections of one server. Our choice. */
const MAX_CONNECTIONS = 10;
/** A request waits so long for a connection before it is told to come back, milliseconds. Our choice. */
const ACQUIRE_MS = 15_000;
/** So often a transaction is tried that another one stood in the way of. Our choice. */
const TRIES = 4;

/**
 * What runs in which transaction, followed through every await. Sequelize reads it for each query (“continuation-local storage”
 * in its handbook), so that no query of a transaction can take a second connection from the pool.
 */
const contexts = new AsyncLocalStorage<Map<string, unknown>>();
Sequelize.useCLS({
  run: (work: (context: Map<string, unknown>) => unknown) => {
    const context = new Map<string, unknown>();
    return contexts.run(context, () => work(context));
  },
  get: (name: string) => contexts.getStore()?.get(name),
  set: (name: string, value: unknown) => contexts.getStore()?.set(name, value),
  bind: (work: () => unknown) => AsyncResource.bind(work),
});

const isInTransaction = (): boolean => (contexts.getStore()?.get('transaction') ?? null) !== null;

/** Queries of one transaction run one after the other, since its connection takes only one at a time. */
function inTurn<T>(query: () => Promise<T>): Promise<T> {
  const context = contexts.getStore();
  if (!context || !isInTransaction()) return query();
  const before = context.get('last');
  const turn = before instanceof Promise ? before.then(query) : query();
  context.set(
    'last',
    turn.then(
      () => undefined,
      () => undefined,
    ),
  );
  return turn;
}

/** Connects to a PostgreSQL database by its URL. Connections are made when first needed. */
export function openStore(databaseUrl: string): Store {
  let asked = 0;
  const logging = () => void (asked += 1);
  const pool = { max: MAX_CONNECTIONS, acquire: ACQUIRE_MS };
  const sequelize = new Sequelize(databaseUrl, { dialect: 'postgres', dialectModule: PATIENT_PG, logging, pool });
  const query = sequelize.query.bind(sequelize);
  Object.assign(sequelize, {
    query: (...words: Parameters<typeof query>): Promise<unknown> => inTurn(() => query(...words)),
  });
  // Several statements at once are only taken without parameters.
  const rows: Store['rows'] = (sql, bind) =>
    sequelize.query(sql, { type: QueryTypes.SELECT, ...(bind.length > 0 && { bind: [...bind] }) });
  return {
    ...defineModels(sequelize),
    rows,
    inTransaction: (work) => (isInTransaction() ? work() : tryAgain(() => sequelize.transaction(() => work()))),
    async lock(name) {
      if (!isInTransaction()) throw new Error(`“${name}” can only be locked in a transaction`);
      await rows('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', [name]);
    },
    asked: () => asked,
    close: () => sequelize.close(),
  };
}

/**
 * Ends SQL that is planned once on each connection and not at every turn. PostgreSQL may then keep one plan for all parameters, so it is
 * for what has the same best plan whoever asks, and is asked often.
 */
export const PREPARED = '/* prepared */';

/** Names of what is prepared, by its SQL; there are as many as there are texts in this code. */
const preparedNames = new Map<string, string>();

/** What a client is asked for, SQL that ends in `PREPARED` with a name, by which the client prepares it. */
function prepared(words: readonly unknown[]): readonly unknown[] {
  const [text, values, ...rest] = words;
  if (typeof text !== 'string' || !Array.isArray(values) || !text.endsWith(PREPARED)) return words;
  const name = preparedNames.get(text) ?? `prepared ${preparedNames.size + 1}`;
  preparedNames.set(text, name);
  return [{ name, text, values }, ...rest];
}

/**
 * A connection that ends just as it is opened, before anybody listens to it, ends what is asked of it and not the server: for a moment
 * Sequelize hears no errors of a new one. What ends in `PREPARED` is prepared; Sequelize has no word for that.
 */
class PatientClient extends pg.Client {
  constructor(config?: string | pg.ClientConfig) {
    super(config);
    this.on('error', () => undefined);
    const { prototype } = pg.Client;
    Object.assign(this, {
      query: (...words: unknown[]): unknown => Reflect.apply(Reflect.get(prototype, 'query'), this, prepared(words)),
    });
  }
}
const PATIENT_PG = { ...pg, Client: PatientClient };

/** Does something again that PostgreSQL took back to let another transaction pass. */
async function tryAgain<T>(work: () => Promise<T>): Promise<T> {
  for (let tried = 1; ; tried += 1) {
    try {
      return await work();
    } catch (error) {
      if (tried >= TRIES || !isDeadlock(error)) throw error;
    }
  }
}

/** The newest migration in the database; null when there is none. @throws when the database does not answer. */
export async function newestMigration(store: Store): Promise<string | null> {
  const rows = await store.rows<{ name: string }>('SELECT name FROM migrations ORDER BY name DESC LIMIT 1', []);
  return rows[0]?.name ?? null;
}

export { Op };
