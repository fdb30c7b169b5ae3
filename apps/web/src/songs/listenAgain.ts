import type { Phrase, Section } from '@jam-ledger/contract';
import type { KnownReading } from './form/useSongForm.ts';

/** Something of the song that is not certain. */
export interface ListenAgain {
  readonly phraseId: string;
  /** `1A Opening bend, bar 2, beat 3`. */
  readonly where: string;
  /** The events as they are typed; empty for a phrase as a whole. */
  readonly what: string;
  readonly certainty: string;
  readonly reason: string;
}

/** All that wants a second listen, in playing order: phrases that are not certain as a whole, and doubtful events. */
export function listenAgain(
  sections: readonly Section[],
  readingOf: (phrase: Phrase) => KnownReading,
): readonly ListenAgain[] {
  return sections.flatMap(({ label, phrases }) =>
    phrases
      .filter(({ chosen }) => chosen)
      .flatMap((phrase) => {
        const name = `${label} ${phrase.name}`;
        const doubts = readingOf(phrase).doubts.map(({ span, kind, reason, place }): ListenAgain => ({
          phraseId: phrase.id,
          where: `${name}, ${place}`,
          what: phrase.text.slice(span.from, span.to),
          certainty: kind,
          reason,
        }));
        const { id, certainty, reason } = phrase;
        return certainty === 'heard' ? doubts : [{ phraseId: id, where: name, what: '', certainty, reason }, ...doubts];
      }),
  );
}
