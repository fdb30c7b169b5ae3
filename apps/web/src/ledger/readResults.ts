import { OUTCOMES, type LedgerPiece, type OldEntry, type Outcome } from '@jam-ledger/contract';
import { columnsOf, readCsv } from '@jam-ledger/core/formats';

/** Results that a table holds, and what is wrong with it, line by line. */
export interface ResultsRead {
  readonly entries: readonly OldEntry[];
  readonly problems: readonly string[];
}

/** Words for an outcome, as people write them. */
const SAID: Readonly<Record<string, Outcome>> = {
  clean: 'clean',
  yes: 'clean',
  'not yet': 'not-yet',
  'not-yet': 'not-yet',
  no: 'not-yet',
};

/** Slowest and fastest that is taken, quarter notes a minute. */
const BPM = { min: 20, max: 400 } as const;

/** Reads results from a table with the columns day, piece, bpm, outcome, and perhaps song and remark; pieces are known by their names. */
export function readResults(text: string, pieces: readonly LedgerPiece[], today: string): ResultsRead {
  const table = readCsv(text);
  const problems = table.problems.map(({ place, message }) => (place === '' ? message : `${place}: ${message}`));
  const columns = columnsOf(table.headings, {
    day: ['day', 'date'],
    song: ['song'],
    piece: ['piece', 'phrase'],
    bpm: ['bpm', 'tempo'],
    outcome: ['outcome', 'result'],
    remark: ['remark', 'note'],
  });
  const missing = (['day', 'piece', 'bpm'] as const).filter((name) => columns[name] === undefined);
  if (missing.length > 0)
    return { entries: [], problems: [...problems, `No column of the table is headed “${missing.join('”, “')}”.`] };
  const entries: OldEntry[] = [];
  for (const { line, cells } of table.rows) {
    const cell = (name: keyof typeof columns) => {
      const at = columns[name];
      return at === undefined ? '' : (cells[at] ?? '');
    };
    const named = pieces.filter(
      (one) => one.phrase.name === cell('piece') && (cell('song') === '' || one.song.title === cell('song')),
    );
    const [piece] = named;
    const outcome = cell('outcome') === '' ? OUTCOMES[0] : SAID[cell('outcome').toLowerCase()];
    const bpm = Number(cell('bpm'));
    const day = cell('day');
    const wrong = [
      !piece && `there is no piece “${cell('piece')}”`,
      named.length > 1 && `several pieces are called “${cell('piece')}”; say the song`,
      !isDay(day) && `“${day}” is no day such as 2026-03-14`,
      isDay(day) && day > today && 'this day is still to come',
      !(Number.isInteger(bpm) && bpm >= BPM.min && bpm <= BPM.max) && `“${cell('bpm')}” is no tempo`,
      !outcome && `“${cell('outcome')}” is neither clean nor not yet`,
    ].filter((one) => one !== false);
    if (wrong.length > 0 || !piece || !outcome) problems.push(`line ${line}: ${wrong.join('; ')}.`);
    else entries.push({ pieceId: piece.id, day, bpm, outcome, remark: cell('remark').slice(0, 500) });
  }
  return { entries, problems };
}

function isDay(text: string): boolean {
  return (
    /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text)) && new Date(text).toISOString().startsWith(text)
  );
}
