import type { Phrase, Section, SectionRole, SetUp, SetUpChange, Transcription } from '@jam-ledger/contract';
import { SECTION_ROLES, type TranscriptionLine } from '@jam-ledger/contract';
import { isTuningName } from '@jam-ledger/core/pitch';
import { findPhrases, findSections, findTranscriptions, saveVersioned } from '../store/index.ts';
import type { PhraseModel, SectionModel } from '../store/index.ts';
import { found, kept } from './keep.ts';
import { requireTeacher, type Visit } from './visit.ts';

/** The transcriptions of the studio by title. @throws NotYours for a student. */
export async function listTranscriptions(visit: Visit): Promise<readonly TranscriptionLine[]> {
  requireTeacher(visit);
  const rows = await findTranscriptions(visit.store, visit.studio.id);
  return rows.map(({ id, title, whose, studentId, studentName, phrases }) => ({
    id,
    title,
    whose,
    phrases,
    student: { id: studentId, name: studentName },
  }));
}

/** One transcription with its sections and phrases. @throws NotYours, Unknown */
export async function showTranscription(visit: Visit, id: string): Promise<Transcription> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const row = found((await findTranscriptions(store, studio.id, id))[0]);
  const sections = await findSections(store, studio.id, id);
  const phrases = await findPhrases(
    store,
    studio.id,
    sections.map((section) => section.id),
  );
  return {
    id,
    version: row.version,
    student: { id: row.studentId, name: row.studentName },
    ...setUpOf(row),
    sections: sections.map((section) =>
      describeSection(
        section,
        phrases.filter(({ sectionId }) => sectionId === section.id),
      ),
    ),
  };
}

/** Changes how a song is set up. @throws NotYours, Unknown, Stale */
export async function changeSetUp(visit: Visit, id: string, change: SetUpChange): Promise<Transcription> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const { version, ...setUp } = change;
  const saved = await saveVersioned(store, store.transcriptions, { studioId: studio.id, id, version }, setUp);
  await kept(saved, () => showTranscription(visit, id));
  return showTranscription(visit, id);
}

/** The set-up that a row holds. */
export function setUpOf(row: Omit<SetUp, 'tuning'> & { readonly tuning: string }): SetUp {
  const { title, whose, capo, key, tempo, meter, frets, offsetCents } = row;
  const tuning = isTuningName(row.tuning) ? row.tuning : 'standard';
  return { title, whose, tuning, capo, key, tempo, meter, frets, offsetCents };
}

/** A section as it travels. */
export function describeSection(row: SectionModel, phrases: readonly PhraseModel[]): Section {
  const { id, version, label, role, startSeconds, bars, struck } = row;
  const known: SectionRole = SECTION_ROLES.find((name) => name === role) ?? 'other';
  return { id, version, label, role: known, startSeconds, bars, struck, phrases: phrases.map(describePhrase) };
}

/** A phrase as it travels. */
export function describePhrase({ id, version, sectionId, name, text, struck }: PhraseModel): Phrase {
  return { id, version, sectionId, name, text, struck };
}
