import type { Loop, Outcome } from '@jam-ledger/contract';
import type { JudgedTake } from '@jam-ledger/core/listen';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** A result that waits on this device until the studio can be reached. */
export interface WaitingEntry {
  readonly id: string;
  readonly pieceId: string;
  /** Who posts it; somebody else who signs in on this device does not. */
  readonly personId: string;
  readonly bpm: number;
  readonly outcome: Outcome;
  readonly percent: number;
  /** What of the piece went round and round; left out for all of it. */
  readonly loop?: Loop | null;
  readonly remark: string;
  /** By the clock of this device. */
  readonly playedAt: string;
}

/** A note to the teacher that waits likewise. */
export interface WaitingPin {
  readonly id: string;
  readonly pieceId: string;
  readonly personId: string;
  readonly phraseId: string;
  /** Ticks of the phrase as played. */
  readonly at: number;
  readonly text: string;
  readonly playedAt: string;
}

/** What waits on this device. */
export type WaitingLine = WaitingEntry | WaitingPin;

/** What a queue keeps its lines in. */
export interface WaitingLines {
  all(): Promise<readonly WaitingLine[]>;
  put(line: WaitingLine): Promise<void>;
  remove(id: string): Promise<void>;
}

/** A take on this device: what was recorded of a piece, and what it was judged to be. */
export interface KeptTake {
  readonly id: string;
  readonly pieceId: string;
  /** Whose it is; somebody else who signs in on this device does not see it. */
  readonly personId: string;
  /** By the clock of this device. */
  readonly at: string;
  /** The tempo asked for, quarter notes a minute. */
  readonly bpm: number;
  /** What of the piece was played, ticks; left out for all of it. */
  readonly from?: number;
  readonly to?: number;
  readonly file: Blob;
  /** Where in the recording the click said that the piece begins, seconds; left out where there was no click. */
  readonly clickSeconds?: number;
  /** null where it was not judged yet, as when the page was closed while it was recorded. */
  readonly judged: JudgedTake | null;
  /** How long the recording is, seconds, once it was read. */
  readonly seconds?: number;
  /** Whether it waits to be sent to the teacher, or was; left out where nobody asked. */
  readonly sending?: 'waits' | 'sent';
}

/** The recording of a song on this device. */
export interface KeptRecording {
  readonly songId: string;
  readonly name: string;
  readonly file: Blob;
}

interface Device extends DBSchema {
  recordings: { key: string; value: KeptRecording };
  takes: { key: string; value: KeptTake; indexes: { pieceId: string } };
  waiting: { key: number; value: WaitingLine; indexes: { id: string } };
  answers: { key: string; value: KeptAnswer };
}

/** What the studio answered last, for when it cannot be reached. */
interface KeptAnswer {
  /** Whom it was answered to, and the address that was asked. */
  readonly key: string;
  readonly answer: unknown;
}

let opened: Promise<IDBPDatabase<Device>> | undefined;

function device(): Promise<IDBPDatabase<Device>> {
  opened ??= openDB<Device>('jam-ledger', 4, {
    upgrade(database, before) {
      // Copies of single kinds, which came before those of any answer, are no stores of this version’s types.
      const old = database as unknown as IDBPDatabase;
      for (const name of ['pieces', 'ledgers']) if (old.objectStoreNames.contains(name)) old.deleteObjectStore(name);
      if (before < 4) database.createObjectStore('answers', { keyPath: 'key' });
      if (before < 3) database.createObjectStore('recordings', { keyPath: 'songId' });
      if (before < 2) database.createObjectStore('takes', { keyPath: 'id' }).createIndex('pieceId', 'pieceId');
      if (before > 0) return;
      // Lines are counted by the database, so that they come out in the order they went in, whatever a clock says.
      database.createObjectStore('waiting', { autoIncrement: true }).createIndex('id', 'id', { unique: true });
    },
  });
  return opened;
}

/** Where a browser keeps nothing, lines wait in the page alone. */
const inPage: WaitingLine[] = [];

/** The lines that wait in the database of this browser; they outlive the page. */
export const waitingLines: WaitingLines = {
  all: async () => {
    const database = await device().catch(() => undefined);
    return [...inPage, ...((await database?.getAll('waiting')) ?? [])];
  },
  put: async (line) => {
    const database = await device().catch(() => undefined);
    if (database) await database.add('waiting', line);
    else inPage.push(line);
  },
  remove: async (id) => {
    const at = inPage.findIndex((line) => line.id === id);
    if (at >= 0) inPage.splice(at, 1);
    const database = await device().catch(() => undefined);
    if (!database) return;
    const transaction = database.transaction('waiting', 'readwrite');
    const key = await transaction.store.index('id').getKey(id);
    if (key !== undefined) await transaction.store.delete(key);
    await transaction.done;
  },
};

/** The takes of this device. @throws DOMException where the browser keeps nothing, or has no room left */
export const keptTakes = {
  /** Somebody’s takes of a piece, the newest first. */
  of: async (pieceId: string, personId: string): Promise<readonly KeptTake[]> => {
    const all = await (await device()).getAllFromIndex('takes', 'pieceId', pieceId);
    return all.filter((take) => take.personId === personId).sort((a, b) => b.at.localeCompare(a.at));
  },
  put: async (take: KeptTake) => void (await (await device()).put('takes', take)),
  remove: async (id: string) => (await device()).delete('takes', id),
} as const;

/** The recordings of this device. @throws DOMException where the browser keeps nothing, or has no room left */
export const keptRecordings = {
  of: async (songId: string) => (await device()).get('recordings', songId),
  put: async (recording: KeptRecording) => void (await (await device()).put('recordings', recording)),
  remove: async (songId: string) => (await device()).delete('recordings', songId),
} as const;

/** Copies of what was answered last, by person and address, for when the studio cannot be reached. */
export const keptAnswers = {
  of: async (personId: string, path: string) => (await (await device()).get('answers', `${personId} ${path}`))?.answer,
  put: async (personId: string, path: string, answer: unknown) =>
    void (await (await device()).put('answers', { key: `${personId} ${path}`, answer })),
  /** Forgets all copies, as when somebody signs out; what still waits stays. */
  forget: async () => (await device()).clear('answers'),
} as const;
