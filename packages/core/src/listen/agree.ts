import { centsAt, type PlayedNote, type Span } from '../notation/index.ts';
import { LISTEN_RATE } from './audio.ts';
import { expectedOf } from './expected.ts';
import { Binned, BINS, evened, harmonicBin, PITCHES, soundedIn } from './shapes.ts';

/** What a recording says of one event of the tab. */
export type Agreement = 'agrees' | 'contradicts' | 'cannot tell';

/** One event of the tab, weighed against the recording. */
export interface WeighedEvent {
  readonly span: Span;
  /** When it should sound, seconds of the recording. */
  readonly seconds: number;
  readonly says: Agreement;
  /** What should sound, and what was heard instead, MIDI; `heard` only where it contradicts. */
  readonly expected: number;
  readonly heard?: number;
  /** How likely the tab is right, 0 to 1, of it and what it was weighed against. */
  readonly likely: number;
}

/** How the tab lies on the recording. */
export interface AgreeOptions {
  /** When the first note of what is performed sounds, seconds of the recording. */
  readonly atSeconds: number;
  /** How far the recording stands from concert pitch, cents. */
  readonly offCents?: number;
}

/** What an expected pitch is weighed against, semitones away: one and two frets, and the octaves. */
const RIVALS = [-12, -2, -1, 0, 1, 2, 12] as const;

/** Where the window begins behind the attack, and how long it may be, seconds. */
const WINDOW = { after: 0.015, shortest: 0.07, longest: 0.45 } as const;

/**
 * Weighs each event of a tab against a recording: whether its pitch, one or two frets beside it or an octave sounds there. Bends are
 * straightened by what is written before they are looked at. Notes too short, and those that the sound leaves open, cannot be told.
 * Of events. Source of the weighing: a conditional logit over the rivals, fitted to the simulated band of idioms that no figure is of.
 *
 * @param samples at 22,050 a second
 */
export function weighTab(
  samples: Float32Array,
  played: readonly PlayedNote[],
  { atSeconds, offCents = 0 }: AgreeOptions,
): readonly WeighedEvent[] {
  const binned = new Binned();
  return expectedOf(played).events.flatMap(({ notes, seconds, lasts, span }): WeighedEvent[] => {
    const [note] = notes;
    if (!note || note.midi === null) return [];
    const at = atSeconds + seconds;
    const weighed = (one: PlayedNote) => {
      const evidence = evidenceOf(samples, one, { at, lasts, offCents, binned });
      return evidence && weigh(evidence);
    };
    const all = notes.map((one) => ({ one, likelies: weighed(one) }));
    const worst = all.reduce((a, b) => (likely(b.likelies) < likely(a.likelies) ? b : a));
    const expected = Math.round((worst.one.midi ?? NaN) - offCents / 100);
    return [{ span, seconds: at, expected, ...verdictOf(worst.likelies, expected) }];
  });
}

/** How likely each rival is; undefined where there is too little sound. */
type Likelies = readonly number[] | undefined;

function likely(likelies: Likelies): number {
  return likelies?.[RIVALS.indexOf(0)] ?? 0.5;
}

/** Likelier than this agrees; less likely than that, with a rival likelier than the last, contradicts. Chosen on the idioms it was fitted to. */
const LIMITS = { agrees: 0.6, doubted: 0.12, rival: 0.8 } as const;

function verdictOf(likelies: Likelies, expected: number): Pick<WeighedEvent, 'says' | 'likely' | 'heard'> {
  if (!likelies) return { says: 'cannot tell', likely: 0.5 };
  const own = likely(likelies);
  const best = likelies.reduce((most, value, index) => (value > (likelies[most] ?? 0) ? index : most), 0);
  if (own >= LIMITS.agrees) return { says: 'agrees', likely: own };
  if (own <= LIMITS.doubted && (likelies[best] ?? 0) >= LIMITS.rival)
    return { says: 'contradicts', likely: own, heard: expected + (RIVALS[best] ?? 0) };
  return { says: 'cannot tell', likely: own };
}

interface Where {
  readonly at: number;
  readonly lasts: number;
  readonly offCents: number;
  readonly binned: Binned;
}

/** What tells of each rival, one row of numbers each, in the order of `RIVALS`. */
type Evidence = readonly (readonly number[])[];

/** What the sound tells of a note and its rivals; undefined where it is too short. */
function evidenceOf(samples: Float32Array, note: PlayedNote, where: Where): Evidence | undefined {
  const { at, lasts, offCents, binned } = where;
  const length = Math.min(WINDOW.longest, lasts - WINDOW.after);
  if (length < WINDOW.shortest || note.midi === null) return undefined;
  const after = evened(binned.of(straightened(samples, note, { at, from: WINDOW.after, length })));
  const beforeLength = Math.max(WINDOW.shortest, Math.min(0.2, length));
  const start = Math.max(0, Math.round((at - beforeLength - 0.01) * LISTEN_RATE));
  const before = evened(binned.of(samples.subarray(start, start + Math.round(beforeLength * LISTEN_RATE))));
  const now = soundedIn(after, length, offCents);
  const then = soundedIn(before, beforeLength, offCents);
  const total = now.broad + now.pitches.reduce((sum, value) => sum + value, 0) + 1e-9;
  const totalThen = then.broad + then.pitches.reduce((sum, value) => sum + value, 0) + 1e-9;
  const amount = (pitches: Float64Array, midi: number) => pitches[midi - PITCHES.from] ?? 0;
  const midi = Math.round(note.midi - offCents / 100);
  return RIVALS.map((rival) => {
    const pitch = midi + rival;
    const active = amount(now.pitches, pitch) / total;
    const rise = Math.max(0, active - amount(then.pitches, pitch) / totalThen);
    const tuned = pitch + offCents / 100;
    return [
      Math.log(active + 0.003),
      Math.log(rise + 0.003),
      standing(after, tuned, [1, 3, 5]),
      standing(after, tuned, [2, 4, 6]),
      standing(after, tuned, [1]),
      -standing(after, tuned, [0.5, 1.5, 2.5]),
      -standing(after, tuned, [2 / 3, 4 / 3, 5 / 3]),
      standing(after, tuned, [1, 2, 3, 4]) - standing(before, tuned, [1, 2, 3, 4]),
    ];
  });
}

/** How far harmonics of a pitch stand above what lies beside them, as the mean of logarithms. */
function standing(spectrum: Float64Array, midi: number, harmonics: readonly number[]): number {
  let [sum, count] = [0, 0];
  for (const harmonic of harmonics) {
    const bin = Math.round(harmonicBin(midi, harmonic));
    if (bin < 1 || bin + 6 >= BINS.count) continue;
    const peak = Math.max(spectrum[bin - 1] ?? 0, spectrum[bin] ?? 0, spectrum[bin + 1] ?? 0);
    let beside = 0;
    for (const away of [-6, -5, -4, 4, 5, 6]) beside += (spectrum[bin + away] ?? 0) / 6;
    sum += Math.log((peak + 0.05) / (beside + 0.05));
    count += 1;
  }
  return count > 0 ? sum / count : 0;
}

interface Stretch {
  readonly at: number;
  readonly from: number;
  readonly length: number;
}

/** The sound of a note read faster and slower as its contour bends it, so that what comes out stays at its resting pitch. */
function straightened(samples: Float32Array, { contour }: PlayedNote, { at, from, length }: Stretch): Float32Array {
  const first = (at + from) * LISTEN_RATE;
  const frames = Math.round(length * LISTEN_RATE);
  if (contour.every(({ cents }) => cents === 0)) return samples.subarray(Math.round(first), Math.round(first) + frames);
  const out: number[] = [];
  let place = first;
  while (place < first + frames && out.length < 2 * frames) {
    const whole = Math.floor(place);
    const share = place - whole;
    out.push((samples[whole] ?? 0) * (1 - share) + (samples[whole + 1] ?? 0) * share);
    place += 2 ** (-centsAt(contour, (place - first) / LISTEN_RATE + from) / 1200);
  }
  return Float32Array.from(out.slice(0, LONGEST_SAMPLES));
}
const LONGEST_SAMPLES = 16_384;

/** What each kind of evidence weighs, in the order of `evidenceOf`. */
const WEIGHTS: readonly number[] = [1.34, 0.9, 0.17, 0.24, 0.36, 0.13, -0.15, 0.34];

/** How likely each rival is by the evidence. */
function weigh(evidence: Evidence): readonly number[] {
  const sums = evidence.map((row) => row.reduce((sum, value, index) => sum + value * (WEIGHTS[index] ?? 0), 0));
  const most = Math.max(...sums);
  const shares = sums.map((sum) => Math.exp(sum - most));
  const total = shares.reduce((sum, value) => sum + value, 0);
  return shares.map((value) => value / total);
}

/** How many pitches of a held moment are named at most; one fainter than this share of the loudest is not. Our choice. */
const MOMENT = { most: 6, faint: 0.25, seconds: 0.25 } as const;

/** The pitches that sound at a moment of a recording, MIDI, the lowest first. */
export function pitchesAt(samples: Float32Array, seconds: number, offCents = 0): readonly number[] {
  const from = Math.max(0, Math.round((seconds - MOMENT.seconds / 2) * LISTEN_RATE));
  const part = samples.subarray(from, from + Math.round(MOMENT.seconds * LISTEN_RATE));
  if (part.length < WINDOW.shortest * LISTEN_RATE) return [];
  const { pitches, broad } = soundedIn(evened(new Binned().of(part)), MOMENT.seconds, offCents);
  const loudest = Math.max(...pitches);
  if (loudest < 0.1 * broad) return [];
  return [...pitches]
    .map((amount, index) => ({ amount, midi: PITCHES.from + index }))
    .filter(({ amount }) => amount > MOMENT.faint * loudest)
    .sort((a, b) => b.amount - a.amount)
    .slice(0, MOMENT.most)
    .map(({ midi }) => midi)
    .sort((a, b) => a - b);
}
