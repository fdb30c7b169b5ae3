import type { Correction } from '@jam-ledger/contract';
import { findCorrections, findOwn } from '../../store/index.ts';
import type { RequestContext } from '../context/context.ts';
import { orNotFound } from '../context/rows.ts';

/** What was corrected of a person, or of a song with all that is in it, the last first. @throws Forbidden, NotFound */
export async function listCorrections({ store, studio }: RequestContext, id: string): Promise<readonly Correction[]> {
  const own = { studioId: studio.id, id };
  orNotFound((await findOwn(store.transcriptions, own)) ?? (await findOwn(store.people, own)));
  const rows = await findCorrections(store, studio.id, id);
  return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
}
