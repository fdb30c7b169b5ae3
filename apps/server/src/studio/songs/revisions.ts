import type { PhraseRevision } from '@jam-ledger/contract';
import { addRow, findOwn, findRevisions, newestRevision, type PhraseModel } from '../../store/index.ts';
import { orNotFound } from '../context/rows.ts';
import { type RequestContext } from '../context/context.ts';

/** While one person goes on typing, one earlier text is kept for so long, milliseconds. Our choice. */
const SAME_SITTING_MS = 5 * 60 * 1000;

/** Keeps the text that a phrase had, unless the same person began this sitting with an earlier one. */
export async function keepRevision(context: RequestContext, before: PhraseModel): Promise<void> {
  const { store, studio, person, now } = context;
  const newest = await newestRevision(store, studio.id, before.id);
  const sameSitting = newest?.personId === person.id && now.getTime() - newest.at.getTime() < SAME_SITTING_MS;
  if (sameSitting || before.text === '') return;
  const row = { studioId: studio.id, phraseId: before.id, personId: person.id, at: now, text: before.text };
  await addRow(store.phraseRevisions, row);
}

/** The earlier texts of a phrase, newest first. @throws Forbidden, NotFound */
export async function listRevisions(context: RequestContext, id: string): Promise<readonly PhraseRevision[]> {
  const { store, studio } = context;
  orNotFound(await findOwn(store.phrases, { studioId: studio.id, id }));
  const rows = await findRevisions(store, studio.id, id);
  return rows.map(({ at, ...rest }) => ({ ...rest, at: at.toISOString() }));
}
