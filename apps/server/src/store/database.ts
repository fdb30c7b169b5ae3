import { Op, QueryTypes, Sequelize, type Transaction } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { migrations } from '../migrations/index.ts';
import { defineModels, type Models } from './defineModels.ts';

/** A connected database. */
export interface Store extends Models {
  /** Undefined outside a transaction. */
  readonly transaction: Transaction | undefined;
  /** Does all of `work` or nothing of it. */
  atOnce<T>(work: (store: Store) => Promise<T>): Promise<T>;
  /** Runs SQL with bound parameters ($1 …) and gives its rows. */
  rows<Row extends object>(sql: string, bind: readonly unknown[]): Promise<readonly Row[]>;
  /** How many queries were asked so far. */
  asked(): number;
  close(): Promise<void>;
}

/** Connects to a PostgreSQL database by its URL. Connections are made when first needed. */
export function openStore(databaseUrl: string): Store {
  let asked = 0;
  const logging = () => void (asked += 1);
  const sequelize = new Sequelize(databaseUrl, { dialect: 'postgres', logging, pool: { max: 10 } });
  const models = defineModels(sequelize);
  const inside = (transaction: Transaction | undefined): Store => ({
    ...models,
    transaction,
    atOnce: (work) =>
      transaction ? work(inside(transaction)) : sequelize.transaction((started) => work(inside(started))),
    rows: (sql, bind) =>
      sequelize.query(sql, { bind: [...bind], type: QueryTypes.SELECT, transaction: transaction ?? null }),
    asked: () => asked,
    close: () => sequelize.close(),
  });
  return inside(undefined);
}

/** The options that put a query inside the store's transaction, if it has one. */
export function within(store: Store): { transaction: Transaction | null } {
  return { transaction: store.transaction ?? null };
}

/** Serialises migrations of servers that start together. Our choice of number. */
const MIGRATION_LOCK = 7_201_118;

/**
 * Brings a database forward to the newest migration, or back to the one named (`'none'` for before the
 * first). Returns the names of the migrations now in it.
 */
export async function migrate(databaseUrl: string, back?: string): Promise<readonly string[]> {
  const sequelize = new Sequelize(databaseUrl, { dialect: 'postgres', logging: false, pool: { max: 3 } });
  try {
    return await sequelize.transaction(async (transaction) => {
      await sequelize.query(`SELECT pg_advisory_xact_lock(${MIGRATION_LOCK})`, { transaction });
      const umzug = new Umzug({
        migrations: migrations.map(({ name, up, down }) => ({
          name,
          up: async () => void (await sequelize.query(up)),
          down: async () => void (await sequelize.query(down)),
        })),
        storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
        logger: undefined,
      });
      if (back === undefined) await umzug.up();
      else {
        const done = (await umzug.executed()).map(({ name }) => name);
        const after = done.slice(back === 'none' ? 0 : done.indexOf(back) + 1);
        for (const name of after.reverse()) await umzug.down({ migrations: [name] });
      }
      return (await umzug.executed()).map(({ name }) => name);
    });
  } finally {
    await sequelize.close();
  }
}

/** The newest migration in the database; null when there is none. @throws when the database does not answer. */
export async function newestMigration(store: Store): Promise<string | null> {
  const rows = await store.rows<{ name: string }>('SELECT name FROM migrations ORDER BY name DESC LIMIT 1', []);
  return rows[0]?.name ?? null;
}

export { Op };
