import { READY_SHARE, type Move, type NextStep, type PieceKind } from '../pieces/index.ts';
import { daysBetween, type Due, type Mastery } from '../progress/index.ts';

/** What of a piece today’s practice is made from. Pieces stand in the order of their songs. */
export interface PracticePiece {
  readonly id: string;
  readonly kind: PieceKind;
  readonly name: string;
  readonly songId: string;
  readonly next: NextStep;
  readonly mastery: Mastery;
  readonly due: Pick<Due, 'day' | 'recall'> | null;
  /** Share of the target reached, 0 to 1. */
  readonly share: number;
  /** The best clean tempo; null for none. */
  readonly cleanBpm: number | null;
  readonly lastDay: string | null;
}

/** What some minutes are for. */
export type TaskKind = 'warm-up' | 'again' | 'step' | 'join' | 'top' | 'rest';

/** One thing to do, for so many minutes. */
export interface PracticeTask {
  readonly kind: TaskKind;
  readonly pieceIds: readonly string[];
  readonly minutes: number;
  /** Quarter notes a minute; null where it does not matter. */
  readonly bpm: number | null;
  /** What, and why, in words for the student. */
  readonly says: string;
}

/** A practice of at most the minutes there are. */
export interface PracticePlan {
  readonly tasks: readonly PracticeTask[];
  readonly minutes: number;
}

/** Shortest and longest practice that is planned, minutes. Our choice. */
export const PRACTICE_MINUTES = { min: 5, max: 90 } as const;

/** How long things take, minutes. Our choice; ten minutes unbroken is the customary caution. */
const TAKES = { again: 2, step: 6, shortStep: 3, longStep: 8, join: 3, top: 4, rest: 1, unbroken: 10 } as const;

/** From this practice on there is a warm-up of its own, so many minutes of each ten. Our choice. */
const WARM_UP = { from: 10, ofEachTen: 1, max: 4 } as const;

/** Due pieces take at most this share, so that something new is left. Our choice. */
const MAX_AGAIN_SHARE = 0.4;

/** Pieces are joined, and songs run from the top, from these shares of the target on. Our choice. */
const READY = { join: READY_SHARE, top: 0.6, piecesForTop: 3 } as const;

/** How much each kind of next step matters. Our choice: what is about to give way first. */
const MATTERS: Readonly<Record<Move, number>> = {
  up: 3,
  stay: 2.5,
  begin: 2,
  rest: 2,
  down: 1.5,
  split: 1.5,
  join: 1,
  show: 0.5,
  call: 0.25,
  keep: 0,
};

/**
 * Fills some minutes: a warm-up, what is due again, the step that matters most, a join, a run from the top, and more steps
 * where there is time; a rest after ten minutes unbroken. The same pieces always give the same plan.
 *
 * @throws RangeError for minutes out of `PRACTICE_MINUTES`.
 */
export function practiceToday(pieces: readonly PracticePiece[], minutes: number, today: string): PracticePlan {
  const { min, max } = PRACTICE_MINUTES;
  if (!Number.isInteger(minutes) || minutes < min || minutes > max)
    throw new RangeError(`a practice is a whole number of minutes ${min}-${max}, not ${minutes}`);
  if (pieces.length === 0) return { tasks: [], minutes: 0 };
  const plan = new Plan(minutes);
  if (minutes >= WARM_UP.from) plan.add(warmUp(minutes));
  const again = dueTasks(pieces, today);
  for (const task of again) if (plan.spentOn('again') + task.minutes <= minutes * MAX_AGAIN_SHARE) plan.add(task);
  const [first, ...steps] = stepTasks(pieces, today);
  if (first) plan.add(first);
  for (const task of [...joinTasks(pieces), ...topTasks(pieces), ...steps, ...again]) plan.add(task);
  return plan.finish();
}

class Plan {
  readonly #tasks: PracticeTask[] = [];
  readonly #minutes: number;
  #spent = 0;
  #unbroken = 0;

  constructor(minutes: number) {
    this.#minutes = minutes;
  }

  spentOn(kind: TaskKind): number {
    return this.#tasks.filter((task) => task.kind === kind).reduce((sum, task) => sum + task.minutes, 0);
  }

  /** Adds a task if it fits, with a rest before it where one is due; the same one never twice. */
  add(task: PracticeTask): void {
    const known = this.#tasks.some((one) => one.kind === task.kind && one.pieceIds.join() === task.pieceIds.join());
    const rests = this.#unbroken > 0 && this.#unbroken + task.minutes > TAKES.unbroken ? TAKES.rest : 0;
    if (known || this.#spent + rests + task.minutes > this.#minutes) return;
    if (rests > 0) {
      const says = 'Shake the hands out and rest; stop for today at pain, numbness or tingling.';
      this.#tasks.push({ kind: 'rest', pieceIds: [], minutes: rests, bpm: null, says });
      this.#unbroken = 0;
    }
    this.#tasks.push(task);
    this.#spent += rests + task.minutes;
    this.#unbroken += task.minutes;
  }

  /** What is left over goes to the steps, as far as rests allow. */
  finish(): PracticePlan {
    let left = this.#minutes - this.#spent;
    const tasks = this.#tasks.map((task, index) => {
      if (task.kind !== 'step') return task;
      const more = Math.max(0, Math.min(left, TAKES.longStep - task.minutes, TAKES.unbroken - this.#blockAt(index)));
      left -= more;
      this.#tasks[index] = { ...task, minutes: task.minutes + more };
      return this.#tasks[index];
    });
    return { tasks, minutes: this.#minutes - left };
  }

  /** Minutes of the unbroken block around a task. */
  #blockAt(index: number): number {
    const from = this.#tasks.findLastIndex(({ kind }, at) => at < index && kind === 'rest') + 1;
    const to = this.#tasks.findIndex(({ kind }, at) => at > index && kind === 'rest');
    return this.#tasks.slice(from, to < 0 ? undefined : to).reduce((sum, { minutes }) => sum + minutes, 0);
  }
}

function warmUp(minutes: number): PracticeTask {
  const long = Math.min(WARM_UP.max, Math.max(1, Math.round((minutes / 10) * WARM_UP.ofEachTen)));
  const says = 'One finger a fret, slowly, every string; loose before fast.';
  return { kind: 'warm-up', pieceIds: [], minutes: long, bpm: null, says };
}

/** What is due or slipping, the most urgent first. */
function dueTasks(pieces: readonly PracticePiece[], today: string): readonly PracticeTask[] {
  return pieces
    .filter(({ due, mastery }) => (due !== null && due.day <= today) || mastery.state === 'slipping')
    .sort((a, b) => (a.due?.recall ?? 1) - (b.due?.recall ?? 1))
    .map((piece): PracticeTask => {
      const since = piece.lastDay === null ? 0 : daysBetween(piece.lastDay, today);
      const why = piece.mastery.state === 'slipping' ? 'it is slipping' : `${since} days since the last time`;
      const says = `“${piece.name}” again, before it goes: ${why}.`;
      const bpm = piece.cleanBpm ?? piece.next.bpm;
      return { kind: 'again', pieceIds: [piece.id], minutes: TAKES.again, bpm, says };
    });
}

/** Next steps, the one that matters most first; what has waited longest matters more. */
function stepTasks(pieces: readonly PracticePiece[], today: string): readonly PracticeTask[] {
  const waited = ({ lastDay }: PracticePiece) => (lastDay === null ? 0 : Math.min(14, daysBetween(lastDay, today)));
  const weight = (piece: PracticePiece) => MATTERS[piece.next.move] + waited(piece) / 7;
  return pieces
    .filter(({ next }) => MATTERS[next.move] > 0)
    .sort((a, b) => weight(b) - weight(a))
    .map(({ id, kind, name, next }, index): PracticeTask => {
      const minutes = index === 0 ? TAKES.step : TAKES.shortStep;
      return { kind: KIND_OF_TASK[kind], pieceIds: [id], minutes, bpm: next.bpm, says: `“${name}”: ${next.reason}` };
    });
}

const KIND_OF_TASK: Readonly<Record<PieceKind, TaskKind>> = {
  drill: 'step',
  half: 'step',
  phrase: 'step',
  join: 'join',
  run: 'top',
};

/** The phrases of songs where no piece of a kind is given; where one is, it is a step of its own. */
function phrasesWithout(pieces: readonly PracticePiece[], kind: PieceKind): readonly PracticePiece[] {
  const given = new Set(pieces.filter((piece) => piece.kind === kind).map(({ songId }) => songId));
  return pieces.filter((piece) => piece.kind === 'phrase' && !given.has(piece.songId));
}

/** Neighbours that are both nearly there. */
function joinTasks(all: readonly PracticePiece[]): readonly PracticeTask[] {
  const pieces = phrasesWithout(all, 'join');
  return pieces.slice(1).flatMap((piece, index): readonly PracticeTask[] => {
    const before = pieces[index];
    if (before?.songId !== piece.songId || before.share < READY.join || piece.share < READY.join) return [];
    const bpm = Math.min(before.cleanBpm ?? before.next.bpm, piece.cleanBpm ?? piece.next.bpm);
    const says = `“${before.name}” into “${piece.name}” without stopping, at the slower of both, ${bpm}.`;
    return [{ kind: 'join', pieceIds: [before.id, piece.id], minutes: TAKES.join, bpm, says }];
  });
}

/** A song of which enough is playable, from its first piece to the last that is. */
function topTasks(given: readonly PracticePiece[]): readonly PracticeTask[] {
  const pieces = phrasesWithout(given, 'run');
  const songs = [...new Set(pieces.map(({ songId }) => songId))];
  return songs.flatMap((songId): readonly PracticeTask[] => {
    const all = pieces.filter((piece) => piece.songId === songId);
    const end = all.findIndex(({ share }) => share < READY.top);
    const playable = end < 0 ? all : all.slice(0, end);
    const [first] = playable;
    if (!first || playable.length < READY.piecesForTop) return [];
    const bpm = Math.min(...playable.map(({ cleanBpm, next }) => cleanBpm ?? next.bpm));
    const says = `From the top: “${first.name}” and what follows, ${playable.length} pieces at ${bpm}.`;
    return [{ kind: 'top', pieceIds: playable.map(({ id }) => id), minutes: TAKES.top, bpm, says }];
  });
}
