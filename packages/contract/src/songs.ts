import { STARTING_VALUE, type NoteValue, type Technique } from '@jam-ledger/core/notation';
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
/** How lengths are written where a phrase says none: counted, an eighth each; or by feel, only in their order. */
export const RHYTHMS = ['counted', 'by feel'] as const;
/** One of the `RHYTHMS`. */
export type Rhythm = (typeof RHYTHMS)[number];

/** The value that phrases of a song begin with. */
export function startValueOf(rhythm: Rhythm): NoteValue {
  return rhythm === 'by feel' ? 'untimed' : STARTING_VALUE;
}

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
  readonly rhythm: Rhythm;
}

/** How a song is set up for one student. */
export interface SetUp extends SongBasics {
  /** False where nobody said how fast it is: the tempo is supposed then. */
  readonly tempoKnown: boolean;
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
  /** Where it starts in the recording, seconds; supposed where `startKnown` is false. */
  readonly startSeconds: number;
  readonly startKnown: boolean;
  /** How long it is; supposed where `barsKnown` is false. */
  readonly bars: number;
  readonly barsKnown: boolean;
  /** The tuning from here on, where the guitar is another; null where it is that of the song. */
  readonly tuning: string | null;
  /** The capo from here on, by the same rule. */
  readonly capo: number | null;
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

/** Where a section is to come again that refers to an earlier one; supposed where `startKnown` is false. */
export interface SectionAgain {
  readonly startSeconds: number;
  readonly startKnown: boolean;
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
  /** Whether it is a student; else a teacher, whose own licks these are. */
  readonly isStudent: boolean;
  readonly guitar: GuitarAndHand;
  readonly schools: Schools;
  readonly played: readonly Technique[];
  /** Where pieces of known difficulty were first clean, for where to begin others. */
  readonly shown: readonly Shown[];
}

/** A song that a teacher begins without a request. */
export interface SongBeginning {
  readonly studentId: string;
  readonly title: string;
  /** Whose it is; empty where nobody says. */
  readonly whose: string;
}

/** A transcription as it stands, with its sections in the order of the clock. */
export interface Transcription extends SetUp {
  readonly id: string;
  readonly version: number;
  readonly student: StudentOfSong;
  readonly sections: readonly Section[];
}

/** A song with the guitar that one of its sections is played on. */
export function songAt<Song extends { readonly tuning: string; readonly capo: number }>(
  song: Song,
  section: Pick<SectionBody, 'tuning' | 'capo'> | undefined,
): Song {
  if (!section || (section.tuning === null && section.capo === null)) return song;
  return { ...song, tuning: section.tuning ?? song.tuning, capo: section.capo ?? song.capo };
}
