import type { EntryBody, Piece, PinBody, Posted } from '@jam-ledger/contract';
import type { WaitingEntry, WaitingLine, WaitingLines, WaitingPin } from './device.ts';
import { Refused } from './http.ts';

/** What became of a queue when it was sent: what was posted, what was refused for good and why, and whether more waits. */
export interface Flushed {
  readonly posted: readonly (Piece | Posted)[];
  readonly refused: readonly { readonly line: WaitingLine; readonly why: string }[];
  readonly left: number;
}

/** What a queue is made of. */
export interface QueueParts {
  readonly lines: WaitingLines;
  readonly send: (pieceId: string, body: EntryBody) => Promise<Posted>;
  readonly pin: (pieceId: string, body: PinBody) => Promise<Piece>;
  readonly now: () => Date;
}

/** Whether what waits is a note to the teacher. */
export function isPin(line: WaitingLine | Omit<WaitingLine, 'playedAt'>): line is WaitingPin {
  return 'text' in line;
}

/**
 * Results and notes to the teacher on their way to the studio. Each is kept on the device first, sent in the order it was made, and
 * forgotten only when the studio has answered; since it carries an id of its own, one that was sent before an answer was lost is
 * posted once.
 */
export class EntryQueue {
  readonly #parts: QueueParts;
  #last: Promise<unknown> = Promise.resolve();

  constructor(parts: QueueParts) {
    this.#parts = parts;
  }

  /** Keeps a line on the device. It is made now. */
  async add(line: Omit<WaitingEntry, 'playedAt'> | Omit<WaitingPin, 'playedAt'>): Promise<void> {
    const playedAt = this.#parts.now().toISOString();
    await this.#parts.lines.put({ ...line, playedAt });
  }

  /** Takes back a line that still waits; whether it did. */
  async takeBack(id: string): Promise<boolean> {
    const waits = (await this.#parts.lines.all()).some((line) => line.id === id);
    if (waits) await this.#parts.lines.remove(id);
    return waits;
  }

  /** What waits for somebody, oldest first. */
  async waiting(personId: string): Promise<readonly WaitingLine[]> {
    return (await this.#parts.lines.all()).filter((line) => line.personId === personId);
  }

  /** Sends what waits for somebody until the line is cut; a second call while one runs begins when that has ended. */
  flush(personId: string): Promise<Flushed> {
    const flushed = this.#last.catch(() => undefined).then(() => this.#flush(personId));
    this.#last = flushed;
    return flushed;
  }

  async #flush(personId: string): Promise<Flushed> {
    const posted: (Piece | Posted)[] = [];
    const refused: { line: WaitingLine; why: string }[] = [];
    for (const line of await this.waiting(personId)) {
      try {
        const piece = await this.#post(line);
        // What does not show the line was not answered by the studio.
        if (!isPosted(piece, line)) break;
        posted.push(piece);
      } catch (error) {
        if (!isFinal(error)) break;
        refused.push({ line, why: wordsOf(error) });
      }
      await this.#parts.lines.remove(line.id);
    }
    return { posted, refused, left: (await this.waiting(personId)).length };
  }

  async #post(line: WaitingLine): Promise<Piece | Posted> {
    if (isPin(line)) {
      const { id, pieceId, phraseId, at, text } = line;
      return this.#parts.pin(pieceId, { id, phraseId, at, text });
    }
    const { id, pieceId, bpm, outcome, percent, loop = null, remark, playedAt } = line;
    const sentAt = this.#parts.now().toISOString();
    // A clock that was set back since then would have it played in the future; then it counts as played now.
    const body = { id, bpm, outcome, percent, loop, remark, sentAt, playedAt: playedAt > sentAt ? sentAt : playedAt };
    return this.#parts.send(pieceId, body);
  }
}

/** Whether an answer, whoever gave it, has the line. */
function isPosted(answer: Partial<Piece & Posted> | null, line: WaitingLine): boolean {
  if (!isPin(line)) return answer?.entry?.id === line.id;
  return answer?.pins?.some(({ id }) => id === line.id) ?? false;
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
