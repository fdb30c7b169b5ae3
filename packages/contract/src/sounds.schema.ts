import Joi from 'joi';
import { tempo } from './pieces.schema.ts';
import { SOUND_LIMITS, type PartQuery, type SoundFacts, type TakeAnswer, type TakeBody } from './sounds.ts';
import {
  asText,
  between,
  flag,
  id,
  line,
  moment,
  shape,
  text,
  typed,
  version,
  whole,
  type FieldsOf,
  type SchemaOf,
} from './typed.ts';

/** The SHA-256 of a file in hexadecimal. */
function print(): SchemaOf<string> {
  return typed<string>(
    Joi.string()
      .pattern(/^[0-9a-f]{64}$/)
      .messages({ 'string.pattern.base': 'The digest of the file has 64 digits.' }),
  );
}

function facts(kind: 'recording' | 'take'): FieldsOf<SoundFacts> {
  const { seconds, bytes } = SOUND_LIMITS[kind];
  return {
    name: line(SOUND_LIMITS.name),
    type: text(SOUND_LIMITS.type),
    bytes: whole({ min: 1, max: bytes }),
    seconds: between({ min: 0, max: seconds }),
    print: print(),
  };
}

/** Checks `SoundFacts` of a recording. */
export const recordingSchema = shape<SoundFacts>(facts('recording'));

/** Checks `TakeBody`. */
export const takeSchema = shape<TakeBody>({
  id: id(),
  ...facts('take'),
  playedAt: moment(),
  bpm: tempo(),
  isClean: flag(),
  came: text(SOUND_LIMITS.came),
});

/** Checks `TakeAnswer`. */
export const takeAnswerSchema = shape<TakeAnswer>({ version: version(), answer: text(SOUND_LIMITS.answer) });

/** Checks `PartQuery`. */
export const partQuerySchema = shape<PartQuery>({ part: asText(whole({ min: 0, max: 200 })) });
