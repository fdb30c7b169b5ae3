import { LISTEN_RATE } from './audio.ts';

/** How loud a recording is over time, as an ear weighs it. */
export interface LoudnessOver {
  /** LUFS of one channel, a value each hop; −70 where it is silent. */
  readonly values: Float32Array;
  readonly hopSeconds: number;
}

/** Source: Recommendation ITU-R BS.1770-4, annex 1 and 2: windows of 400 ms, of which three quarters overlap; silence is −70. */
const WINDOW_SECONDS = 0.4;
const HOPS_A_WINDOW = 4;
const SILENCE = -70;
/** What makes a sine of 997 Hz, as loud as can be, come out at −3.01 on one channel. Source: the same. */
const OFFSET_DB = -0.691;

/**
 * The momentary loudness, K-weighted: the head lifts what is high by 4 dB, the ear hears the lowest less. Linear.
 * Source: ITU-R BS.1770-4; its two filters are given for 48,000 a second, and are made here for any rate.
 */
export function loudnessOver(samples: Float32Array, sampleRate: number = LISTEN_RATE): LoudnessOver {
  const hop = Math.round((sampleRate * WINDOW_SECONDS) / HOPS_A_WINDOW);
  const hops = Math.floor(samples.length / hop);
  const powers = new Float64Array(hops);
  const head = shelf(sampleRate);
  const ear = highPass(sampleRate);
  for (let at = 0; at < hops; at += 1) {
    let sum = 0;
    for (let n = at * hop; n < (at + 1) * hop; n += 1) sum += ear(head(samples[n] ?? 0)) ** 2;
    powers[at] = sum / hop;
  }
  const values = new Float32Array(Math.max(0, hops - HOPS_A_WINDOW + 1));
  for (let at = 0; at < values.length; at += 1) {
    let sum = 0;
    for (let n = 0; n < HOPS_A_WINDOW; n += 1) sum += powers[at + n] ?? 0;
    values[at] = Math.max(SILENCE, OFFSET_DB + 10 * Math.log10(sum / HOPS_A_WINDOW + 1e-12));
  }
  return { values, hopSeconds: hop / sampleRate };
}

type Filter = (sample: number) => number;

/** A second-order filter, in the transposed direct form II. */
function biquad(b0: number, b1: number, b2: number, a1: number, a2: number): Filter {
  let [first, second] = [0, 0];
  return (sample) => {
    const out = b0 * sample + first;
    first = b1 * sample - a1 * out + second;
    second = b2 * sample - a2 * out;
    return out;
  };
}

/** Source: Mansbridge, Finn & Reiss, "Implementation and evaluation of autonomous multi-track fader control", AES 132, 2012: the analogue filters behind the tables of BS.1770. */
const SHELF = { hz: 1681.974450955533, gainDb: 3.999843853973347, q: 0.7071752369554196 } as const;
const HIGH_PASS = { hz: 38.13547087602444, q: 0.5003270373238773 } as const;

function shelf(sampleRate: number): Filter {
  const k = Math.tan((Math.PI * SHELF.hz) / sampleRate);
  const high = 10 ** (SHELF.gainDb / 20);
  const band = high ** 0.4996667741545416;
  const a0 = 1 + k / SHELF.q + k * k;
  return biquad(
    (high + (band * k) / SHELF.q + k * k) / a0,
    (2 * (k * k - high)) / a0,
    (high - (band * k) / SHELF.q + k * k) / a0,
    (2 * (k * k - 1)) / a0,
    (1 - k / SHELF.q + k * k) / a0,
  );
}

function highPass(sampleRate: number): Filter {
  const k = Math.tan((Math.PI * HIGH_PASS.hz) / sampleRate);
  const a0 = 1 + k / HIGH_PASS.q + k * k;
  return biquad(1, -2, 1, (2 * (k * k - 1)) / a0, (1 - k / HIGH_PASS.q + k * k) / a0);
}
