import { FOUND_KINDS, SEARCH_LIMITS, type Found, type SearchQuery } from '@jam-ledger/contract';
import { searchAll } from '../store/index.ts';
import { known } from './keep.ts';
import { requireTeacher, type Visit } from './visit.ts';

/** Longest text of something found, characters. */
const LONGEST = 160;

/** Searches people, requests, songs with their sections and phrases, series, notes, remarks and summaries. @throws NotYours */
export async function search(visit: Visit, { q }: SearchQuery): Promise<readonly Found[]> {
  requireTeacher(visit);
  const rows = await searchAll(visit.store, visit.studio.id, q.trim(), SEARCH_LIMITS.perKind);
  return rows.map(({ kind, text, ...row }) => ({
    ...row,
    kind: known(FOUND_KINDS, kind),
    text: text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text,
  }));
}
