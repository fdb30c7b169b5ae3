import type { PhraseRevision } from '@jam-ledger/contract';
import { findOwn, findRevisions, newestRevision, type PhraseModel } from '../store/index.ts';
import { found } from './keep.ts';
import { requireTeacher, type Visit } from './visit.ts';

/** While one person goes on typing, one earlier text is kept for so long, milliseconds. Our choice. */
const SAME_SITTING_MS = 5 * 60 * 1000;

/** Keeps the text that a phrase had, unless the same person began this sitting with an earlier one. */
export async function keepRevision(visit: Visit, before: PhraseModel): Promise<void> {
  const { store, studio, person, now } = visit;
  const newest = await newestRevision(store, studio.id, before.id);
  const sameSitting = newest?.personId === person.id && now.getTime() - newest.at.getTime() < SAME_SITTING_MS;
  if (sameSitting || before.text === '') return;
  const row = { studioId: studio.id, phraseId: before.id, personId: person.id, at: now, text: before.text };
  await store.phraseRevisions.create(row);
}

/** The earlier texts of a phrase, newest first. @throws NotYours, Unknown */
export async function listRevisions(visit: Visit, id: string): Promise<readonly PhraseRevision[]> {
  requireTeacher(visit);
  const { store, studio } = visit;
  found(await findOwn(store.phrases, { studioId: studio.id, id }));
  const rows = await findRevisions(store, studio.id, id);
  return rows.map(({ at, ...rest }) => ({ ...rest, at: at.toISOString() }));
}
