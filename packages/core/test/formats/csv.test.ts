import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { columnsOf, readCsv, writeCsv } from '../../src/formats/index.ts';
import { printed } from './outside.ts';

const READ = `import csv, json, sys, io
print(json.dumps(list(csv.reader(io.TextIOWrapper(sys.stdin.buffer, encoding='utf-8', newline='')))))`;

describe('tables as CSV', () => {
  // Source: the csv module of Python; RFC 4180.
  test('Python reads the same rows: quotes, commas, line breaks, other scripts', () => {
    const rows = [
      ['a, b', 'he said “no” "twice"', 'two\nlines', 'Łódź ♭ 音'],
      [' ', '', '12', '-3.5'],
    ];
    const read: unknown = JSON.parse(printed('python3', ['-c', READ], writeCsv(['one', 'two', 'three', 'four'], rows)));
    expect(read).toEqual([['one', 'two', 'three', 'four'], ...rows]);
  });

  test('what a spreadsheet would compute is defused, and comes back as it was', () => {
    const risky = ['=1+2', '@SUM(A1)', '+cmd|x', '-2+3', '-12', '+1', 'plain'];
    const csv = writeCsv(
      ['x'],
      risky.map((cell) => [cell]),
    );
    expect(csv.split('\r\n').slice(1, -1)).toEqual([
      ...[`"'=1+2"`, `"'@SUM(A1)"`, `"'+cmd|x"`, `"'-2+3"`],
      ...['-12', '+1', 'plain'],
    ]);
    expect(readCsv(csv).rows.map(({ cells }) => cells[0])).toEqual(risky);
  });

  test('any table comes back', () => {
    const cell = fc
      .string({ unit: 'grapheme', maxLength: 12 })
      .map((text) => text.replaceAll('\u0000', '').replaceAll('\ufeff', '').trim());
    const table = fc.array(fc.tuple(cell, cell, fc.constantFrom('x', 'y')), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(table, (rows) => {
        const wanted = rows.map((row) => row.map((one) => one.replace(/^'(?=[=@+\t-])/, '')));
        expect(readCsv(writeCsv(['a', 'b', 'c'], rows)).rows.map(({ cells }) => cells)).toEqual(wanted);
      }),
      { numRuns: 200, seed: 2 },
    );
  });

  test('semicolons and tabs, a mark of the byte order, headings in one’s own words', () => {
    const { headings, rows } = readCsv('\ufeffFull name;E-mail\nPia Solberg;pia@example.org\n\nNo One;');
    expect(rows).toEqual([
      { line: 2, cells: ['Pia Solberg', 'pia@example.org'] },
      { line: 4, cells: ['No One', ''] },
    ]);
    expect(columnsOf(headings, { name: ['name', 'full name'], frets: ['frets'] })).toEqual({
      name: 0,
      frets: undefined,
    });
    expect(readCsv('a\tb\n1\t2').rows[0]?.cells).toEqual(['1', '2']);
  });

  test('what is no table', () => {
    expect(readCsv('  ').problems[0]?.message).toBe('There is nothing in this file.');
    expect(readCsv('PK\u0003\u0000').problems[0]?.message).toMatch(/no text/);
    expect(readCsv('a,b\n"x').problems).toHaveLength(1);
  });
});
