import { BodyTone, type Noise } from './tone.ts';

/** How often the delay of a sounding string follows its contour, samples. */
export const CONTROL_SAMPLES = 16;

/** Lowest pitch a string model is built for, hertz. Our choice: below the B0 of a bass. */
const LOWEST_HZ = 27;

/** Share of the string's length at which it is plucked, from the bridge. Common practice: near the sound hole. */
const PICK_POSITION = 0.18;

/** What is left of the old vibration when a string is picked again. Our choice. */
const REPICK_REST = 0.12;

/** Seconds to fall by 60 dB. Our choice, by ear. */
const RING_SECONDS = { open: 3.2, muted: 0.28, dead: 0.06, released: 0.09 } as const;

/** How a string vibrates from now on. */
export interface Vibration {
  /** 'open' rings, 'muted' is palm-muted, 'dead' is a stopped string without pitch, 'released' dies away. */
  readonly damping: keyof typeof RING_SECONDS;
}

/**
 * One string: an extended Karplus-Strong loop. The delay line is read with third-order Lagrange
 * interpolation, so that its length may glide without clicks; a two-point average, weaker on high notes,
 * damps the overtones, and its phase delay is taken off the length, so the fundamental stays in tune.
 * Source: Jaffe & Smith, "Extensions of the Karplus-Strong Plucked-String Algorithm", CMJ 7(2), 1983;
 * Lagrange coefficients: Laakso et al., "Splitting the Unit Delay", IEEE SP Magazine 13(1), 1996.
 */
export class PluckedString {
  readonly #sampleRate: number;
  readonly #line: Float64Array;
  readonly #mask: number;
  readonly #noise: Noise;
  readonly #excitation: Float64Array;
  #write = 0;
  #excited = 0;
  #excitedLength = 0;
  #oldShare = 1;
  #brightness = 0.5;
  #gain = 0;
  /** What the loop is tuned to; 0 where it must be worked out anew. */
  #hz = 0;
  #whole = 0;
  #h0 = 0;
  #h1 = 0;
  #h2 = 0;
  #h3 = 0;
  #previous = 0;
  #damping: Vibration['damping'] = 'released';
  readonly #tone = new BodyTone();

  constructor(sampleRate: number, noise: Noise) {
    this.#sampleRate = sampleRate;
    this.#noise = noise;
    const size = 2 ** Math.ceil(Math.log2(sampleRate / LOWEST_HZ + 8));
    this.#line = new Float64Array(size);
    this.#excitation = new Float64Array(size);
    this.#mask = size - 1;
  }

  /** Changes how the string dies away. */
  damp(damping: Vibration['damping']): void {
    this.#damping = damping;
    this.#hz = 0;
  }

  /** Tunes the loop to a frequency in hertz. */
  tune(hz: number): void {
    if (hz === this.#hz) return;
    this.#hz = hz;
    const period = this.#sampleRate / hz;
    const omega = (2 * Math.PI) / period;
    const muted = this.#damping === 'muted' || this.#damping === 'dead';
    const s = muted ? 0.5 : Math.max(0.08, 0.42 - 0.28 * Math.min(1, hz / 1300));
    this.#brightness = s;
    const real = 1 - s + s * Math.cos(omega);
    const imaginary = s * Math.sin(omega);
    const phaseDelay = Math.atan2(imaginary, real) / omega;
    const wanted = 10 ** (-3 / (hz * RING_SECONDS[this.#damping]));
    this.#gain = Math.min(0.99995, wanted / Math.hypot(real, imaginary));
    const delay = Math.max(3, period - phaseDelay);
    const whole = Math.floor(delay) - 1;
    const d = delay - whole;
    this.#whole = whole;
    this.#h0 = (-(d - 1) * (d - 2) * (d - 3)) / 6;
    this.#h1 = (d * (d - 2) * (d - 3)) / 2;
    this.#h2 = (-d * (d - 1) * (d - 3)) / 2;
    this.#h3 = (d * (d - 1) * (d - 2)) / 6;
  }

  /** Sets the string going: a burst of noise one period long, as a pluck at one place leaves it. */
  excite(hz: number, level: number, softness: number, fresh: boolean): void {
    const length = Math.min(this.#excitation.length, Math.max(4, Math.round(this.#sampleRate / hz)));
    const away = Math.max(1, Math.round(length * PICK_POSITION));
    const burst = new Float64Array(length);
    let soft = 0;
    for (let n = 0; n < length; n += 1) {
      soft += (1 - softness) * (this.#noise() - soft);
      burst[n] = soft;
    }
    const scale = level / (1.2 - softness);
    // The difference with itself, shifted round the period, has no mean: no direct current enters the loop.
    for (let n = 0; n < length; n += 1)
      this.#excitation[n] = scale * ((burst[n] ?? 0) - (burst[(n + away) % length] ?? 0));
    this.#excited = 0;
    this.#excitedLength = length;
    this.#oldShare = fresh ? REPICK_REST : 1;
  }

  /** Adds `count` samples to `out` from `at` on. Returns the loudest, so that a silent string can rest. */
  render(out: Float32Array, at: number, count: number): number {
    const line = this.#line;
    const mask = this.#mask;
    const s = this.#brightness;
    let previous = this.#previous;
    let write = this.#write;
    let peak = 0;
    for (let n = 0; n < count; n += 1) {
      const read = write - this.#whole;
      const sample =
        this.#h0 * (line[read & mask] ?? 0) +
        this.#h1 * (line[(read - 1) & mask] ?? 0) +
        this.#h2 * (line[(read - 2) & mask] ?? 0) +
        this.#h3 * (line[(read - 3) & mask] ?? 0);
      const damped = this.#gain * ((1 - s) * sample + s * previous);
      previous = sample;
      let next = damped;
      if (this.#excited < this.#excitedLength) {
        next = damped * this.#oldShare + (this.#excitation[this.#excited] ?? 0);
        this.#excited += 1;
      }
      line[write & mask] = next;
      write += 1;
      const heard = this.#tone.next(next);
      out[at + n] = (out[at + n] ?? 0) + heard;
      const loud = heard < 0 ? -heard : heard;
      if (loud > peak) peak = loud;
    }
    this.#previous = previous;
    this.#write = write;
    return peak;
  }
}
