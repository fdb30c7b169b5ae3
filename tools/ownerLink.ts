import { existsSync, readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { openStore } from '../apps/server/src/store/index.ts';
import { ownerLink, Trouble } from '../apps/server/src/studio/index.ts';
import { runningCluster } from './cluster.ts';
import { defaultFolder, runFile } from './dataFolder.ts';
import { fieldOf, Plain } from './plain.ts';

const HELP = `bin/owner-link [--name NAME] [--data DIR]

Prints a link that works once, where an owner of the studio chooses a name and a password anew. Hand it to nobody else.

  --name NAME  which owner, where there are several
  --data DIR   the folder of the studio, which must be open
DATABASE_URL names a PostgreSQL database of your own; then --data is not asked for.`;

const ROOT = resolve(import.meta.dirname, '..');
const options = { name: { type: 'string' }, data: { type: 'string' }, help: { type: 'boolean' } } as const;

async function main(): Promise<void> {
  const { values } = parseArgs({ options, strict: true });
  if (values.help) return void process.stdout.write(`${HELP}\n`);
  const folder = values.data === undefined ? defaultFolder(ROOT) : resolve(values.data);
  const store = openStore(process.env['DATABASE_URL'] ?? (await runningCluster(folder)));
  try {
    const { name, path, expiresAt } = await store.inTransaction(() =>
      ownerLink(store, { name: values.name, now: new Date() }),
    );
    const until = expiresAt.slice(0, 10);
    process.stdout.write(`For ${name}, once, until ${until}:\n\n    ${addressIn(folder)}${path}\n\n`);
  } finally {
    await store.close();
  }
}

/** Where the studio of a folder is open; empty where another program says. */
function addressIn(folder: string): string {
  const file = runFile(folder);
  return existsSync(file) ? `http://127.0.0.1:${String(fieldOf(readFileSync(file, 'utf8'), 'port'))}` : '';
}

await main().catch((error: unknown) => {
  const isPlain = error instanceof Plain || error instanceof Trouble;
  process.stderr.write(`${isPlain ? error.message : `No link could be made: ${String(error)}`}\n`);
  process.exit(1);
});
