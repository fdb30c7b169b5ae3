import type { Section, SectionBody, SectionChange } from '@jam-ledger/contract';
import { findOwn, findPhrases, saveVersioned, type SectionModel } from '../store/index.ts';
import { found, kept } from './keep.ts';
import { gatherFacts } from './licks.ts';
import { describeSection } from './transcriptions.ts';
import { requireTeacher, type Visit } from './visit.ts';

/** Adds a section to a transcription. @throws NotYours, Unknown */
export async function addSection(visit: Visit, transcriptionId: string, body: SectionBody): Promise<Section> {
  requireTeacher(visit);
  const { store, studio } = visit;
  found(await findOwn(store.transcriptions, { studioId: studio.id, id: transcriptionId }));
  const row = await store.sections.create({ ...body, studioId: studio.id, transcriptionId });
  return describeSection(row, []);
}

/** Changes a section, strikes it out or puts it back. @throws NotYours, Unknown, Stale */
export async function changeSection(visit: Visit, id: string, change: SectionChange): Promise<Section> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const { version, ...changes } = change;
  const show = async (row: SectionModel) => describeSection(row, await findPhrases(store, studio.id, [row.id]));
  const before = found(await findOwn(store.sections, { studioId: studio.id, id }));
  const row = await kept(await saveVersioned(store.sections, { studioId: studio.id, id, version }, changes), show);
  // Another place in the song may be another tempo.
  if (row.startSeconds !== before.startSeconds) await gatherFacts(store, { sectionId: id });
  return show(row);
}
