import type { Move } from '@jam-ledger/core/notation';
import Joi from 'joi';
import {
  CERTAINTIES,
  LAYERS,
  PHRASE_STATUSES,
  type MadeAlternate,
  type PhraseBody,
  type PhraseChange,
  type PhraseMark,
  type PhraseReference,
  type Seen,
} from './phrases.ts';
import { SONG_LIMITS } from './songLimits.ts';
import { flag, id, line, oneOf, optional, orNull, shape, text, typed, version, whole, type FieldsOf } from './typed.ts';

const phrase: FieldsOf<PhraseBody> = {
  name: line(SONG_LIMITS.phraseName),
  text: text(SONG_LIMITS.phraseText),
  layer: oneOf(LAYERS),
  certainty: oneOf(CERTAINTIES),
  reason: text(SONG_LIMITS.reason),
};

/** Checks `PhraseBody`. */
export const phraseSchema = shape<PhraseBody>(phrase);

/** Checks `PhraseChange`. */
export const phraseChangeSchema = shape<PhraseChange>({ ...phrase, version: version(), struck: flag() });

/** Checks `PhraseMark`; what is checked is checked against something. */
export const phraseMarkSchema = shape<PhraseMark>({
  version: version(),
  status: oneOf(PHRASE_STATUSES),
  against: typed<string>(
    Joi.when('status', { is: 'checked', then: line(SONG_LIMITS.against), otherwise: text(SONG_LIMITS.against) }),
  ),
});

/** Checks `PhraseReference`. */
export const phraseReferenceSchema = shape<PhraseReference>({
  version: version(),
  to: orNull(id()),
  move: shape<Move>({
    semitones: whole({ min: -36, max: 36 }),
    strings: whole({ min: -9, max: 9 }),
    openStays: flag(),
  }),
});

/** Checks what begins an alternate: nothing for a copy, or what was made. */
export const alternateSchema = shape<Partial<MadeAlternate>>(
  {
    name: optional(line(SONG_LIMITS.phraseName)),
    text: optional(text(SONG_LIMITS.phraseText)),
    reason: optional(text(SONG_LIMITS.reason)),
  },
  (schema) => schema.and('name', 'text', 'reason'),
);

/** Checks `Seen`. */
export const seenSchema = shape<Seen>({ version: version() });
