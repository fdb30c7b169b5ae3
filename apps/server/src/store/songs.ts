import { Op, type OrderItem } from 'sequelize';
import type { Store } from './database.ts';
import type { PhraseModel, PhraseRevisionModel, SectionModel, TranscriptionModel, WithPerson } from './models.ts';

/** What a transcription is set up with, as the database keeps it. */
type SetUpColumns = Pick<
  TranscriptionModel,
  | 'title'
  | 'whose'
  | 'tuning'
  | 'capo'
  | 'key'
  | 'secondKey'
  | 'tempo'
  | 'tempoKnown'
  | 'rhythm'
  | 'meter'
  | 'feel'
  | 'changes'
  | 'rig'
  | 'frets'
  | 'scaleLengthMm'
  | 'songSeconds'
  | 'offsetCents'
  | 'pitchWay'
  | 'studentLayer'
>;

/** A transcription with its student's name and how many phrases it holds. */
export interface TranscriptionRow extends SetUpColumns {
  readonly id: string;
  readonly version: number;
  readonly studentId: string;
  readonly studentName: string;
  readonly phrases: number;
}

/** Transcriptions of a studio by title, or the one with an id. SQL by hand: the count of phrases would be a query a song. */
export function findTranscriptions(store: Store, studioId: string, id?: string): Promise<readonly TranscriptionRow[]> {
  return store.rows<TranscriptionRow>(
    `SELECT t.id, t.version, t.student_id AS "studentId", s.name AS "studentName", t.title, t.whose, t.tuning,
            t.capo, t.key, t.second_key AS "secondKey", t.tempo, t.tempo_known AS "tempoKnown",
            t.rhythm, t.meter, t.feel, t.changes, t.rig, t.frets,
            t.scale_length_mm AS "scaleLengthMm", t.song_seconds AS "songSeconds", t.offset_cents AS "offsetCents",
            t.pitch_way AS "pitchWay", t.student_layer AS "studentLayer",
            (SELECT count(*)::int FROM phrases f
               JOIN sections c ON c.studio_id = f.studio_id AND c.id = f.section_id
              WHERE c.studio_id = t.studio_id AND c.transcription_id = t.id AND NOT f.struck AND NOT c.struck AND f.chosen)
              AS phrases
       FROM transcriptions t
       JOIN people s ON s.studio_id = t.studio_id AND s.id = t.student_id
      WHERE t.studio_id = $1 AND ($2::uuid IS NULL AND s.archived_at IS NULL OR t.id = $2)
      ORDER BY t.title, t.id`,
    [studioId, id ?? null],
  );
}

/** The sections of a transcription in the order of the clock, struck ones left out. */
export function findSections(store: Store, studioId: string, transcriptionId: string): Promise<SectionModel[]> {
  return store.sections.findAll({
    where: { studioId, transcriptionId, struck: false },
    order: ['startSeconds', 'label', 'id'],
  });
}

/** The phrases of some sections in their order, struck ones left out. */
export function findPhrases(store: Store, studioId: string, sectionIds: readonly string[]): Promise<PhraseModel[]> {
  return store.phrases.findAll({
    where: { studioId, sectionId: [...sectionIds], struck: false },
    order: ['position', 'id'],
  });
}

/** The phrases of a studio that refer to one. */
export function findReferences(store: Store, studioId: string, phraseId: string): Promise<PhraseModel[]> {
  return store.phrases.findAll({ where: { studioId, refersTo: phraseId } });
}

/** A phrase and the alternates kept beside it, struck ones left out. */
export function findAlternates(store: Store, studioId: string, mainId: string): Promise<PhraseModel[]> {
  return store.phrases.findAll({
    where: { studioId, struck: false, [Op.or]: [{ id: mainId }, { alternateOf: mainId }] },
    order: ['position', 'id'],
  });
}

/** Makes one of some alternates the one that is played. */
export async function chooseAlternate(
  store: Store,
  studioId: string,
  ids: readonly string[],
  chosenId: string,
): Promise<void> {
  const others = ids.filter((id) => id !== chosenId);
  await store.phrases.update({ chosen: false }, { where: { studioId, id: others } });
  await store.phrases.update({ chosen: true }, { where: { studioId, id: chosenId } });
}

/** The newest earlier text of a phrase, or undefined. */
export async function newestRevision(
  store: Store,
  studioId: string,
  phraseId: string,
): Promise<PhraseRevisionModel | undefined> {
  const order: OrderItem[] = [['at', 'DESC']];
  return (await store.phraseRevisions.findOne({ where: { studioId, phraseId }, order })) ?? undefined;
}

/** An earlier text of a phrase, with who typed over it. */
export interface PhraseRevisionRow {
  readonly id: string;
  readonly at: Date;
  readonly by: string;
  readonly text: string;
}

/** The earlier texts of a phrase, newest first. */
export async function findRevisions(
  store: Store,
  studioId: string,
  phraseId: string,
): Promise<readonly PhraseRevisionRow[]> {
  const rows: readonly (PhraseRevisionModel & Partial<WithPerson>)[] = await store.phraseRevisions.findAll({
    where: { studioId, phraseId },
    include: { model: store.people, as: 'person', attributes: ['name'] },
    order: [['line', 'DESC']],
  });
  return rows.map(({ id, at, text, person }) => ({ id, at, text, by: person?.name ?? '' }));
}

/**
 * The position after the last phrase of a section, held until the transaction ends, so that two at once never share one.
 * SQL by hand: the row is locked until the transaction ends.
 */
export async function positionOfNextPhrase(store: Store, studioId: string, sectionId: string): Promise<number> {
  await store.lock(`phrases of ${sectionId}`);
  const rows = await store.rows<{ position: number }>(
    'SELECT coalesce(max(position) + 1, 0)::int AS position FROM phrases WHERE studio_id = $1 AND section_id = $2',
    [studioId, sectionId],
  );
  return rows[0]?.position ?? 0;
}
