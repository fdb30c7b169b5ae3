/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import { describe, expect, jest, test } from '@jest/globals';
import { readCsv, writeCsv, writeMusicXml } from '@jam-ledger/core/formats';
import { readShorthand } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';
import { fileName, saveFile } from '../src/files/saveFile.ts';
import { FORMATS } from '../src/files/takeable.ts';
import { LEDGER_HEADINGS, ledgerRows, ENTRY_HEADINGS, entryRows } from '../src/ledger/ledgerTable.ts';
import { calendarOf } from '../src/series/calendarOf.ts';
import { readResults } from '../src/ledger/readResults.ts';
import { readNames, studentsTable } from '../src/people/studentsTable.ts';
import { takeableOf } from '../src/practice/takeableOf.ts';

describe('names of files', () => {
  test.each([
    ['Slow Tide at Crannoch Steps', 'Slow Tide at Crannoch Steps.mid'],
    ['what / is: "this"?', 'what is this.mid'],
    ['  ..hidden.. ', 'hidden.mid'],
    ['Möwe über dem Steg', 'Möwe über dem Steg.mid'],
    ['\u0007', 'song.mid'],
    ['x'.repeat(300), `${'x'.repeat(80)}.mid`],
  ])('%j', (title, name) => expect(fileName(title, 'mid')).toBe(name));
});

test('a file is handed to the browser under its name', () => {
  const made: Blob[] = [];
  URL.createObjectURL = (blob) => {
    made.push(blob as Blob);
    return 'blob:here';
  };
  const clicked = jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (
    this: HTMLAnchorElement,
  ) {
    expect([this.download, this.href]).toEqual(['a.csv', 'blob:here']);
  });
  jest.useFakeTimers();
  const revoked: string[] = [];
  URL.revokeObjectURL = (one) => void revoked.push(one);
  saveFile('a.csv', 'x', 'text/csv');
  expect(clicked).toHaveBeenCalledTimes(1);
  expect(made[0]?.type).toBe('text/csv');
  jest.runAllTimers();
  expect(revoked).toEqual(['blob:here']);
  jest.useRealTimers();
  clicked.mockRestore();
});

test('each format has an ending and a type of its own', () => {
  const all = Object.values(FORMATS);
  expect(new Set(all.map(({ ending }) => ending)).size).toBe(all.length);
});

const piece = {
  ...{ id: '1', kind: 'phrase', startBpm: 50, targetBpm: 84, lastDay: '2026-03-12' },
  song: {
    id: 's',
    title: 'Slow Tide',
    whose: '',
    tuning: 'standard',
    capo: 2,
    key: 'A',
    meter: '3/4',
    feel: 'swing',
    offsetCents: 0,
  },
  section: { id: 'c', label: '1A', role: 'solo' },
  phrase: { id: 'p', name: '=Answer', text: '/8 7G' },
  standing: { inkBpm: 67, pencilBpm: null, share: 0.7976 },
  next: { move: 'up', bpm: 72 },
  mastery: { state: 'building' },
  cells: [
    { day: '2026-03-11', bpm: 60, outcome: 'clean', medium: 'pencil', percent: 100, results: 2 },
    { day: '2026-03-12', bpm: 67, outcome: 'clean', medium: 'ink', percent: 100, results: 1 },
  ],
};

test('the ledger as a table that comes back', () => {
  const rows = ledgerRows([piece as never]);
  const table = readCsv(writeCsv(LEDGER_HEADINGS, rows));
  expect(table.headings).toEqual([...LEDGER_HEADINGS]);
  expect(table.rows[0]?.cells).toEqual([
    'Slow Tide',
    '1A',
    '=Answer',
    'phrase',
    '50',
    '84',
    '67',
    '',
    '0.8',
    'up',
    '72',
    'building',
    '2026-03-12',
  ]);
});
test('a piece is taken along at its target, on its guitar', () => {
  const take = takeableOf(piece as never, readShorthand('/8 7G').phrase);
  const xml = writeMusicXml(take.song());
  expect(xml).toContain('<per-minute>84</per-minute>');
  expect(xml).toContain('<capo>2</capo>');
  expect(take.song().guitar.tuning).toBe(TUNINGS.standard);
  expect(take.shorthand().sections[0]?.phrases).toEqual([{ name: '=Answer', text: '/8 7G' }]);
  expect(take.name).toBe('Slow Tide, =Answer');
});

test('the lessons of a series as a calendar, closed days left out', () => {
  const rule = {
    firstDay: '2026-03-06',
    time: '17:00',
    minutes: 45,
    everyWeeks: 1,
    weekdays: [],
    count: 3,
    until: null,
  };
  const series = {
    id: 'a',
    title: 'Fridays',
    student: { id: '1', name: 'Pia' },
    rule,
    changes: { skips: [], moves: [], extras: [] },
  };
  const studio = {
    name: 'The loft',
    zone: 'Europe/Oslo',
    holidays: [{ from: '2026-03-13', to: '2026-03-13', name: 'x' }],
  };
  const file = calendarOf(series as never, studio as never, new Date('2026-03-01T10:00:00Z'));
  expect(file).toContain('SUMMARY:Fridays\\, Pia');
  expect(file).toContain('EXDATE;TZID=Europe/Oslo:20260313T170000');
  expect(file).toContain('DTSTAMP:20260301T100000Z');
});

describe('students from a table', () => {
  test('names by their column, each bad line told', () => {
    const text = 'Full name;Guitar\nPia Lindquay;x\n;y\nNew One;z\nNew One;z\n';
    expect(readNames(text, ['Pia Lindquay'])).toEqual({
      names: ['New One'],
      problems: [
        'line 2: Pia Lindquay is entered already.',
        'line 3: there is no name.',
        'line 5: New One is entered already.',
      ],
    });
    expect(readNames('a,b\n1,2', []).problems).toEqual(['No column of the table is headed “name”.']);
    expect(readNames('whoever\nOne', []).names).toEqual(['One']);
    expect(readNames(`name\n${'x'.repeat(200)}`, []).problems).toEqual(['line 2: the name is too long.']);
    expect(readNames('', []).problems[0]).toBe('There is nothing in this file.');
  });

  test('the students as a table', () => {
    const guitar = { strings: 6, frets: 22, scaleLengthMm: 648, tremoloArm: false, leftHanded: true, spanFrets: null };
    const pia = { id: '1', version: 1, name: '=Pia', guitar, schools: {} };
    expect(studentsTable([pia as never])).toContain(`"'=Pia",6,22,648,false,true,\r\n`);
  });
});

describe('results from a table', () => {
  const pieces = [piece, { ...piece, id: '2', phrase: { id: 'q', name: 'Riff', text: '' } }] as never;

  test('what the ledger gave is read again', () => {
    const row = {
      day: '2026-03-01',
      song: 'Slow Tide',
      section: '1A',
      piece: 'Riff',
      bpm: 72,
      outcome: 'not-yet',
      medium: 'ink',
    };
    const whole = { ...row, id: '', percent: 100, remark: 'late', postedBy: 'Mara' };
    const csv = writeCsv(ENTRY_HEADINGS, entryRows([whole as never]));
    expect(readResults(csv, pieces, '2026-03-14')).toEqual({
      entries: [{ pieceId: '2', day: '2026-03-01', bpm: 72, outcome: 'not-yet', remark: 'late' }],
      problems: [],
    });
  });

  test('each bad line is told, and the table that has no such columns', () => {
    const csv =
      'Date,Piece,Tempo,Result\n2026-02-30,Riff,60,yes\n2026-04-01,Nobody,fast,perhaps\n2026-03-02,Riff,60,\n';
    const { entries, problems } = readResults(csv, pieces, '2026-03-14');
    expect(problems).toEqual([
      'line 2: “2026-02-30” is no day such as 2026-03-14.',
      'line 3: there is no piece “Nobody”; this day is still to come; “fast” is no tempo; “perhaps” is neither clean nor not yet.',
    ]);
    expect(entries).toEqual([{ pieceId: '2', day: '2026-03-02', bpm: 60, outcome: 'clean', remark: '' }]);
    expect(readResults('a,b\n1,2', pieces, '2026-03-14').problems).toEqual([
      'No column of the table is headed “day”, “piece”, “bpm”.',
    ]);
    const twice = [...(pieces as unknown as object[]), { ...piece, id: '3', phrase: { name: 'Riff' } }] as never;
    expect(readResults('day,piece,bpm\n2026-03-01,Riff,60', twice, '2026-03-14').problems[0]).toMatch(/several pieces/);
  });
});
