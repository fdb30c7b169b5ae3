import { midiAt } from '../pitch/index.ts';
import { LISTEN_RATE } from './audio.ts';
import { spectraOf, type Spectra } from './spectra.ts';

/** How far a recording stands from concert pitch. */
export interface OffPitch {
  /** Cents above A4 = 440 Hz, -50 to 50. */
  readonly cents: number;
  /** How much of the sound agrees, 0 to 1. */
  readonly sure: number;
}

/** 0.37 s, so that a peak is found to a cent; half of that from one to the next. */
const WINDOW = 8192;
const HOP = 4096;
/** Peaks are looked for here: below the bass is not found to a cent, above it is partials more than notes. Hertz; our choice. */
const FROM_HZ = 110;
const TO_HZ = 700;
/** A peak stands above this share of the loudest of its row, and of all. */
const PEAK = { ofRow: 0.05, ofAll: 0.01 } as const;
/** Width of the first look and of the second, cents. Third partials lie 2 cents, fifth 14 and seventh 31 beside their note. */
const FIRST_CENTS = 8;
const SECOND_CENTS = 3;

/**
 * How far a recording stands from A4 = 440 Hz, from where its peaks lie between the semitones: the place where most of them gather,
 * then their mean around it, told modulo a semitone. Linear. `sure` is the share that gathers there, less what chance would put there.
 * Source: circular statistics, common practice; undefined where nothing of pitch is heard.
 *
 * @param samples at 22,050 a second
 */
export function offPitchOf(samples: Float32Array): OffPitch | undefined {
  const peaks = peaksOf(spectraOf(samples, LISTEN_RATE, { window: WINDOW, hop: HOP }));
  const total = peaks.reduce((sum, { weight }) => sum + weight, 0);
  if (peaks.length < FEWEST || total === 0) return undefined;
  let [best, most] = [0, -1];
  for (let cents = -50; cents < 50; cents += 1) {
    const there = gathered(peaks, cents, FIRST_CENTS).weight;
    if (there > most) [best, most] = [cents, there];
  }
  for (let turn = 0; turn < 4; turn += 1) best += gathered(peaks, best, SECOND_CENTS).off;
  const share = gathered(peaks, best, FIRST_CENTS).weight / total;
  // Spread evenly, the triangle of the look would hold this much.
  const chance = FIRST_CENTS / 100;
  return { cents: around(best), sure: Math.max(0, (share - chance) / (1 - chance)) };
}

/** Fewest peaks that say something. Our choice. */
const FEWEST = 12;

interface Peak {
  /** Beside the next semitone, cents. */
  readonly cents: number;
  readonly weight: number;
}

/** The weight that lies around a place under a triangle, and how far its mean lies from it. */
function gathered(peaks: readonly Peak[], place: number, width: number): { weight: number; off: number } {
  let [weight, off] = [0, 0];
  for (const peak of peaks) {
    const away = around(peak.cents - place);
    const share = Math.max(0, 1 - Math.abs(away) / width) * peak.weight;
    weight += share;
    off += share * away;
  }
  return { weight, off: weight > 0 ? off / weight : 0 };
}

/** Cents within half a semitone. */
function around(cents: number): number {
  return cents - 100 * Math.round(cents / 100);
}

function peaksOf({ magnitudes, rows, bins, hzPerBin }: Spectra): readonly Peak[] {
  let loudest = 0;
  for (const magnitude of magnitudes) if (magnitude > loudest) loudest = magnitude;
  const peaks: Peak[] = [];
  const from = Math.floor(FROM_HZ / hzPerBin);
  const to = Math.min(bins - 2, Math.ceil(TO_HZ / hzPerBin));
  for (let row = 0; row < rows; row += 1) {
    const values = magnitudes.subarray(row * bins, (row + 1) * bins);
    let most = 0;
    for (let bin = from; bin <= to; bin += 1) most = Math.max(most, values[bin] ?? 0);
    const floor = Math.max(PEAK.ofRow * most, PEAK.ofAll * loudest);
    for (let bin = from; bin <= to; bin += 1) {
      const middle = values[bin] ?? 0;
      const [left, right] = [values[bin - 1] ?? 0, values[bin + 1] ?? 0];
      if (middle <= floor || middle < left || middle <= right) continue;
      const [a, b, c] = [Math.log(left + 1e-12), Math.log(middle), Math.log(right + 1e-12)];
      const place = bin + (0.5 * (a - c)) / (a - 2 * b + c);
      const midi = midiAt(place * hzPerBin);
      peaks.push({ cents: around(100 * midi), weight: Math.sqrt(middle) });
    }
  }
  return peaks;
}
