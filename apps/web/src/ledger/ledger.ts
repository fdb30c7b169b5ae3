import type {
  Entry,
  EntryRow,
  Ledger,
  LedgerPiece,
  Loop,
  OldEntry,
  Outcome,
  Piece,
  Student,
} from '@jam-ledger/contract';
import { nextStep, standingOf, tempoLadder } from '@jam-ledger/core/pieces';
import { masteryOf } from '@jam-ledger/core/progress';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { api, EntryQueue, lastSeen, Unreachable, waitingLines, type WaitingEntry } from '../api/index.ts';
import { countingOf } from '../playing/index.ts';
import { useNotices, useSession } from '../session/index.ts';

/** A result as it is posted. */
export interface PostedResult {
  readonly bpm: number;
  readonly outcome: Outcome;
  readonly percent: number;
  /** What of the piece went round and round; left out for all of it. */
  readonly loop?: Loop;
  readonly remark?: string;
}

/** The ledger of one student, and posting to it through a queue that outlives a lost connection. */
export const useLedger = defineStore('ledger', () => {
  const ledger = ref<Ledger | null>(null);
  const waiting = ref<readonly WaitingEntry[]>([]);
  /** Whether what is shown was kept on this device, since the studio could not be reached. */
  const stale = ref(false);
  const notices = useNotices();
  const session = useSession();
  const queue = new EntryQueue({
    lines: waitingLines,
    send: (id, body) => api.postEntry({ id, body }),
    now: () => new Date(),
  });
  const person = () => session.me?.id ?? '';

  /** All results of the student whose ledger is open. */
  async function entries(): Promise<readonly EntryRow[]> {
    const { student } = ledger.value ?? {};
    return api.entries({ query: student && !session.isStudent ? { studentId: student.id } : {} });
  }

  /** Enters results of an older book, all or none; gives the way back. */
  async function bring(old: readonly OldEntry[]): Promise<() => Promise<void>> {
    const studentId = ledger.value?.student.id ?? '';
    const { ids } = await api.bringEntries({ body: { studentId, entries: old } });
    return async () => void (await api.strikeEntries({ body: { ids, struck: true } }));
  }

  async function load(studentId?: string, until?: string): Promise<void> {
    if (ledger.value && studentId !== undefined && ledger.value.student.id !== studentId) ledger.value = null;
    const key = studentId ?? person();
    ledger.value = await orLastSeen(
      () => api.ledger({ query: { ...(studentId && { studentId }), ...(until && { until }) } }),
      (seen) => lastSeen.keepLedger(key, seen),
      () => lastSeen.ledger(key),
    );
  }

  /** Shows a ledger that was asked for with something else. */
  function show(one: Ledger): void {
    ledger.value = one;
  }

  /** What the studio answers, and a copy of it kept; the copy where the studio cannot be reached. */
  async function orLastSeen<One>(
    ask: () => Promise<One>,
    keepCopy: (one: One) => Promise<void>,
    copy: () => Promise<One | undefined>,
  ): Promise<One> {
    try {
      const one = await ask();
      stale.value = false;
      await keepCopy(one).catch(() => undefined);
      return one;
    } catch (error) {
      const kept = error instanceof Unreachable ? await copy().catch(() => undefined) : undefined;
      if (!kept) throw error;
      stale.value = true;
      return kept;
    }
  }

  /** One piece, with what still waits for it. */
  async function piece(id: string): Promise<Piece> {
    const seen = await orLastSeen(
      () => api.piece({ id }),
      lastSeen.keepPiece,
      () => lastSeen.piece(id),
    );
    await count();
    return waiting.value.filter(({ pieceId }) => pieceId === id).reduce(withWaiting, seen);
  }

  async function count(): Promise<void> {
    waiting.value = await queue.waiting(person()).catch(() => []);
  }

  /** The piece that was posted to, or struck in, last; pages that show it follow. */
  const changed = shallowRef<Piece>();

  function keep(piece: Piece): void {
    changed.value = piece;
    if (!ledger.value) return;
    const pieces = ledger.value.pieces.map((one) => (one.id === piece.id ? lineOf(one, piece) : one));
    ledger.value = { ...ledger.value, pieces };
  }

  /** Posts one result; it can be struck out again from the notice. Without a connection it waits on the device. */
  async function post(practised: Piece, { bpm, outcome, percent, loop, remark = '' }: PostedResult): Promise<Piece> {
    const id = crypto.randomUUID();
    const round = loop && { loop };
    const entry = { id, pieceId: practised.id, personId: person(), bpm, outcome, percent, remark, ...round };
    await queue.add(entry);
    const posted = await flush(id);
    const words = `${bpm}, ${outcome === 'clean' ? 'clean' : 'not yet'}`;
    if (posted) {
      const line = posted.entries.find((one) => one.id === id);
      notices.say(
        `${words} is posted in ${line?.medium ?? 'pencil'}${loop ? ', as a loop: the ladder stays where it is' : ''}.`,
        line && (async () => void (await strike(line, true))),
      );
      return posted;
    }
    const lines = waiting.value.filter((one) => one.id === id);
    if (lines.length > 0)
      notices.say(`${words} is kept on this device until the studio can be reached.`, async () => {
        await queue.takeBack(id);
        await count();
        keep(await piece(practised.id));
      });
    const kept = lines.reduce(withWaiting, practised);
    keep(kept);
    await lastSeen.keepPiece(practised).catch(() => undefined);
    return kept;
  }

  /** Sends what waits; gives the piece of one entry, as it stands after it, where that got through. */
  async function flush(id?: string): Promise<Piece | undefined> {
    const { posted, refused } = await queue.flush(person());
    await count();
    for (const one of posted) keep(one);
    for (const { entry, why } of refused) notices.say(`${entry.bpm} was not posted: ${why}`);
    return posted.findLast(({ entries }) => entries.some((entry) => entry.id === id));
  }

  async function strike(entry: Entry, struck: boolean): Promise<Piece> {
    const piece = await api.strikeEntry({ id: entry.id, body: { version: entry.version, struck } });
    keep(piece);
    if (!struck) return piece;
    const back = { id: entry.id, version: entry.version + 1 };
    notices.say('The entry is struck out.', async () =>
      keep(await api.strikeEntry({ id: back.id, body: { version: back.version, struck: false } })),
    );
    return piece;
  }

  const pieces = computed(() => ledger.value?.pieces ?? []);
  /** Whose ledgers a teacher can open. */
  function students(): Promise<readonly Student[]> {
    return api.students();
  }

  return {
    entries,
    bring,
    students,
    ledger,
    pieces,
    waiting,
    stale,
    changed,
    load,
    show,
    piece,
    post,
    flush,
    count,
    strike,
  };
});

/** A row of the ledger brought up to a piece that was posted to; its cells follow when the ledger is next opened. */
function lineOf(line: LedgerPiece, piece: Piece): LedgerPiece {
  const { version, standing, next, mastery, due, expected } = piece;
  const lastDay = countingOf(piece).at(-1)?.day ?? line.lastDay;
  return { ...line, version, standing, next, mastery, due, expected, lastDay };
}

/** A piece with a result that still waits, so that the ladder goes on meanwhile. */
function withWaiting(
  piece: Piece,
  { id, bpm, outcome, percent, loop = null, remark, playedAt, personId }: WaitingEntry,
): Piece {
  if (piece.entries.some((entry) => entry.id === id)) return piece;
  const medium = personId === piece.student.id ? 'pencil' : 'ink';
  const entry: Entry = {
    id,
    version: 0,
    bpm,
    outcome,
    percent,
    loop,
    counts: loop === null,
    remark,
    medium,
    postedAt: playedAt,
    day: playedAt.slice(0, 10),
    postedBy: { id: personId, name: '' },
    struck: false,
  };
  const entries = [...piece.entries, entry];
  const history = countingOf({ entries });
  const { startBpm: start, targetBpm: target, raising: school, rules } = piece;
  const ladder = tempoLadder({ start, target, school, rules });
  const { canSplit, join } = piece.around;
  return {
    ...piece,
    entries,
    standing: standingOf(history, target),
    next: nextStep(history, ladder, { canSplit, join: join ?? undefined }),
    mastery: masteryOf(history, target),
  };
}
