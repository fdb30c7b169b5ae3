import { PitchDetector } from 'pitchy';
import { perform, readShorthand, type PlayedNote } from '@jam-ledger/core/notation';
import { centsBetween, hzOf, TUNINGS } from '@jam-ledger/core/pitch';
import { renderNotes } from '@jam-ledger/core/sound';
import type { Figure } from './measure.ts';

const RATE = 44_100;
const WINDOW = 8192;
const setup = { tuning: TUNINGS.standard, capo: 0, bpm: 90 };

/** How true the sound is, by the independent tracker `pitchy`. The yardstick: the same tracker on plain sines. */
export function accuracyFigures(): Promise<readonly Figure[]> {
  const range = Array.from({ length: 49 }, (_, step) => 40 + step);
  const notes = range.map((midi) => off(midi, renderNotes([noteOf(midi)], { sampleRate: RATE }), 0.35)).sort(rising);
  const sines = range.map((midi) => off(midi, sineOf(midi), 0.35)).sort(rising);
  const bends = [
    ['/1 7Gb1', 64],
    ['/1 8Bb.5', 68],
    ['/1 14eb1.5', 81],
    ['/1 10Bpb1', 71],
    ['/1 12Gb2', 71],
  ] as const;
  const plateaus = bends
    .map(([text, midi]) =>
      off(midi, renderNotes(perform(readShorthand(text).phrase, setup), { sampleRate: RATE }), 1.6),
    )
    .sort(rising);
  const cents = (value: number | undefined) => `${(value ?? 0).toFixed(2)} cents`;
  const line = (what: string, value: number | undefined, target: number, yardstick: number | undefined): Figure => ({
    what,
    measured: cents(value),
    target: `under ${target} cents`,
    met: (value ?? Infinity) < target,
    yardstick: `sines by the same tracker, ${cents(yardstick)}`,
    ratio: `${((value ?? 0) / Math.max(yardstick ?? 0, 0.01)).toPrecision(2)} ×`,
  });
  return Promise.resolve([
    line('Pitch after the attack, E2 to E6, median', notes[24], 2, sines[24]),
    line('The same, worst of 49 notes', notes.at(-1), 5, sines.at(-1)),
    line('Plateau of a bend, worst of five', plateaus.at(-1), 5, sines.at(-1)),
  ]);
}

const rising = (a: number, b: number) => a - b;

function noteOf(midi: number): PlayedNote {
  const plain = { string: 1, contour: [{ seconds: 0, cents: 0 }], attack: 'pick', level: 0.75 } as const;
  const span = { from: 0, to: 0 };
  return { ...plain, startSeconds: 0, durationSeconds: 1, midi, palmMuted: false, harmonic: false, span };
}

function sineOf(midi: number): Float32Array {
  return Float32Array.from({ length: RATE }, (_, n) => Math.sin((2 * Math.PI * hzOf(midi) * n) / RATE));
}

/** Cents that a sound is off at a time, either way. */
function off(midi: number, samples: Float32Array, seconds: number): number {
  const from = Math.round(seconds * RATE) - WINDOW / 2;
  const [heard] = PitchDetector.forFloat32Array(WINDOW).findPitch(samples.subarray(from, from + WINDOW), RATE);
  return Math.abs(centsBetween(hzOf(midi), Math.max(heard, 1)));
}
