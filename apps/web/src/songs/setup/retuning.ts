import type { Phrase, Transcription } from '@jam-ledger/contract';
import { retune, type Retuned, type Strung } from '@jam-ledger/core/notation';
import type { KnownReading } from '../form/useSongForm.ts';
import { tuningOf } from '../../tab/index.ts';

/** A phrase that a change of tuning or capo touches, and its text when it is moved along. */
export interface RetunedPhrase {
  readonly phrase: Phrase;
  readonly section: string;
  readonly notes: readonly Retuned[];
  /** Notes that cannot be moved. */
  readonly stuck: number;
  readonly text: string;
}

/** The guitar of a song as its strings sound. */
export function strungOf(song: Pick<Transcription, 'tuning' | 'capo' | 'frets'>): Strung {
  return { tuning: tuningOf(song), capo: song.capo, frets: song.frets };
}

/** What a change from one guitar to another does to the phrases of a song; those that refer follow the others. */
export function retuneSong(
  song: Transcription,
  guitars: { readonly before: Strung; readonly after: Strung },
  readingOf: (phrase: Phrase) => KnownReading,
): readonly RetunedPhrase[] {
  return song.sections.flatMap(({ label, phrases }) =>
    phrases.flatMap((phrase): readonly RetunedPhrase[] => {
      if (phrase.refersTo !== null) return [];
      const { notes, text } = retune(phrase.text, readingOf(phrase).phrase, guitars.before, guitars.after);
      const stuck = notes.filter(({ movedTo }) => movedTo === undefined).length;
      return notes.length > 0 ? [{ phrase, section: label, notes, stuck, text }] : [];
    }),
  );
}
