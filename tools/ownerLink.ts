import { openStore } from '../apps/server/src/store/index.ts';
import { ownerLink } from '../apps/server/src/studio/index.ts';
import { runningCluster } from './cluster.ts';
import { addressIn, folderOf, run } from './openBook.ts';
import { parsedBy } from './plain.ts';

const HELP = `bin/owner-link [--name NAME] [--data DIR]

Prints a link that works once, where an owner of the studio chooses a name and a password anew. Hand it to nobody else.

  --name NAME  which owner, where there are several
  --data DIR   the folder of the studio, which must be open
DATABASE_URL names a PostgreSQL database of your own; then --data is not asked for.`;

const options = { name: { type: 'string' }, data: { type: 'string' }, help: { type: 'boolean' } } as const;

await run(async () => {
  const { name: named, data, help } = parsedBy(options, HELP);
  if (help) return void process.stdout.write(`${HELP}\n`);
  const folder = folderOf(data);
  const store = openStore(process.env['DATABASE_URL'] ?? (await runningCluster(folder)));
  try {
    const { name, path, expiresAt } = await store.inTransaction(() =>
      ownerLink(store, { name: named, now: new Date() }),
    );
    process.stdout.write(`For ${name}, once, until ${expiresAt.slice(0, 10)}:\n\n    ${addressIn(folder)}${path}\n\n`);
  } finally {
    await store.close();
  }
}, 'No link could be made');
