import { barSeconds, readTempoChanges, tempoAt } from '@jam-ledger/core/form';
import {
  SONG_LIMITS,
  type Section,
  type SectionAgain,
  type SectionBody,
  type SectionChange,
} from '@jam-ledger/contract';
import {
  addRow,
  findOwn,
  findPhrases,
  findSections,
  saveVersioned,
  type PhraseModel,
  type SectionModel,
} from '../../store/index.ts';
import { orNotFound, orConflict } from '../context/rows.ts';
import { keepCorrections, sayClock, type Said } from '../context/corrections.ts';
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

/**
 * Lets a section come again: a new one laid out like it, whose phrases refer to those that are played in it. @throws Forbidden, NotFound
 */
export async function repeatSection(context: RequestContext, id: string, again: SectionAgain): Promise<Section> {
  const { store, studio } = context;
  const studioId = studio.id;
  const first = orNotFound(await findOwn(store.sections, { studioId, id }));
  const { transcriptionId, label, role, bars, barsKnown, times, open, passes, tuning, capo } = first;
  const laidOut = { transcriptionId, label, role, bars, barsKnown, times, open, passes, tuning, capo };
  const row = await addRow(store.sections, { ...laidOut, ...again, jump: null, studioId });
  const played = (await findPhrases(store, studioId, [id])).filter(({ chosen }) => chosen);
  const phrases: PhraseModel[] = [];
  for (const [position, phrase] of played.entries()) {
    const { name, text, layer, certainty, reason, movedSemitones, movedStrings, openStays } = phrase;
    const body = { name, text, layer, certainty, reason, movedSemitones, movedStrings, openStays };
    const place = { studioId, sectionId: row.id, position, refersTo: phrase.refersTo ?? phrase.id };
    phrases.push(await addRow(store.phrases, { ...body, ...place }));
  }
  await gatherFacts(store, { sectionId: row.id });
  return describeSection(row, phrases);
}

/** What of a section is kept when it is corrected. */
const SECTION_SAID: Said<SectionModel> = [
  ['label', ({ label }) => label],
  ['role', ({ role }) => role],
  ['start', ({ startSeconds, startKnown }) => (startKnown ? sayClock(startSeconds) : 'not stamped')],
  ['bars', ({ bars, barsKnown }) => (barsKnown ? String(bars) : 'as long as its phrases')],
];

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
  await keepCorrections(context, { kind: 'section', id }, { before, after: row, said: SECTION_SAID });
  // Another place in the song may be another tempo, and another guitar another sound.
  const isElsewhere = row.startSeconds !== before.startSeconds;
  if (isElsewhere || row.tuning !== before.tuning || row.capo !== before.capo)
    await gatherFacts(store, { sectionId: id });
  if (isElsewhere && !change.struck) await moveSupposed(context, row, row.startSeconds - before.startSeconds);
  return show(row);
}

/** Sections whose start is supposed go along with the one before them, up to the next that is known. */
async function moveSupposed(context: RequestContext, moved: SectionModel, seconds: number): Promise<void> {
  const { store, studio } = context;
  const before = moved.startSeconds - seconds;
  const all = await findSections(store, studio.id, moved.transcriptionId);
  const later = all.filter(({ id, startSeconds }) => id !== moved.id && startSeconds >= before);
  const end = later.findIndex(({ startKnown }) => startKnown);
  for (const { id, version, startSeconds } of end < 0 ? later : later.slice(0, end)) {
    const { min, max } = SONG_LIMITS.startSeconds;
    const there = Math.min(max, Math.max(min, startSeconds + seconds));
    await saveVersioned(store.sections, { studioId: studio.id, id, version }, { startSeconds: there });
  }
}

/** Where sections start that go behind those of a song, one after the other; supposed. */
export async function startBehind(
  { store, studio }: RequestContext,
  songId: string,
): Promise<(next: Pick<SectionModel, 'bars' | 'times'>) => number> {
  const song = orNotFound(await findOwn(store.transcriptions, { studioId: studio.id, id: songId }));
  const changes = readTempoChanges(song);
  const lengthAt = (seconds: number, { bars, times }: Pick<SectionModel, 'bars' | 'times'>) => {
    const { meter, bpm } = tempoAt(seconds, changes);
    return bars * times * barSeconds(meter, bpm);
  };
  const last = (await findSections(store, studio.id, songId)).at(-1);
  let at = last ? last.startSeconds + lengthAt(last.startSeconds, last) : 0;
  return (next) => {
    const start = Math.min(SONG_LIMITS.startSeconds.max, Math.round(at * 100) / 100);
    at = start + lengthAt(start, next);
    return start;
  };
}
