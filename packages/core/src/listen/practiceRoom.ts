import type { PlayedNote } from '../notation/index.ts';
import { noiseOf, renderNotes, renderPlucks } from '../sound/index.ts';
import { loudness, type Audio } from './audio.ts';
import { expectedOf, TOGETHER_SECONDS } from './expected.ts';

/** What a learner does otherwise than it is written. */
export type SlipKind = 'missed' | 'wrong' | 'extra' | 'early' | 'late' | 'short bend';

/** One slip, by the event it happens at. */
export interface Slip {
  readonly event: number;
  readonly kind: SlipKind;
}

/** A simulated learner and the room they sit in. */
export interface Learner {
  /** The same seed plays the same. */
  readonly seed: number;
  /** Tempo really played, against the one asked for; 1 when left out. */
  readonly tempo?: number;
  /** How much faster they are at the end than at the beginning; 0 when left out. */
  readonly rushing?: number;
  /** How far notes fall from their place, root mean square, seconds; 0.012 when left out. */
  readonly unsteadySeconds?: number;
  /** Of 100 events, so many slip in each way; none when left out. */
  readonly slips?: Readonly<Partial<Record<SlipKind, number>>>;
  /** How far the guitar is out of tune, cents. */
  readonly tuningCents?: number;
  /** When they begin, seconds. */
  readonly startSeconds?: number;
  /** How far the noise of the room lies below the guitar, decibels; no noise when left out. */
  readonly noiseDb?: number;
  readonly guitar?: 'string' | 'plucks';
  readonly sampleRate?: number;
}

/** A take of the practice room, and what was slipped in it. */
export interface PracticeTake {
  readonly audio: Audio;
  readonly slips: readonly Slip[];
  /** What was played, seconds of the recording. */
  readonly played: readonly PlayedNote[];
}

/** A bend that falls short ends at so much of its height; a note early or late is so by these seconds; a wrong one by these frets. */
const SHORT_SHARE = 0.7;
const OFF_SECONDS = [0.085, 0.13] as const;
const WRONG_FRETS = [-2, -1, 1, 2] as const;
/** Between notes closer than this nobody squeezes another, and none can be early or late without being another; seconds. */
const ROOM_SECONDS = 0.3;
/** What is bent at least so far can fall short, cents. */
const LEAST_BEND_CENTS = 60;
const TAIL_SECONDS = 0.7;

/** Plays notes as a learner would. Deterministic for a seed. */
export function playAsLearner(played: readonly PlayedNote[], learner: Learner): PracticeTake {
  const random = noiseOf(learner.seed * 7919 + 13);
  const slips = slipsOf(played, learner, random);
  const notes = slipped(played, slips, learner, random);
  const { sampleRate = 44_100, seed, guitar = 'string' } = learner;
  const end = Math.max(0, ...notes.map((note) => note.startSeconds + note.durationSeconds));
  const render = guitar === 'string' ? renderNotes : renderPlucks;
  const samples = render(notes, { sampleRate, seed, seconds: end + TAIL_SECONDS });
  if (learner.noiseDb !== undefined) addNoise(samples, learner.noiseDb, seed);
  return { audio: { samples, sampleRate }, slips, played: notes };
}

/** Adds noise so many decibels below the sound, both measured as root mean square. */
export function addNoise(samples: Float32Array, decibels: number, seed: number): void {
  const noise = noiseOf(seed + 99);
  // Even noise between -1 and 1 has a root mean square of one over the root of three.
  const level = loudness(samples) * Math.sqrt(3) * 10 ** (-decibels / 20);
  for (let n = 0; n < samples.length; n += 1) samples[n] = (samples[n] ?? 0) + level * noise();
}

function slipsOf(played: readonly PlayedNote[], { slips = {} }: Learner, random: () => number): readonly Slip[] {
  const { events } = expectedOf(played);
  const kinds = Object.entries(slips) as [SlipKind, number][];
  return events.flatMap((event, index): readonly Slip[] => {
    let draw = 50 * (random() + 1);
    // The first and last note are left as they are: they say where the piece is.
    const canSlip = index > 0 && index < events.length - 1 && event.struck && event.notes.length === 1;
    for (const [kind, share] of kinds) {
      draw -= share;
      if (draw >= 0) continue;
      const gap = (events[index + 1]?.seconds ?? 0) - event.seconds;
      const before = event.seconds - (events[index - 1]?.seconds ?? 0);
      const bends = event.notes[0]?.contour.some(({ cents }) => cents > LEAST_BEND_CENTS) === true;
      const room = {
        extra: gap,
        late: gap,
        early: before,
        missed: Infinity,
        wrong: Infinity,
        'short bend': bends ? Infinity : 0,
      };
      const fits = room[kind] > ROOM_SECONDS;
      return canSlip && fits ? [{ event: index, kind }] : [];
    }
    return [];
  });
}

function slipped(
  played: readonly PlayedNote[],
  slips: readonly Slip[],
  learner: Learner,
  random: () => number,
): readonly PlayedNote[] {
  const { tempo = 1, rushing = 0, unsteadySeconds = 0.012, tuningCents = 0, startSeconds = 0.4 } = learner;
  const { events } = expectedOf(played);
  const whole = Math.max(0.1, ...events.map(({ seconds }) => seconds));
  const timeOf = (seconds: number) => startSeconds + (seconds - (rushing / 2) * (seconds ** 2 / whole)) / tempo;
  // The sum of three even draws is near enough to a bell; its root mean square is 1.
  const bell = () => random() + random() + random();
  const out: PlayedNote[] = [];
  const slipAt = new Map(slips.map(({ event, kind }) => [event, kind]));
  let wasMissed = false;
  events.forEach((event, index) => {
    const slip = slipAt.get(index);
    const off = unsteadySeconds * bell() + offOf(slip, random);
    const notes = played.filter(
      (note) =>
        note.startSeconds >= event.seconds - 0.1 &&
        note.span.from === event.span.from &&
        belongs(note, event.seconds, events[index + 1]?.seconds),
    );
    const frets = WRONG_FRETS[Math.floor(2 * (random() + 1)) % WRONG_FRETS.length] ?? 1;
    if (slip !== 'missed')
      for (const note of notes) {
        const start = Math.max(0, timeOf(note.startSeconds) + off);
        const contour = note.contour.map((point) => ({
          seconds: point.seconds / tempo,
          cents: point.cents * (slip === 'short bend' ? SHORT_SHARE : 1),
        }));
        out.push({
          ...note,
          startSeconds: start,
          durationSeconds: timeOf(note.startSeconds + note.durationSeconds) - timeOf(note.startSeconds),
          midi: note.midi === null ? null : note.midi + tuningCents / 100 + (slip === 'wrong' ? frets : 0),
          contour,
          attack: wasMissed && note.attack !== 'finger' ? 'pick' : note.attack,
        });
        if (slip === 'extra')
          out.push(squeezed(note, start, (timeOf(events[index + 1]?.seconds ?? 0) - timeOf(event.seconds)) / 2, frets));
      }
    wasMissed = slip === 'missed';
  });
  return cutShort(out.sort((a, b) => a.startSeconds - b.startSeconds));
}

/** Whether a played note is part of the event at a time: the next begins after it. */
function belongs(note: PlayedNote, from: number, next = Infinity): boolean {
  return (
    note.startSeconds < next - TOGETHER_SECONDS &&
    (note.startSeconds >= from - TOGETHER_SECONDS || note.ornament === true)
  );
}

function offOf(slip: SlipKind | undefined, random: () => number): number {
  const off = OFF_SECONDS[0] + ((random() + 1) / 2) * (OFF_SECONDS[1] - OFF_SECONDS[0]);
  return slip === 'early' ? -off : slip === 'late' ? off : 0;
}

function squeezed(note: PlayedNote, start: number, later: number, frets: number): PlayedNote {
  const midi = note.midi === null ? null : note.midi + frets;
  return {
    ...note,
    startSeconds: start + later,
    durationSeconds: later * 0.9,
    midi,
    contour: [{ seconds: 0, cents: 0 }],
    attack: 'pick',
  };
}

/** A string sounds one note at a time. */
function cutShort(notes: readonly PlayedNote[]): readonly PlayedNote[] {
  return notes.map((note, index) => {
    const next = notes.slice(index + 1).find(({ string }) => string === note.string);
    return next
      ? {
          ...note,
          durationSeconds: Math.max(0.02, Math.min(note.durationSeconds, next.startSeconds - note.startSeconds)),
        }
      : note;
  });
}
