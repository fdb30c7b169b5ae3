import type { Piece } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { api } from '../api/index.ts';
import { dayText } from '../ui/index.ts';

/** How far ahead the next lesson is looked for, days. */
const LOOK_AHEAD_DAYS = 60;

/** What the last page of a handout says: what to practise, and until when. */
export const useGoals = defineStore('goals', () => {
  /** The lines for pieces that are given, and the day of the student’s next lesson. */
  async function linesFor(studentId: string, pieceIds: readonly string[]): Promise<readonly string[]> {
    const [lessons, ...pieces] = await Promise.all([
      api.lessons({ query: { days: LOOK_AHEAD_DAYS } }),
      ...pieceIds.map((id) => api.piece({ id })),
    ]);
    const next = lessons.find(({ student }) => student.id === studentId);
    const until = next ? [`The next lesson is on ${dayText(next.day)}, ${next.time}.`] : [];
    return [...pieces.map(sayPiece), ...until];
  }

  return { linesFor };
});

/** A piece with where it stands and the rungs to its target: `Riff: now 72 bpm; 60, 66, 72, 80; target 96 bpm`. */
export function sayPiece({
  phrase,
  next,
  rungs,
  targetBpm,
}: Pick<Piece, 'phrase' | 'next' | 'rungs' | 'targetBpm'>): string {
  const say = ({ bpm, percent }: Piece['rungs'][number]) => (percent === 100 ? `${bpm}` : `${bpm} (${percent} %)`);
  return `${phrase.name}: now ${say(next)} bpm, target ${targetBpm} bpm; rungs ${rungs.map(say).join(', ')}`;
}
