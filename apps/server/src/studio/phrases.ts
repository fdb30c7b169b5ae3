import type { Phrase, PhraseBody, PhraseChange } from '@jam-ledger/contract';
import { findOwn, placeOfNextPhrase, saveVersioned, within } from '../store/index.ts';
import { found, kept } from './keep.ts';
import { describePhrase } from './transcriptions.ts';
import { requireTeacher, type Visit } from './visit.ts';

/** Adds a phrase at the end of a section. @throws NotYours, Unknown */
export async function addPhrase(visit: Visit, sectionId: string, body: PhraseBody): Promise<Phrase> {
  requireTeacher(visit);
  const { store, studio } = visit;
  found(await findOwn(store, store.sections, { studioId: studio.id, id: sectionId }));
  const place = await placeOfNextPhrase(store, studio.id, sectionId);
  return describePhrase(await store.phrases.create({ ...body, studioId: studio.id, sectionId, place }, within(store)));
}

/** Changes a phrase's name or text as typed, strikes it out or puts it back. @throws NotYours, Unknown, Stale */
export async function changePhrase(visit: Visit, id: string, change: PhraseChange): Promise<Phrase> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const { version, ...changes } = change;
  const saved = await saveVersioned(store, store.phrases, { studioId: studio.id, id, version }, changes);
  return describePhrase(await kept(saved, describePhrase));
}
