import type {
  Entry,
  EntryRow,
  Ledger,
  LedgerPiece,
  LessonDay,
  Loop,
  OldEntry,
  Outcome,
  Piece,
  Posted,
  Student,
} from '@jam-ledger/contract';
import { nextStep, standingOf, tempoLadder } from '@jam-ledger/core/pieces';
import { masteryOf } from '@jam-ledger/core/progress';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import {
  api,
  EntryQueue,
  isPin,
  waitingLines,
  type WaitingEntry,
  type WaitingLine,
  type WaitingPin,
} from '../api/index.ts';
import { countingOf, withEarlier, withPosted } from '../playing/index.ts';
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
  /** The pieces of a lesson that is held, where that is shown. */
  const heard = ref<readonly LedgerPiece[] | null>(null);
  const waiting = ref<readonly WaitingLine[]>([]);
  const notices = useNotices();
  const session = useSession();
  const queue = new EntryQueue({
    lines: waitingLines,
    send: (id, body) => api.postEntry({ id, body }),
    pin: (id, body) => api.pinNote({ id, body }),
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
    heard.value = null;
    ledger.value = await api.ledger({ query: { ...(studentId && { studentId }), ...(until && { until }) } });
  }

  /** Shows what a lesson is held from, instead of a ledger. */
  function show({ pieces: given, planned }: Pick<LessonDay, 'pieces' | 'planned'>): void {
    heard.value = [...given, ...planned];
  }

  /** One piece, with what still waits for it. */
  async function piece(id: string): Promise<Piece> {
    const seen = madeNow(await api.piece({ id }));
    await count();
    return waiting.value.filter(({ pieceId }) => pieceId === id).reduce(withWaiting, seen);
  }

  async function count(): Promise<void> {
    waiting.value = await queue.waiting(person()).catch(() => []);
  }

  /** A piece with the lines before those it shows. */
  async function earlier(piece: Piece): Promise<Piece> {
    const [first] = piece.entries;
    return first ? withEarlier(piece, await api.earlierEntries({ id: piece.id, query: { before: first.id } })) : piece;
  }

  /** The piece that was posted to, or struck in, last, or what posting changed of it; pages that show it follow. */
  const changed = shallowRef<Piece | Posted>();

  function keep(piece: Piece | Posted): void {
    changed.value = piece;
    if (ledger.value) ledger.value = { ...ledger.value, pieces: withLine(ledger.value.pieces, piece) };
    if (heard.value) heard.value = withLine(heard.value, piece);
  }

  /** Posts one result; it can be struck out again from the notice. Without a connection it waits on the device. */
  async function post(practised: Piece, { bpm, outcome, percent, loop, remark = '' }: PostedResult): Promise<Piece> {
    const id = crypto.randomUUID();
    const round = loop && { loop };
    const entry = { id, pieceId: practised.id, personId: person(), bpm, outcome, percent, remark, ...round };
    await queue.add(entry);
    const posted = await flush(id);
    const words = `${bpm}, ${outcome === 'clean' ? 'clean' : 'not yet'}`;
    if (posted && isPosted(posted)) {
      const { entry: line } = posted;
      notices.say(
        `${words} is posted in ${line.medium}${loop ? ', as a loop: the ladder stays where it is' : ''}.`,
        async () => void (await strike(line, true)),
      );
      return withPosted(practised, posted);
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
    return kept;
  }

  /** Pins a note to an event of a piece; without a connection it waits on the device, and stands there meanwhile. */
  async function pin(practised: Piece, note: Pick<WaitingPin, 'phraseId' | 'at' | 'text'>): Promise<Piece> {
    const id = crypto.randomUUID();
    await queue.add({ ...note, id, pieceId: practised.id, personId: person() });
    const posted = await flush(id);
    const lines = waiting.value.filter((one) => one.id === id);
    if (lines.length > 0) notices.say('Your note is kept on this device until the studio can be reached.');
    return posted && !isPosted(posted) ? posted : lines.reduce(withWaiting, practised);
  }

  /** Sends what waits; gives what one line came to, where that got through. */
  async function flush(id?: string): Promise<Piece | Posted | undefined> {
    const { posted, refused } = await queue.flush(person());
    await count();
    for (const one of posted) keep(one);
    for (const { line, why } of refused)
      notices.say(isPin(line) ? `“${line.text}” was not pinned: ${why}` : `${line.bpm} was not posted: ${why}`);
    return posted.findLast((one) => (isPosted(one) ? one.entry.id === id : one.pins.some((pin) => pin.id === id)));
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

  const pieces = computed<readonly LedgerPiece[]>(() => heard.value ?? ledger.value?.pieces ?? []);
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
    changed,
    load,
    show,
    piece,
    earlier,
    post,
    pin,
    flush,
    count,
    strike,
  };
});

/** Whether something is what posting changed of a piece, and not all of it. */
function isPosted(piece: Piece | Posted): piece is Posted {
  return 'entry' in piece;
}

/** A piece that a page shows, as it stands after a change of it. */
export function followed(piece: Piece, changed: Piece | Posted): Piece {
  return isPosted(changed) ? withPosted(piece, changed) : changed;
}

/** A piece as it is answered now; what the edition before kept on the device has all its lines, and says nothing of earlier ones. */
function madeNow(piece: Omit<Piece, 'before' | 'hasEarlier'> & Partial<Piece>): Piece {
  return { before: [], hasEarlier: false, ...piece };
}

/** Pieces among which one was posted to; cells of a ledger follow when it is next opened. */
function withLine<Line extends LedgerPiece>(lines: readonly Line[], piece: Piece | Posted): readonly Line[] {
  const { version, standing, next, mastery, due, expected } = piece;
  const newest = isPosted(piece) ? (piece.entry.counts ? piece.entry : undefined) : countingOf(piece).at(-1);
  const last = newest && { bpm: newest.bpm, outcome: newest.outcome, medium: newest.medium };
  const now = { version, standing, next, mastery, due, expected, ...(newest && { last, lastDay: newest.day }) };
  return lines.map((line) => (line.id === piece.id ? { ...line, ...now } : line));
}

/** A piece with a line that still waits: a note stands where it was pinned, a result moves the ladder on meanwhile. */
function withWaiting(piece: Piece, line: WaitingLine): Piece {
  return isPin(line) ? withPin(piece, line) : withEntry(piece, line);
}

function withPin(piece: Piece, { id, phraseId, at, text, personId, playedAt }: WaitingPin): Piece {
  if (piece.pins.some((pin) => pin.id === id)) return piece;
  const by = { id: personId, name: 'waits to be sent', teaches: personId !== piece.student.id };
  return { ...piece, pins: [...piece.pins, { id, phraseId, at, text, version: 0, by, pinnedAt: playedAt }] };
}

function withEntry(
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
  const history = countingOf({ before: piece.before, entries });
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
