import type { Click, PlayedNote } from '../notation/index.ts';
import { centsAt, type ContourPoint } from '../notation/index.ts';
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

/** Below this a string is silent and rests. */
const SILENCE = 1e-5;

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
  return {
    next(frames) {
      const out = new Float32Array(frames);
      for (const voice of voices) voice.render(out, at);
      roundPeaks(out);
      at += frames;
      return out;
    },
  };
}

function roundPeaks(samples: Float32Array): void {
  const room = 1 - KNEE;
  for (let n = 0; n < samples.length; n += 1) {
    const sample = samples[n] ?? 0;
    const over = Math.abs(sample) - KNEE;
    if (over > 0) samples[n] = Math.sign(sample) * (KNEE + room * Math.tanh(over / room));
  }
}

/** The notes of one string in time. */
class Voice {
  readonly #notes: readonly PlayedNote[];
  readonly #sampleRate: number;
  readonly #string: PluckedString;
  #next = 0;
  #sounding: PlayedNote | undefined;
  #released = true;
  #silent = true;
  #control = 0;

  constructor(notes: readonly PlayedNote[], sampleRate: number, seed: number) {
    this.#notes = notes;
    this.#sampleRate = sampleRate;
    this.#string = new PluckedString(sampleRate, noiseOf(seed));
  }

  render(out: Float32Array, from: number): void {
    let done = 0;
    while (done < out.length) {
      const at = from + done;
      this.#begin(at);
      this.#release(at);
      const block = Math.min(out.length - done, this.#untilNext(at), this.#untilEnd(at), this.#untilControl(at));
      if (!this.#silent) {
        if (this.#control === at) this.#follow(at);
        const peak = this.#string.render(out, done, block);
        if (this.#released && peak < SILENCE) this.#silent = true;
      }
      if (this.#control <= at) this.#control = at + CONTROL_SAMPLES;
      done += block;
    }
  }

  #frame(seconds: number): number {
    return Math.round(seconds * this.#sampleRate);
  }

  #untilNext(at: number): number {
    const next = this.#notes[this.#next];
    return next ? Math.max(1, this.#frame(next.startSeconds) - at) : Infinity;
  }

  #untilEnd(at: number): number {
    if (!this.#sounding || this.#released) return Infinity;
    return Math.max(1, this.#frame(this.#sounding.startSeconds + this.#sounding.durationSeconds) - at);
  }

  #untilControl(at: number): number {
    if (this.#silent) return Infinity;
    return this.#control > at ? this.#control - at : CONTROL_SAMPLES;
  }

  #begin(at: number): void {
    for (
      let note = this.#notes[this.#next];
      note && this.#frame(note.startSeconds) <= at;
      note = this.#notes[this.#next]
    ) {
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
    this.#string.excite(pitchOf(note, 0), STRING_LEVEL * note.level * push, softness, push === 1);
  }

  #release(at: number): void {
    const note = this.#sounding;
    if (!note || this.#released || this.#frame(note.startSeconds + note.durationSeconds) > at) return;
    this.#released = true;
    this.#string.damp('released');
    this.#follow(at);
  }

  #follow(at: number): void {
    if (this.#sounding) this.#string.tune(pitchOf(this.#sounding, at / this.#sampleRate - this.#sounding.startSeconds));
  }
}

function pitchOf(note: PlayedNote, seconds: number): number {
  if (note.midi === null) return hzOf(DEAD_MIDI + (6 - Math.min(6, note.string)) * 4);
  return hzOf(note.midi + flatOr(note.contour, seconds) / 100);
}

function flatOr(contour: readonly ContourPoint[], seconds: number): number {
  return contour.length <= 1 ? (contour[0]?.cents ?? 0) : centsAt(contour, seconds);
}

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
