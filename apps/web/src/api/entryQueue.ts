import type { EntryBody, Piece } from '@jam-ledger/contract';
import type { WaitingEntry, WaitingLines } from './device.ts';
import { Refused } from './http.ts';

/** What became of a queue when it was sent: what was posted, what was refused for good and why, and whether more waits. */
export interface Flushed {
  readonly posted: readonly Piece[];
  readonly refused: readonly { readonly entry: WaitingEntry; readonly why: string }[];
  readonly left: number;
}

/** What a queue is made of. */
export interface QueueParts {
  readonly lines: WaitingLines;
  readonly send: (pieceId: string, body: EntryBody) => Promise<Piece>;
  readonly now: () => Date;
}

/**
 * Results on their way to the studio. Each is kept on the device first, sent in the order it was played, and forgotten only when
 * the studio has answered; since it carries an id of its own, one that was sent before an answer was lost is posted once.
 */
export class EntryQueue {
  readonly #lines: WaitingLines;
  readonly #send: QueueParts['send'];
  readonly #now: () => Date;
  #last: Promise<unknown> = Promise.resolve();

  constructor({ lines, send, now }: QueueParts) {
    this.#lines = lines;
    this.#send = send;
    this.#now = now;
  }

  /** Keeps a result on the device. It is played now. */
  async add(entry: Omit<WaitingEntry, 'playedAt'>): Promise<void> {
    await this.#lines.put({ ...entry, playedAt: this.#now().toISOString() });
  }

  /** Takes back a result that still waits; whether it did. */
  async takeBack(id: string): Promise<boolean> {
    const waits = (await this.#lines.all()).some((entry) => entry.id === id);
    if (waits) await this.#lines.remove(id);
    return waits;
  }

  /** What waits for somebody, oldest first. */
  async waiting(personId: string): Promise<readonly WaitingEntry[]> {
    return (await this.#lines.all()).filter((entry) => entry.personId === personId);
  }

  /** Sends what waits for somebody until the line is cut; a second call while one runs begins when that has ended. */
  flush(personId: string): Promise<Flushed> {
    const flushed = this.#last.catch(() => undefined).then(() => this.#flush(personId));
    this.#last = flushed;
    return flushed;
  }

  async #flush(personId: string): Promise<Flushed> {
    const posted: Piece[] = [];
    const refused: { entry: WaitingEntry; why: string }[] = [];
    for (const entry of await this.waiting(personId)) {
      try {
        const piece = await this.#post(entry);
        // What does not show the entry was not answered by the studio.
        if (!isPosted(piece, entry)) break;
        posted.push(piece);
      } catch (error) {
        if (!isFinal(error)) break;
        refused.push({ entry, why: wordsOf(error) });
      }
      await this.#lines.remove(entry.id);
    }
    return { posted, refused, left: (await this.waiting(personId)).length };
  }

  async #post({ id, pieceId, bpm, outcome, percent, loop = null, remark, playedAt }: WaitingEntry): Promise<Piece> {
    const sentAt = this.#now().toISOString();
    // A clock that was set back since then would have it played in the future; then it counts as played now.
    const body = { id, bpm, outcome, percent, loop, remark, sentAt, playedAt: playedAt > sentAt ? sentAt : playedAt };
    return this.#send(pieceId, body);
  }
}

/** Whether an answer, whoever gave it, is a piece that has the entry. */
function isPosted(answer: Partial<Piece> | null, { id }: WaitingEntry): boolean {
  return answer?.entries?.some((entry) => entry.id === id) ?? false;
}

/** Whether an answer will be the same next time: the studio was reached, and what was sent is refused. */
function isFinal(error: unknown): boolean {
  return error instanceof Refused && error.status >= 400 && error.status < 500 && !PASSING.includes(error.status);
}

/** Refusals that pass: not signed in, and too many at once. */
const PASSING: readonly number[] = [401, 429];

function wordsOf(error: unknown): string {
  if (error instanceof Refused) return error.problems[0]?.message ?? error.message;
  return error instanceof Error ? error.message : 'It was refused.';
}
