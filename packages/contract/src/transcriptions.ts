import { readMeter, TEMPO_RANGE, type Technique } from '@jam-ledger/core/notation';
import { readTuning } from '@jam-ledger/core/pitch';
import type { Shown } from '@jam-ledger/core/pieces';
import Joi from 'joi';
import { id, line, oneOf, text, version } from './check.ts';
import { LAYERS, type Layer, type Phrase } from './phrases.ts';
import { SONG_LIMITS } from './songLimits.ts';
import type { GuitarAndHand, Schools } from './students.ts';

/** What a section usually is to the song; anything else is named in one’s own words. */
export const SECTION_ROLES = [
  'intro',
  'verse',
  'riff',
  'pre-chorus',
  'chorus',
  'bridge',
  'solo',
  'fill',
  'interlude',
  'outro',
] as const;

/** How eighths and beats are felt. */
export const FEELS = ['straight', 'swing', 'shuffle', 'counted in threes'] as const;
/** One of the `FEELS`. */
export type SongFeel = (typeof FEELS)[number];

/** What is done about a recording that stands off pitch. */
export const PITCH_WAYS = ['tune the guitar', 'shift the playback'] as const;
/** One of the `PITCH_WAYS`. */
export type PitchWay = (typeof PITCH_WAYS)[number];

/** A change of tempo and meter at a place of the recording. */
export interface TempoMark {
  readonly atSeconds: number;
  readonly tempo: number;
  readonly meter: string;
}

/** A note on the rig (pickup, pedals, amplifier) and where it holds; `toSeconds` null for the end of the song. */
export interface RigNote {
  readonly fromSeconds: number;
  readonly toSeconds: number | null;
  readonly note: string;
}

/** The set-up as far as a phrase needs it. Tempo in quarter notes a minute. */
export interface SongBasics {
  readonly title: string;
  readonly whose: string;
  /** One of the tunings by name, or the open strings from the thickest, `C2 G2 D3 A3 E4`. */
  readonly tuning: string;
  readonly capo: number;
  readonly key: string;
  readonly tempo: number;
  readonly meter: string;
  readonly frets: number;
  /** How far the recording stands from A4 = 440 Hz, cents. */
  readonly offsetCents: number;
  readonly pitchWay: PitchWay;
  readonly feel: SongFeel;
}

/** How a song is set up for one student. */
export interface SetUp extends SongBasics {
  /** A second candidate where the key is in doubt; else empty. */
  readonly secondKey: string;
  /** Changes of tempo and meter after the start. */
  readonly changes: readonly TempoMark[];
  readonly rig: readonly RigNote[];
  readonly scaleLengthMm: number;
  /** How long the recording is; null where nobody said. */
  readonly songSeconds: number | null;
  readonly studentLayer: Layer;
}

const between = ({ min, max }: { readonly min: number; readonly max: number }) =>
  Joi.number().min(min).max(max).required();
const count = (max: number) => Joi.number().integer().min(1).max(max);
const meter = () =>
  Joi.string()
    .max(8)
    .required()
    .custom((value: string, helpers) => (readMeter(value) ? value : helpers.error('meter.none')));

const setUp = {
  title: line(SONG_LIMITS.title),
  whose: text(SONG_LIMITS.whose),
  tuning: Joi.string()
    .max(SONG_LIMITS.tuning)
    .required()
    .custom((value: string, helpers) => (readTuning(value) ? value : helpers.error('tuning.none'))),
  capo: between(SONG_LIMITS.capo).integer(),
  key: text(SONG_LIMITS.key),
  secondKey: text(SONG_LIMITS.key),
  tempo: between(TEMPO_RANGE),
  meter: meter(),
  feel: oneOf(FEELS),
  changes: Joi.array()
    .items(Joi.object({ atSeconds: between(SONG_LIMITS.startSeconds), tempo: between(TEMPO_RANGE), meter: meter() }))
    .max(SONG_LIMITS.changes)
    .required(),
  rig: Joi.array()
    .items(
      Joi.object({
        fromSeconds: between(SONG_LIMITS.startSeconds),
        toSeconds: between(SONG_LIMITS.startSeconds).greater(Joi.ref('fromSeconds')).allow(null),
        note: line(SONG_LIMITS.rigNote),
      }),
    )
    .max(SONG_LIMITS.changes)
    .required(),
  frets: between(SONG_LIMITS.frets).integer(),
  scaleLengthMm: between(SONG_LIMITS.scaleLengthMm),
  songSeconds: between({ min: 1, max: SONG_LIMITS.startSeconds.max }).allow(null),
  offsetCents: between(SONG_LIMITS.offsetCents),
  pitchWay: oneOf(PITCH_WAYS),
  studentLayer: oneOf(LAYERS),
};

/** Changes to a song's set-up, all fields together. */
export interface SetUpChange extends SetUp {
  readonly version: number;
}
/** Checks `SetUpChange`. */
export const setUpSchema: Joi.ObjectSchema<SetUpChange> = Joi.object<SetUpChange>({ ...setUp, version: version() });

/** What is left out or replaced on one pass of a section, and how many bars that pass has where it has fewer. */
export interface SectionPass {
  readonly pass: number | 'last';
  readonly change: string;
  readonly bars?: number;
}

/** A section of a song. */
export interface SectionBody {
  readonly label: string;
  /** One of the `SECTION_ROLES`, or one’s own. */
  readonly role: string;
  /** Where it starts in the recording, seconds. */
  readonly startSeconds: number;
  readonly bars: number;
  /** How often it goes round; `open`: about so often, to the fade. */
  readonly times: number;
  readonly open: boolean;
  readonly passes: readonly SectionPass[];
  /** The earlier section that comes again after this one, and how often; null to go on. */
  readonly jump: { readonly to: string; readonly times: number } | null;
}
const section = {
  label: line(SONG_LIMITS.label),
  role: line(SONG_LIMITS.label),
  startSeconds: between(SONG_LIMITS.startSeconds),
  bars: between(SONG_LIMITS.bars).integer(),
  times: count(SONG_LIMITS.times).required(),
  open: Joi.boolean().required(),
  passes: Joi.array()
    .items(
      Joi.object({
        pass: Joi.alternatives(count(SONG_LIMITS.times), Joi.valid('last')).required(),
        change: line(SONG_LIMITS.passChange),
        bars: count(SONG_LIMITS.bars.max),
      }),
    )
    .max(SONG_LIMITS.passes)
    .required(),
  jump: Joi.object({ to: id(), times: count(SONG_LIMITS.times).required() })
    .allow(null)
    .required(),
};
/** Checks `SectionBody`. */
export const sectionSchema: Joi.ObjectSchema<SectionBody> = Joi.object<SectionBody>(section);

/** A changed section; `struck` takes it out, and puts it back. */
export interface SectionChange extends SectionBody {
  readonly version: number;
  readonly struck: boolean;
}
/** Checks `SectionChange`. */
export const sectionChangeSchema: Joi.ObjectSchema<SectionChange> = Joi.object<SectionChange>({
  ...section,
  version: version(),
  struck: Joi.boolean().required(),
});

/** A section as it stands, with its phrases in order. */
export interface Section extends SectionBody {
  readonly id: string;
  readonly version: number;
  readonly struck: boolean;
  readonly phrases: readonly Phrase[];
}

/** A transcription in a list. */
export interface TranscriptionLine {
  readonly id: string;
  readonly title: string;
  readonly whose: string;
  readonly student: { readonly id: string; readonly name: string };
  readonly phrases: number;
}

/** The student a song is written for: guitar and hand, the schools that hold for them, and what they have played cleanly. */
export interface StudentOfSong {
  readonly id: string;
  readonly name: string;
  readonly guitar: GuitarAndHand;
  readonly schools: Schools;
  readonly played: readonly Technique[];
  /** Where pieces of known difficulty were first clean, for where to begin others. */
  readonly shown: readonly Shown[];
}

/** A transcription as it stands, with its sections in the order of the clock. */
export interface Transcription extends SetUp {
  readonly id: string;
  readonly version: number;
  readonly student: StudentOfSong;
  readonly sections: readonly Section[];
}
