import type { Click, PlayedNote } from '../notation/index.ts';
import { noiseOf, renderNotes, renderPlucks } from '../sound/index.ts';
import { addNoise } from './practiceRoom.ts';
import { loudness } from './audio.ts';

/** What a band plays, seconds of the song. */
export interface BandPart {
  /** The guitar in front. */
  readonly notes: readonly PlayedNote[];
  /** Bass and chords behind it. */
  readonly backing: readonly PlayedNote[];
  /** The beats, which the drums follow. */
  readonly clicks: readonly Click[];
  readonly seconds: number;
}

/** How a simulated band plays and is recorded. */
export interface BandOptions {
  /** The same seed plays the same. */
  readonly seed: number;
  /** How far the recording stands from A4 = 440 Hz, cents; 0 when left out. */
  readonly tuningCents?: number;
  /** How much faster and slower the tempo becomes, as a share; even when left out. */
  readonly drift?: number;
  /** How loud the backing is against the guitar, decibels; as loud when left out. */
  readonly backingDb?: number;
  /** How loud the drums are against the guitar, decibels; none when left out. */
  readonly drumsDb?: number;
  /** How far the noise lies below all of it, decibels; none when left out. */
  readonly noiseDb?: number;
  readonly guitar?: 'string' | 'plucks';
  readonly sampleRate?: number;
}

/** A recording of the simulated band: the guitar in the middle, the backing more to the left, the drums more to the right. */
export interface BandRecording {
  readonly left: Float32Array<ArrayBuffer>;
  readonly right: Float32Array<ArrayBuffer>;
  readonly sampleRate: number;
  /** When the beats were really played, seconds. */
  readonly beats: readonly number[];
}

/** The tempo swings once to and fro in so many seconds. Our choice. */
const SWING_SECONDS = 24;
/** Share of the backing in the left channel, and of the drums in the right one; the rest is in the other. Our choice. */
const ASIDE = 0.7;
/** The loudest sample of the recording. */
const PEAK = 0.7;

/** Plays a song as a band would that is recorded. Deterministic for a seed. Of notes × seconds. */
export function playAsBand(part: BandPart, options: BandOptions): BandRecording {
  const { seed, tuningCents = 0, drift = 0, backingDb = 0, drumsDb, noiseDb, guitar = 'string' } = options;
  const { sampleRate = 44_100 } = options;
  const random = noiseOf(seed * 104_729 + 7);
  const phase = Math.PI * random();
  const timeOf = (seconds: number) => {
    const turn = (2 * Math.PI) / SWING_SECONDS;
    return seconds + (drift / turn) * (Math.sin(turn * seconds + phase) - Math.sin(phase));
  };
  const seconds = timeOf(part.seconds);
  const played = (notes: readonly PlayedNote[]) => notes.map((note) => moved(note, timeOf, tuningCents));
  const options_ = { sampleRate, seed, seconds };
  const front = (guitar === 'string' ? renderNotes : renderPlucks)(played(part.notes), options_);
  const behind = (guitar === 'string' ? renderPlucks : renderNotes)(played(part.backing), {
    ...options_,
    seed: seed + 1,
  });
  const beats = part.clicks.map((click) => timeOf(click.seconds));
  const drums = new Float32Array(front.length);
  if (drumsDb !== undefined) addDrums(drums, part.clicks, { beats, sampleRate, random });
  const of = loudness(front) || loudness(behind) || 0.1;
  level(behind, of * 10 ** (backingDb / 20));
  level(drums, of * 10 ** ((drumsDb ?? 0) / 20));
  const left = front.map((sample, n) => sample + 2 * ASIDE * (behind[n] ?? 0) + 2 * (1 - ASIDE) * (drums[n] ?? 0));
  const right = front.map((sample, n) => sample + 2 * (1 - ASIDE) * (behind[n] ?? 0) + 2 * ASIDE * (drums[n] ?? 0));
  if (noiseDb !== undefined) [left, right].forEach((side, index) => addNoise(side, noiseDb, seed + index));
  let peak = 0;
  for (const side of [left, right]) for (const sample of side) if (Math.abs(sample) > peak) peak = Math.abs(sample);
  const gain = peak > 0 ? PEAK / peak : 1;
  for (const side of [left, right]) for (let n = 0; n < side.length; n += 1) side[n] = (side[n] ?? 0) * gain;
  return { left, right, sampleRate, beats };
}

function moved(note: PlayedNote, timeOf: (seconds: number) => number, tuningCents: number): PlayedNote {
  const startSeconds = timeOf(note.startSeconds);
  return {
    ...note,
    startSeconds,
    durationSeconds: Math.max(0.02, timeOf(note.startSeconds + note.durationSeconds) - startSeconds),
    midi: note.midi === null ? null : note.midi + tuningCents / 100,
  };
}

/** Brings a sound to a loudness, root mean square. */
function level(samples: Float32Array, to: number): void {
  const now = loudness(samples);
  if (now === 0) return;
  for (let n = 0; n < samples.length; n += 1) samples[n] = ((samples[n] ?? 0) * to) / now;
}

interface Drumming {
  readonly beats: readonly number[];
  readonly sampleRate: number;
  readonly random: () => number;
}

/** A drum on the first beat of the bar and every other one after it, a snare between, and a cymbal on each half beat. */
function addDrums(out: Float32Array, clicks: readonly Click[], { beats, sampleRate, random }: Drumming): void {
  let inBar = 0;
  clicks.forEach(({ accent }, index) => {
    inBar = accent ? 0 : inBar + 1;
    const at = beats[index] ?? 0;
    const next = beats[index + 1] ?? at + (at - (beats[index - 1] ?? at));
    const strike = inBar % 2 === 0 ? addDrum : addSnare;
    strike(out, Math.round(at * sampleRate), { sampleRate, random, loud: accent ? 1 : 0.8 });
    for (const half of [at, (at + next) / 2])
      addNoiseBurst(out, Math.round(half * sampleRate), { sampleRate, random, loud: 0.12, seconds: 0.03 });
  });
}

interface Stroke {
  readonly sampleRate: number;
  readonly random: () => number;
  readonly loud: number;
}

/** A drum head: a sine that falls from 110 to 50 Hz. */
function addDrum(out: Float32Array, from: number, { sampleRate, loud }: Stroke): void {
  let turn = 0;
  for (let n = 0; n < sampleRate * 0.18 && from + n < out.length; n += 1) {
    const share = n / (sampleRate * 0.18);
    turn += (2 * Math.PI * (50 + 60 * (1 - share) ** 3)) / sampleRate;
    out[from + n] = (out[from + n] ?? 0) + loud * Math.sin(turn) * (1 - share) ** 2;
  }
}

function addSnare(out: Float32Array, from: number, stroke: Stroke): void {
  addNoiseBurst(out, from, { ...stroke, loud: stroke.loud * 0.5, seconds: 0.12 });
}

function addNoiseBurst(
  out: Float32Array,
  from: number,
  { sampleRate, random, loud, seconds }: Stroke & { readonly seconds: number },
): void {
  const length = Math.round(seconds * sampleRate);
  for (let n = 0; n < length && from + n < out.length; n += 1)
    out[from + n] = (out[from + n] ?? 0) + loud * random() * (1 - n / length) ** 3;
}
