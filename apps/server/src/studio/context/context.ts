import type { Role } from '@jam-ledger/contract';
import type { Holiday } from '@jam-ledger/core/series';
import { DateTime } from 'luxon';
import type { Store } from '../../store/index.ts';

/** What a request is answered from: who asks, where, when, and the database. */
export interface RequestContext {
  readonly store: Store;
  readonly person: { readonly id: string; readonly name: string; readonly signInName: string; readonly role: Role };
  readonly studio: {
    readonly id: string;
    readonly name: string;
    readonly demo: boolean;
    readonly zone: string;
    readonly holidays: readonly Holiday[];
  };
  /** The students whose pages a guardian reads. */
  readonly wards: readonly { readonly id: string; readonly name: string }[];
  readonly now: Date;
  /** The session in which they are signed in; empty where nobody asks over the network. */
  readonly sessionId: string;
}

/** Whether the person teaches here. */
export function teaches(context: RequestContext): boolean {
  return context.person.role === 'owner' || context.person.role === 'teacher';
}

/** The students whose pages the person reads; undefined for all of the studio. */
export function visibleStudents(context: RequestContext): readonly string[] | undefined {
  if (teaches(context)) return undefined;
  return context.person.role === 'guardian' ? context.wards.map(({ id }) => id) : [context.person.id];
}

/** The day of a moment in the studio's zone, `2026-03-14`. */
export function dayOf(context: RequestContext, moment: Date = context.now): string {
  return DateTime.fromJSDate(moment, { zone: context.studio.zone }).toISODate() ?? moment.toISOString().slice(0, 10);
}
