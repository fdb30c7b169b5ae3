import type { Technique } from '@jam-ledger/core/notation';
import type { Shown } from '@jam-ledger/core/pieces';
import type { Layer, Phrase } from './phrases.ts';
import type { GuitarAndHand, Schools } from './schools.ts';

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

/** A change of tempo, meter and key at a place of the recording; an empty key goes on as before. */
export interface TempoMark {
  readonly atSeconds: number;
  readonly tempo: number;
  readonly meter: string;
  readonly key: string;
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

/** Changes to a song's set-up, all fields together. */
export interface SetUpChange extends SetUp {
  readonly version: number;
}

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

/** A changed section; `struck` takes it out, and puts it back. */
export interface SectionChange extends SectionBody {
  readonly version: number;
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
