import { within, type Store } from './database.ts';
import type { PhraseModel, SectionModel } from './models.ts';

/** A transcription with its student's name and how many phrases it holds. */
export interface TranscriptionRow {
  readonly id: string;
  readonly version: number;
  readonly studentId: string;
  readonly studentName: string;
  readonly title: string;
  readonly whose: string;
  readonly tuning: string;
  readonly capo: number;
  readonly key: string;
  readonly tempo: number;
  readonly meter: string;
  readonly frets: number;
  readonly offsetCents: number;
  readonly phrases: number;
}

/** Transcriptions of a studio by title, or the one with an id. */
export function findTranscriptions(store: Store, studioId: string, id?: string): Promise<readonly TranscriptionRow[]> {
  return store.rows<TranscriptionRow>(
    `SELECT t.id, t.version, t.student_id AS "studentId", s.name AS "studentName", t.title, t.whose, t.tuning,
            t.capo, t.key, t.tempo, t.meter, t.frets, t.offset_cents AS "offsetCents",
            (SELECT count(*)::int FROM phrases f
               JOIN sections c ON c.studio_id = f.studio_id AND c.id = f.section_id
              WHERE c.studio_id = t.studio_id AND c.transcription_id = t.id AND NOT f.struck AND NOT c.struck)
              AS phrases
       FROM transcriptions t
       JOIN people s ON s.studio_id = t.studio_id AND s.id = t.student_id
      WHERE t.studio_id = $1 AND ($2::uuid IS NULL OR t.id = $2)
      ORDER BY t.title, t.id`,
    [studioId, id ?? null],
  );
}

/** The sections of a transcription in the order of the clock, struck ones left out. */
export function findSections(store: Store, studioId: string, transcriptionId: string): Promise<SectionModel[]> {
  return store.sections.findAll({
    where: { studioId, transcriptionId, struck: false },
    order: ['startSeconds', 'label', 'id'],
    ...within(store),
  });
}

/** The phrases of some sections in their order, struck ones left out. */
export function findPhrases(store: Store, studioId: string, sectionIds: readonly string[]): Promise<PhraseModel[]> {
  return store.phrases.findAll({
    where: { studioId, sectionId: [...sectionIds], struck: false },
    order: ['place', 'id'],
    ...within(store),
  });
}

/** The place after the last phrase of a section. */
export async function placeOfNextPhrase(store: Store, studioId: string, sectionId: string): Promise<number> {
  return store.phrases.count({ where: { studioId, sectionId }, ...within(store) });
}
