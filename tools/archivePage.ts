import { writeFileSync } from 'node:fs';
import prettier from 'prettier';
import { migrate, openStore } from '../apps/server/src/store/index.ts';
import { freshDatabase } from './cluster.ts';

/** Where the page of the archive stands. */
export const ARCHIVE_PAGE = 'docs/archive.md';

/** What each table of an archive holds. A table without a line here, or a line without a table, fails the test. */
const TABLES: Readonly<Record<string, string>> = {
  calendar_feeds: 'secret addresses by which calendars ask for lessons; a digest of each',
  corrections: 'what names, stamps and states were before they were corrected',
  entries: 'results: how fast a piece went, who posted it, in ink or in pencil',
  erased: 'the ids of those who were erased',
  erased_hours: 'hours of lessons and work of those who were erased, without a name',
  guardians: 'whose pages a guardian reads',
  hearings: 'points that were inspected in a lesson',
  invitations: 'links for choosing a name and a password; a digest of each',
  lesson_note_revisions: 'what summaries of lessons were before',
  lesson_notes: 'what a lesson came to: for the studio, for home, what was assigned',
  lessons: 'lessons of series, as moments',
  outbox: 'messages, without links',
  people:
    'owners, teachers, students and guardians, with guitar, hand, schools, and the hash of their password (argon2id)',
  phrase_facts: 'what phrases are found by; computed from their texts',
  phrase_revisions: 'what texts of phrases were before',
  phrases: 'phrases of sections in shorthand, with evidence, alternates and references',
  pieces: 'practice pieces: what they are cut from, tempos, when they were given',
  pins: 'notes at events of phrases',
  plans: 'how the pieces of a song are learned',
  request_events: 'what happened to requests',
  requests: 'what students asked for',
  sections: 'sections of songs: stamps, bars, repeats, jumps',
  seen_lists: 'when somebody last looked at a list',
  series: 'series of lessons as their rule, and what is different',
  sounds: 'recordings of songs and takes of pieces: name, length, digest, what a take came to; without their bytes',
  studios: 'the studio itself, and how it teaches',
  trail: 'who did what, by ids',
  transcriptions: 'songs as they are set up for one student; of a teacher, their own licks',
  work_spans: 'stretches of work on requests',
};

/** The page that says what an archive is, made of the tables of a new database. @throws Error where a table is not described */
export async function archivePage(): Promise<string> {
  const url = await freshDatabase();
  await migrate(url);
  const store = openStore(url);
  const rows = await store.rows<{ table: string; column: string; type: string; isNull: boolean }>(
    `SELECT table_name AS table, column_name AS column, data_type AS type, is_nullable = 'YES' AS "isNull"
       FROM information_schema.columns
      WHERE table_schema = 'public' AND NOT (table_name = ANY ($1::text[])) ORDER BY table_name, ordinal_position`,
    [['migrations', 'sessions', 'counted_sign_ins', 'secrets', 'devices', 'book_jobs', 'sound_parts']],
  );
  await store.close();
  const names = [...new Set(rows.map(({ table }) => table))];
  const wrong = [
    ...names.filter((name) => TABLES[name] === undefined),
    ...Object.keys(TABLES).filter((name) => !names.includes(name)),
  ];
  if (wrong.length > 0) throw new Error(`docs/archive.md does not say what is in ${wrong.join(', ')}`);
  const parts = names.map((name) => {
    const columns = rows.filter(({ table }) => table === name);
    const words = columns.map(({ column, type, isNull }) => `\`${column}\` ${type}${isNull ? ', may be null' : ''}`);
    return `### ${name}\n\n${TABLES[name]}.\n\n${words.join(' · ')}\n`;
  });
  const text = `# What is in a backup

Made by \`npm run archive\` of the tables of a new database; a test holds the two together. Backup and archive are one format.

An archive is one zip file, written with mode 0600:

- \`archive.json\`: what it is. \`format\` (\`jam-ledger-archive\`), \`version\` (1), \`edition\` (the newest migration of the book, such as
  \`020-sounds\`), \`madeAt\`, \`why\`, \`studios\` (id, name, whether it is the demo), and \`tables\`: for each its \`name\`, its \`columns\`, how
  many \`rows\`, and of its file unpacked the length in \`bytes\` and the digest \`sha256\` (FIPS 180-4).
- \`tables/NAME.jsonl\`: the rows of a table, UTF-8, each a JSON object on a line of its own (a line feed at its end), in the order in which they
  were made. Moments are ISO 8601 in UTC, days \`2026-03-14\`, ids UUIDs.

All of it is the book as it stood at one moment, also while somebody wrote. What is not in it: who is signed in and from which devices, counts of
wrong sign-ins, the secret that signs cookies, and the bytes of recordings and takes: what they are stays known, so that the same file can be brought again.

Whoever restores one: \`bin/restore FILE\`, or **Studio, Backups and trail**. It goes into an empty book or the demo, or over a book of the same
studio. What is cut, damaged, foreign, of a newer version, or would unpack to more than a book can be (200 times its length), is refused with a
sentence, and nothing is changed. An older edition is filled into a book of that edition, which is then brought forward as by the migrations;
one of edition 018 is kept in the tests. Numbers of a bigint column are read exactly; others are those of JSON.

Without Jam Ledger: unzip it; each table is read by anything that reads lines of JSON.

## Tables

${parts.join('\n')}`;
  return prettier.format(text, { ...(await prettier.resolveConfig(ARCHIVE_PAGE)), parser: 'markdown' });
}

if (process.argv[1]?.endsWith('archivePage.ts')) writeFileSync(ARCHIVE_PAGE, await archivePage());
