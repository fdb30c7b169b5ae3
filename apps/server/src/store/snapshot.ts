import pg from 'pg';
import { PASSING } from './migrate.ts';

/** A table as it is written into an archive: its columns in their order, and how many rows it has. */
export interface TableShape {
  readonly name: string;
  readonly columns: readonly string[];
  readonly rows: number;
}

/** A studio that is in a book. */
export interface StudioInBook {
  readonly id: string;
  readonly name: string;
  readonly demo: boolean;
}

/** The whole book as it stood at one moment, whatever is written into it meanwhile. */
export interface Snapshot {
  /** The newest migration that it has; null for an empty database. */
  readonly edition: string | null;
  readonly studios: readonly StudioInBook[];
  readonly tables: readonly TableShape[];
  /** The rows of a table, some at a time, each a line of JSON. */
  readonly rowsOf: (table: TableShape) => AsyncGenerator<readonly string[]>;
  readonly close: () => Promise<void>;
}

/** Rows that are read at once. Our choice: with the longest texts some 30 MB. */
const ROWS_AT_ONCE = 500;

/** What stands in the book is written with its moments in UTC, whatever the server’s zone. */
const START = `BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY; SET LOCAL timezone = 'UTC'`;

/**
 * Opens a book for reading as it stands now, on a connection of its own (PostgreSQL 15, chapter 13.2.2: a transaction that reads
 * repeatably sees one state). Whoever writes is not held up.
 */
export async function openSnapshot(databaseUrl: string): Promise<Snapshot> {
  const client = new pg.Client({ connectionString: databaseUrl });
  client.on('error', () => undefined);
  await client.connect();
  try {
    await client.query(START);
    const hasBook = await client.query<{ has: boolean }>(`SELECT to_regclass('migrations') IS NOT NULL AS has`);
    const isEmpty = hasBook.rows[0]?.has !== true;
    return {
      edition: isEmpty ? null : await editionOf(client),
      studios: isEmpty ? [] : await studiosOf(client),
      tables: isEmpty ? [] : await tablesOf(client),
      rowsOf: (table) => rowsOf(client, table),
      close: () => client.end(),
    };
  } catch (error) {
    await client.end();
    throw error;
  }
}

async function editionOf(client: pg.Client): Promise<string | null> {
  const { rows } = await client.query<{ name: string }>('SELECT name FROM migrations ORDER BY name DESC LIMIT 1');
  return rows[0]?.name ?? null;
}

async function studiosOf(client: pg.Client): Promise<readonly StudioInBook[]> {
  const has = await client.query<{ has: boolean }>(`SELECT to_regclass('studios') IS NOT NULL AS has`);
  if (has.rows[0]?.has !== true) return [];
  // Before the demo was marked, every studio was one.
  const { rows } = await client.query<StudioInBook>(
    `SELECT s.id, s.name, coalesce((to_jsonb(s) ->> 'demo')::boolean, true) AS demo FROM studios s ORDER BY s.name, s.id`,
  );
  return rows;
}

async function tablesOf(client: pg.Client): Promise<readonly TableShape[]> {
  const { rows } = await client.query<{ name: string; columns: readonly string[] }>(TABLES, [ARCHIVED_WITHOUT]);
  const shapes: TableShape[] = [];
  for (const { name, columns } of rows) {
    const counted = await client.query<{ count: number }>(`SELECT count(*)::int AS count FROM "${name}"`);
    shapes.push({ name, columns, rows: counted.rows[0]?.count ?? 0 });
  }
  return shapes;
}

/** Tables that are no part of an archive: who is signed in and from where, what the servers share, what is being done, bytes of sound. */
export const ARCHIVED_WITHOUT: readonly string[] = [
  ...PASSING.filter((name) => name !== 'phrase_facts'),
  'devices',
  'book_jobs',
  'sound_parts',
];

/** The tables of a book but those named, with the columns that are not computed by the database. */
export const TABLES = `
  SELECT c.table_name AS name, array_agg(c.column_name::text ORDER BY c.ordinal_position) AS columns
    FROM information_schema.columns c
    JOIN information_schema.tables t ON t.table_schema = c.table_schema AND t.table_name = c.table_name
   WHERE c.table_schema = current_schema() AND t.table_type = 'BASE TABLE' AND c.is_generated = 'NEVER'
     AND NOT (c.table_name = ANY ($1::text[]))
   GROUP BY c.table_name ORDER BY c.table_name`;

async function* rowsOf(client: pg.Client, { name, columns }: TableShape): AsyncGenerator<readonly string[]> {
  const order = columns.includes('line') ? 'line' : 'id';
  await client.query(
    `DECLARE rows_of NO SCROLL CURSOR FOR SELECT to_jsonb(t)::text AS row FROM "${name}" t ORDER BY ${order}`,
  );
  for (;;) {
    const { rows } = await client.query<{ row: string }>(`FETCH ${ROWS_AT_ONCE} FROM rows_of`);
    if (rows.length === 0) break;
    yield rows.map(({ row }) => row);
  }
  await client.query('CLOSE rows_of');
}
