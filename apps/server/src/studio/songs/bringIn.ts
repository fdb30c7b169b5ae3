import {
  SONG_LIMITS,
  type BroughtBody,
  type Section,
  type SectionsStruck,
  type Transcription,
} from '@jam-ledger/contract';
import { barSeconds, readTempoChanges, tempoAt } from '@jam-ledger/core/form';
import { addRow, findOwn, findSections, saveVersioned, type PhraseModel } from '../../store/index.ts';
import { orConflict, orNotFound } from '../context/rows.ts';
import { gatherFacts } from '../licks/licks.ts';
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
  const song = orNotFound(await findOwn(store.transcriptions, { studioId, id: transcriptionId }));
  const tempoChanges = readTempoChanges(song);
  const before = (await findSections(store, studioId, transcriptionId)).at(-1);
  const lengthAt = (seconds: number, bars: number, times: number) => {
    const { meter, bpm } = tempoAt(seconds, tempoChanges);
    return bars * times * barSeconds(meter, bpm);
  };
  let startSeconds = before ? before.startSeconds + lengthAt(before.startSeconds, before.bars, before.times) : 0;
  const added: Section[] = [];
  for (const { label, role, bars, times, phrases } of sections) {
    const start = Math.min(SONG_LIMITS.startSeconds.max, Math.round(startSeconds * 100) / 100);
    const plain = { passes: [], jump: null, tuning: null, capo: null, open: false, barsKnown: true, startKnown: false };
    const row = await addRow(store.sections, {
      ...plain,
      label,
      role,
      bars,
      times,
      startSeconds: start,
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
    startSeconds = start + lengthAt(start, bars, times);
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
