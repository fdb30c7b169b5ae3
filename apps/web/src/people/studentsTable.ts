import { PEOPLE_LIMITS, type Student } from '@jam-ledger/contract';
import { columnsOf, readCsv, writeCsv } from '@jam-ledger/core/formats';

/** The students as a table for a spreadsheet. */
export function studentsTable(students: readonly Student[]): string {
  const headings = ['name', 'strings', 'frets', 'scale length mm', 'tremolo arm', 'left-handed', 'reach in frets'];
  return writeCsv(
    headings,
    students.map(({ name, guitar }) => [
      ...[name, guitar.strings, guitar.frets, guitar.scaleLengthMm, guitar.tremoloArm, guitar.leftHanded],
      guitar.spanFrets,
    ]),
  );
}

/** Names of students that a table holds, and what is wrong with it, line by line. */
export interface NamesRead {
  readonly names: readonly string[];
  readonly problems: readonly string[];
}

/** Reads the names of a table: of its column “name”, or of the only one there is. */
export function readNames(text: string, known: readonly string[]): NamesRead {
  const table = readCsv(text);
  const problems = table.problems.map(({ place, message }) => (place === '' ? message : `${place}: ${message}`));
  const { name } = columnsOf(table.headings, { name: ['name', 'full name', 'student', 'student name'] });
  const column = name ?? (table.headings.length === 1 ? 0 : undefined);
  if (column === undefined) return { names: [], problems: [...problems, 'No column of the table is headed “name”.'] };
  const names: string[] = [];
  for (const { line, cells } of table.rows) {
    const one = cells[column] ?? '';
    if (one === '') problems.push(`line ${line}: there is no name.`);
    else if (one.length > PEOPLE_LIMITS.name) problems.push(`line ${line}: the name is too long.`);
    else if (known.includes(one) || names.includes(one)) problems.push(`line ${line}: ${one} is entered already.`);
    else names.push(one);
  }
  if (names.length > PEOPLE_LIMITS.together)
    problems.push(`At most ${PEOPLE_LIMITS.together} students are entered together.`);
  return { names: names.slice(0, PEOPLE_LIMITS.together), problems };
}
