import { isStuck } from '../pieces/index.ts';
import type { PracticePiece } from './practiceToday.ts';

/** What some minutes of a lesson are for, in the order they come. */
export const AGENDA_KINDS = ['hear again', 'join', 'new', 'from the top'] as const;
/** One of the `AGENDA_KINDS`. */
export type AgendaKind = (typeof AGENDA_KINDS)[number];

/** One thing of a lesson. */
export interface AgendaItem {
  readonly pieceId: string;
  readonly kind: AgendaKind;
  readonly minutes: number;
  /** Why it is there, in words for the teacher. */
  readonly why: string;
}

/** What a lesson opens with and goes on with, and what did not fit. */
export interface Agenda {
  readonly items: readonly AgendaItem[];
  readonly minutes: number;
  readonly left: readonly AgendaItem[];
}

/** How long things take in a lesson, minutes, and how much of it is for arriving, tuning and what comes up. Our choice. */
const LESSON_TAKES = { again: 3, join: 5, new: 8, top: 6, talkShare: 0.1 } as const;

/** Hearing again takes at most this share of a lesson, so that something new fits. Our choice. */
const MAX_AGAIN_SHARE = 0.5;

/** What an agenda is made from: pieces as for practice, and those not begun that are planned for this lesson. */
export interface AgendaPiece extends PracticePiece {
  /** Whether it is to be begun in this lesson. */
  readonly isNew: boolean;
}

/**
 * What to do in a lesson of so many minutes. First what is to be heard again, the most urgent first: wants to be shown, slipping,
 * stuck, due. Then joins, what is new, and the run from the top. What does not fit is left, in the same order.
 *
 * @throws RangeError for minutes that are not above 0.
 */
export function agendaFor(pieces: readonly AgendaPiece[], minutes: number, today: string): Agenda {
  if (!(minutes > 0)) throw new RangeError(`a lesson takes more than 0 minutes, not ${minutes}`);
  const room = Math.floor(minutes * (1 - LESSON_TAKES.talkShare));
  const again = pieces
    .flatMap((piece) => againItem(piece, today))
    .sort((a, b) => a.urgency - b.urgency)
    .map(({ item }) => item);
  const wanted = [...again, ...pieces.flatMap(joinItem), ...pieces.flatMap(newItem), ...pieces.flatMap(topItem)];
  const items: AgendaItem[] = [];
  const left: AgendaItem[] = [];
  // Hearing again and joins leave room for what is new, if anything is.
  let kept = wanted.find(({ kind }) => kind === 'new')?.minutes ?? 0;
  let spent = 0;
  let heard = 0;
  for (const item of wanted) {
    const isAgain = item.kind === 'hear again';
    if (item.kind === 'new' || item.kind === 'from the top') kept = 0;
    const tooMuch = isAgain && heard > 0 && heard + item.minutes > minutes * MAX_AGAIN_SHARE;
    if (tooMuch || spent + item.minutes + kept > room) {
      left.push(item);
      continue;
    }
    items.push(item);
    spent += item.minutes;
    if (isAgain) heard += item.minutes;
  }
  return { items, minutes: spent, left };
}

function againItem(
  piece: AgendaPiece,
  today: string,
): readonly { readonly urgency: number; readonly item: AgendaItem }[] {
  const { id, isNew, next, mastery, due } = piece;
  if (isNew || piece.kind === 'run') return [];
  const put = (urgency: number, why: string) => [
    { urgency, item: { pieceId: id, kind: 'hear again' as const, minutes: LESSON_TAKES.again, why } },
  ];
  if (next.move === 'show') return put(0, 'Clean at the target in pencil; it wants ink.');
  if (mastery.state === 'slipping') return put(1, mastery.reason);
  if (isStuck(next)) return put(2, next.reason);
  if (due !== null && due.day <= today) return put(3 + due.recall, `Due again since ${due.day}.`);
  if (mastery.state === 'building' && piece.kind !== 'join') return put(5 - piece.share, next.reason);
  return [];
}

function joinItem({ id, kind, isNew, next }: AgendaPiece): readonly AgendaItem[] {
  return kind === 'join' && !isNew ? [{ pieceId: id, kind: 'join', minutes: LESSON_TAKES.join, why: next.reason }] : [];
}

function newItem({ id, isNew }: AgendaPiece): readonly AgendaItem[] {
  return isNew ? [{ pieceId: id, kind: 'new', minutes: LESSON_TAKES.new, why: 'Planned for this lesson.' }] : [];
}

function topItem({ id, kind, isNew, next }: AgendaPiece): readonly AgendaItem[] {
  return kind === 'run' && !isNew
    ? [{ pieceId: id, kind: 'from the top', minutes: LESSON_TAKES.top, why: next.reason }]
    : [];
}
