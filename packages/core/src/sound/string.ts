import { BODY_SHARE, type Noise } from './tone.ts';

/** How often the delay of a sounding string follows its contour, samples. */
export const CONTROL_SAMPLES = 32;

/** Lowest pitch a string model is built for, hertz. Our choice: below the B0 of a bass. */
const LOWEST_HZ = 27;

/** Share of the string's length at which it is plucked, from the bridge. Common practice: near the sound hole. */
const PICK_POSITION = 0.18;

/** What is left of the old vibration when a string is picked again. Our choice. */
const REPICK_REST = 0.12;

/** Seconds to fall by 60 dB. Our choice, by ear. */
const RING_SECONDS = { open: 3.2, muted: 0.28, dead: 0.06, released: 0.09 } as const;

/** After so many samples the body has forgotten what was before, to one part in a million. */
const BODY_SAMPLES = 20;

/** Within this share of a pitch the loop damps alike and its filter delays alike, to less than a hundredth of a cent. */
const SAME_DAMPING = 0.005;

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
  readonly #burst: Float64Array;
  #write = 0;
  #excited = 0;
  #excitedLength = 0;
  #oldShare = 1;
  #brightness = 0.5;
  #gain = 0;
  /** What the loop is tuned to; 0 where it must be worked out anew. */
  #hz = 0;
  /** The newest sample that the next one is made of lies so many before it; it is made of that one and the four before, so much of each. */
  #whole = 0;
  readonly #taps = new Float64Array(5);
  #damping: Vibration['damping'] = 'released';
  /** The pitch for which damping and phase delay were worked out, hertz; 0 where they must be anew. */
  #dampedHz = 0;
  #phaseDelay = 0;

  constructor(sampleRate: number, noise: Noise) {
    this.#sampleRate = sampleRate;
    this.#noise = noise;
    const size = 2 ** Math.ceil(Math.log2(sampleRate / LOWEST_HZ + 8));
    this.#line = new Float64Array(size);
    this.#excitation = new Float64Array(size);
    this.#burst = new Float64Array(size);
    this.#mask = size - 1;
  }

  /** Changes how the string dies away. */
  damp(damping: Vibration['damping']): void {
    this.#damping = damping;
    this.#hz = 0;
    this.#dampedHz = 0;
  }

  /** Tunes the loop to a frequency in hertz. */
  tune(hz: number): void {
    if (hz === this.#hz) return;
    this.#hz = hz;
    const period = this.#sampleRate / hz;
    if (Math.abs(hz - this.#dampedHz) > SAME_DAMPING * hz) this.#dampFor(hz);
    const delay = Math.max(3, period - this.#phaseDelay);
    const whole = Math.floor(delay) - 1;
    const d = delay - whole;
    this.#whole = whole;
    const h0 = (-(d - 1) * (d - 2) * (d - 3)) / 6;
    const h1 = (d * (d - 2) * (d - 3)) / 2;
    const h2 = (-d * (d - 1) * (d - 3)) / 2;
    const h3 = (d * (d - 1) * (d - 2)) / 6;
    // The delay and the average behind it in one.
    const now = this.#gain * (1 - this.#brightness);
    const before = this.#gain * this.#brightness;
    const taps = this.#taps;
    taps[0] = now * h0;
    taps[1] = now * h1 + before * h0;
    taps[2] = now * h2 + before * h1;
    taps[3] = now * h3 + before * h2;
    taps[4] = before * h3;
  }

  /** Works out how the loop damps a pitch, and by how much its filter delays it. */
  #dampFor(hz: number): void {
    this.#dampedHz = hz;
    const omega = (2 * Math.PI * hz) / this.#sampleRate;
    const muted = this.#damping === 'muted' || this.#damping === 'dead';
    const s = muted ? 0.5 : Math.max(0.08, 0.42 - 0.28 * Math.min(1, hz / 1300));
    this.#brightness = s;
    const real = 1 - s + s * Math.cos(omega);
    const imaginary = s * Math.sin(omega);
    this.#phaseDelay = Math.atan2(imaginary, real) / omega;
    const wanted = 10 ** (-3 / (hz * RING_SECONDS[this.#damping]));
    this.#gain = Math.min(0.99995, wanted / Math.hypot(real, imaginary));
  }

  /** Sets the string going: a burst of noise one period long, as a pluck at one place leaves it. */
  excite(hz: number, level: number, softness: number, fresh: boolean): void {
    const length = Math.min(this.#excitation.length, Math.max(4, Math.round(this.#sampleRate / hz)));
    const away = Math.max(1, Math.round(length * PICK_POSITION));
    const burst = this.#burst;
    let soft = 0;
    for (let n = 0; n < length; n += 1) {
      soft += (1 - softness) * (this.#noise() - soft);
      burst[n] = soft;
    }
    const scale = level / (1.2 - softness);
    const excitation = this.#excitation;
    // The difference with itself, shifted round the period, has no mean: no direct current enters the loop.
    for (let n = 0; n < length; n += 1)
      excitation[n] = scale * ((burst[n] ?? 0) - (burst[n + away < length ? n + away : n + away - length] ?? 0));
    // The body stands before the loop rather than behind it, where every sample of all that rings would go through it. Round the period
    // as well: the second time it goes on from where it ended.
    let heard = 0;
    for (let n = -Math.min(length, BODY_SAMPLES); n < length; n += 1) {
      heard += BODY_SHARE * ((excitation[n < 0 ? n + length : n] ?? 0) - heard);
      if (n >= 0) excitation[n] = heard;
    }
    this.#excited = 0;
    this.#excitedLength = length;
    this.#oldShare = fresh ? REPICK_REST : 1;
  }

  /** Whether the string has died away: no sample of the period that goes round is as loud as this. */
  isBelow(level: number): boolean {
    for (let back = this.#whole + 4; back > 0; back -= 1)
      if (Math.abs(this.#line[(this.#write - back) & this.#mask] ?? 0) >= level) return false;
    return this.#excited >= this.#excitedLength;
  }

  /** Adds `count` samples to `out` from `at` on. */
  render(out: Float64Array, at: number, count: number): void {
    for (let done = 0; done < count;) {
      const burst = this.#excitedLength - this.#excited;
      const run = Math.min(count - done, burst > 0 ? Math.min(burst, this.#whole) : Infinity);
      // As far as neither end of the loop comes to that of the line, so that no place need be wrapped.
      const read = (this.#write - this.#whole) & this.#mask;
      const frames = Math.min(run, this.#line.length - Math.max(this.#write, read));
      this.#turn(out, at + done, frames, burst > 0 ? this.#oldShare : 1);
      if (burst > 0) this.#pluck(out, at + done, frames);
      this.#write = (this.#write + frames) & this.#mask;
      done += frames;
    }
  }

  /** Lets the loop run: the next samples of the line are what the filter makes of those a period before, this share of them. */
  #turn(out: Float64Array, at: number, frames: number, share: number): void {
    // All that is touched lies in variables of its own: this runs for every sample of every string.
    const line = this.#line;
    const mask = this.#mask;
    const taps = this.#taps;
    const t0 = share * (taps[0] ?? 0);
    const t1 = share * (taps[1] ?? 0);
    const t2 = share * (taps[2] ?? 0);
    const t3 = share * (taps[3] ?? 0);
    const t4 = share * (taps[4] ?? 0);
    let write = this.#write;
    let read = (write - this.#whole) & mask;
    // The five samples that are read go through the line together; only the newest is fetched.
    let x1 = line[(read - 1) & mask] ?? 0;
    let x2 = line[(read - 2) & mask] ?? 0;
    let x3 = line[(read - 3) & mask] ?? 0;
    let x4 = line[(read - 4) & mask] ?? 0;
    for (let place = at, end = at + frames; place < end; place += 1, write += 1, read += 1) {
      const x0 = line[read] ?? 0;
      const next = t0 * x0 + t1 * x1 + (t2 * x2 + t3 * x3 + t4 * x4);
      x4 = x3;
      x3 = x2;
      x2 = x1;
      x1 = x0;
      line[write] = next;
      out[place] = (out[place] ?? 0) + next;
    }
  }

  /** Adds the burst of a pluck to what the loop has just made. No more than the loop is long, so that nothing of it was read yet. */
  #pluck(out: Float64Array, at: number, frames: number): void {
    for (let n = 0; n < frames; n += 1) {
      const place = this.#write + n;
      const push = this.#excitation[this.#excited + n] ?? 0;
      this.#line[place] = (this.#line[place] ?? 0) + push;
      out[at + n] = (out[at + n] ?? 0) + push;
    }
    this.#excited += frames;
  }
}
