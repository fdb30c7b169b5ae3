import { Readable } from 'node:stream';
import type { FileGiven } from '@jam-ledger/contract';
import { writeCsv, writeShorthandFile } from '@jam-ledger/core/formats';
import { COMMON_TIME, readMeter } from '@jam-ledger/core/notation';
import { ZipFile } from 'yazl';
import { findOwn, findRows, readParts, type PersonModel } from '../../store/index.ts';
import { Invalid } from '../context/errors.ts';
import { dayOf, teaches, type RequestContext } from '../context/context.ts';
import { orNotFound } from '../context/rows.ts';
import { showTranscription } from '../songs/transcriptions.ts';
import { trace } from './trail.ts';

/**
 * Everything of one student as a zip that opens without us: all rows as JSON, the ledger as a table, each song as text, and a page that
 * says what is what. A student names nobody. @throws Forbidden, NotFound, Invalid where nobody is named
 */
export async function takeEverything(
  context: RequestContext,
  { studentId }: { readonly studentId?: string },
): Promise<FileGiven> {
  const { store, studio, person } = context;
  const id = studentId ?? (person.role === 'student' ? person.id : undefined);
  if (id === undefined) throw new Invalid([{ field: 'studentId', message: 'Say whose.' }]);
  const row = orNotFound(await findOwn(store.people, { studioId: studio.id, id }));
  if (row.role !== 'student') throw new Invalid([{ field: 'studentId', message: 'Only a student’s is given.' }]);
  const stream = await everythingOf(context, row);
  await trace(context, 'took everything of', { aboutId: id });
  return { name: `${row.name.replaceAll(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}-everything.zip`, stream };
}

/** Columns that teachers wrote for the studio alone; nobody else takes them. */
const FOR_THE_STUDIO: Readonly<Record<string, readonly string[]>> = {
  lesson_notes: ['words'],
  lesson_note_revisions: ['words'],
  phrases: ['reason', 'checked_by', 'checked_against', 'checked_at'],
};

/** Everything of a student as a zip, as far as whoever takes it may read it. */
export async function everythingOf(context: RequestContext, row: Pick<PersonModel, 'id' | 'name'>): Promise<Readable> {
  const { store, studio } = context;
  const { id } = row;
  const of = { studioId: studio.id, personId: id };
  const parts: Record<string, readonly Readonly<Record<string, unknown>>[]> = {};
  for await (const { table, rows } of readParts(store, of)) {
    const hidden = teaches(context) ? [] : (FOR_THE_STUDIO[table] ?? []);
    parts[table] = rows.map((one) =>
      Object.fromEntries(Object.entries(one).filter(([name]) => !hidden.includes(name))),
    );
  }
  const zip = new ZipFile();
  const mtime = context.now;
  const add = (name: string, text: string) => zip.addBuffer(Buffer.from(text), name, { mtime });
  add('README.txt', readMe(row.name, studio.name, dayOf(context)));
  add('everything.json', `${JSON.stringify(parts, null, 1)}\n`);
  add('ledger.csv', ledgerOf(parts));
  const songs = await findRows(store.transcriptions, { studioId: studio.id, studentId: id });
  for (const [index, song] of songs.entries())
    add(
      `songs/${index + 1} ${song.title
        .replaceAll(/[^\p{L}\p{N} ]+/gu, ' ')
        .trim()
        .slice(0, 60)}.txt`,
      await songText(context, song.id),
    );
  zip.end();
  return Readable.from(zip.outputStream);
}

function readMe(name: string, studio: string, day: string): string {
  return [
    `Everything that ${studio} keeps of ${name}, as of ${day}.`,
    '',
    'ledger.csv        every result: when, which piece, how fast, how it went; opens in any spreadsheet.',
    'songs/            every song written for them, as text: sections, phrases, each phrase as it was typed.',
    'everything.json   every row of the book that is theirs, by the name of its table; moments are in UTC.',
    '',
    'Passwords and secret addresses are left out, and what teachers wrote for the studio alone where it is not a teacher who takes this.',
    '',
  ].join('\r\n');
}

/** The results as a table. */
function ledgerOf(parts: Readonly<Record<string, readonly Readonly<Record<string, unknown>>[]>>): string {
  const say = (value: unknown) => (typeof value === 'string' || typeof value === 'number' ? String(value) : '');
  const names = new Map((parts['phrases'] ?? []).map((phrase) => [phrase['id'], say(phrase['name'])]));
  const pieces = new Map((parts['pieces'] ?? []).map((piece) => [piece['id'], piece]));
  const rows = [...(parts['entries'] ?? [])].sort((a, b) => say(a['posted_at']).localeCompare(say(b['posted_at'])));
  return writeCsv(
    ['when (UTC)', 'piece', 'bpm', 'outcome', 'written in', 'remark', 'struck out'],
    rows.map((entry) => [
      say(entry['posted_at']).slice(0, 16).replace('T', ' '),
      names.get(pieces.get(entry['piece_id'])?.['phrase_id']) ?? '',
      ...['bpm', 'outcome', 'medium', 'remark'].map((name) => say(entry[name])),
      entry['struck'] === true ? 'yes' : '',
    ]),
  );
}

async function songText(context: RequestContext, id: string): Promise<string> {
  const song = await showTranscription(context, id);
  const { title, whose, tuning, capo, key, tempo, tempoKnown, meter, sections } = song;
  return writeShorthandFile({
    ...{ title, credit: whose, tuning, capo, key, bpm: tempoKnown ? tempo : undefined },
    meter: readMeter(meter) ?? COMMON_TIME,
    sections: sections.map(({ label, role, bars, times, phrases }) => ({
      ...{ label, role, bars, times },
      phrases: phrases.filter(({ chosen }) => chosen).map(({ name, text }) => ({ name, text })),
    })),
  });
}
