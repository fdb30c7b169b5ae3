import Papa from 'papaparse';
import type { FileProblem } from './xml.ts';

/** Longest file that is read, characters, and most of its lines. Our choice. */
const MAX_TEXT = 5_000_000;
const MAX_LINES = 20_000;

/** A value of a cell; nothing is an empty one. */
export type Cell = string | number | boolean | null;

/**
 * A table as CSV: a line of headings, then a line a row, each ended by CRLF; what a spreadsheet would take for a formula stands behind
 * an apostrophe. Source: RFC 4180; the guard against formulas: OWASP, “CSV injection” (from memory).
 */
export function writeCsv(headings: readonly string[], rows: readonly (readonly Cell[])[]): string {
  const text = Papa.unparse([[...headings], ...rows.map((row) => [...row])], {
    newline: '\r\n',
    escapeFormulae: FORMULA,
  });
  return `${text}\r\n`;
}

/** What a spreadsheet reads as a formula; a number may begin with a minus. */
const FORMULA = /^(?:[=@\t\r]|[+-](?!\d+(?:[.,]\d+)?$))/;

/** A table that was read: its headings as they stand, its rows by the number of their line, and what is wrong. */
export interface ReadTable {
  readonly headings: readonly string[];
  readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[];
  readonly problems: readonly FileProblem[];
}

/** Reads a table of any of the usual separators; an apostrophe before a formula is taken off again. Never throws. */
export function readCsv(text: string): ReadTable {
  const plain = text.startsWith('\ufeff') ? text.slice(1) : text;
  if (plain.length > MAX_TEXT) return nothing('The file is too long to be read.');
  if (plain.trim() === '') return nothing('There is nothing in this file.');
  if (plain.includes('\u0000')) return nothing('This is no text; save the table as CSV, UTF-8.');
  const { data, errors } = Papa.parse<string[]>(plain, { delimiter: separatorOf(plain) });
  const [headings = [], ...lines] = data;
  const problems = errors
    .filter(({ code }) => code !== 'UndetectableDelimiter')
    .slice(0, 20)
    .map(({ row, message }): FileProblem => ({
      place: row === undefined ? '' : `line ${row + 1}`,
      message: `${message}.`,
    }));
  const rows = lines
    .map((cells, index) => ({ line: index + 2, cells: cells.map(taken) }))
    .filter(({ cells }) => cells.some((cell) => cell !== ''));
  const told =
    rows.length > MAX_LINES
      ? [...problems, { place: '', message: `Only the first ${MAX_LINES} lines are read.` }]
      : problems;
  return { headings: headings.map((heading) => heading.trim()), rows: rows.slice(0, MAX_LINES), problems: told };
}

/** The separator that stands most often in the line of headings. */
function separatorOf(text: string): string {
  const first = /^[^\r\n]*/.exec(text)?.[0] ?? '';
  const count = (separator: string) => first.split(separator).length;
  return [',', ';', '\t', '|'].reduce((best, one) => (count(one) > count(best) ? one : best));
}

function nothing(message: string): ReadTable {
  return { headings: [], rows: [], problems: [{ place: '', message }] };
}

function taken(cell: string): string {
  return cell.trim().replace(/^'(?=[=@+\t-])/, '');
}

/** The columns of a table that are looked for, each by the words it may be headed by; undefined where there is none. */
export function columnsOf<Name extends string>(
  headings: readonly string[],
  wanted: Readonly<Record<Name, readonly string[]>>,
): Readonly<Record<Name, number | undefined>> {
  const plain = headings.map((heading) =>
    heading
      .toLowerCase()
      .replaceAll(/[^a-z]+/g, ' ')
      .trim(),
  );
  const placeOf = (words: readonly string[]) => {
    const at = plain.findIndex((heading) => words.includes(heading));
    return at < 0 ? undefined : at;
  };
  const places = Object.entries<readonly string[]>(wanted).map(([name, words]) => [name, placeOf(words)] as const);
  return Object.fromEntries(places) as Record<Name, number | undefined>;
}
