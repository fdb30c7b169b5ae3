import pg from 'pg';

/** A query as it travels to the database. */
export interface Query {
  readonly text: string;
  readonly values: readonly unknown[];
}

/** All queries that this process sends while something is done, whoever sends them, with what begins and ends transactions. */
export async function queriesOf(work: () => Promise<unknown>): Promise<readonly Query[]> {
  const seen: Query[] = [];
  const { prototype } = pg.Client;
  const query = Reflect.get(prototype, 'query') as (...words: unknown[]) => unknown;
  Object.assign(prototype, {
    query(this: pg.Client, ...words: unknown[]) {
      const [first, second] = words;
      if (typeof first === 'string') seen.push({ text: first, values: Array.isArray(second) ? second : [] });
      else if (typeof first === 'object' && first !== null && 'text' in first)
        seen.push({
          text: String(first.text),
          values: 'values' in first && Array.isArray(first.values) ? first.values : [],
        });
      return query.apply(this, words);
    },
  });
  try {
    await work();
  } finally {
    Object.assign(prototype, { query });
  }
  return seen;
}
