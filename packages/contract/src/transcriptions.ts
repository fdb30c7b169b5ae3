import { readMeter, TEMPO_RANGE } from '@jam-ledger/core/notation';
import { TUNING_NAMES, type TuningName } from '@jam-ledger/core/pitch';
import Joi from 'joi';
import { text, line, version } from './check.ts';

/** Limits of a song's set-up, its sections and phrases. */
export const SONG_LIMITS = {
  title: 120,
  whose: 120,
  key: 24,
  capo: { least: 0, most: 12 },
  frets: { least: 12, most: 36 },
  offsetCents: { least: -100, most: 100 },
  label: 24,
  startSeconds: { least: 0, most: 7200 },
  bars: { least: 1, most: 999 },
  phraseName: 80,
  phraseText: 65_536,
} as const;

/** What a section is to the song. */
export const SECTION_ROLES = ['intro', 'verse', 'chorus', 'bridge', 'riff', 'fill', 'solo', 'outro', 'other'] as const;
/** One of the `SECTION_ROLES`. */
export type SectionRole = (typeof SECTION_ROLES)[number];

/** How a song is set up for one student. Tempo in quarter notes a minute. */
export interface SetUp {
  readonly title: string;
  readonly whose: string;
  readonly tuning: TuningName;
  readonly capo: number;
  readonly key: string;
  readonly tempo: number;
  readonly meter: string;
  readonly frets: number;
  /** How far the recording stands from A4 = 440 Hz, cents. */
  readonly offsetCents: number;
}

const setUp = {
  title: line(SONG_LIMITS.title),
  whose: text(SONG_LIMITS.whose),
  tuning: Joi.string()
    .valid(...TUNING_NAMES)
    .required(),
  capo: Joi.number().integer().min(SONG_LIMITS.capo.least).max(SONG_LIMITS.capo.most).required(),
  key: text(SONG_LIMITS.key),
  tempo: Joi.number().min(TEMPO_RANGE.least).max(TEMPO_RANGE.most).required(),
  meter: Joi.string()
    .max(8)
    .required()
    .custom((value: string, helpers) => (readMeter(value) ? value : helpers.error('meter.none'))),
  frets: Joi.number().integer().min(SONG_LIMITS.frets.least).max(SONG_LIMITS.frets.most).required(),
  offsetCents: Joi.number().min(SONG_LIMITS.offsetCents.least).max(SONG_LIMITS.offsetCents.most).required(),
};

/** Changes to a song's set-up, all fields together. */
export interface SetUpChange extends SetUp {
  readonly version: number;
}
/** Checks `SetUpChange`. */
export const setUpSchema: Joi.ObjectSchema<SetUpChange> = Joi.object<SetUpChange, true>({
  ...setUp,
  version: version(),
});

/** A section of a song. */
export interface SectionBody {
  readonly label: string;
  readonly role: SectionRole;
  /** Where it starts in the recording, seconds. */
  readonly startSeconds: number;
  readonly bars: number;
}
const section = {
  label: line(SONG_LIMITS.label),
  role: Joi.string()
    .valid(...SECTION_ROLES)
    .required(),
  startSeconds: Joi.number().min(SONG_LIMITS.startSeconds.least).max(SONG_LIMITS.startSeconds.most).required(),
  bars: Joi.number().integer().min(SONG_LIMITS.bars.least).max(SONG_LIMITS.bars.most).required(),
};
/** Checks `SectionBody`. */
export const sectionSchema: Joi.ObjectSchema<SectionBody> = Joi.object<SectionBody, true>(section);

/** A changed section; `struck` takes it out, and puts it back. */
export interface SectionChange extends SectionBody {
  readonly version: number;
  readonly struck: boolean;
}
/** Checks `SectionChange`. */
export const sectionChangeSchema: Joi.ObjectSchema<SectionChange> = Joi.object<SectionChange, true>({
  ...section,
  version: version(),
  struck: Joi.boolean().required(),
});

/** A phrase: its name and its shorthand exactly as typed. */
export interface PhraseBody {
  readonly name: string;
  readonly text: string;
}
const phrase = {
  name: line(SONG_LIMITS.phraseName),
  text: text(SONG_LIMITS.phraseText),
};
/** Checks `PhraseBody`. */
export const phraseSchema: Joi.ObjectSchema<PhraseBody> = Joi.object<PhraseBody, true>(phrase);

/** A changed phrase; `struck` takes it out, and puts it back. */
export interface PhraseChange extends PhraseBody {
  readonly version: number;
  readonly struck: boolean;
}
/** Checks `PhraseChange`. */
export const phraseChangeSchema: Joi.ObjectSchema<PhraseChange> = Joi.object<PhraseChange, true>({
  ...phrase,
  version: version(),
  struck: Joi.boolean().required(),
});

/** A phrase as it stands. */
export interface Phrase extends PhraseBody {
  readonly id: string;
  readonly version: number;
  readonly sectionId: string;
  readonly struck: boolean;
}

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

/** A transcription as it stands, with its sections in the order of the clock. */
export interface Transcription extends SetUp {
  readonly id: string;
  readonly version: number;
  readonly student: { readonly id: string; readonly name: string };
  readonly sections: readonly Section[];
}
