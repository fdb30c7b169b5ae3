import { createWriteStream, existsSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { everythingOf, machineContext, writeTrail } from '../apps/server/src/studio/index.ts';
import { openStore } from '../apps/server/src/store/index.ts';
import { folderOf, fromHere, run, withBook } from './openBook.ts';
import { parsedBy, Plain } from './plain.ts';

const HELP = `bin/export NAME --to FILE [--data DIR]

Writes everything of one student into a zip that opens without Jam Ledger.

  NAME         the student, as the book has the name, or their id
  --to FILE    where it is written
  --data DIR   the folder of the studio
DATABASE_URL names a PostgreSQL database of your own.`;

const options = { to: { type: 'string' }, data: { type: 'string' }, help: { type: 'boolean' } } as const;

await run(async () => {
  const { to, data, help, positionals } = parsedBy(options, HELP, 1);
  const [name] = positionals;
  if (help) return void process.stdout.write(`${HELP}\n`);
  if (name === undefined || to === undefined) throw new Plain(HELP);
  const path = fromHere(to);
  if (existsSync(path)) throw new Plain(`${path} is there already; name another file.`);
  await withBook(folderOf(data), async (databaseUrl) => {
    const store = openStore(databaseUrl);
    try {
      const { context, student } = await machineContext(store, name, new Date());
      await pipeline(await everythingOf(context, student), createWriteStream(path, { flags: 'wx', mode: 0o600 }));
      const { studio, now } = context;
      await writeTrail(store, {
        ...{ studioId: studio.id, at: now, personId: null, act: 'took everything of', aboutId: student.id },
      });
    } finally {
      await store.close();
    }
  });
  process.stdout.write(`${path}\n`);
}, 'Nothing could be written');
