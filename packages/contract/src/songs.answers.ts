import { TECHNIQUES } from '@jam-ledger/core/notation';
import { shownAnswer } from './standings.answers.ts';
import { phraseAnswer } from './phrases.answers.ts';
import { LAYERS } from './phrases.ts';
import { guitarAndHandAnswer, schoolsAnswer } from './schools.answers.ts';
import {
  FEELS,
  PITCH_WAYS,
  RHYTHMS,
  type RigNote,
  type Section,
  type SectionPass,
  type StudentOfSong,
  type TempoMark,
  type Transcription,
  type TranscriptionLine,
} from './songs.ts';
import {
  anyNumber,
  anyText,
  either,
  flag,
  id,
  list,
  named,
  oneOf,
  optional,
  orNull,
  shape,
  type SchemaOf,
} from './typed.ts';

/** Checks `TranscriptionLine` as it is answered. */
export const transcriptionLineAnswer: SchemaOf<TranscriptionLine> = shape<TranscriptionLine>({
  id: id(),
  title: anyText(),
  whose: anyText(),
  student: named(),
  phrases: anyNumber(),
});

/** Checks `StudentOfSong` as it is answered. */
export const studentOfSongAnswer: SchemaOf<StudentOfSong> = shape<StudentOfSong>({
  id: id(),
  name: anyText(),
  isStudent: flag(),
  guitar: guitarAndHandAnswer,
  schools: schoolsAnswer,
  played: list(oneOf(TECHNIQUES)),
  shown: list(shownAnswer),
});

/** Checks `SectionPass` as it is answered. */
export const sectionPassAnswer: SchemaOf<SectionPass> = shape<SectionPass>({
  pass: either(anyNumber(), oneOf(['last'])),
  change: anyText(),
  bars: optional(anyNumber()),
});

/** Checks `Section` as it is answered. */
export const sectionAnswer: SchemaOf<Section> = shape<Section>({
  id: id(),
  version: anyNumber(),
  struck: flag(),
  phrases: list(phraseAnswer),
  label: anyText(),
  role: anyText(),
  startSeconds: anyNumber(),
  startKnown: flag(),
  bars: anyNumber(),
  barsKnown: flag(),
  tuning: orNull(anyText()),
  capo: orNull(anyNumber()),
  times: anyNumber(),
  open: flag(),
  passes: list(sectionPassAnswer),
  jump: orNull(
    shape<NonNullable<Section['jump']>>({
      to: anyText(),
      times: anyNumber(),
    }),
  ),
});

/** Checks `TempoMark` as it is answered. */
export const tempoMarkAnswer: SchemaOf<TempoMark> = shape<TempoMark>({
  atSeconds: anyNumber(),
  tempo: anyNumber(),
  meter: anyText(),
  key: anyText(),
});

/** Checks `RigNote` as it is answered. */
export const rigNoteAnswer: SchemaOf<RigNote> = shape<RigNote>({
  fromSeconds: anyNumber(),
  toSeconds: orNull(anyNumber()),
  note: anyText(),
});

/** Checks `Transcription` as it is answered. */
export const transcriptionAnswer: SchemaOf<Transcription> = shape<Transcription>({
  id: id(),
  version: anyNumber(),
  student: studentOfSongAnswer,
  sections: list(sectionAnswer),
  secondKey: anyText(),
  changes: list(tempoMarkAnswer),
  rig: list(rigNoteAnswer),
  scaleLengthMm: anyNumber(),
  songSeconds: orNull(anyNumber()),
  studentLayer: oneOf(LAYERS),
  title: anyText(),
  whose: anyText(),
  tuning: anyText(),
  capo: anyNumber(),
  key: anyText(),
  tempo: anyNumber(),
  tempoKnown: flag(),
  meter: anyText(),
  frets: anyNumber(),
  offsetCents: anyNumber(),
  pitchWay: oneOf(PITCH_WAYS),
  feel: oneOf(FEELS),
  rhythm: oneOf(RHYTHMS),
});
