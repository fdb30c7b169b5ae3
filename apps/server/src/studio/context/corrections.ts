import { addRow } from '../../store/index.ts';
import type { RequestContext } from './context.ts';

/** What can be corrected. */
export type CorrectedKind = 'song' | 'section' | 'phrase' | 'person';

/** A line of what was corrected: which field, and how it is said. */
export type Said<Row> = readonly (readonly [field: string, say: (row: Row) => string])[];

/** Keeps what was corrected of a row, each field that is said otherwise now, with who and when. */
export async function keepCorrections<Row>(
  { store, studio, person, now }: RequestContext,
  of: { readonly kind: CorrectedKind; readonly id: string },
  { before, after, said }: { readonly before: Row; readonly after: Row; readonly said: Said<Row> },
): Promise<void> {
  for (const [field, say] of said) {
    const [was, became] = [say(before), say(after)];
    if (was === became) continue;
    const row = { studioId: studio.id, at: now, personId: person.id, kind: of.kind, rowId: of.id, field, was, became };
    await addRow(store.corrections, row);
  }
}

/** A place in a song as it is said: `1:05.5`. */
export function sayClock(seconds: number): string {
  const tenths = Math.round(seconds * 10);
  const rest = (tenths % 600) / 10;
  return `${Math.floor(tenths / 600)}:${rest < 10 ? '0' : ''}${rest}`;
}
