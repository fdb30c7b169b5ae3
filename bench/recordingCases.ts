import { HELD_OUT, readCorpus, type RightPhrase } from '../packages/core/test/corpus.ts';
import { perform } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';

/** Seeds that nothing was looked at with. */
export const SEED = 70_000;
/** The phrases of idioms that nothing was fitted to. */
export const heldOut = readCorpus().filter(({ idiom }) => HELD_OUT.includes(idiom));

/** Whether a phrase is one line: nothing of it rings into what is struck on another string. */
export function isOneLine({ phrase, bpm }: RightPhrase): boolean {
  const notes = perform(phrase, { tuning: TUNINGS.standard, capo: 0, bpm }).filter(({ midi }) => midi !== null);
  const overlaps = notes.some((note, index) =>
    notes
      .slice(index + 1)
      .some((one) => one.string !== note.string && one.startSeconds < note.startSeconds + note.durationSeconds - 0.06),
  );
  return notes.length >= 4 && !overlaps;
}
