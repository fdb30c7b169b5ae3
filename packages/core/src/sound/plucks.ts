import { centsAt, type PlayedNote } from '../notation/index.ts';
import { hzOf } from '../pitch/index.ts';
import type { RenderOptions } from './render.ts';
import { noiseOf } from './tone.ts';

/** Partials of a string, how stiff it is, and where it is plucked. Source: Fletcher & Rossing, "The Physics of Musical Instruments" (from memory). */
const STRING = { partials: 14, stiffness: 6e-5, pluckedAt: 0.21 } as const;
/** Seconds in which the first partial falls by 60 dB; each next one falls faster. Our choice. */
const RING = { open: 3.6, muted: 0.25, released: 0.08, faster: 0.22 } as const;
/** An attack takes so long, seconds; a knock is a burst of noise of so long. */
const ATTACK_SECONDS = 0.003;
const KNOCK_SECONDS = 0.02;
const CONTROL = 32;
const LEVEL = 0.3;
const LEGATO = { hammer: 0.55, pull: 0.6, tap: 0.65 } as const;

/**
 * Renders notes as sums of slightly inharmonic partials, mono, -1 to 1: a guitar of another make than `renderNotes`, so that what listens
 * is not tried on the one sound alone. Deterministic for a seed. Of notes × seconds.
 */
export function renderPlucks(played: readonly PlayedNote[], options: RenderOptions): Float32Array<ArrayBuffer> {
  const end = Math.max(0, ...played.map((note) => note.startSeconds + note.durationSeconds));
  const out = new Float32Array(Math.round((options.seconds ?? end + 0.6) * options.sampleRate));
  const noise = noiseOf(options.seed ?? 1);
  for (const string of new Set(played.map((note) => note.string))) {
    const notes = played.filter((note) => note.string === string);
    let rest = 0;
    notes.forEach((note, index) => {
      const next = notes[index + 1]?.startSeconds ?? Infinity;
      rest = addPluck(out, note, { rest, until: next, sampleRate: options.sampleRate, noise });
    });
  }
  return out;
}

interface Around {
  /** Loudness that the string still has. */
  readonly rest: number;
  /** When the string is played again, seconds. */
  readonly until: number;
  readonly sampleRate: number;
  readonly noise: () => number;
}

/** Adds one note; what is left of its loudness when the string is played again. */
function addPluck(out: Float32Array, note: PlayedNote, { rest, until, sampleRate, noise }: Around): number {
  const from = Math.round(note.startSeconds * sampleRate);
  const picked = note.attack === 'pick' || note.attack === 'finger';
  if (picked || note.midi === null) {
    const loud = LEVEL * note.level * (note.midi === null ? 0.8 : 0.25);
    const length = Math.round(KNOCK_SECONDS * sampleRate);
    for (let n = 0; n < length; n += 1) out[from + n] = (out[from + n] ?? 0) + loud * noise() * (1 - n / length) ** 4;
  }
  if (note.midi === null) return 0;
  const level = picked
    ? LEVEL * note.level
    : note.attack === 'none'
      ? rest
      : Math.max(rest, LEVEL * note.level * LEGATO[note.attack]);
  const released = note.startSeconds + note.durationSeconds;
  const end = Math.min(until + 0.01, released + 2 * RING.released);
  const frames = Math.min(out.length - from, Math.round((end - note.startSeconds) * sampleRate));
  let left = 0;
  for (let partial = 1; partial <= STRING.partials; partial += 1) {
    const loud = (level * Math.sin(Math.PI * partial * STRING.pluckedAt)) / partial;
    const ring = (note.palmMuted ? RING.muted : RING.open) / (1 + RING.faster * (partial - 1));
    const amount = addPartial(out, {
      note,
      partial,
      loud,
      ring,
      from,
      frames,
      sampleRate,
      until,
      phase: noise() * Math.PI,
    });
    if (partial === 1) left = amount / Math.sin(Math.PI * STRING.pluckedAt);
  }
  return left;
}

interface Partial {
  readonly note: PlayedNote;
  readonly partial: number;
  readonly loud: number;
  readonly ring: number;
  readonly from: number;
  readonly frames: number;
  readonly sampleRate: number;
  readonly until: number;
  readonly phase: number;
}

function addPartial(
  out: Float32Array,
  { note, partial, loud, ring, from, frames, sampleRate, until, phase: start }: Partial,
): number {
  let sine = Math.sin(start);
  let cosine = Math.cos(start);
  let level = loud;
  let atEnd = loud;
  const stretch = partial * Math.sqrt(1 + STRING.stiffness * partial * partial);
  for (let block = 0; block < frames; block += CONTROL) {
    const seconds = block / sampleRate;
    const { contour } = note;
    const cents = contour.length <= 1 ? (contour[0]?.cents ?? 0) : centsAt(contour, seconds);
    const hz = hzOf((note.midi ?? 0) + cents / 100) * stretch;
    if (hz > sampleRate * 0.45) return atEnd;
    const isReleased = seconds >= note.durationSeconds || note.startSeconds + seconds >= until;
    const fall = 10 ** (-3 / ((isReleased ? RING.released : ring) * sampleRate));
    const turn = (2 * Math.PI * hz) / sampleRate;
    const along = Math.sin(turn);
    const across = Math.cos(turn);
    const riseFrames = note.attack === 'none' ? 0 : ATTACK_SECONDS * sampleRate;
    const blockEnd = block + CONTROL < frames ? block + CONTROL : frames;
    for (let n = block; n < blockEnd; n += 1) {
      const rise = n < riseFrames ? n / riseFrames : 1;
      out[from + n] = (out[from + n] ?? 0) + level * rise * sine;
      level *= fall;
      // The wave turns on by the addition theorems, which are cheaper than a sine.
      const turned = sine * across + cosine * along;
      cosine = cosine * across - sine * along;
      sine = turned;
    }
    if (note.startSeconds + seconds < until) atEnd = Math.abs(level);
  }
  return atEnd;
}
