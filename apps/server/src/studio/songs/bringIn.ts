import { type BroughtBody, type Section, type SectionsStruck, type Transcription } from '@jam-ledger/contract';
import { addRow, findOwn, saveVersioned, type PhraseModel } from '../../store/index.ts';
import { orConflict, orNotFound } from '../context/rows.ts';
import { gatherFacts } from '../licks/licks.ts';
import { startBehind } from './sections.ts';
import { describeSection, showTranscription } from './transcriptions.ts';
import { type RequestContext } from '../context/context.ts';

/**
 * Adds what came in from a file behind the sections that are there: where it starts in the recording is supposed, each phrase is a
 * draft that says where it came from. @throws Forbidden, NotFound
 */
export async function bringIn(
  context: RequestContext,
  transcriptionId: string,
  { sections, layer, from }: BroughtBody,
): Promise<readonly Section[]> {
  const { store, studio } = context;
  const studioId = studio.id;
  const startOf = await startBehind(context, transcriptionId);
  const added: Section[] = [];
  for (const { label, role, bars, times, phrases } of sections) {
    const plain = { passes: [], jump: null, tuning: null, capo: null, open: false, barsKnown: true, startKnown: false };
    const row = await addRow(store.sections, {
      ...plain,
      label,
      role,
      bars,
      times,
      startSeconds: startOf({ bars, times }),
      studioId,
      transcriptionId,
    });
    const rows: PhraseModel[] = [];
    for (const [position, phrase] of phrases.entries())
      rows.push(
        await addRow(store.phrases, {
          ...phrase,
          layer,
          certainty: 'heard',
          reason: from,
          studioId,
          sectionId: row.id,
          position,
        }),
      );
    if (rows.length > 0) await gatherFacts(store, { sectionId: row.id });
    added.push(describeSection(row, rows));
  }
  return added;
}

/** Takes several sections of a song out together, or puts them back. @throws Forbidden, NotFound, Conflict for any that was changed */
export async function strikeSections(
  context: RequestContext,
  id: string,
  { sections, struck }: SectionsStruck,
): Promise<Transcription> {
  const { store, studio } = context;
  orNotFound(await findOwn(store.transcriptions, { studioId: studio.id, id }));
  for (const { id: sectionId, version } of sections) {
    const section = orNotFound(await findOwn(store.sections, { studioId: studio.id, id: sectionId }));
    if (section.transcriptionId !== id) orNotFound(undefined);
    const saved = await saveVersioned(store.sections, { studioId: studio.id, id: sectionId, version }, { struck });
    await orConflict(saved, () => showTranscription(context, id));
  }
  return showTranscription(context, id);
}
