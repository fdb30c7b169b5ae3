import compression from 'compression';
import express from 'express';
import pg from 'pg';
import type { Query } from '../tools/queries.ts';

/** What the bare server is told: which queries it answers a name with. */
export type Told = { readonly name: string; readonly queries: readonly Query[] } | 'cpu';

/**
 * The yardstick of requests, a process of its own: Express and one pool of connections. It asks the database the queries it was given, one
 * after the other, and answers with their rows. Nothing is checked, computed or shaped. What writes is taken back at its end.
 */
const pool = new pg.Pool({ connectionString: process.env['DATABASE_URL'] ?? '', max: 10 });
const answers = new Map<string, readonly Query[]>();
const app = express();
app.disable('x-powered-by');
app.use(compression());
app.get('/:name', async (request, response) => {
  const client = await pool.connect();
  try {
    const rows: unknown[] = [];
    for (const { text, values } of answers.get(request.params.name) ?? [])
      rows.push((await client.query(text, [...values])).rows);
    response.json(rows);
  } finally {
    client.release();
  }
});
process.on('message', (told: Told) => {
  if (told === 'cpu') process.send?.({ cpu: process.cpuUsage() });
  else {
    answers.set(told.name, told.queries);
    process.send?.({ known: told.name });
  }
});
// A connection that rests while the other side takes its turn stays open.
const server = app.listen(0, '127.0.0.1', () => {
  const address = server.address();
  process.send?.({ port: typeof address === 'object' && address ? address.port : 0 });
});
server.keepAliveTimeout = 120_000;
