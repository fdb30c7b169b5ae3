import { findOwn, type Saved } from '../store/index.ts';
import { Stale, Unknown } from './trouble.ts';
import type { Visit } from './visit.ts';

/** The row that was found. @throws Unknown when there is none in the studio. */
export function found<Row>(row: Row | undefined): Row {
  if (row === undefined) throw new Unknown('There is nothing here with this id.');
  return row;
}

/** The row that was saved. @throws Stale with the newer row as `show` describes it; Unknown when there is none. */
export async function kept<Row>(saved: Saved<Row> | undefined, show: (row: Row) => unknown): Promise<Row> {
  const answer = found(saved);
  if (!answer.saved) throw new Stale(await show(answer.current));
  return answer.row;
}

/** A word of a list, as the database keeps it; the first for one that is no longer known. */
export function known<Word extends string>(words: readonly [Word, ...Word[]], word: string): Word {
  return words.find((one) => one === word) ?? words[0];
}

/** Lets the id of a student of the studio go on who did not leave. @throws Unknown */
export async function requireStudent({ store, studio }: Visit, id: string): Promise<void> {
  const person = found(await findOwn(store.people, { studioId: studio.id, id }));
  if (person.role !== 'student' || person.archivedAt) throw new Unknown('There is no student with this id.');
}
