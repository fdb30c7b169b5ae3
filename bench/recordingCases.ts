import { HELD_OUT, readCorpus, type RightPhrase } from '../packages/core/test/corpus.ts';
import { sampled, type ElsewherePart } from '../packages/core/test/elsewhere.ts';
import type { BandPart } from '@jam-ledger/core/listen';
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

/** Lowest note of a chord; what lies below is the bass. */
const CHORD_FROM = 48;

/** A band of instruments that others recorded, played by another program: a steel guitar, a piano, a bass and drums. */
export function sampledBand({ notes, backing, clicks, seconds }: BandPart): Float32Array {
  const strung = backing.map((note, string) => ({ ...note, string: string % 3 }));
  const beat = clicks.map(({ accent, seconds: startSeconds }) => ({
    ...{ startSeconds, durationSeconds: 0.1, midi: accent ? 36 : 38, contour: [], string: 0 },
  }));
  const parts: readonly ElsewherePart[] = [
    { program: 'steel', notes },
    { program: 'piano', velocity: 70, notes: strung.filter(({ midi }) => (midi ?? 0) >= CHORD_FROM) },
    { program: 'bass', velocity: 80, notes: backing.filter(({ midi }) => (midi ?? 99) < CHORD_FROM) },
    { program: 'drums', velocity: 70, notes: beat },
  ];
  return sampled(
    parts.filter((part) => part.notes.length > 0),
    seconds,
  );
}
