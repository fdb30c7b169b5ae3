import type { Correction, StruckKind, StruckLine, StruckQuery } from '@jam-ledger/contract';
import { api } from '../api/index.ts';

/** What was struck out of some kinds, the newest first. */
export async function findStruck(query: StruckQuery, kinds: readonly StruckKind[]): Promise<readonly StruckLine[]> {
  return (await api.struck({ query })).filter(({ kind }) => kinds.includes(kind));
}

/** Puts something back. */
export async function putBack({ kind, id, version }: StruckLine): Promise<void> {
  await api.putBack({ body: { kind, id, version } });
}

/** What was corrected of a person, or of a song and what is in it, the last first. */
export function findCorrections(id: string): Promise<readonly Correction[]> {
  return api.corrections({ id });
}
