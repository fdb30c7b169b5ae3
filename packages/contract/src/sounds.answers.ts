import type { RecordingOfSong, SentTake, StudioSound } from './sounds.ts';
import { anyNumber, anyText, flag, id, orNull, shape, type FieldsOf, type SchemaOf } from './typed.ts';

const sound = (): FieldsOf<StudioSound> => ({
  id: id(),
  version: anyNumber(),
  name: anyText(),
  type: anyText(),
  bytes: anyNumber(),
  seconds: anyNumber(),
  print: anyText(),
  parts: anyNumber(),
  isKept: flag(),
});

/** Checks `StudioSound` as it is answered. */
export const studioSoundAnswer: SchemaOf<StudioSound> = shape<StudioSound>(sound());

/** Checks `RecordingOfSong` as it is answered. */
export const recordingOfSongAnswer: SchemaOf<RecordingOfSong> = shape<RecordingOfSong>({
  recording: orNull(shape<StudioSound>(sound())),
});

/** Checks `SentTake` as it is answered. */
export const sentTakeAnswer: SchemaOf<SentTake> = shape<SentTake>({
  ...sound(),
  pieceId: id(),
  by: anyText(),
  playedAt: anyText(),
  bpm: anyNumber(),
  isClean: flag(),
  came: anyText(),
  answer: anyText(),
  goesOn: anyText(),
});
