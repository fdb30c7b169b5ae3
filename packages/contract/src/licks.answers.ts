import { TECHNIQUES } from '@jam-ledger/core/notation';
import type { Lick, LicksFound } from './licks.ts';
import { anyNumber, anyText, id, list, oneOf, shape, type SchemaOf } from './typed.ts';

/** Checks `Lick` as it is answered. */
export const lickAnswer: SchemaOf<Lick> = shape<Lick>({
  phraseId: id(),
  name: anyText(),
  text: anyText(),
  song: shape<Lick['song']>({
    id: id(),
    title: anyText(),
    tuning: anyText(),
    capo: anyNumber(),
    key: anyText(),
    meter: anyText(),
  }),
  section: anyText(),
  student: anyText(),
  bpm: anyNumber(),
  techniques: list(oneOf(TECHNIQUES)),
  chords: list(anyText()),
  lowestFret: anyNumber(),
  highestFret: anyNumber(),
  likeness: anyText(),
});

/** Checks `LicksFound` as it is answered. */
export const licksFoundAnswer: SchemaOf<LicksFound> = shape<LicksFound>({
  total: anyNumber(),
  licks: list(lickAnswer),
});
