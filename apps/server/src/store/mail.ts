import type { Store } from './database.ts';

/** A message that is to be written for a mail system. */
export interface UnwrittenRow {
  readonly id: string;
  readonly studio: string;
  readonly name: string;
  readonly address: string;
  readonly subject: string;
  readonly body: string;
  readonly madeAt: Date;
}

/**
 * Messages to people with an address that were not written as files yet, locked for this transaction.
 * SQL by hand: what another server writes just now is passed over.
 */
export function findUnwritten(store: Store, max: number): Promise<readonly UnwrittenRow[]> {
  return store.rows<UnwrittenRow>(
    `SELECT o.id, s.name AS studio, p.name, p.email AS address, o.subject, o.body, o.made_at AS "madeAt"
       FROM outbox o
       JOIN people p ON p.studio_id = o.studio_id AND p.id = o.person_id
       JOIN studios s ON s.id = o.studio_id
      WHERE o.written_at IS NULL AND p.email IS NOT NULL
      ORDER BY o.line LIMIT $1 FOR UPDATE OF o SKIP LOCKED`,
    [max],
  );
}

/** Notes that messages were written as files. */
export async function markWritten(store: Store, ids: readonly string[], now: Date): Promise<void> {
  if (ids.length > 0) await store.outbox.update({ writtenAt: now }, { where: { id: [...ids] } });
}
