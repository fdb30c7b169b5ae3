import { CERTAINTIES, LAYERS, PHRASE_STATUSES, type Phrase, type PhraseRevision } from './phrases.ts';
import { anyNumber, anyText, flag, id, oneOf, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `Phrase` as it is answered. */
export const phraseAnswer: SchemaOf<Phrase> = shape<Phrase>({
  id: id(),
  version: anyNumber(),
  sectionId: id(),
  struck: flag(),
  status: oneOf(PHRASE_STATUSES),
  checkedBy: anyText(),
  checkedAgainst: anyText(),
  checkedAt: orNull(anyText()),
  alternateOf: orNull(anyText()),
  chosen: flag(),
  refersTo: orNull(anyText()),
  move: shape<Phrase['move']>({ semitones: anyNumber(), strings: anyNumber(), openStays: flag() }),
  name: anyText(),
  text: anyText(),
  layer: oneOf(LAYERS),
  certainty: oneOf(CERTAINTIES),
  reason: anyText(),
});

/** Checks `PhraseRevision` as it is answered. */
export const phraseRevisionAnswer: SchemaOf<PhraseRevision> = shape<PhraseRevision>({
  id: id(),
  at: anyText(),
  by: anyText(),
  text: anyText(),
});
