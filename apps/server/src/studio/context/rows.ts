import type { Ledger } from '@jam-ledger/contract';
import { findOwn, type Saved } from '../../store/index.ts';
import { Conflict, NotFound } from './errors.ts';
import type { RequestContext } from './context.ts';

/** The row that was found. @throws NotFound when there is none in the studio. */
export function orNotFound<Row>(row: Row | undefined): Row {
  if (row === undefined) throw new NotFound('There is nothing here with this id.');
  return row;
}

/** The row that was saved. @throws Conflict with the newer row as `show` describes it; NotFound when there is none. */
export async function orConflict<Row>(saved: Saved<Row> | undefined, show: (row: Row) => unknown): Promise<Row> {
  const answer = orNotFound(saved);
  if (!answer.saved) throw new Conflict(await show(answer.current));
  return answer.row;
}

/** A word of a list, as the database keeps it; the first for one that is no longer known. */
export function parseWord<Word extends string>(words: readonly [Word, ...Word[]], word: string): Word {
  return words.find((one) => one === word) ?? words[0];
}

/** The student of the studio with an id who did not leave. @throws NotFound */
export async function requireStudent({ store, studio }: RequestContext, id: string): Promise<Ledger['student']> {
  const person = orNotFound(await findOwn(store.people, { studioId: studio.id, id }));
  if (person.role !== 'student' || person.archivedAt) throw new NotFound('There is no student with this id.');
  return { id, name: person.name };
}
