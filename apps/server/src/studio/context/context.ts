import type { Role } from '@jam-ledger/contract';
import type { Holiday } from '@jam-ledger/core/series';
import { DateTime } from 'luxon';
import type { Store } from '../../store/index.ts';

/** Where the book lies, and how it is kept safe. */
export interface BookKeeping {
  readonly databaseUrl: string;
  /** Folder of the backups; undefined where none is named. */
  readonly backupFolder: string | undefined;
  /** How often a backup is made by itself, hours; 0 for never. */
  readonly everyHours: number;
  /** How many backups are kept. */
  readonly keep: number;
  /** Folder into which messages are written for a mail system; undefined where none is named. */
  readonly mailFolder: string | undefined;
  /** Where people reach the studio, `https://studio.example`; undefined where nobody said, and then no link is mailed. */
  readonly publicUrl: string | undefined;
}

/** What holds where nobody asks over the network: nothing is kept anywhere but in the book. */
export const NO_KEEPING: BookKeeping = {
  ...{ databaseUrl: '', backupFolder: undefined, everyHours: 0, keep: 0, mailFolder: undefined, publicUrl: undefined },
};

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
  /** What of the database is seen: the same as long as nothing was written to it. */
  readonly snapshot: string;
  readonly book: BookKeeping;
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

/** Today in the zone of the studio, of each request: what is shown asks it for every line. */
const todays = new WeakMap<RequestContext, string>();

/** The day of a moment in the studio's zone, `2026-03-14`; today where none is given. */
export function dayOf(context: RequestContext, moment?: Date): string {
  if (moment) return dayIn(context, moment);
  const today = todays.get(context) ?? dayIn(context, context.now);
  todays.set(context, today);
  return today;
}

function dayIn(context: RequestContext, moment: Date): string {
  return DateTime.fromJSDate(moment, { zone: context.studio.zone }).toISODate() ?? moment.toISOString().slice(0, 10);
}
