/** Longest name of a backup’s file. */
export const MAX_BACKUP_NAME = 120;
/** Largest backup that is brought over the network, bytes. Our choice; a larger one is restored on the machine. */
export const MAX_BACKUP_BYTES = 2_000_000_000;

/** A backup that lies with the studio. */
export interface Backup {
  readonly file: string;
  readonly bytes: number;
  readonly madeAt: string;
  readonly why: string;
  /** Which studios are in it. */
  readonly studios: readonly string[];
  readonly rows: number;
  /** Why it cannot be restored; null where it can. */
  readonly trouble: string | null;
}

/** What is done with the book. */
export const JOB_KINDS = ['backup', 'restore'] as const;
/** How far that is. */
export const JOB_STATES = ['running', 'done', 'failed', 'stopped'] as const;

/** Work on the book that takes long: the newest, whether it runs or ended. */
export interface BookJob {
  readonly id: string;
  readonly kind: (typeof JOB_KINDS)[number];
  readonly state: (typeof JOB_STATES)[number];
  /** Rows done, and of how many. */
  readonly done: number;
  readonly total: number;
  /** Why it failed, in a sentence; else what it came to. */
  readonly says: string;
}

/** Somebody who is going to be erased. */
export interface Erasing {
  readonly id: string;
  readonly name: string;
  readonly on: string;
}

/** How safe the book is: its backups, how they are made, what is done just now, who is going to be erased. */
export interface BookState {
  /** Whether there is a folder for backups. */
  readonly hasFolder: boolean;
  /** How often one is made by itself, hours; 0 for never. */
  readonly everyHours: number;
  /** How many are kept. */
  readonly keep: number;
  readonly backups: readonly Backup[];
  readonly job: BookJob | null;
  readonly erasing: readonly Erasing[];
}

/** Which backup is restored, with the password of whoever does it. */
export interface Restoring {
  readonly file: string;
  readonly password: string;
}

/** How much of one kind would be erased. */
export interface ErasedCount {
  readonly table: string;
  readonly rows: number;
}

/** What goes when somebody is erased, and when. */
export interface Erasure {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  /** The day on which they go, where that was asked for. */
  readonly on: string | null;
  /** How long one waits, days. */
  readonly waitDays: number;
  readonly counts: readonly ErasedCount[];
  /** Guardians who have no other child here, and go, too. */
  readonly guardians: readonly string[];
}

/** Somebody is to be erased; the name is typed so that it is not done by a slip. */
export interface ErasureBody {
  readonly version: number;
  readonly name: string;
}

/** What the trail writes down. */
export const TRAIL_ACTS = [
  'invited',
  'made a link for',
  'came in by a link',
  'signed in on a new device',
  'signed out everywhere',
  'changed a password',
  'changed names',
  'changed a role',
  'put away',
  'took back',
  'handed on',
  'asked to erase',
  'kept from erasing',
  'erased',
  'made a backup',
  'took a backup',
  'brought a backup',
  'restored',
  'took everything of',
  'renamed the studio',
] as const;
/** One of the `TRAIL_ACTS`. */
export type TrailAct = (typeof TRAIL_ACTS)[number];

/** Something that was done. */
export interface TrailLine {
  readonly line: number;
  readonly at: string;
  /** Who did it: by name; null for the machine, or whoever was erased since. */
  readonly by: string | null;
  readonly act: TrailAct;
  /** Whom it was done to; null where nobody, or somebody who was erased since. */
  readonly about: string | null;
  readonly detail: string;
}

/** A page of the trail, the last first. */
export interface TrailPage {
  readonly lines: readonly TrailLine[];
  readonly more: boolean;
}
