import type { AuthorsRow, StudentsRow } from '@jam-ledger/contract';
import type { Store } from './database.ts';

/** A row of a studio by its id. */
interface RowOf {
  readonly studioId: string;
  readonly id: string;
}

/** The student who has a row; undefined where there is none in the studio. */
export async function findStudentOf(store: Store, row: StudentsRow, of: RowOf): Promise<string | undefined> {
  const attributes = ['studentId'];
  const where = { studioId: of.studioId, id: of.id };
  const tables = {
    request: () => store.requests.findOne({ where, attributes }),
    piece: () => store.pieces.findOne({ where, attributes }),
    song: () => store.transcriptions.findOne({ where, attributes }),
    sound: () => store.sounds.findOne({ where, attributes }),
    series: () => store.series.findOne({ where, attributes }),
  } as const;
  return (await tables[row]())?.studentId;
}

/** Who wrote a row; undefined where there is none in the studio. */
export async function findAuthor(store: Store, row: AuthorsRow, of: RowOf): Promise<string | undefined> {
  const where = { studioId: of.studioId, id: of.id };
  if (row === 'pin') return (await store.pins.findOne({ where, attributes: ['personId'] }))?.personId;
  return (await store.entries.findOne({ where, attributes: ['postedBy'] }))?.postedBy;
}
