import type { PlayedNote } from '../notation/index.ts';
import { weighTab } from './agree.ts';
import { LISTEN_RATE } from './audio.ts';
import { cutsOf, type Cut } from './cuts.ts';
import { vibratoOf } from './gestures.ts';
import { onsetsOf, riseOf } from './onsets.ts';
import { medianOf, rowsBetween, trackPitch, type PitchTrack } from './pitchTrack.ts';

/** A note of a first draft. */
export interface DraftNote {
  /** Seconds of the sound. */
  readonly seconds: number;
  readonly lasts: number;
  /** The fretted pitch, MIDI; a bend begins here. A pre-bend reads as the higher fret. */
  readonly midi: number;
  /** How far it is bent, cents, and whether it comes back before it ends. */
  readonly bend?: { readonly cents: number; readonly isReleased: boolean };
  readonly hasVibrato: boolean;
  /** How it is set going: struck, or by a finger of the left hand while the string sounds, up or down. */
  readonly begins: 'struck' | 'hammered' | 'pulled' | 'slid';
}

/** A first draft of one line; without notes where no one line is in front. */
export interface Draft {
  readonly notes: readonly DraftNote[];
  /** Share of what sounds that has one clear pitch, 0 to 1. */
  readonly clear: number;
  /** Share of the notes long enough to be weighed that the sound itself agrees with, 0 to 1. */
  readonly agreed: number;
}

/** Shorter than this is no note, seconds. */
const SHORTEST = 0.035;
/** A cut is a note where at least this share of its rows has one pitch. Our choice. */
const VOICED = 0.35;
/** Fainter than this share of the loudest is what rings on, not a note. */
const FAINT = 0.02;
/** An attack so weak on the same pitch is no new note. */
const WEAK = 1.15;
/** Under these shares there is no one line in front, and nothing is drafted. Chosen on the idioms it was fitted to. */
const ENOUGH = { clear: 0.5, agreed: 0.7 } as const;

/**
 * A first draft of one line that is in front: where notes begin, which they are, and how they are bent. Linear.
 * `notes` is empty where too little of the sound has one pitch.
 *
 * @param sound at 22,050 a second
 * @param offCents how far the recording stands from concert pitch
 */
export function draftLine(sound: Float32Array, offCents = 0): Draft {
  const samples = new Float32Array(sound.length + AHEAD_SAMPLES);
  samples.set(sound, AHEAD_SAMPLES);
  const track = trackPitch(samples);
  const clear = clearShare(track);
  if (clear < ENOUGH.clear) return { notes: [], clear, agreed: 0 };
  const cuts = cutsOf(onsetsOf(riseOf(samples)), track);
  const loudest = Math.max(0, ...cuts.map(({ level }) => level));
  const notes: DraftNote[] = [];
  for (const cut of cuts) {
    if (cut.until - cut.seconds < SHORTEST || cut.voiced < VOICED || cut.level < FAINT * loudest) continue;
    const note = noteOf(cut, track, offCents);
    if (!note) continue;
    const last = notes.at(-1);
    const goesOn = last && cut.again && cut.strength < WEAK && cut.seconds - (last.seconds + last.lasts) < 0.03;
    const lasts = last ? note.seconds + note.lasts - last.seconds : 0;
    if (goesOn) notes[notes.length - 1] = { ...last, lasts };
    else if (last?.bend && comesBack(note, last, track, offCents))
      notes[notes.length - 1] = { ...last, lasts, bend: { ...last.bend, isReleased: true } };
    else notes.push(note);
  }
  const begun = notes.map((note, index) => ({ ...note, begins: beginOf(note, notes[index - 1], cuts) }));
  const agreed = agreedShare(samples, begun, offCents);
  if (agreed < ENOUGH.agreed) return { notes: [], clear, agreed };
  const ahead = AHEAD_SAMPLES / LISTEN_RATE;
  return { notes: begun.map((note) => ({ ...note, seconds: Math.max(0, note.seconds - ahead) })), clear, agreed };
}

/** How many of the drafted notes the sound agrees with when they are weighed against their neighbours. */
function agreedShare(samples: Float32Array, notes: readonly DraftNote[], offCents: number): number {
  const played = notes.map((note) => playedOf(note, offCents));
  const weighed = weighTab(samples, played, { atSeconds: 0, offCents });
  const told = weighed.filter(
    ({ seconds }) => (notes.find((note) => note.seconds === seconds)?.lasts ?? 0) > LONG_ENOUGH,
  );
  if (told.length === 0) return notes.length > 0 ? 1 : 0;
  return told.filter(({ says }) => says === 'agrees').length / told.length;
}

/** Shorter notes are not weighed, seconds. */
const LONG_ENOUGH = 0.09;

/** A drafted note as it would be performed. */
function playedOf({ seconds, lasts, midi, bend }: DraftNote, offCents: number): PlayedNote {
  const cents = bend?.cents ?? 0;
  return {
    ...{
      startSeconds: seconds,
      durationSeconds: lasts,
      string: 1,
      midi: midi + offCents / 100,
      attack: 'pick',
      level: 1,
    },
    ...{ palmMuted: false, harmonic: false, span: { from: 0, to: 0 } },
    contour: [
      { seconds: 0, cents: 0 },
      { seconds: lasts / 2, cents },
    ],
  };
}

/** Silence put before the sound, so that what begins at once is heard to begin. */
const AHEAD_SAMPLES = 5512;

/** Whether a note is only the end of a bend that is let down: its pitch is on its way to the fret as it begins. */
function comesBack(note: DraftNote, last: DraftNote, track: PitchTrack, offCents: number): boolean {
  if (note.bend || note.midi !== last.midi) return false;
  const before = medianOf([...track.midis.subarray(...rowsBetween(track, note.seconds - 0.04, note.seconds))]);
  const above = before - offCents / 100 - note.midi;
  return above > 0.25 && 100 * above < (last.bend?.cents ?? 0);
}

/** How much of what is loud enough has one pitch. */
function clearShare({ midis, levels }: PitchTrack): number {
  let loudest = 0;
  for (const level of levels) if (level > loudest) loudest = level;
  let [clear, loud] = [0, 0];
  levels.forEach((level, row) => {
    if (level < 0.05 * loudest) return;
    loud += 1;
    if (!Number.isNaN(midis[row] ?? NaN)) clear += 1;
  });
  return loud > 0 ? clear / loud : 0;
}

/** A bend is at least so far, and no further than this, cents. */
const BEND = { least: 45, most: 430 } as const;
/** The start of a note, before a finger bends it: rows of 10 ms. */
const START_ROWS = 4;

function noteOf({ seconds, until }: Cut, track: PitchTrack, offCents: number): DraftNote | undefined {
  const [from, to] = rowsBetween(track, seconds + 0.024, until - 0.02);
  const rows: number[] = [];
  for (let row = from; row < Math.max(to, from + 1); row += 1) {
    const midi = track.midis[row] ?? NaN;
    if (!Number.isNaN(midi)) rows.push(midi - offCents / 100);
  }
  if (rows.length === 0) return undefined;
  const middle = medianOf(rows);
  const held = rows.filter((midi) => Math.abs(midi - middle) < 7);
  const struckAt = held.length > 0 ? (held[0] ?? middle) - LATE_ROWS * slopeAtStart(held) : middle;
  const vibrato = vibratoOf(track, seconds + 0.03, until);
  const lasts = soundsUntil(track, seconds, until) - seconds;
  const plain = { seconds, lasts, hasVibrato: vibrato !== undefined };
  const bent = bendIn(held, struckAt, vibrato ? 14 : 2);
  if (!bent) return { ...plain, midi: Math.round(medianOf(held)), begins: 'struck' };
  return { ...plain, midi: bent.from, bend: { cents: bent.cents, isReleased: bent.isReleased }, begins: 'struck' };
}

/** The first row that is looked at lies so many rows behind the attack. */
const LATE_ROWS = 2.4;

/** How fast the pitch rises at the start, semitones a row; 0 where it does not rise evenly. */
function slopeAtStart(rows: readonly number[]): number {
  const first = rows.slice(0, 6);
  const steps = first.slice(1).map((midi, index) => midi - (first[index] ?? midi));
  const isRising = steps.length === 5 && steps.every((step) => step > 0.02 && step < 0.45);
  return isRising ? Math.min(...steps.slice(0, 3)) : 0;
}

/** A rise from near a fret to a steady height, and whether it falls back; undefined for none. */
function bendIn(
  rows: readonly number[],
  struckAt: number,
  half: number,
): { readonly from: number; readonly cents: number; readonly isReleased: boolean } | undefined {
  if (rows.length < 2 * START_ROWS) return undefined;
  const soft = rows.map((_, index) => medianOf(rows.slice(Math.max(0, index - half), index + half + 1)));
  const start = Math.min(struckAt, medianOf(rows.slice(0, START_ROWS)));
  const sorted = [...soft].sort((a, b) => a - b);
  const top = sorted[Math.floor(sorted.length * 0.93)] ?? start;
  const low = sorted[Math.floor(sorted.length * 0.05)] ?? start;
  const base = Math.min(start, low);
  const from = Math.round(base);
  const plateau = medianOf(soft.filter((midi) => Math.abs(midi - top) < 0.28));
  const rise = 100 * (plateau - from);
  if (100 * (plateau - base) < BEND.least || rise > BEND.most) return undefined;
  const end = medianOf(soft.slice(-START_ROWS));
  const startsLow = 100 * (start - base) < 35;
  const fallsBack = 100 * (plateau - end) > 60;
  // What begins high and falls is a bend that was made before the stroke: it reads as the higher fret.
  if (!startsLow) return undefined;
  return { from, cents: Math.round(rise / 50) * 50, isReleased: fallsBack };
}

/** Until a note is silent, at most until the next. */
function soundsUntil(track: PitchTrack, from: number, until: number): number {
  const [first, last] = rowsBetween(track, from, until);
  let loudest = 0;
  for (let row = first; row < last; row += 1) loudest = Math.max(loudest, track.levels[row] ?? 0);
  for (let row = first + 3; row < last; row += 1)
    if ((track.levels[row] ?? 0) < 0.06 * loudest) return track.firstSeconds + row * track.hopSeconds;
  return until;
}

/** Weaker attacks than this are made by the left hand. Chosen on the idioms it was fitted to. */
const STRUCK = 1.3;

function beginOf(note: DraftNote, before: DraftNote | undefined, cuts: readonly Cut[]): DraftNote['begins'] {
  const cut = cuts.find(({ seconds }) => seconds === note.seconds);
  if (!before || !cut || cut.strength >= STRUCK || note.seconds - (before.seconds + before.lasts) > 0.03)
    return 'struck';
  const away = note.midi - before.midi;
  if (away === 0) return 'struck';
  if (Math.abs(away) > 5) return 'slid';
  return away > 0 ? 'hammered' : 'pulled';
}
