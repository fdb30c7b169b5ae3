import type { Click, PlayedNote } from '../notation/index.ts';
import { centsAt } from '../notation/index.ts';
import { hzOf } from '../pitch/index.ts';
import { CONTROL_SAMPLES, PluckedString } from './string.ts';
import { noiseOf } from './tone.ts';

/** How sound is rendered. */
export interface RenderOptions {
  /** Samples a second. */
  readonly sampleRate: number;
  /** The same seed gives the same samples. */
  readonly seed?: number;
  /** Length in seconds; until the last note has died away when left out. */
  readonly seconds?: number;
}

/** Loudness of one string at level 1; six together rarely reach the knee. Our choice. */
const STRING_LEVEL = 0.34;

/** Above this loudness peaks are rounded off, so that nothing ever clips. Our choice. */
const KNEE = 0.7;

/** Pitch that a dead string thumps at, MIDI; without ring it is heard as a knock. Our choice. */
const DEAD_MIDI = 45;

/** Loudness of a legato note's own small push, by how the finger moves. Our choice. */
const LEGATO_PUSH = { hammer: 0.35, pull: 0.45, tap: 0.5 } as const;

/** How long a rendering goes on after its last note, seconds. */
const TAIL_SECONDS = 0.6;

/** So many samples are made of all strings before the next. Our choice. */
const STRETCH = 1024;

/** How often a string whose pitch does not move is looked at, samples. Our choice. */
const LEVEL_SAMPLES = 256;

/** Below this a string is silent and rests: 90 dB under full scale. Our choice. */
const SILENCE = 3e-5;

/**
 * Renders notes as plucked strings, mono, -1 to 1. Notes of one string follow one another on one vibrating
 * loop: a slide or bend retunes it, a pick sets it going anew. Deterministic for a seed.
 */
export function renderNotes(played: readonly PlayedNote[], options: RenderOptions): Float32Array<ArrayBuffer> {
  const end = Math.max(0, ...played.map((note) => note.startSeconds + note.durationSeconds));
  const seconds = options.seconds ?? end + TAIL_SECONDS;
  const frames = Math.round(seconds * options.sampleRate);
  return startRendering(played, options).next(frames);
}

/** A rendering that is taken piece by piece, so that sound can begin before all of it is made. */
export interface Rendering {
  /** The next so many samples. */
  next(frames: number): Float32Array<ArrayBuffer>;
}

/** Starts a rendering of notes; what its pieces give, joined, is what `renderNotes` gives at once. */
export function startRendering(played: readonly PlayedNote[], options: RenderOptions): Rendering {
  const strings = [...new Set(played.map(({ string }) => string))];
  const voices = strings.map((string) => {
    const notes = played.filter((note) => note.string === string);
    return new Voice(notes, options.sampleRate, (options.seed ?? 1) * 31 + string);
  });
  let at = 0;
  // Stretch by stretch, so that what all strings are added to stays near the processor.
  const stretch = new Float64Array(STRETCH);
  return {
    next(frames) {
      const out = new Float32Array(frames);
      for (let from = 0; from < frames; from += STRETCH) {
        const sum = from + STRETCH <= frames ? stretch : stretch.subarray(0, frames - from);
        sum.fill(0);
        for (const voice of voices) voice.render(sum, at + from);
        roundPeaks(sum, out, from);
      }
      at += frames;
      return out;
    },
  };
}

/** Writes a sum of strings to `out`, its peaks rounded off. */
function roundPeaks(sum: Float64Array, out: Float32Array, from: number): void {
  if (mayBeLoud(sum)) for (let n = 0; n < sum.length; n += 1) sum[n] = rounded(sum[n] ?? 0);
  out.set(sum, from);
}

/** Whether samples may lie above the knee: no four do that are not so loud together. Most stretches have none. */
function mayBeLoud(sum: Float64Array): boolean {
  for (let n = 0; n < sum.length; n += 4) {
    const a = sum[n] ?? 0;
    const b = sum[n + 1] ?? 0;
    const c = sum[n + 2] ?? 0;
    const d = sum[n + 3] ?? 0;
    if (a * a + b * b + c * c + d * d > KNEE * KNEE) return true;
  }
  return false;
}

function rounded(sample: number): number {
  const over = Math.abs(sample) - KNEE;
  const room = 1 - KNEE;
  return over > 0 ? Math.sign(sample) * (KNEE + room * Math.tanh(over / room)) : sample;
}

/** The notes of one string in time. */
class Voice {
  readonly #notes: readonly PlayedNote[];
  /** When each note begins, samples; nothing begins behind the last. */
  readonly #starts: readonly number[];
  readonly #sampleRate: number;
  readonly #string: PluckedString;
  #next = 0;
  #sounding: PlayedNote | undefined;
  /** When what sounds began, seconds, when it is released, samples, and its pitch before anything moves it, hertz. */
  #began = 0;
  #ends = 0;
  #hz = 0;
  #released = true;
  #silent = true;
  /** When its next step is, samples. */
  #control = 0;

  constructor(notes: readonly PlayedNote[], sampleRate: number, seed: number) {
    this.#notes = notes;
    this.#sampleRate = sampleRate;
    this.#starts = notes.map(({ startSeconds }) => Math.round(startSeconds * sampleRate));
    this.#string = new PluckedString(sampleRate, noiseOf(seed));
  }

  render(out: Float64Array, from: number): void {
    let done = 0;
    while (done < out.length) {
      const at = from + done;
      this.#begin(at);
      this.#release(at);
      if (!this.#silent && this.#control <= at) this.#step(at);
      const untilStep = this.#silent ? Infinity : this.#control - at;
      const block = Math.min(out.length - done, this.#untilNext(at), this.#untilEnd(at), untilStep);
      if (!this.#silent) this.#string.render(out, done, block);
      done += block;
    }
  }

  /** What a sounding string does every so many samples, in whatever pieces it is rendered: it follows a pitch that moves, and rests when it has died away. */
  #step(at: number): void {
    if (this.#released && this.#string.isBelow(SILENCE)) this.#silent = true;
    const moves = (this.#sounding?.contour.length ?? 0) > 1;
    if (moves) this.#follow(at);
    this.#control = at + (moves ? CONTROL_SAMPLES : LEVEL_SAMPLES);
  }

  #untilNext(at: number): number {
    return Math.max(1, (this.#starts[this.#next] ?? Infinity) - at);
  }

  #untilEnd(at: number): number {
    return this.#released ? Infinity : Math.max(1, this.#ends - at);
  }

  #begin(at: number): void {
    for (
      let note = this.#notes[this.#next];
      note && (this.#starts[this.#next] ?? 0) <= at;
      note = this.#notes[this.#next]
    ) {
      this.#began = note.startSeconds;
      this.#ends = Math.round((note.startSeconds + note.durationSeconds) * this.#sampleRate);
      this.#hz = hzOf(note.midi ?? DEAD_MIDI + (6 - Math.min(6, note.string)) * 4);
      this.#next += 1;
      this.#sounding = note;
      this.#released = false;
      this.#silent = false;
      this.#control = at;
      this.#string.damp(note.midi === null ? 'dead' : note.palmMuted ? 'muted' : 'open');
      this.#follow(at);
      this.#excite(note);
    }
  }

  #excite(note: PlayedNote): void {
    if (note.attack === 'none') return;
    const push = note.attack === 'pick' || note.attack === 'finger' ? 1 : LEGATO_PUSH[note.attack];
    const softness = note.midi === null ? 0.85 : note.attack === 'finger' || note.palmMuted ? 0.6 : 0.3;
    this.#string.excite(this.#hzAt(note, 0), STRING_LEVEL * note.level * push, softness, push === 1);
  }

  #release(at: number): void {
    if (this.#released || this.#ends > at) return;
    this.#released = true;
    this.#string.damp('released');
    this.#follow(at);
  }

  #follow(at: number): void {
    if (this.#sounding) this.#string.tune(this.#hzAt(this.#sounding, at / this.#sampleRate - this.#began));
  }

  /** The pitch of the note that sounds, hertz, so many seconds after it began; a dead string has one of its own. */
  #hzAt({ midi, contour }: PlayedNote, seconds: number): number {
    if (midi === null) return this.#hz;
    const cents = contour.length <= 1 ? (contour[0]?.cents ?? 0) : centsAt(contour, seconds);
    return cents === 0 ? this.#hz : this.#hz * Math.exp(cents * PER_CENT);
  }
}

/** The exponent of a cent. */
const PER_CENT = Math.LN2 / 1200;

/** Frequency, length and loudness of a click: a short high beat, higher on the first of the bar. Our choice. */
const CLICK = { hz: 1000, accentHz: 1500, seconds: 0.03, level: 0.5, accentLevel: 0.8 } as const;

/** A stretch of samples: its first one, and how many. */
export interface ClickOptions {
  readonly sampleRate: number;
  readonly from: number;
  readonly frames: number;
}

/** Renders a stretch of clicks, mono; what its stretches give, joined, is the whole. */
export function renderClick(
  clicks: readonly Click[],
  { sampleRate, from: first, frames }: ClickOptions,
): Float32Array<ArrayBuffer> {
  const out = new Float32Array(frames);
  const length = Math.round(CLICK.seconds * sampleRate);
  for (const { seconds: at, accent } of clicks) {
    const from = Math.round(at * sampleRate) - first;
    if (from >= frames || from + length <= 0) continue;
    const omega = (2 * Math.PI * (accent ? CLICK.accentHz : CLICK.hz)) / sampleRate;
    const level = accent ? CLICK.accentLevel : CLICK.level;
    for (let n = Math.max(0, -from); n < length && from + n < frames; n += 1)
      out[from + n] = (out[from + n] ?? 0) + level * Math.sin(omega * n) * (1 - n / length) ** 3;
  }
  return out;
}
