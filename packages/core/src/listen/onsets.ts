import { LISTEN_RATE } from './audio.ts';
import { spectraOf, type Spectra } from './spectra.ts';

// Taken out of the loops, where looking it up would cost more than the logarithm.
const { log } = Math;

/** Where something begins to sound. */
export interface Onset {
  readonly seconds: number;
  /** How much more sounds than just before, against the usual; 1 is the least that counts. */
  readonly strength: number;
}

/** Samples of a window, and from one to the next. Source: our experiments; 46 ms and 5 ms. */
const WINDOW = 1024;
const HOP = 110;
/** Bands: from here to here, each so much wider than the one below. */
const BANDS = { fromHz: 70, toHz: 9000, ratio: 1.03 } as const;
/** A rise is measured against so many rows before: 20 ms. */
const BACK = 4;
/** Magnitudes under this share of the loudest are no rise. Our choice. */
const FLOOR = 1.5e-3;
/** The usual rise is the median of so many rows to each side: half a second. */
const USUAL_ROWS = 100;
/** A peak is the highest of so many rows to each side, and rises so far above the usual. */
const PEAK_ROWS = 6;
/** What the rise is early by, seconds: the window sees an attack before its middle does. Measured on plucks of both kinds. */
const BIAS_SECONDS = 0.0142;

/** How a sound rises, one value a row of 5 ms. */
export interface Rise {
  readonly values: Float32Array;
  readonly hopSeconds: number;
  readonly firstSeconds: number;
}

/**
 * How much of the spectrum is louder than 20 ms before, in narrow bands: a band that took over from its neighbour, as in a vibrato or
 * a bend, does not count. Linear. Source: Böck & Widmer, "Maximum filter vibrato suppression for onset detection", DAFx 2013.
 */
export function riseOf(samples: Float32Array): Rise {
  const spectra = spectraOf(samples, LISTEN_RATE, { window: WINDOW, hop: HOP });
  const bands = bandsOf(spectra);
  const { rows, hopSeconds, firstSeconds } = spectra;
  const count = bands.length;
  const levels = levelsOf(spectra, bands);
  const values = new Float32Array(rows);
  for (let row = BACK; row < rows; row += 1) {
    const now = row * count;
    const before = (row - BACK) * count;
    let sum = 0;
    for (let band = 0; band < count; band += 1) {
      let old = levels[before + band] ?? 0;
      const below = band > 0 ? (levels[before + band - 1] ?? 0) : 0;
      const above = band + 1 < count ? (levels[before + band + 1] ?? 0) : 0;
      if (below > old) old = below;
      if (above > old) old = above;
      const more = (levels[now + band] ?? 0) - old;
      if (more > 0) sum += more;
    }
    values[row] = sum / count;
  }
  return { values, hopSeconds, firstSeconds };
}

/** The first and last bin of each band. */
function bandsOf({ hzPerBin, bins }: Spectra): readonly (readonly [number, number])[] {
  const bands: [number, number][] = [];
  let from = Math.round(BANDS.fromHz / hzPerBin);
  while (from * hzPerBin < BANDS.toHz && from < bins - 1) {
    const to = Math.max(from, Math.round(from * BANDS.ratio) - 1);
    bands.push([from, Math.min(to, bins - 1)]);
    from = to + 1;
  }
  return bands;
}

function levelsOf({ magnitudes, rows, bins }: Spectra, bands: readonly (readonly [number, number])[]): Float32Array {
  let loudest = 0;
  for (const magnitude of magnitudes) if (magnitude > loudest) loudest = magnitude;
  const floor = Math.max(1e-7, loudest * FLOOR);
  const levels = new Float32Array(rows * bands.length);
  for (let row = 0; row < rows; row += 1)
    bands.forEach(([from, to], band) => {
      let most = 0;
      for (let bin = from; bin <= to; bin += 1) {
        const magnitude = magnitudes[row * bins + bin] ?? 0;
        if (magnitude > most) most = magnitude;
      }
      levels[row * bands.length + band] = log(1 + most / floor);
    });
  return levels;
}

/** Where something begins to sound, in order. `least` is how far above the usual a rise must stand. Linear. */
export function onsetsOf(rise: Rise, least = 1): readonly Onset[] {
  const { values, hopSeconds, firstSeconds } = rise;
  const usual = runningMedian(values, USUAL_ROWS);
  const peak = [...values].sort((a, b) => a - b)[Math.floor(values.length * 0.98)] ?? 0;
  const onsets: Onset[] = [];
  for (let row = 1; row < values.length - 1; row += 1) {
    const value = values[row] ?? 0;
    const limit = Math.max(
      THRESHOLD.least,
      THRESHOLD.share * peak + Math.min(THRESHOLD.most, THRESHOLD.times * (usual[row] ?? 0)),
    );
    if (value < least * limit || !isHighest(values, row)) continue;
    onsets.push({ seconds: firstSeconds + beginOf(values, row) * hopSeconds + BIAS_SECONDS, strength: value / limit });
  }
  return onsets;
}

/** An onset stands above so many times the usual rise and a share of the strongest, and rises so much by itself; a wide vibrato makes the usual rise large, and does not hide its own beginning. Fitted to both simulated guitars. */
const THRESHOLD = { share: 0.12, times: 2.2, least: 0.2, most: 0.45 } as const;

function isHighest(values: Float32Array, row: number): boolean {
  const value = values[row] ?? 0;
  for (let at = row - PEAK_ROWS; at <= row + PEAK_ROWS; at += 1) {
    const other = values[at] ?? 0;
    if (other > value || (other === value && at < row)) return false;
  }
  return true;
}

/** The row, with a fraction, where a rise begins: where it passes a quarter of its peak for the first time. */
function beginOf(values: Float32Array, row: number): number {
  const limit = (values[row] ?? 0) * 0.25;
  let at = row;
  while (at > Math.max(0, row - 2 * PEAK_ROWS) && (values[at - 1] ?? 0) > limit) at -= 1;
  const below = values[at - 1] ?? 0;
  const above = values[at] ?? 0;
  return above > below ? at - 1 + (limit - below) / (above - below) : at;
}

/** The median of each value and `half` to each side, worked out at every tenth and held between. */
function runningMedian(values: Float32Array, half: number): Float32Array {
  const out = new Float32Array(values.length);
  const STEP = 10;
  for (let from = 0; from < values.length; from += STEP) {
    const part = values.slice(Math.max(0, from - half), from + half + 1).sort();
    out.fill(part[Math.floor(part.length / 2)] ?? 0, from, from + STEP);
  }
  return out;
}
