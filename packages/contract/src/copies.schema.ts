import { COPY_KINDS, type CopyBody, type LickBody } from './copies.ts';
import { SONG_LIMITS } from './songLimits.ts';
import { keyText } from './songs.schema.ts';
import { flag, id, line, oneOf, orNull, shape, text } from './typed.ts';

/** Checks `CopyBody`. */
export const copySchema = shape<CopyBody>({
  kind: oneOf(COPY_KINDS),
  id: id(),
  studentId: id(),
  songId: orNull(id()),
  follows: flag(),
});

/** Checks `LickBody`. */
export const lickSchema = shape<LickBody>({
  name: line(SONG_LIMITS.phraseName),
  text: text(SONG_LIMITS.phraseText),
  key: keyText(),
});
