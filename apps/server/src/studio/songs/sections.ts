import type { Section, SectionBody, SectionChange } from '@jam-ledger/contract';
import { addRow, findOwn, findPhrases, saveVersioned, type SectionModel } from '../../store/index.ts';
import { orNotFound, orConflict } from '../context/rows.ts';
import { gatherFacts } from '../licks/licks.ts';
import { describeSection } from './transcriptions.ts';
import { type RequestContext } from '../context/context.ts';

/** Adds a section to a transcription. @throws Forbidden, NotFound */
export async function addSection(
  context: RequestContext,
  transcriptionId: string,
  body: SectionBody,
): Promise<Section> {
  const { store, studio } = context;
  orNotFound(await findOwn(store.transcriptions, { studioId: studio.id, id: transcriptionId }));
  const row = await addRow(store.sections, { ...body, studioId: studio.id, transcriptionId });
  return describeSection(row, []);
}

/** Changes a section, strikes it out or puts it back. @throws Forbidden, NotFound, Conflict */
export async function changeSection(context: RequestContext, id: string, change: SectionChange): Promise<Section> {
  const { store, studio } = context;
  const { version, ...changes } = change;
  const show = async (row: SectionModel) => describeSection(row, await findPhrases(store, studio.id, [row.id]));
  const before = orNotFound(await findOwn(store.sections, { studioId: studio.id, id }));
  const row = await orConflict(
    await saveVersioned(store.sections, { studioId: studio.id, id, version }, changes),
    show,
  );
  // Another place in the song may be another tempo.
  if (row.startSeconds !== before.startSeconds) await gatherFacts(store, { sectionId: id });
  return show(row);
}
