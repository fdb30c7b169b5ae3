import { PREPARED, type Store } from './database.ts';
import { songPhrases, STUDIO_RATE, type SongPhraseRow, type StudioRate } from './pieces.ts';

/** An entry with the name of who posted it. */
export interface EntryRow {
  readonly id: string;
  readonly version: number;
  readonly pieceId: string;
  readonly bpm: number;
  readonly outcome: string;
  readonly medium: string;
  readonly percent: number;
  readonly loopFrom: number | null;
  readonly loopTo: number | null;
  /** The piece whose ladder it moves; null for none. */
  readonly countsFor: string | null;
  readonly remark: string;
  readonly postedAt: Date;
  /** Its day in the studio’s zone. */
  readonly day: string;
  readonly postedById: string;
  readonly postedByName: string;
  readonly struck: boolean;
}

/** Reads `EntryRow`s out of entries, or of what has their columns; days in the zone $3. */
const entriesFrom = (
  entries: string,
) => `SELECT e.id, e.version, e.piece_id AS "pieceId", e.bpm, e.outcome, e.medium, e.percent, e.remark,
            e.loop_from AS "loopFrom", e.loop_to AS "loopTo", e.counts_for AS "countsFor", e.posted_at AS "postedAt",
            (e.posted_at AT TIME ZONE $3)::date::text AS day, e.posted_by AS "postedById", w.name AS "postedByName", e.struck
       FROM ${entries} e
       JOIN people w ON w.studio_id = e.studio_id AND w.id = e.posted_by`;

/**
 * The newest entries of a piece, those posted elsewhere that count for it among them, at most so many, oldest first; the newest before
 * one of them where one is named. SQL by hand: a page of a piece reads it.
 */
export async function findEntries(
  store: Store,
  studioId: string,
  {
    pieceId,
    before,
    zone,
    max,
  }: { readonly pieceId: string; readonly before?: string; readonly zone: string; readonly max: number },
): Promise<readonly EntryRow[]> {
  const rows = await store.rows<EntryRow>(
    `${entriesFrom('entries')}
      WHERE e.studio_id = $1 AND (e.piece_id = $2 OR e.counts_for = $2)
        AND ($4::uuid IS NULL
             OR (e.posted_at, e.line) < (SELECT b.posted_at, b.line FROM entries b WHERE b.studio_id = $1 AND b.id = $4))
      ORDER BY e.posted_at DESC, e.line DESC LIMIT $5`,
    [studioId, pieceId, zone, before ?? null, max],
  );
  return rows.toReversed();
}

/** An entry as it is posted. */
export type EntryToPost = Omit<EntryRow, 'version' | 'day' | 'postedByName' | 'struck'>;

/**
 * Posts an entry, unless there is one with its id, and lets nobody else post to the same ladder until the transaction ends; the entry
 * that is there. SQL by hand: the turn is waited for, the entry is written and read back by one statement.
 */
export async function addEntry(
  store: Store,
  studioId: string,
  entry: EntryToPost,
  zone: string,
): Promise<EntryRow | undefined> {
  const { id, pieceId, countsFor, postedById, bpm, outcome, medium, percent, loopFrom, loopTo, remark, postedAt } =
    entry;
  const [row] = await store.rows<EntryRow>(
    `WITH turn AS MATERIALIZED (SELECT pg_advisory_xact_lock(hashtextextended($2, 0))), posted AS (
       INSERT INTO entries (id, studio_id, piece_id, counts_for, posted_by, bpm, outcome, medium, percent, loop_from, loop_to, remark, posted_at)
       SELECT $4::uuid, $1::uuid, $5::uuid, $6::uuid, $7::uuid, $8::int, $9, $10, $11::int, $12::int, $13::int, $14, $15::timestamptz FROM turn
       ON CONFLICT (id) DO NOTHING RETURNING *
     )
     ${entriesFrom('posted')}`,
    [
      ...[studioId, ladderName(countsFor ?? pieceId), zone, id, pieceId, countsFor, postedById, bpm, outcome, medium],
      ...[percent, loopFrom, loopTo, remark, postedAt.toISOString()],
    ],
  );
  if (row) return row;
  const [there] = await store.rows<EntryRow>(`${entriesFrom('entries')} WHERE e.studio_id = $1 AND e.id = $2`, [
    studioId,
    id,
    zone,
  ]);
  return there;
}

/** What is kept beside a piece is computed from all of its entries, so whoever changes them waits for the others to end. */
export function lockLadder(store: Store, pieceId: string): Promise<void> {
  return store.lock(ladderName(pieceId));
}

const ladderName = (pieceId: string) => `entries of ${pieceId}`;

/** What counts of an entry, its day in a zone. */
export interface ResultRow {
  readonly bpm: number;
  readonly clean: boolean;
  readonly inked: boolean;
  readonly percent: number;
  readonly day: string;
}

/** The results of each of the pieces that `which` names, packed; of studio $1, days in the zone $3. */
const packed = (which: string) => `SELECT e.counts_for AS "pieceId",
            array_to_string(array_agg(
              (((e.posted_at AT TIME ZONE $3)::date - date '1970-01-01')::bigint << 18) | (e.bpm << 9) | (e.percent << 2)
              | ((e.outcome = 'clean')::int << 1) | (e.medium = 'ink')::int ORDER BY e.posted_at, e.line), ',') AS results
       FROM entries e
      WHERE e.studio_id = $1 AND NOT e.struck AND e.counts_for = ANY(${which})
      GROUP BY e.counts_for`;

interface Packed {
  readonly pieceId: string;
  readonly results: string;
}

/**
 * The results that count for some pieces, oldest first. There may be very many: each is packed into one number by the database,
 * since rows and dates of their own would take three times as long.
 * SQL by hand: a forecast reads all results of a student; packed, they are a tenth of the rows.
 */
export async function findResults(
  store: Store,
  studioId: string,
  { pieceIds, zone }: { readonly pieceIds: readonly string[]; readonly zone: string },
): Promise<ReadonlyMap<string, readonly ResultRow[]>> {
  return unpackAll(await store.rows<Packed>(packed('$2::uuid[]'), [studioId, pieceIds, zone]));
}

/** What the standing of some pieces is computed from: their results, the phrases of their songs, and how fast the studio learns. */
export interface AroundRow {
  readonly results: ReadonlyMap<string, readonly ResultRow[]>;
  readonly phrases: readonly SongPhraseRow[];
  readonly studioRate: StudioRate;
}

/** Around which pieces: some with their songs, or all that a student has. */
export type AroundWhich =
  { readonly pieceIds: readonly string[]; readonly songIds: readonly string[] } | { readonly studentId: string };

/** What stands around the pieces and in the songs of studio $1 that are named, days in the zone $3. */
const aroundWhich = (pieces: string, songs: string) =>
  `SELECT (SELECT coalesce(json_agg(r), '[]') FROM (${packed(pieces)}) r) AS results,
            (SELECT coalesce(json_agg(f), '[]') FROM (${songPhrases(songs)}) f) AS phrases,
            (SELECT row_to_json(s) FROM (${STUDIO_RATE}) s) AS rate ${PREPARED}`;
const OF_STUDENT = 'FROM pieces WHERE studio_id = $1 AND student_id = $2';
const AROUND_STUDENT = aroundWhich(`SELECT id ${OF_STUDENT}`, `SELECT song_id ${OF_STUDENT}`);
const AROUND_PIECES = aroundWhich('$2::uuid[]', '$4::uuid[]');

/** SQL by hand: whoever posts or opens a ledger waits for the database once, not three times. */
export async function findAround(
  store: Store,
  studioId: string,
  { zone, ...which }: AroundWhich & { readonly zone: string },
): Promise<AroundRow> {
  const [sql, ...bound] =
    'studentId' in which
      ? [AROUND_STUDENT, which.studentId, zone]
      : [AROUND_PIECES, which.pieceIds, zone, which.songIds];
  const [row] = await store.rows<{
    readonly results: readonly Packed[];
    readonly phrases: readonly SongPhraseRow[];
    readonly rate: StudioRate;
  }>(sql, [studioId, ...bound]);
  if (!row) throw new Error('a row without a condition is always there');
  return { results: unpackAll(row.results), phrases: row.phrases, studioRate: row.rate };
}

function unpackAll(rows: readonly Packed[]): ReadonlyMap<string, readonly ResultRow[]> {
  const days = new Map<number, string>();
  return new Map(
    rows.map(({ pieceId, results }) => [pieceId, results.split(',').map((one) => unpack(Number(one), days))]),
  );
}

const DAY_MS = 24 * 60 * 60 * 1000;

/**
 * One packed result. From the lowest bit: 1 ink, 1 clean, 7 percent, 9 bpm, and above them the days since 1970; 33 bits in this
 * century, so that the days are had by division. Days that are known are kept, since most come often.
 */
function unpack(packed: number, days: Map<number, string>): ResultRow {
  const number = Math.floor(packed / 2 ** 18);
  const low = packed % 2 ** 18;
  const day = days.get(number) ?? new Date(number * DAY_MS).toISOString().slice(0, 10);
  days.set(number, day);
  return { bpm: low >> 9, percent: (low >> 2) & 127, clean: (low & 2) !== 0, inked: (low & 1) !== 0, day };
}
