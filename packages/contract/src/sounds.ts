/** What is kept as sound: the recording of a song, or a student’s take of a piece. */
export const SOUND_KINDS = ['recording', 'take'] as const;
/** One of the `SOUND_KINDS`. */
export type SoundKind = (typeof SOUND_KINDS)[number];

/** Limits of what is kept as sound. Bytes, seconds, letters. Our choice. */
export const SOUND_LIMITS = {
  /** The longest and largest recording and take. */
  recording: { seconds: 1800, bytes: 100_000_000 },
  take: { seconds: 600, bytes: 10_000_000 },
  /** What is sent at once, but for the last part. */
  part: 524_288,
  /** All that a studio keeps. */
  studio: 2_000_000_000,
  name: 200,
  type: 80,
  came: 200,
  answer: 500,
  /** A take goes after so many days. */
  takeDays: 90,
} as const;

/** What is known of a file of sound: enough to tell whether another file is the same. */
export interface SoundFacts {
  readonly name: string;
  /** Its media type, `audio/flac`. */
  readonly type: string;
  readonly bytes: number;
  readonly seconds: number;
  /** The SHA-256 of its bytes in hexadecimal. */
  readonly print: string;
}

/** A sound that the studio knows of. */
export interface StudioSound extends SoundFacts {
  readonly id: string;
  readonly version: number;
  /** How many parts of it are here; all of them where it is kept. */
  readonly parts: number;
  /** Whether all of it is here and can be heard. */
  readonly isKept: boolean;
}

/** The recording that a song is worked out from, as far as somebody brought one. */
export interface RecordingOfSong {
  readonly recording: StudioSound | null;
}

/** A take as a student sends it. */
export interface TakeBody extends SoundFacts {
  /** Made by the device, so that what is sent twice is there once. */
  readonly id: string;
  /** When it was played, by the clock of the device. */
  readonly playedAt: string;
  /** The tempo really played, quarter notes a minute. */
  readonly bpm: number;
  /** Whether it was clean by the rule, and what it came to in words. */
  readonly isClean: boolean;
  readonly came: string;
}

/** A take that was sent. */
export interface SentTake extends StudioSound {
  readonly pieceId: string;
  readonly by: string;
  readonly playedAt: string;
  readonly bpm: number;
  readonly isClean: boolean;
  readonly came: string;
  /** What the teacher answered; empty while nobody did. */
  readonly answer: string;
  /** The day on which it goes. */
  readonly goesOn: string;
}

/** What a teacher says of a take. */
export interface TakeAnswer {
  readonly version: number;
  readonly answer: string;
}

/** Which part of a sound is sent. */
export interface PartQuery {
  readonly part: number;
}

/** How many parts a sound of so many bytes has. */
export function partsOf(bytes: number): number {
  return Math.max(1, Math.ceil(bytes / SOUND_LIMITS.part));
}
