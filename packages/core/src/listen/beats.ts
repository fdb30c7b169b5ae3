import { LISTEN_RATE, loudness } from './audio.ts';
import { riseOf, type Rise } from './onsets.ts';
import { spectraOf } from './spectra.ts';

// Taken out of the loops, where looking it up would cost more than the logarithm.
const { log } = Math;

/** The beat of a recording, heard without knowing what is played. */
export interface HeardBeat {
  /** Beats a minute over all of it. */
  readonly bpm: number;
  /** How far the best tempo stands out, 0 to 1. */
  readonly sure: number;
  /** Twice and half of it, and what else would fit, the likeliest first; beats a minute. */
  readonly others: readonly number[];
  /** When each beat falls, seconds. */
  readonly beats: readonly number[];
  /** Which of the first beats begin a bar, the likeliest first: indices into `beats`. */
  readonly firsts: readonly number[];
}

/** What is known before listening. */
export interface BeatOptions {
  /** Beats in a bar; 4 when left out. */
  readonly beatsInBar?: number;
  /** A tempo that was chosen: beats are looked for near it. */
  readonly bpm?: number;
}

/** Tempos that are looked for, and how much likelier those in the middle are, as octaves from it. Our choice. */
const TEMPOS = { from: 40, to: 220, step: 1.005, middle: 105, octaves: 0.75 } as const;
/** Beats need at least this much sound, seconds. Our choice. */
const SHORTEST_SECONDS = 4;
/** How hard a beat holds to the tempo. Source: Ellis, "Beat tracking by dynamic programming", J. New Music Research 36(1), 2007. */
const TIGHT = 180;

/**
 * The tempo and the beats of a recording: the tempo at which its rises repeat, then the row of beats that fits both the rises and that
 * tempo best, which may drift. Linear in the length. Undefined where it is too short or nothing beats.
 *
 * @param samples at 22,050 a second
 */
export function hearBeat(samples: Float32Array, { beatsInBar = 4, bpm }: BeatOptions = {}): HeardBeat | undefined {
  if (samples.length < SHORTEST_SECONDS * LISTEN_RATE) return undefined;
  const rise = riseOf(samples);
  const envelope = flattened(rise.values);
  const repeats = repeatsOf(envelope, Math.ceil((4 * 60) / TEMPOS.from / rise.hopSeconds) + 2);
  if (!((repeats[0] ?? 0) > 0)) return undefined;
  const ranked = rankedTempos(repeats, rise.hopSeconds, strongestRepeat(samples));
  const best = bpm ?? ranked[0]?.bpm;
  if (best === undefined) return undefined;
  const rows = beatRows(envelope, 60 / best / rise.hopSeconds);
  if (rows.length < 4) return undefined;
  const beats = rows.map((row) => timeOf(rise, placed(envelope, row)));
  const others = ranked.map((one) => one.bpm).filter((one) => Math.abs(log(one / best)) > 0.06);
  return {
    bpm: 60 / slopeOf(beats),
    sure: ranked[0] ? Math.max(0, 1 - (ranked[1]?.score ?? 0) / ranked[0].score) : 0,
    others: [...new Set([2 * best, best / 2, ...others].map((one) => Math.round(one * 10) / 10))].slice(0, OFFERED),
    beats,
    firsts: firstsOf(samples, beats, beatsInBar),
  };
}

/** So many other tempos are offered. */
const OFFERED = 4;

/** When a row is, seconds. */
function timeOf({ hopSeconds, firstSeconds }: Rise, row: number): number {
  return firstSeconds + row * hopSeconds;
}

/** The rises above what is usual around them. */
function flattened(values: Float32Array): Float32Array {
  const out = new Float32Array(values.length);
  const half = 150;
  let sum = 0;
  let squares = 0;
  for (let n = -half; n < values.length; n += 1) {
    sum += (values[n + half] ?? 0) - (values[n - half - 1] ?? 0);
    if (n >= 0) out[n] = Math.max(0, (values[n] ?? 0) - sum / (2 * half + 1));
  }
  for (const value of out) squares += value * value;
  const usual = Math.sqrt(squares / Math.max(1, out.length)) || 1;
  for (let n = 0; n < out.length; n += 1) out[n] = (out[n] ?? 0) / usual;
  return out;
}

/** How much the rises are like themselves so many rows later. */
function repeatsOf(values: Float32Array, lags: number): Float64Array {
  const soft = softened(values, 2);
  const out = new Float64Array(lags);
  for (let lag = 0; lag < lags; lag += 1) {
    let sum = 0;
    for (let n = lag; n < soft.length; n += 1) sum += (soft[n] ?? 0) * (soft[n - lag] ?? 0);
    out[lag] = sum / Math.max(1, soft.length - lag);
  }
  const whole = out[0] ?? 0;
  let mean = 0;
  for (const value of out) mean += value / lags;
  return out.map((value) => (whole > mean ? (value - mean) / (whole - mean) : 0));
}

/** Each value spread over its neighbours, so that a beat some milliseconds off still meets. */
function softened(values: Float32Array, half: number): Float32Array {
  return values.map((_, n) => {
    let sum = 0;
    for (let at = -half; at <= half; at += 1) sum += (values[n + at] ?? 0) * (1 - Math.abs(at) / (half + 1));
    return sum;
  });
}

interface RankedTempo {
  readonly bpm: number;
  readonly score: number;
}

/** The step at which the loudness repeats most, seconds: a beat, or a half or double of one; undefined where nothing repeats. */
function strongestRepeat(samples: Float32Array): number | undefined {
  const hop = Math.round(LISTEN_RATE / 100);
  const levels = Float64Array.from({ length: Math.floor(samples.length / hop) }, (_, row) =>
    loudness(samples, row * hop, (row + 1) * hop),
  );
  const mean = levels.reduce((sum, value) => sum + value, 0) / levels.length;
  const repeats = Float64Array.from({ length: REPEATS.to + 2 }, (_, lag) => {
    let sum = 0;
    for (let row = lag; row < levels.length; row += 1)
      sum += ((levels[row] ?? 0) - mean) * ((levels[row - lag] ?? 0) - mean);
    return sum;
  });
  let [best, most] = [0, 0];
  for (let lag: number = REPEATS.from; lag <= REPEATS.to; lag += 1) {
    const here = repeats[lag] ?? 0;
    const isPeak = here > (repeats[lag - 1] ?? 0) && here >= (repeats[lag + 1] ?? 0);
    if (isPeak && here > most) [best, most] = [lag, here];
  }
  return best === 0 ? undefined : best / 100;
}
/** Steps that are looked at, hundredths of a second: 240 to 40 a minute. */
const REPEATS = { from: 25, to: 150 } as const;
/** A tempo is near the strongest repeat, or a half or double of it, within this share. Our choice. */
const OCTAVES = [0.25, 0.5, 1, 2] as const;
const NEAR_REPEAT = 0.05;

/**
 * The tempos whose beat, and whose two, three and four beats, repeat most; each the best of its neighbours, and those that fit the
 * strongest repeat before the others.
 */
function rankedTempos(
  repeats: Float64Array,
  hopSeconds: number,
  strongest: number | undefined,
): readonly RankedTempo[] {
  const all: RankedTempo[] = [];
  for (let bpm: number = TEMPOS.from; bpm <= TEMPOS.to; bpm *= TEMPOS.step) {
    const period = 60 / bpm / hopSeconds;
    let sum = 0;
    for (let times = 1; times <= 4; times += 1) sum += between(repeats, times * period) * (SHARES[times - 1] ?? 0);
    const octaves = Math.log2(bpm / TEMPOS.middle) / TEMPOS.octaves;
    const fits =
      strongest === undefined || OCTAVES.some((times) => Math.abs((bpm * strongest) / 60 / times - 1) < NEAR_REPEAT);
    all.push({ bpm, score: Math.max(0, sum) * Math.exp(-0.5 * octaves * octaves) * (fits ? 1 : UNFIT) });
  }
  const peaks = all.filter(
    (one, index) => one.score > (all[index - 1]?.score ?? 0) && one.score >= (all[index + 1]?.score ?? 0),
  );
  return peaks.sort((a, b) => b.score - a.score);
}
/** A tempo that fits the strongest repeat in no way counts so much. Our choice. */
const UNFIT = 0.2;
/** How much one, two, three and four beats count. Our choice. */
const SHARES = [1, 0.8, 0.3, 0.8] as const;

function between(values: Float64Array, place: number): number {
  const whole = Math.floor(place);
  const share = place - whole;
  return (values[whole] ?? 0) * (1 - share) + (values[whole + 1] ?? 0) * share;
}

/** The rows of the beats: the chain of rises whose steps hold closest to a period. */
function beatRows(values: Float32Array, period: number): readonly number[] {
  const soft = softened(values, 3);
  const best = new Float64Array(soft.length);
  const from = new Int32Array(soft.length).fill(-1);
  const [near, far] = [Math.round(period * 0.6), Math.round(period * 1.6)];
  const costs = Float64Array.from({ length: far + 1 }, (_, step) => -TIGHT * log(Math.max(1, step) / period) ** 2);
  for (let row = 0; row < soft.length; row += 1) {
    let [most, at] = [0, -1];
    for (let step = near; step <= far; step += 1) {
      const before = row - step;
      if (before < 0) break;
      const value = (best[before] ?? 0) + (costs[step] ?? 0);
      if (value > most) [most, at] = [value, before];
    }
    best[row] = (soft[row] ?? 0) + most;
    from[row] = at;
  }
  let last = soft.length - 1;
  for (let row = Math.max(0, soft.length - Math.ceil(1.2 * period)); row < soft.length; row += 1)
    if ((best[row] ?? 0) > (best[last] ?? 0)) last = row;
  const rows: number[] = [];
  for (let row = last; row >= 0; row = from[row] ?? -1) rows.push(row);
  return trimmed(rows.reverse(), soft);
}

/** Without the beats before the first and after the last sound. */
function trimmed(rows: readonly number[], values: Float32Array): readonly number[] {
  const heard = (row: number) => {
    for (let at = row - 4; at <= row + 4; at += 1) if ((values[at] ?? 0) > 0.5) return true;
    return false;
  };
  const first = rows.findIndex(heard);
  const last = rows.findLastIndex(heard);
  return first < 0 ? [] : rows.slice(first, last + 1);
}

/** Where a rise near a row is highest, with a fraction; a beat without one stays where it is. */
function placed(values: Float32Array, row: number): number {
  let best = row;
  for (let at = row - 4; at <= row + 4; at += 1) if ((values[at] ?? 0) > (values[best] ?? 0)) best = at;
  const [left, middle, right] = [values[best - 1] ?? 0, values[best] ?? 0, values[best + 1] ?? 0];
  const bend = left - 2 * middle + right;
  return bend < 0 ? best + (0.5 * (left - right)) / bend : row;
}

/** The step of a row of times by a line through them. */
function slopeOf(times: readonly number[]): number {
  const middle = (times.length - 1) / 2;
  let [sum, squares] = [0, 0];
  times.forEach((time, index) => {
    sum += (index - middle) * time;
    squares += (index - middle) ** 2;
  });
  return sum / squares;
}

/** Spectra in which a new bass note and a new chord are seen: 93 ms, 23 ms apart. */
const WINDOW = 2048;
const HOP = 512;
const BASS = { fromHz: 35, toHz: 160 } as const;
const CHORD = { fromHz: 160, toHz: 1200 } as const;

/** Which of the first beats begin a bar: those on which bass and chord change most, over the whole recording. */
function firstsOf(samples: Float32Array, beats: readonly number[], beatsInBar: number): readonly number[] {
  const spectra = spectraOf(samples, LISTEN_RATE, { window: WINDOW, hop: HOP });
  const { magnitudes, bins, rows, hzPerBin, hopSeconds, firstSeconds } = spectra;
  const rowAt = (seconds: number) => Math.max(0, Math.min(rows - 1, Math.round((seconds - firstSeconds) / hopSeconds)));
  const sumOver = (from: number, to: number, { fromHz, toHz }: { fromHz: number; toHz: number }) => {
    const out = new Float64Array(Math.ceil(toHz / hzPerBin) + 1);
    for (let row = rowAt(from); row <= rowAt(to); row += 1)
      for (let bin = Math.floor(fromHz / hzPerBin); bin < out.length; bin += 1)
        out[bin] = (out[bin] ?? 0) + (magnitudes[row * bins + bin] ?? 0);
    return out;
  };
  const change = (at: number, step: number, band: { fromHz: number; toHz: number }) => {
    const before = sumOver(at - step * 0.8, at - step * 0.15, band);
    const after = sumOver(at + step * 0.15, at + step * 0.8, band);
    let [sum, total] = [0, 1e-9];
    after.forEach((value, bin) => {
      sum += Math.max(0, value - (before[bin] ?? 0));
      total += value;
    });
    return sum / total;
  };
  const changes = beats.map((at, index) => {
    const step = (beats[index + 1] ?? at + 0.5) - at;
    return change(at, step, BASS) + change(at, step, CHORD);
  });
  const score = (first: number) => {
    const own = changes.filter((_, index) => index % beatsInBar === first % beatsInBar);
    return own.reduce((sum, value) => sum + value, 0) / Math.max(1, own.length);
  };
  return Array.from({ length: Math.min(beatsInBar, beats.length) }, (_, index) => index).sort(
    (a, b) => score(b) - score(a),
  );
}
