import { dirname } from 'node:path';
import { existsSync } from 'node:fs';
import { makeBackup, writeArchive } from '../apps/server/src/studio/index.ts';
import { backupsOf, folderOf, fromHere, progressLine, run, withBook } from './openBook.ts';
import { parsedBy, Plain } from './plain.ts';

const HELP = `bin/backup [--to FILE] [--data DIR]

Writes the whole book into one file, while the studio is open or closed. docs/archive.md says what is in it.

  --to FILE    where it is written; else beside the other backups of the folder, of which the newest are kept
  --data DIR   the folder of the studio
DATABASE_URL names a PostgreSQL database of your own; then --data only says where the backups lie (or BACKUP_FOLDER does).`;

const options = { to: { type: 'string' }, data: { type: 'string' }, help: { type: 'boolean' } } as const;
/** So many are kept unless BACKUP_KEEP says otherwise, as by the server. */
const KEEP = Number(process.env['BACKUP_KEEP'] ?? 14);

await run(async (signal) => {
  const { to, data, help } = parsedBy(options, HELP);
  if (help) return void process.stdout.write(`${HELP}\n`);
  const folder = folderOf(data);
  const writing = { why: 'by hand', now: new Date(), progress: progressLine('Writing'), signal } as const;
  const file = await withBook(folder, async (databaseUrl) => {
    if (to === undefined) {
      const backups = backupsOf(folder);
      return `${backups}/${(await makeBackup(databaseUrl, backups, { ...writing, keep: KEEP })).file}`;
    }
    const path = fromHere(to);
    if (existsSync(path)) throw new Plain(`${path} is there already; name another file.`);
    if (!existsSync(dirname(path))) throw new Plain(`There is no folder ${dirname(path)}.`);
    await writeArchive(databaseUrl, path, writing);
    return path;
  });
  process.stdout.write(`${file}\n`);
}, 'No backup could be made');
