import { Umzug, type UmzugStorage } from 'umzug';
import { migrations, type Migration } from '../migrations/index.ts';
import { openStore, type Store } from './database.ts';

/** What is wrong with a migration that was asked for, in a sentence. Nothing was changed. */
export class MigrationRefused extends Error {}

/** How far to go, and what that may cost. */
export interface MigrateOptions {
  /** The migration to go back to (`'none'` for before the first); forward to the newest when left out. */
  readonly back?: string;
  /** Whether rows, or what stands in them, may be lost on the way back. */
  readonly mayLose?: boolean;
}

/**
 * Brings a database forward to the newest migration, or back to one, in a single transaction with the record of it: whatever
 * cuts it leaves the database as it was. A way back is first gone back and forth on trial; where what comes back is not what
 * was there, it is refused unless told otherwise. Returns the names of the migrations now in the database.
 *
 * @throws MigrationRefused where there is no such migration, or something would be lost; the error of the database.
 */
export async function migrate(databaseUrl: string, { back, mayLose = false }: MigrateOptions = {}): Promise<string[]> {
  if (back !== undefined && back !== 'none' && !EDITIONS.includes(back))
    throw new MigrationRefused(`There is no migration “${back}”; there are ${EDITIONS.join(', ')}, and “none”.`);
  const store = openStore(databaseUrl);
  try {
    return await store.inTransaction(async () => {
      // Servers that start together wait for each other here.
      await store.lock('migrations');
      const storage = recordIn(store);
      await store.rows('CREATE TABLE IF NOT EXISTS migrations (name varchar(255) PRIMARY KEY)', []);
      await recordUnrecorded(store, storage);
      const umzug = umzugOf(store, storage);
      if (back === undefined) await umzug.up();
      else await goBack(store, umzug, { to: back, mayLose });
      return storage.executed({ context: {} });
    });
  } finally {
    await store.close();
  }
}

/** The names of all migrations, in order; an edition of the book is the newest that it has. */
export const EDITIONS: readonly string[] = migrations.map(({ name }) => name);

/**
 * Brings an empty book back to an edition, has it filled, and brings it forward to the newest, all within the transaction of whoever
 * asks.
 */
export async function fillAtEdition(store: Store, edition: string, fill: () => Promise<void>): Promise<void> {
  const umzug = umzugOf(store, recordIn(store));
  const steps = EDITIONS.slice(EDITIONS.indexOf(edition) + 1);
  // What is done with the book just now is no part of it, and goes on being told.
  await store.rows('CREATE TEMP TABLE jobs_meanwhile ON COMMIT DROP AS SELECT * FROM book_jobs', []);
  for (const name of [...steps].reverse()) await umzug.down({ migrations: [name] });
  await fill();
  if (steps.length > 0) await umzug.up({ migrations: [...steps] });
  const kept = 'id, studio_id, version, kind, state, done, total, says, started_at, seen_at';
  await store.rows(
    `INSERT INTO book_jobs (${kept}) SELECT ${kept} FROM jobs_meanwhile ON CONFLICT DO NOTHING RETURNING id`,
    [],
  );
}

/** Which migrations are done stands in a table, written in the transaction that does them. */
function recordIn(store: Store): UmzugStorage {
  return {
    async logMigration({ name }) {
      await store.rows('INSERT INTO migrations (name) VALUES ($1) RETURNING name', [name]);
    },
    async unlogMigration({ name }) {
      await store.rows('DELETE FROM migrations WHERE name = $1 RETURNING name', [name]);
    },
    async executed() {
      const rows = await store.rows<{ name: string }>('SELECT name FROM migrations ORDER BY name', []);
      return rows.map(({ name }) => name);
    },
  };
}

function umzugOf(store: Store, storage: UmzugStorage): Umzug {
  const steps = migrations.map(({ name, up, down }) => ({
    name,
    up: () => store.rows(up, []),
    down: () => store.rows(down, []),
  }));
  return new Umzug({ migrations: steps, storage, logger: undefined });
}

/** Writes down what an earlier version did without recording it, since it was cut between the two. */
async function recordUnrecorded(store: Store, storage: UmzugStorage): Promise<void> {
  const recorded = await storage.executed({ context: {} });
  for (const migration of migrations) {
    const { name } = migration;
    if (!recorded.includes(name) && (await isDone(store, migration))) await storage.logMigration({ name, context: {} });
  }
}

async function isDone(store: Store, { makes }: Migration): Promise<boolean> {
  const [table = '', column = null] = makes.split('.');
  const rows = await store.rows(
    `SELECT 1 FROM information_schema.columns
      WHERE table_schema = current_schema() AND table_name = $1 AND ($2::text IS NULL OR column_name = $2) LIMIT 1`,
    [table, column],
  );
  return rows.length > 0;
}

async function goBack(
  store: Store,
  umzug: Umzug,
  { to, mayLose }: { readonly to: string; readonly mayLose: boolean },
): Promise<void> {
  const done = (await umzug.executed()).map(({ name }) => name);
  const steps = done.slice(to === 'none' ? 0 : done.indexOf(to) + 1).reverse();
  const down = async () => {
    for (const name of steps) await umzug.down({ migrations: [name] });
  };
  if (!mayLose) {
    const before = await tablesOf(store);
    for (const table of before)
      await store.rows(`CREATE TEMP TABLE "${keptAs(table)}" ON COMMIT DROP AS ${rowsOf(table)}`, []);
    await store.rows('SAVEPOINT trial', []);
    await down();
    await umzug.up({ migrations: [...steps].reverse() });
    const lost = await lostOf(store, before);
    if (lost.length > 0)
      throw new MigrationRefused(
        `Going back to “${to}” would lose ${lost.join(', ')}. Nothing was changed; make a backup, then say that it may be lost.`,
      );
    await store.rows('ROLLBACK TO SAVEPOINT trial', []);
  }
  await down();
}

/** Tables whose rows are no part of the book: who is signed in, and what is gathered anew from the rest. */
export const PASSING: readonly string[] = ['migrations', 'sessions', 'counted_sign_ins', 'secrets', 'phrase_facts'];
/** Columns that are computed anew from the rest. */
const COMPUTED = ['kept', 'call', 'learning_rate'];

async function tablesOf(store: Store): Promise<readonly string[]> {
  const rows = await store.rows<{ name: string }>(
    `SELECT table_name AS name FROM information_schema.tables
      WHERE table_schema = current_schema() AND table_type = 'BASE TABLE' AND NOT (table_name = ANY ($1::text[])) ORDER BY 1`,
    [PASSING],
  );
  return rows.map(({ name }) => name);
}

const keptAs = (table: string) => `before_${table}`;
/** The rows of a table, each as one value that does not hang on the order of its columns. */
const rowsOf = (table: string) =>
  `SELECT to_jsonb(t) - ARRAY[${COMPUTED.map((one) => `'${one}'`).join(', ')}] AS row FROM "${table}" t`;

/** What is no longer as it was after a way back and forth, table by table. */
async function lostOf(store: Store, tables: readonly string[]): Promise<readonly string[]> {
  const lost: string[] = [];
  for (const table of tables) {
    const rows = await store.rows<{ count: number }>(
      `SELECT count(*)::int AS count FROM (SELECT row FROM "${keptAs(table)}" EXCEPT ALL ${rowsOf(table)}) gone`,
      [],
    );
    const count = rows[0]?.count ?? 0;
    if (count > 0) lost.push(`what stands in ${count} ${count === 1 ? 'row' : 'rows'} of ${table}`);
  }
  return lost;
}
