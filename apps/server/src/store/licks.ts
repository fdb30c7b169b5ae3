import type { SetUp } from '@jam-ledger/contract';
import type { Store } from './database.ts';
import type { PhraseFactsModel } from './models.ts';

/** A phrase whose facts are still to be gathered, with the set-up they hang on. */
export interface FactlessRow {
  readonly id: string;
  readonly studioId: string;
  readonly text: string;
  readonly startSeconds: number;
  readonly tuning: string;
  readonly capo: number;
  readonly key: string;
  readonly tempo: number;
  readonly rhythm: string;
  readonly meter: string;
  readonly changes: SetUp['changes'];
}

/** Which phrases: of a song or a section, a single one, or at most so many that have no facts yet. */
export type FactlessOf =
  | { readonly songId: string }
  | { readonly sectionId: string }
  | { readonly phraseId: string }
  | { readonly max: number };

/** Phrases with what their facts hang on. SQL by hand: what has no row in another table. */
export function findFactless(store: Store, of: FactlessOf): Promise<readonly FactlessRow[]> {
  const [which, bound] =
    'songId' in of
      ? ['WHERE t.id = $1::uuid', of.songId]
      : 'sectionId' in of
        ? ['WHERE c.id = $1::uuid', of.sectionId]
        : 'phraseId' in of
          ? ['WHERE p.id = $1::uuid', of.phraseId]
          : ['WHERE f.id IS NULL ORDER BY p.id LIMIT $1', of.max];
  return store.rows<FactlessRow>(
    `SELECT p.id, p.studio_id AS "studioId", p.text, c.start_seconds AS "startSeconds", coalesce(c.tuning, t.tuning) AS tuning,
            coalesce(c.capo, t.capo) AS capo, t.key, t.tempo, t.rhythm, t.meter, t.changes
       FROM phrases p
       JOIN sections c ON c.studio_id = p.studio_id AND c.id = p.section_id
       JOIN transcriptions t ON t.studio_id = c.studio_id AND t.id = c.transcription_id
       LEFT JOIN phrase_facts f ON f.id = p.id
      ${which}`,
    [bound],
  );
}

/** Puts the facts of phrases in the place of those they had. */
export async function keepFacts(
  store: Store,
  facts: readonly Omit<PhraseFactsModel['_creationAttributes'], 'version'>[],
): Promise<void> {
  if (facts.length === 0) return;
  const fields = [
    'techniques',
    'chords',
    'degrees',
    'shape',
    'steps',
    'grams',
    'lowestFret',
    'highestFret',
    'bpm',
    'bars',
  ] as const;
  await store.phraseFacts.bulkCreate([...facts], { updateOnDuplicate: [...fields] });
}

/** What phrases are looked for by; null where nothing is said. */
export interface LickFilter {
  readonly technique: string | null;
  readonly chord: string | null;
  readonly degrees: string | null;
  readonly shape: string | null;
  readonly steps: string | null;
  readonly lowestFret: number | null;
  readonly highestFret: number | null;
  readonly slowest: number | null;
  readonly fastest: number | null;
  readonly words: string | null;
  /** Share some of these runs, most of them first. */
  readonly grams: readonly string[] | null;
  readonly except: string | null;
  readonly max: number;
}

/** A phrase that was found. */
export interface LickRow {
  readonly total: number;
  readonly phraseId: string;
  readonly name: string;
  readonly text: string;
  readonly songId: string;
  readonly title: string;
  readonly tuning: string;
  readonly capo: number;
  readonly key: string;
  readonly meter: string;
  readonly rhythm: string;
  readonly section: string;
  readonly student: string;
  readonly bpm: number;
  readonly techniques: readonly string[];
  readonly chords: readonly string[];
  readonly lowestFret: number;
  readonly highestFret: number;
}

/**
 * The phrases of a studio that all of a filter fits, struck and empty ones left out.
 * SQL by hand: a search over every phrase, by its indexes.
 */
export function findLicks(store: Store, studioId: string, filter: LickFilter): Promise<readonly LickRow[]> {
  const { technique, chord, degrees, shape, steps, lowestFret, highestFret, slowest, fastest, words, grams } = filter;
  return store.rows<LickRow>(
    `WITH found AS (
       SELECT f.*, cardinality(ARRAY(SELECT unnest(f.grams) INTERSECT SELECT unnest($12::text[]))) AS shared
         FROM phrase_facts f
        WHERE f.studio_id = $1
          AND f.shape <> ''
          AND ($2::text IS NULL OR f.techniques @> ARRAY[$2::text])
          AND ($3::text IS NULL OR f.chords @> ARRAY[$3::text])
          AND ($4::text IS NULL OR strpos(f.degrees, $4) > 0)
          AND ($5::text IS NULL OR strpos(f.shape, $5) > 0)
          AND ($6::text IS NULL OR strpos(f.steps, $6) > 0)
          AND ($7::int IS NULL OR f.lowest_fret >= $7)
          AND ($8::int IS NULL OR f.highest_fret <= $8)
          AND ($9::float8 IS NULL OR f.bpm >= $9)
          AND ($10::float8 IS NULL OR f.bpm <= $10)
          AND ($12::text[] IS NULL OR f.grams && $12::text[])
          AND ($13::uuid IS NULL OR f.id <> $13)
     )
     SELECT count(*) OVER ()::int AS total, p.id AS "phraseId", p.name, p.text, t.id AS "songId", t.title,
            coalesce(c.tuning, t.tuning) AS tuning, coalesce(c.capo, t.capo) AS capo, t.key, t.meter, t.rhythm, c.label AS section, CASE s.role WHEN 'student' THEN s.name ELSE '' END AS student, f.bpm, f.techniques, f.chords,
            f.lowest_fret AS "lowestFret", f.highest_fret AS "highestFret"
       FROM found f
       JOIN phrases p ON p.studio_id = f.studio_id AND p.id = f.id
       JOIN sections c ON c.studio_id = p.studio_id AND c.id = p.section_id
       JOIN transcriptions t ON t.studio_id = c.studio_id AND t.id = c.transcription_id
       JOIN people s ON s.studio_id = t.studio_id AND s.id = t.student_id
      WHERE NOT p.struck AND NOT c.struck
        AND ($11::text IS NULL OR strpos(lower(p.name || ' ' || t.title), lower($11)) > 0
             OR EXISTS (SELECT 1 FROM regexp_matches(p.text, '"([^"]*)"', 'g') AS said(words)
                         WHERE strpos(lower(said.words[1]), lower($11)) > 0)
             OR EXISTS (SELECT 1 FROM jsonb_array_elements(t.rig) AS note WHERE strpos(lower(note ->> 'note'), lower($11)) > 0))
      ORDER BY f.shared DESC, t.title, c.start_seconds, p.position, p.id
      LIMIT $14`,
    [
      studioId,
      technique,
      chord,
      degrees,
      shape,
      steps,
      lowestFret,
      highestFret,
      slowest,
      fastest,
      words,
      grams,
      filter.except,
      filter.max,
    ],
  );
}

/**
 * The techniques of every phrase that a student has played cleanly, each once.
 * SQL by hand: techniques of what was clean are gathered where they lie.
 */
export async function findPlayed(store: Store, studioId: string, studentId: string): Promise<readonly string[]> {
  const rows = await store.rows<{ technique: string }>(
    `SELECT DISTINCT unnest(f.techniques) AS technique
       FROM pieces i
       JOIN phrase_facts f ON f.studio_id = i.studio_id AND f.id = i.phrase_id
      WHERE i.studio_id = $1 AND i.student_id = $2 AND NOT i.struck
        AND EXISTS (SELECT 1 FROM entries e
                     WHERE e.studio_id = i.studio_id AND e.counts_for = i.id AND e.outcome = 'clean' AND NOT e.struck)`,
    [studioId, studentId],
  );
  return rows.map(({ technique }) => technique);
}
