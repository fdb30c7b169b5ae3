import type { SetUp } from '@jam-ledger/contract';
import type { Excerpt } from '@jam-ledger/core/pieces';
import type { Memory } from '@jam-ledger/core/progress';
import { PREPARED, type Store } from './database.ts';

/** A piece with the names of everything it hangs on. */
export interface PieceRow {
  readonly id: string;
  readonly version: number;
  readonly struck: boolean;
  readonly kind: string;
  readonly parts: readonly Excerpt[];
  readonly fixed: boolean;
  readonly floorBpm: number | null;
  readonly difficulty: number | null;
  /** How fast it came along, as the logarithm of tempo a day; null where nothing can be said. */
  readonly learningRate: number | null;
  readonly studentId: string;
  readonly studentName: string;
  readonly startBpm: number;
  readonly targetBpm: number;
  readonly assignedOn: string | null;
  /** The lesson it is planned for, and whether a teacher chose that by hand. */
  readonly lessonDay: string | null;
  readonly lessonFixed: boolean;
  /** Its place in the order in which the song is learned. */
  readonly position: number;
  readonly phraseId: string;
  readonly sectionId: string;
  readonly sectionLabel: string;
  readonly sectionRole: string;
  readonly sectionSeconds: number;
  readonly changes: SetUp['changes'];
  readonly songId: string;
  readonly title: string;
  readonly whose: string;
  readonly tuning: string;
  readonly capo: number;
  readonly key: string;
  readonly tempo: number;
  readonly rhythm: string;
  readonly meter: string;
  readonly feel: string;
  readonly pitchWay: string;
  readonly frets: number;
  readonly scaleLengthMm: number;
  readonly offsetCents: number;
  /** The day the song is wanted by. */
  readonly wantedBy: string | null;
  readonly leftHanded: boolean;
  readonly spanFrets: number | null;
  /** The schools that hold for it: the plan’s, else the student’s, else the studio’s. */
  readonly raising: string;
  readonly hearing: string;
  readonly naming: string;
  readonly fidelity: string;
  readonly clean: string;
  readonly cleanNeeded: number | null;
  readonly fallsAfter: number | null;
  readonly restMinutes: number | null;
  /** What is known of how well it is remembered, by all that was posted; null where nothing is, or nobody has computed it since. */
  readonly memory: Memory | null;
}

/**
 * Which pieces: those a student was given, with those not given that were planned for a lesson up to a day where one is named; the whole
 * plan of a song. Or the one with an id, whatever became of it, alone or beside those that its student was given.
 */
export type PiecesOf =
  | { readonly studentId: string; readonly plannedUntil?: string | undefined }
  | { readonly songId: string }
  | { readonly id: string }
  | { readonly beside: string };

/**
 * What stands of the pieces `p`, their phrases `f` and sections `c`: nothing that was struck out, or lies in what was. Whatever shows
 * pieces asks this, so that no page promises what another no longer has.
 */
export const STANDS = 'NOT p.struck AND NOT f.struck AND NOT c.struck';
/** The phrase and the section in which a piece `p` begins. */
export const IN_PHRASES = `JOIN phrases f ON f.studio_id = p.studio_id AND f.id = p.phrase_id
       JOIN sections c ON c.studio_id = f.studio_id AND c.id = f.section_id`;

const WHICH = {
  studentId: `p.student_id = $2 AND (p.assigned_on IS NOT NULL OR p.lesson_day <= $3) AND ${STANDS}`,
  songId: `p.song_id = $2 AND ${STANDS}`,
  id: 'p.id = $2',
  beside: `p.student_id = (SELECT b.student_id FROM pieces b WHERE b.studio_id = $1 AND b.id = $2)
        AND (p.id = $2 OR (p.assigned_on IS NOT NULL AND ${STANDS}))`,
} as const;

/**
 * Pieces of a studio: a student’s in the order of songs, sections and phrases; a song’s in the order they are learned.
 * SQL by hand: the ledger and every page of a piece read it, and planning joins costs more than the query.
 */
export async function findPieces(store: Store, studioId: string, of: PiecesOf): Promise<readonly PieceRow[]> {
  const [which, ...bound] =
    'studentId' in of
      ? [WHICH.studentId, of.studentId, of.plannedUntil ?? null]
      : 'songId' in of
        ? [WHICH.songId, of.songId]
        : 'id' in of
          ? [WHICH.id, of.id]
          : [WHICH.beside, of.beside];
  // Each table joined makes planning longer than the query itself; what is only looked up is no join.
  const order =
    'songId' in of
      ? 'p.position, c.start_seconds, c.label, f.position, p.id'
      : 't.title, t.id, c.start_seconds, c.label, f.position, p.position, p.id';
  const rows = await store.rows<Unschooled>(
    `SELECT p.id, p.version, p.struck, p.kind, p.parts, p.fixed, p.floor_bpm AS "floorBpm", p.difficulty, p.learning_rate AS "learningRate",
            p.student_id AS "studentId", s.name AS "studentName",
            p.start_bpm AS "startBpm", p.target_bpm AS "targetBpm", p.assigned_on::text AS "assignedOn",
            p.lesson_day::text AS "lessonDay", p.lesson_fixed AS "lessonFixed", p.position,
            f.id AS "phraseId",
            c.id AS "sectionId", c.label AS "sectionLabel", c.role AS "sectionRole", c.start_seconds AS "sectionSeconds", t.changes,
            t.id AS "songId", t.title, t.whose, coalesce(c.tuning, t.tuning) AS tuning, coalesce(c.capo, t.capo) AS capo, t.key,
            t.tempo, t.meter, t.feel, t.rhythm,
            t.pitch_way AS "pitchWay", t.frets,
            t.scale_length_mm AS "scaleLengthMm", t.offset_cents AS "offsetCents", s.left_handed AS "leftHanded",
            s.span_frets AS "spanFrets",
            (SELECT r.wanted_by::text FROM requests r WHERE r.studio_id = t.studio_id AND r.id = t.request_id) AS "wantedBy",
            l.raising AS "planRaising", ARRAY[s.raising, s.hearing, s.naming, s.fidelity, s.clean] AS own,
            (SELECT ARRAY[w.raising, w.hearing, w.naming, w.fidelity, w.clean] FROM people w WHERE w.id = s.teacher_id) AS teachers,
            (SELECT ARRAY[o.raising, o.hearing, o.naming, o.fidelity, o.clean] FROM studios o WHERE o.id = p.studio_id) AS studios,
            l.clean_needed AS "cleanNeeded", l.falls_after AS "fallsAfter", l.rest_minutes AS "restMinutes",
            p.kept -> 'memory' AS memory
       FROM pieces p
       JOIN people s ON s.studio_id = p.studio_id AND s.id = p.student_id
       ${IN_PHRASES}
       JOIN transcriptions t ON t.studio_id = c.studio_id AND t.id = c.transcription_id
       LEFT JOIN plans l ON l.studio_id = p.studio_id AND l.id = p.song_id
      WHERE p.studio_id = $1 AND ${which}
      ORDER BY ${order} ${PREPARED}`,
    [studioId, ...bound],
  );
  return rows.map(withSchools);
}

/** The schools that can hold for a piece, in the order of `SCHOOLS_OF_PIECES`; one subquery each is quicker than a join. */
type Unschooled = Omit<PieceRow, (typeof SCHOOLS_OF_PIECES)[number]> & {
  readonly planRaising: string | null;
  readonly own: readonly (string | null)[];
  readonly teachers: readonly (string | null)[] | null;
  readonly studios: readonly string[];
};
const SCHOOLS_OF_PIECES = ['raising', 'hearing', 'naming', 'fidelity', 'clean'] as const;

/** Gives a row its schools; it is not copied, for it is long and there are many. */
function withSchools(row: Unschooled): PieceRow {
  const { planRaising, own, teachers, studios } = row;
  const [raising = '', hearing = '', naming = '', fidelity = '', clean = ''] = SCHOOLS_OF_PIECES.map(
    (_, index) => own[index] ?? teachers?.[index] ?? studios[index],
  );
  return Object.assign(row, { raising: planRaising ?? raising, hearing, naming, fidelity, clean });
}

/** A phrase of a song as far as its pieces go. */
export interface SongPhraseRow {
  readonly id: string;
  readonly songId: string;
  readonly name: string;
  readonly sectionSeconds: number;
  readonly bars: number;
  /** The phrase it is a way of playing; its own id where it is none. */
  readonly mainId: string;
  /** Whether it is the way that is played. */
  readonly isChosen: boolean;
}

/** The phrases of some songs of the studio $1; `which` is the parameter that names the songs. */
export const songPhrases = (
  which: string,
) => `SELECT f.id, c.transcription_id AS "songId", f.name, c.start_seconds AS "sectionSeconds", COALESCE(x.bars, 0) AS bars,
            coalesce(f.alternate_of, f.id) AS "mainId", f.chosen AS "isChosen"
       FROM sections c
       JOIN phrases f ON f.studio_id = c.studio_id AND f.section_id = c.id
       LEFT JOIN phrase_facts x ON x.studio_id = f.studio_id AND x.id = f.id
      WHERE c.studio_id = $1 AND c.transcription_id = ANY(${which}) AND NOT c.struck AND NOT f.struck
      ORDER BY c.start_seconds, c.label, f.position, f.id`;

/**
 * The phrases of some songs in their order with every way they are kept in, without their texts.
 * SQL by hand: the ledger reads the names and lengths of all phrases of a song.
 */
export function findSongPhrases(
  store: Store,
  studioId: string,
  songIds: readonly string[],
): Promise<readonly SongPhraseRow[]> {
  return store.rows(songPhrases('$2::uuid[]'), [studioId, songIds]);
}

/** The text of a phrase as it is played. */
export interface PhraseTextRow {
  readonly id: string;
  readonly name: string;
  readonly text: string;
  readonly sectionSeconds: number;
}

/**
 * Some phrases by their names, whatever became of them, each with the text of the way that is chosen for it.
 * SQL by hand: a page of a piece reads it.
 */
export function findPhraseTexts(
  store: Store,
  studioId: string,
  ids: readonly string[],
): Promise<readonly PhraseTextRow[]> {
  return store.rows(
    `SELECT f.id, f.name, coalesce(w.text, f.text) AS text, c.start_seconds AS "sectionSeconds"
       FROM phrases f
       JOIN sections c ON c.studio_id = f.studio_id AND c.id = f.section_id
       LEFT JOIN phrases w ON w.studio_id = f.studio_id AND w.section_id = f.section_id AND w.chosen AND NOT w.struck
                          AND coalesce(w.alternate_of, w.id) = coalesce(f.alternate_of, f.id)
      WHERE f.studio_id = $1 AND f.id = ANY($2::uuid[])`,
    [studioId, ids],
  );
}

/** How fast the pieces of a studio came along: how many, their mean and how much they differ. */
export interface StudioRate {
  readonly count: number;
  readonly perDay: number;
  readonly spread: number;
}

/** The rate of the studio $1. Mean and spread are computed where the rows are. */
export const STUDIO_RATE = `SELECT count(*)::int AS count, coalesce(avg(learning_rate), 0) AS "perDay",
            coalesce(stddev_samp(learning_rate), 0) AS spread
       FROM pieces WHERE studio_id = $1 AND learning_rate IS NOT NULL`;

/**
 * Where a student’s pieces of known difficulty were first clean as a whole, as a share of their targets.
 * SQL by hand: the first clean result of each piece is found by an index.
 */
export function findShown(
  store: Store,
  studioId: string,
  studentId: string,
): Promise<readonly { readonly difficulty: number; readonly share: number }[]> {
  return store.rows(
    `SELECT p.difficulty, LEAST(1, first.bpm::float8 / p.target_bpm) AS share
       FROM pieces p
       JOIN LATERAL (SELECT e.bpm FROM entries e
                      WHERE e.studio_id = p.studio_id AND e.counts_for = p.id AND e.outcome = 'clean' AND e.percent = 100
                        AND NOT e.struck
                      ORDER BY e.posted_at, e.line LIMIT 1) first ON true
      WHERE p.studio_id = $1 AND p.student_id = $2 AND p.difficulty IS NOT NULL`,
    [studioId, studentId],
  );
}

/** A note pinned to an event, with who pinned it. */
export interface PinRow {
  readonly id: string;
  readonly version: number;
  readonly phraseId: string;
  readonly at: number;
  readonly text: string;
  readonly pinnedAt: Date;
  readonly personId: string;
  readonly personName: string;
  readonly role: string;
}

/** The notes pinned to some phrases, in the order of the music. SQL by hand: a page of a piece reads it. */
export function findPins(store: Store, studioId: string, phraseIds: readonly string[]): Promise<readonly PinRow[]> {
  return store.rows<PinRow>(
    `SELECT n.id, n.version, n.phrase_id AS "phraseId", n.at, n.text, n.pinned_at AS "pinnedAt",
            n.person_id AS "personId", w.name AS "personName", w.role
       FROM pins n
       JOIN people w ON w.studio_id = n.studio_id AND w.id = n.person_id
      WHERE n.studio_id = $1 AND n.phrase_id = ANY($2::uuid[]) AND NOT n.struck
      ORDER BY n.at, n.pinned_at, n.id`,
    [studioId, phraseIds],
  );
}

/**
 * Makes room in the plan of a song for a piece that begins with a phrase, and gives its position: behind the last piece that comes
 * earlier in the song, so that pieces given one by one stand in the order of the song. Nobody else changes the plan meanwhile.
 * SQL by hand: places are moved by one statement, in the order of the song.
 */
export async function makeRoomInPlan(
  store: Store,
  studioId: string,
  { songId, phraseId }: { readonly songId: string; readonly phraseId: string },
): Promise<number> {
  await lockPlan(store, songId);
  const rows = await store.rows<{ position: number }>(
    `SELECT coalesce(max(p.position) + 1, 0)::int AS position
       FROM pieces p
       ${IN_PHRASES}
       JOIN phrases g ON g.studio_id = p.studio_id AND g.id = $3
       JOIN sections d ON d.studio_id = g.studio_id AND d.id = g.section_id
      WHERE p.studio_id = $1 AND p.song_id = $2 AND NOT p.struck
        AND (c.start_seconds, c.label, f.position, f.id) <= (d.start_seconds, d.label, g.position, g.id)`,
    [studioId, songId, phraseId],
  );
  const position = rows[0]?.position ?? 0;
  await store.rows(
    'UPDATE pieces SET position = position + 1 WHERE studio_id = $1 AND song_id = $2 AND NOT struck AND position >= $3 RETURNING id',
    [studioId, songId, position],
  );
  return position;
}

/** Lets nobody else change the places in the plan of a song until the transaction ends. */
export function lockPlan(store: Store, songId: string): Promise<void> {
  return store.lock(`plan of ${songId}`);
}

/** A piece to be put into the plan of a song. */
export interface PlannedRow {
  readonly id: string;
  readonly phraseId: string;
  readonly kind: string;
  readonly parts: readonly Excerpt[];
  readonly cut: string;
  readonly position: number;
  readonly startBpm: number;
  readonly targetBpm: number;
  readonly floorBpm: number | null;
  readonly difficulty: number | null;
  readonly fixed: boolean;
  readonly lessonDay: string | null;
  readonly lessonFixed: boolean;
}

/**
 * Makes the pieces of a song those given, in their order: new ones are entered, those that were taken out come back, those no
 * longer there are taken out. A piece with the same cut is the same piece, whatever id is sent for it.
 * SQL by hand: thousands of pieces are kept by two statements.
 */
export async function keepPlanned(
  store: Store,
  { studioId, studentId, songId }: { readonly studioId: string; readonly studentId: string; readonly songId: string },
  pieces: readonly PlannedRow[],
): Promise<void> {
  await lockPlan(store, songId);
  await store.rows(
    `INSERT INTO pieces (id, studio_id, student_id, song_id, phrase_id, kind, parts, cut, position, start_bpm, target_bpm,
                         floor_bpm, difficulty, fixed, lesson_day, lesson_fixed)
     SELECT r.id, $1, $2, $3, r."phraseId", r.kind, r.parts, r.cut, r.position, r."startBpm", r."targetBpm",
            r."floorBpm", r.difficulty, r.fixed, r."lessonDay", r."lessonFixed"
       FROM jsonb_to_recordset($4::jsonb) AS r (id uuid, "phraseId" uuid, kind text, parts jsonb, cut text, position int,
              "startBpm" int, "targetBpm" int, "floorBpm" int, difficulty float8, fixed boolean,
              "lessonDay" date, "lessonFixed" boolean)
     ON CONFLICT (student_id, md5(cut)) DO UPDATE
        SET position = EXCLUDED.position, start_bpm = EXCLUDED.start_bpm, target_bpm = EXCLUDED.target_bpm,
            floor_bpm = EXCLUDED.floor_bpm, difficulty = EXCLUDED.difficulty, fixed = EXCLUDED.fixed,
            lesson_day = EXCLUDED.lesson_day, lesson_fixed = EXCLUDED.lesson_fixed,
            struck = false, version = pieces.version + 1
      WHERE (pieces.position, pieces.start_bpm, pieces.target_bpm, pieces.floor_bpm, pieces.difficulty, pieces.fixed,
             pieces.lesson_day, pieces.lesson_fixed, pieces.struck)
            IS DISTINCT FROM (EXCLUDED.position, EXCLUDED.start_bpm, EXCLUDED.target_bpm, EXCLUDED.floor_bpm, EXCLUDED.difficulty,
                              EXCLUDED.fixed, EXCLUDED.lesson_day, EXCLUDED.lesson_fixed, false)
     RETURNING id`,
    [studioId, studentId, songId, JSON.stringify(pieces)],
  );
  await store.rows(
    `UPDATE pieces SET struck = true, version = version + 1
      WHERE studio_id = $1 AND song_id = $2 AND NOT struck AND NOT (cut = ANY($3::text[]))
      RETURNING id`,
    [studioId, songId, pieces.map(({ cut }) => cut)],
  );
}
