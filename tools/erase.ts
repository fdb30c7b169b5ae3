import { machineContext, markForErasing, showErasure, unmarkForErasing } from '../apps/server/src/studio/index.ts';
import { openStore } from '../apps/server/src/store/index.ts';
import { folderOf, run, withBook } from './openBook.ts';
import { parsedBy, Plain } from './plain.ts';

const HELP = `bin/erase NAME [--yes | --keep] [--data DIR]

Shows what goes when a student is erased. With --yes they are put away and erased after the waiting time, from later restores, too.

  NAME         the student, as the book has the name, or their id
  --yes        has them erased after the waiting time
  --keep       keeps them from being erased, within the waiting time
  --data DIR   the folder of the studio
DATABASE_URL names a PostgreSQL database of your own.`;

const options = {
  yes: { type: 'boolean' },
  keep: { type: 'boolean' },
  data: { type: 'string' },
  help: { type: 'boolean' },
} as const;

await run(async () => {
  const { yes = false, keep = false, data, help, positionals } = parsedBy(options, HELP, 1);
  const [name] = positionals;
  if (help) return void process.stdout.write(`${HELP}\n`);
  if (name === undefined) throw new Plain(HELP);
  if (yes && keep) throw new Plain('Say --yes or --keep, not both.');
  await withBook(folderOf(data), async (databaseUrl) => {
    const store = openStore(databaseUrl);
    try {
      const { context, student } = await machineContext(store, name, new Date());
      const { id, version } = student;
      await store.inTransaction(async () => {
        if (yes) await markForErasing(context, id, { version, by: null });
        if (keep) await unmarkForErasing(context, id, { by: null });
      });
      const { on, waitDays, counts, guardians } = await showErasure(context, id);
      const lines = counts.map(({ table, rows }) => `  ${String(rows).padStart(6)}  ${table}`);
      const others = guardians.length > 0 ? [`and ${guardians.join(', ')}, who has no other child here`] : [];
      const ends = on === null ? `Nothing is erased; --yes has it done after ${waitDays} days.` : `It goes on ${on}.`;
      process.stdout.write(`${[`Of ${student.name}:`, ...lines, ...others, ends].join('\n')}\n`);
    } finally {
      await store.close();
    }
  });
}, 'Nothing could be erased');
