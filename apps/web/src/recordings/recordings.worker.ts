import { writeWav } from '@jam-ledger/core/formats';
import {
  draftLine,
  hearBeat,
  loudnessOver,
  LISTEN_RATE,
  offPitchOf,
  pitchesAt,
  playAsBand,
  resample,
  weighTab,
  type AgreeOptions,
  type BandOptions,
  type BandPart,
  type BeatOptions,
  type Draft,
  type HeardBeat,
  type LoudnessOver,
  type OffPitch,
  type WeighedEvent,
} from '@jam-ledger/core/listen';
import type { PlayedNote } from '@jam-ledger/core/notation';
import { renderNotes } from '@jam-ledger/core/sound';
import { expose, transfer } from 'comlink';

/** What a recording tells at once; what it does not tell is null. */
export interface Heard {
  readonly off: OffPitch | null;
  readonly beat: HeardBeat | null;
  readonly loud: LoudnessOver;
}

let samples = new Float32Array(0);

/** Seconds around a stretch of the tab that are listened to with it. */
const AROUND = 0.6;

/** Listens to the recording of a song, away from the page. */
const listener = {
  /** Takes the sound in; all that is asked later is of it. */
  open(sound: Float32Array, sampleRate: number): void {
    samples = new Float32Array(resample({ samples: sound, sampleRate }).samples);
  },
  hear(options: BeatOptions): Heard {
    return { off: offPitchOf(samples) ?? null, beat: hearBeat(samples, options) ?? null, loud: loudnessOver(samples) };
  },
  pitches(seconds: number, offCents: number): readonly number[] {
    return pitchesAt(samples, seconds, offCents);
  },
  weigh(played: readonly PlayedNote[], options: AgreeOptions): readonly WeighedEvent[] {
    const from = Math.max(0, options.atSeconds - AROUND);
    const end = Math.max(0, ...played.map((note) => note.startSeconds + note.durationSeconds));
    const part = stretch(from, options.atSeconds + end + AROUND);
    const weighed = weighTab(part, played, { ...options, atSeconds: options.atSeconds - from });
    return weighed.map((one) => ({ ...one, seconds: one.seconds + from }));
  },
  draft(from: number, to: number, offCents: number): Draft {
    return draftLine(stretch(from, to), offCents);
  },
  /** The phrase as it is written, as loud as the recording around it. */
  render(played: readonly PlayedNote[], sampleRate: number, seconds: number): Float32Array<ArrayBuffer> {
    const sound = renderNotes(played, { sampleRate, seconds });
    return transfer(sound, [sound.buffer]);
  },
  /** A recording of the simulated band as a WAV file, as if it had been brought. */
  band(part: BandPart, options: BandOptions): Uint8Array<ArrayBuffer> {
    const { left, right, sampleRate } = playAsBand(part, options);
    const both = new Float32Array(2 * left.length);
    left.forEach((sample, n) => both.set([sample, right[n] ?? 0], 2 * n));
    const file = writeWav([both], sampleRate, 2);
    return transfer(file, [file.buffer]);
  },
};

function stretch(from: number, to: number): Float32Array {
  return samples.subarray(Math.round(from * LISTEN_RATE), Math.max(0, Math.round(to * LISTEN_RATE)));
}

/** What the page can ask of this worker. */
export type RecordingListener = typeof listener;

expose(listener);
