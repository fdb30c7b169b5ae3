import { readMeter, TEMPO_RANGE } from '@jam-ledger/core/notation';
import { readKey, readTuning } from '@jam-ledger/core/pitch';
import Joi from 'joi';
import { LAYERS } from './phrases.ts';
import { SONG_LIMITS } from './songLimits.ts';
import {
  FEELS,
  PITCH_WAYS,
  RHYTHMS,
  type RigNote,
  type SectionAgain,
  type SectionBody,
  type SectionChange,
  type SectionPass,
  type SetUp,
  type SetUpChange,
  type SongBeginning,
  type TempoMark,
} from './songs.ts';
import {
  between,
  either,
  flag,
  id,
  line,
  list,
  oneOf,
  optional,
  orNull,
  shape,
  text,
  typed,
  version,
  whole,
  type FieldsOf,
} from './typed.ts';

const meter = () =>
  typed<string>(
    Joi.string()
      .max(8)
      .custom((value: string, helpers) => (readMeter(value) ? value : helpers.error('meter.none'))),
  );
const tuning = () =>
  typed<string>(
    Joi.string()
      .max(SONG_LIMITS.tuning)
      .custom((value: string, helpers) => (readTuning(value) ? value : helpers.error('tuning.none'))),
  );
/** A key as `readKey` reads it, or nothing while it is not said yet. */
export const keyText = () =>
  typed<string>(
    Joi.string()
      .max(SONG_LIMITS.key)
      .allow('')
      .custom((value: string, helpers) =>
        value.length > SONG_LIMITS.key || value.trim() === '' || readKey(value) ? value : helpers.error('key.none'),
      ),
  );
const seconds = () => between(SONG_LIMITS.startSeconds);

const setUp: FieldsOf<SetUp> = {
  title: line(SONG_LIMITS.title),
  whose: text(SONG_LIMITS.whose),
  tuning: tuning(),
  capo: whole(SONG_LIMITS.capo),
  key: keyText(),
  secondKey: keyText(),
  tempo: between(TEMPO_RANGE),
  tempoKnown: flag(),
  meter: meter(),
  feel: oneOf(FEELS),
  rhythm: oneOf(RHYTHMS),
  changes: list(
    shape<TempoMark>({ atSeconds: seconds(), tempo: between(TEMPO_RANGE), meter: meter(), key: keyText() }),
    {
      max: SONG_LIMITS.changes,
    },
  ),
  rig: list(
    shape<RigNote>({
      fromSeconds: seconds(),
      toSeconds: orNull(
        typed<number>(
          Joi.number()
            .min(SONG_LIMITS.startSeconds.min)
            .max(SONG_LIMITS.startSeconds.max)
            .greater(Joi.ref('fromSeconds')),
        ),
      ),
      note: line(SONG_LIMITS.rigNote),
    }),
    { max: SONG_LIMITS.changes },
  ),
  frets: whole(SONG_LIMITS.frets),
  scaleLengthMm: between(SONG_LIMITS.scaleLengthMm),
  songSeconds: orNull(between({ min: 1, max: SONG_LIMITS.startSeconds.max })),
  offsetCents: between(SONG_LIMITS.offsetCents),
  pitchWay: oneOf(PITCH_WAYS),
  studentLayer: oneOf(LAYERS),
};

/** Checks `SetUpChange`. */
export const setUpSchema = shape<SetUpChange>({ ...setUp, version: version() });

const times = () => whole({ min: 1, max: SONG_LIMITS.times });
const section: FieldsOf<SectionBody> = {
  label: line(SONG_LIMITS.label),
  role: line(SONG_LIMITS.label),
  startSeconds: seconds(),
  startKnown: flag(),
  bars: whole(SONG_LIMITS.bars),
  barsKnown: flag(),
  tuning: orNull(tuning()),
  capo: orNull(whole(SONG_LIMITS.capo)),
  times: times(),
  open: flag(),
  passes: list(
    shape<SectionPass>({
      pass: either(times(), oneOf(['last'])),
      change: line(SONG_LIMITS.passChange),
      bars: optional(whole({ min: 1, max: SONG_LIMITS.bars.max })),
    }),
    { max: SONG_LIMITS.passes },
  ),
  jump: orNull(shape<NonNullable<SectionBody['jump']>>({ to: id(), times: times() })),
};

/** Checks `SectionBody`. */
export const sectionSchema = shape<SectionBody>(section);

/** Checks `SectionAgain`. */
export const sectionAgainSchema = shape<SectionAgain>({ startSeconds: seconds(), startKnown: flag() });

/** Checks `SectionChange`. */
export const sectionChangeSchema = shape<SectionChange>({ ...section, version: version(), struck: flag() });

/** Checks `SongBeginning`. */
export const songBeginningSchema = shape<SongBeginning>({
  studentId: id(),
  title: line(SONG_LIMITS.title),
  whose: text(SONG_LIMITS.whose),
});
