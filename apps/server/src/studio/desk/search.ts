import { FOUND_KINDS, SEARCH_LIMITS, type Found, type SearchQuery } from '@jam-ledger/contract';
import { searchAll } from '../../store/index.ts';
import { parseWord } from '../context/rows.ts';
import { type RequestContext } from '../context/context.ts';

/** Longest text of something found, characters. */
const LONGEST = 160;

/** Searches people, requests, songs with their sections and phrases, series, notes, remarks and summaries. @throws Forbidden */
export async function search(context: RequestContext, { q }: SearchQuery): Promise<readonly Found[]> {
  const rows = await searchAll(context.store, context.studio.id, q.trim(), SEARCH_LIMITS.perKind);
  return rows.map(({ kind, text, ...row }) => ({
    ...row,
    kind: parseWord(FOUND_KINDS, kind),
    text: text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text,
  }));
}
