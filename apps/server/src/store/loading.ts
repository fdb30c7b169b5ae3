import type { Store } from './database.ts';
import { ARCHIVED_WITHOUT, TABLES, type StudioInBook } from './snapshot.ts';

/** The studios of a book. */
export function findStudiosInBook(store: Store): Promise<readonly StudioInBook[]> {
  return store.rows<StudioInBook>('SELECT id, name, demo FROM studios ORDER BY name, id', []);
}

/**
 * Empties the whole book, and ends who is signed in; within the transaction of whoever fills it again.
 * SQL by hand: one statement empties every table that belongs to a studio, whatever their order.
 */
export async function emptyBook(store: Store): Promise<void> {
  await store.rows('TRUNCATE studios CASCADE', []);
  await store.rows('DELETE FROM sessions RETURNING 1', []);
}

/** What may be filled into a book of its edition: the columns of each table by its name. */
export async function columnsOfBook(store: Store): Promise<ReadonlyMap<string, readonly string[]>> {
  const rows = await store.rows<{ name: string; columns: readonly string[] }>(TABLES, [ARCHIVED_WITHOUT]);
  return new Map(rows.map(({ name, columns }) => [name, columns]));
}

/**
 * Lets rows be filled in whatever their order: keys between tables are checked at the end of `work`, all of them.
 * SQL by hand: constraints are put off for this transaction and are again as they were after it (PostgreSQL 15, ALTER TABLE).
 */
export async function withKeysAtTheEnd(store: Store, work: () => Promise<void>): Promise<void> {
  const keys = await store.rows<{ table: string; name: string }>(
    `SELECT conrelid::regclass::text AS table, conname AS name FROM pg_constraint
      WHERE contype = 'f' AND connamespace = current_schema()::regnamespace`,
    [],
  );
  const alter = async (how: string) => {
    for (const { table, name } of keys) await store.rows(`ALTER TABLE ${table} ALTER CONSTRAINT "${name}" ${how}`, []);
  };
  await alter('DEFERRABLE INITIALLY DEFERRED');
  await work();
  await store.rows('SET CONSTRAINTS ALL IMMEDIATE', []);
  await alter('NOT DEFERRABLE');
}

/**
 * Fills rows into a table, each a line of JSON as it stood in one. SQL by hand: the database reads its own JSON back, exactly.
 * @throws the error of the database where a row does not fit
 */
export async function fillRows(
  store: Store,
  table: string,
  columns: readonly string[],
  rows: readonly string[],
): Promise<void> {
  const names = columns.map((column) => `"${column}"`).join(', ');
  await store.rows(
    `INSERT INTO "${table}" (${names}) OVERRIDING SYSTEM VALUE
     SELECT ${names} FROM jsonb_populate_recordset(NULL::"${table}", $1::jsonb) RETURNING 1`,
    [`[${rows.join(',')}]`],
  );
}

/** Lets rows that are made from now on be numbered after those that were filled in. */
export async function numberOn(store: Store, tables: ReadonlyMap<string, readonly string[]>): Promise<void> {
  for (const [table, columns] of tables) {
    if (!columns.includes('line')) continue;
    await store.rows(
      `SELECT setval(pg_get_serial_sequence($1, 'line'), coalesce((SELECT max(line) FROM "${table}"), 0) + 1, false)`,
      [table],
    );
  }
}
