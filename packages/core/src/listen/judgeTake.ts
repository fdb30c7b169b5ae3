import type { PlayedNote, Span } from '../notation/index.ts';
import { alignEvents, LOWEST_MIDI, type Alignment } from './align.ts';
import { resample, type Audio } from './audio.ts';
import { cutsOf, type Cut } from './cuts.ts';
import { expectedOf, pitchAt, type Expected, type ExpectedEvent } from './expected.ts';
import { finePitch } from './finePitch.ts';
import { bendOf, vibratoOf, type BendReach, type VibratoHeard } from './gestures.ts';
import { onsetsOf, riseOf } from './onsets.ts';
import { medianOf, rowsBetween, trackPitch, type PitchTrack } from './pitchTrack.ts';
import { Sounding } from './sounding.ts';

/** What is said of a note. `cannot tell`: it may be right, the recording does not say. */
export type NoteVerdict = 'right' | 'early' | 'late' | 'missing' | 'wrong' | 'cannot tell';

/** What was heard of one event of the piece. */
export interface JudgedEvent {
  readonly span: Span;
  /** Seconds of the piece at the tempo asked for. */
  readonly seconds: number;
  readonly verdict: NoteVerdict;
  /** Seconds of the recording at which it was heard, or was due. */
  readonly heardSeconds: number;
  /** Seconds it came late, negative early, once what all notes share is taken out; null where it was not heard. */
  readonly offSeconds: number | null;
  /** What was played instead, MIDI; null unless wrong. */
  readonly heardMidi: number | null;
  readonly bend?: BendReach;
  /** What was heard where a vibrato is written; null where none was heard. */
  readonly vibrato?: VibratoHeard | null;
}

/** A note that nobody asked for. */
export interface ExtraNote {
  /** Seconds of the recording. */
  readonly seconds: number;
  /** MIDI; null where it has no pitch. */
  readonly midi: number | null;
}

/** A take, judged. */
export interface JudgedTake {
  readonly events: readonly JudgedEvent[];
  readonly extras: readonly ExtraNote[];
  /** The tempo really played, quarter notes a minute at the start of the piece. */
  readonly bpm: number;
  /** When the piece begins in the recording, seconds: what all notes share. */
  readonly startSeconds: number;
  /** How far the instrument stands from where it should, cents. */
  readonly tuningCents: number;
  /** How far apart from their place notes usually fall, seconds: the root mean square. */
  readonly unsteadySeconds: number;
  /** How long the recording is, seconds. */
  readonly lengthSeconds: number;
  /** Why nothing can be said of it: it is silent, clipped, or another piece. */
  readonly trouble: TakeTrouble | null;
}

/** What stands in the way of judging. */
export type TakeTrouble = 'silent' | 'clipped' | 'another piece';

/** What a take is judged by. */
export interface TakeOptions {
  /** The tempo asked for, quarter notes a minute. */
  readonly bpm: number;
  /** How late or early a note may come, seconds. */
  readonly toleranceSeconds?: number;
}

/** Fewest notes that may be found of a piece that is that piece, as a share. Our choice. */
const LEAST_FOUND = 0.4;
/** Samples at the edge of what can be recorded, as a share, that make a recording clipped; and where that edge is. Our choice. */
const CLIPPED = { share: 0.002, level: 0.985 } as const;
const SILENT_LEVEL = 2e-4;
/** A pitch so far off is another note, semitones. */
const WRONG_SEMITONES = 0.6;
/** A note is looked for from so long after its attack on, seconds. */
const SOUNDING_SECONDS = 0.025;
/** A note without a cut is looked for so far from its place, seconds. */
const SPARE_SECONDS = 0.17;
/** An attack of so much of the usual strength is believed where a note is due. */
const FAINT = 0.25;
/** Share of rows that must have the pitch asked for after a faint attack. */
const FAINT_AGREE = 0.5;
/** Share of rows that must agree on another pitch. */
const AGREE = 0.6;

/**
 * How late or early a note may come, seconds: 50 ms, tighter where the tempo is slow, down to 35 ms at half of 100.
 * Source: ± 50 ms is the convention of MIREX onset evaluation (from memory); the tightening is our choice.
 */
export function toleranceAt(bpm: number): number {
  return 0.035 + 0.015 * Math.min(1, Math.max(0, (bpm - 50) / 50));
}

/**
 * Judges a take against the piece as it should be performed at the tempo asked for. What all notes share, the start, the tempo and the
 * tuning, is taken out first. Of seconds × window log window, and of events × cuts.
 */
export function judgeTake(
  audio: Audio,
  played: readonly PlayedNote[],
  { bpm, toleranceSeconds = toleranceAt(bpm) }: TakeOptions,
): JudgedTake {
  const { samples } = resample(audio);
  const lengthSeconds = audio.samples.length / audio.sampleRate;
  const expected = expectedOf(played);
  const track = trackPitch(samples);
  const nothing = { events: [], extras: [], bpm, startSeconds: 0, tuningCents: 0, unsteadySeconds: 0, lengthSeconds };
  if (track.levels.every((level) => level < SILENT_LEVEL)) return { ...nothing, trouble: 'silent' };
  const rise = riseOf(samples);
  const cuts = cutsOf(onsetsOf(rise), track);
  const sounding = new Sounding(samples);
  const lookFor = (cents: number) => (event: ExpectedEvent, cut: Cut) => {
    const [note] = event.notes;
    return note !== undefined && sounding.has(pitchAt(note, 0.07) + cents / 100, cut.seconds + SOUNDING_SECONDS);
  };
  const rough = alignEvents(expected.events, cuts, lookFor(0));
  const tuningCents = tuningOf(samples, expected.events, cuts, rough);
  const tuned = Math.abs(tuningCents) > 3 ? cuts.map((cut) => ({ ...cut, midi: cut.midi - tuningCents / 100 })) : cuts;
  const alignment = tuned === cuts ? rough : alignEvents(expected.events, tuned, lookFor(tuningCents));
  const judge = new Judge({
    sounding,
    faint: onsetsOf(rise, FAINT).map(({ seconds }) => seconds),
    expected,
    track,
    cuts: tuned,
    alignment,
    tuningCents,
    toleranceSeconds,
  });
  const events = expected.events.map((event, index) => judge.event(event, index));
  const offs = events.flatMap(({ offSeconds }) => (offSeconds === null ? [] : [offSeconds]));
  const found = events.filter(({ verdict }) => verdict === 'right' || verdict === 'early' || verdict === 'late').length;
  const clipped = audio.samples.reduce((sum, one) => sum + (Math.abs(one) >= CLIPPED.level ? 1 : 0), 0);
  return {
    events,
    extras: judge.extras(),
    bpm: bpm / alignment.line.each,
    startSeconds: alignment.line.start,
    tuningCents,
    unsteadySeconds: Math.sqrt(offs.reduce((sum, off) => sum + off * off, 0) / Math.max(1, offs.length)),
    lengthSeconds,
    trouble:
      found < LEAST_FOUND * events.length
        ? 'another piece'
        : clipped > CLIPPED.share * audio.samples.length
          ? 'clipped'
          : null,
  };
}

/** How far the instrument stands off as a whole, cents: the middle of what held notes are off by. */
function tuningOf(
  samples: Float32Array,
  events: readonly ExpectedEvent[],
  cuts: readonly Cut[],
  { cutOf, line }: Alignment,
): number {
  const offs = events.flatMap((event, index): readonly number[] => {
    const cut = cuts[cutOf[index] ?? -1];
    if (!cut) return [];
    const to = Math.min(cut.until, cut.seconds + event.lasts * line.each) - 0.01;
    return event.notes.filter(isFlat).flatMap((note) => {
      const should = pitchAt(note, 0);
      // A single note says itself where it is; in a chord each is looked for at its place.
      const about = event.notes.length === 1 && !event.covered && Math.abs(cut.midi - should) < 0.7 ? cut.midi : should;
      const off = 100 * (finePitch(samples, cut.seconds + 0.03, to, about) - should);
      return Math.abs(off) < 60 ? [off] : [];
    });
  });
  return offs.length >= 3 ? medianOf(offs) : 0;
}

/** Whether a note stays at one pitch. */
function isFlat({ contour }: PlayedNote): boolean {
  return contour.every(({ cents }) => cents === contour[0]?.cents);
}

interface Listening {
  readonly sounding: Sounding;
  /** Attacks too faint to be cuts, with those that are; seconds. */
  readonly faint: readonly number[];
  readonly expected: Expected;
  readonly track: PitchTrack;
  /** In tune with the piece. */
  readonly cuts: readonly Cut[];
  readonly alignment: Alignment;
  readonly tuningCents: number;
  readonly toleranceSeconds: number;
}

function timely(offSeconds: number, slack: number): NoteVerdict {
  return Math.abs(offSeconds) <= slack ? 'right' : offSeconds < 0 ? 'early' : 'late';
}

class Judge {
  readonly #heard: Listening;
  /** The cut of each event; null where there is none. */
  readonly #cutOf: (number | null)[];

  constructor(heard: Listening) {
    this.#heard = heard;
    this.#cutOf = [...heard.alignment.cutOf];
    this.#takeSpare();
  }

  /**
   * Gives spare cuts to events that have none. Where a note comes early into one that still sounds, the tracker hears both at once and
   * says neither, so that the cut was laid on nothing; then the note itself is looked for.
   */
  #takeSpare(): void {
    const { cuts, alignment, expected } = this.#heard;
    this.#cutOf.forEach((cut, index) => {
      const [note] = expected.events[index]?.notes ?? [];
      if (cut !== null || !note) return;
      const due = alignment.due[index] ?? 0;
      const after = Math.max(-1, ...this.#cutOf.slice(0, index).map((one) => one ?? -1));
      const before = this.#cutOf.slice(index).find((one) => one !== null) ?? cuts.length;
      const spare = cuts.findIndex(
        ({ seconds, strength }, at) =>
          at > after &&
          at < before &&
          strength > 0 &&
          Math.abs(seconds - due) < SPARE_SECONDS &&
          this.#sounds(note, seconds),
      );
      if (spare >= 0) this.#cutOf[index] = spare;
    });
  }

  event(event: ExpectedEvent, index: number): JudgedEvent {
    const { cuts, alignment } = this.#heard;
    const cut = cuts[this.#cutOf[index] ?? -1];
    const due = alignment.due[index] ?? 0;
    const base = { span: event.span, seconds: event.seconds };
    if (!cut) {
      const faint = this.#faint(event, due);
      if (faint !== undefined)
        return {
          ...base,
          verdict: 'right',
          heardSeconds: faint,
          offSeconds: faint - due,
          heardMidi: null,
          ...this.#gestures(event, faint),
        };
      const verdict = this.#withoutCut(event, due);
      return {
        ...base,
        verdict,
        heardSeconds: due,
        offSeconds: null,
        heardMidi: null,
        ...(verdict === 'right' && this.#gestures(event, due)),
      };
    }
    const other = this.#otherPitch(event, cut);
    const offSeconds = cut.seconds - due;
    const heard = { ...base, heardSeconds: cut.seconds, offSeconds };
    if (other === null) return { ...heard, verdict: 'cannot tell', heardMidi: null };
    if (other !== undefined) return { ...heard, verdict: 'wrong', heardMidi: Math.round(other) };
    // Where a hammer or a slide lands is heard less sharply than where a string is struck.
    const slack = this.#heard.toleranceSeconds * (event.legato ? 1.4 : 1);
    return { ...heard, verdict: timely(offSeconds, slack), heardMidi: null, ...this.#gestures(event, cut.seconds) };
  }

  /** An attack near the place of an event, too faint to be seen by itself, with the right pitch after it. */
  #faint(event: ExpectedEvent, due: number): number | undefined {
    const { faint, cuts, toleranceSeconds, alignment } = this.#heard;
    const near = faint.filter(
      (seconds) =>
        Math.abs(seconds - due) < toleranceSeconds && !cuts.some((cut) => Math.abs(cut.seconds - seconds) < 0.02),
    );
    const [first] = near.sort((a, b) => Math.abs(a - due) - Math.abs(b - due));
    const [note] = event.notes;
    if (first === undefined || !note) return first;
    const lasts = event.lasts * alignment.line.each;
    const sounds =
      event.notes.length > 1 || event.covered
        ? this.#sounds(note, first)
        : this.#agreeing(note, first + 0.028, first + Math.max(0.06, Math.min(0.2, lasts - 0.025))) >= FAINT_AGREE;
    return sounds ? first : undefined;
  }

  /** What is said of an event without an attack of its own: whether its pitch sounds where it is due. */
  #withoutCut(event: ExpectedEvent, due: number): NoteVerdict {
    const [note] = event.notes;
    if (!note) return 'missing';
    if (event.notes.length > 1) return event.notes.every((one) => this.#sounds(one, due)) ? 'cannot tell' : 'missing';
    const lasts = event.lasts * this.#heard.alignment.line.each;
    const agreeing = this.#agreeing(note, due + 0.03, due + Math.min(0.25, lasts));
    if (!event.struck) return agreeing >= AGREE ? 'right' : agreeing > 0.2 ? 'cannot tell' : 'missing';
    const before = this.#agreeing(note, due - 0.12, due - 0.03);
    return agreeing >= AGREE && before < 0.3 ? 'right' : 'missing';
  }

  /** Another pitch than the one asked for; null where none can be told, undefined where it is right. */
  #otherPitch(event: ExpectedEvent, cut: Cut): number | null | undefined {
    const [note] = event.notes;
    if (!note) return undefined;
    const from = cut.seconds + 0.028;
    if (event.notes.length > 1) {
      const there = event.notes.filter((one) => this.#sounds(one, cut.seconds)).length;
      return there * 2 >= event.notes.length ? undefined : null;
    }
    const lasts = Math.min(event.lasts * this.#heard.alignment.line.each, cut.until - cut.seconds);
    const to = cut.seconds + Math.max(0.05, Math.min(0.3, lasts - 0.015));
    const agreeing = this.#agreeing(note, from, to);
    if (agreeing >= 0.4) return undefined;
    if (event.covered || cut.midi < LOWEST_MIDI) return this.#sounds(note, cut.seconds) ? undefined : null;
    if (Number.isNaN(cut.midi) || cut.voiced < AGREE) return this.#sounds(note, cut.seconds) ? undefined : null;
    const off = Math.abs(cut.midi - pitchAt(note, (from + to) / 2 - cut.seconds));
    if (off < WRONG_SEMITONES) return undefined;
    if (this.#steady(cut.midi, from, to) < AGREE) return this.#sounds(note, cut.seconds) ? undefined : null;
    // An octave, or a twelfth, may be the tracker's own slip: the note itself is looked for.
    const nearest = Math.min(...[12, 19, 24].map((interval) => Math.abs(off - interval)));
    return nearest < 0.5 && this.#sounds(note, cut.seconds) ? undefined : cut.midi;
  }

  #sounds(note: PlayedNote, seconds: number): boolean {
    return this.#heard.sounding.has(pitchAt(note, 0.07) + this.#heard.tuningCents / 100, seconds + SOUNDING_SECONDS);
  }

  /** Share of rows between two times in which a note has its pitch; the note begins at the first, less its attack. */
  #agreeing(note: PlayedNote, from: number, to: number): number {
    const { track, tuningCents, alignment } = this.#heard;
    const [first, last] = rowsBetween(track, from, to);
    let agreeing = 0;
    for (let row = first; row < last; row += 1) {
      const at = (track.firstSeconds + row * track.hopSeconds - from) / alignment.line.each;
      const midi = (track.midis[row] ?? NaN) - tuningCents / 100;
      const near = [at - 0.03, at + 0.03, at + 0.09].map((time) => Math.abs(pitchAt(note, time) - midi));
      if (Math.min(...near) < 0.5) agreeing += 1;
    }
    return agreeing / Math.max(1, last - first);
  }

  /** Share of rows between two times that have one pitch. */
  #steady(midi: number, from: number, to: number): number {
    const { track, tuningCents } = this.#heard;
    const rows = [...track.midis.subarray(...rowsBetween(track, from, to))];
    return rows.filter((one) => Math.abs(one - tuningCents / 100 - midi) < 0.5).length / Math.max(1, rows.length);
  }

  #gestures(event: ExpectedEvent, from: number): Pick<JudgedEvent, 'bend' | 'vibrato'> {
    const [note] = event.notes;
    if (!note || event.notes.length > 1 || isFlat(note)) return {};
    const { track, alignment, tuningCents } = this.#heard;
    const { each } = alignment.line;
    const lasts = Math.min(event.lasts, note.durationSeconds) * each;
    const tuned = { ...note, midi: (note.midi ?? 0) + tuningCents / 100 };
    const wave = waveOf(note);
    const bend = bendOf(tuned, track, { from, lasts, each, swings: wave !== undefined });
    if (!wave) return bend ? { bend } : {};
    const vibrato = vibratoOf(
      track,
      from + wave.from * each,
      from + Math.min(lasts, wave.to * each, wave.from * each + WAVE_SECONDS) - 0.02,
    );
    return { ...(bend && { bend }), ...(wave.to - wave.from > LEAST_WAVE_SECONDS && { vibrato: vibrato ?? null }) };
  }

  /** Attacks that nothing of the piece explains. */
  extras(): readonly ExtraNote[] {
    const { cuts, expected } = this.#heard;
    const used = new Set(this.#cutOf);
    const levels = cuts.filter((_, index) => used.has(index)).map(({ level }) => level);
    const usual = medianOf(levels);
    return cuts.flatMap((cut, index): readonly ExtraNote[] => {
      if (used.has(index) || cut.strength < LEAST_EXTRA || !(cut.level > EXTRA_LEVEL * usual)) return [];
      if (
        this.#explained(cut) ||
        expected.ornaments.some((seconds) => Math.abs(this.#timeOf(seconds) - cut.seconds) < 0.06)
      )
        return [];
      return cut.voiced > 0.5 ? [{ seconds: cut.seconds, midi: Math.round(cut.midi) }] : [];
    });
  }

  #timeOf(seconds: number): number {
    const { line } = this.#heard.alignment;
    return line.start + line.each * seconds;
  }

  /** Whether a cut is only what a sounding note does by itself: its own pitch goes on, without a new attack to speak of. */
  #explained(cut: Cut): boolean {
    const { alignment, expected, cuts } = this.#heard;
    const index = this.#cutOf.findLastIndex((one) => one !== null && (cuts[one]?.seconds ?? Infinity) < cut.seconds);
    const note = expected.events[index]?.notes;
    const begun = cuts[this.#cutOf[index] ?? -1];
    if (!note || !begun) return false;
    const since = (cut.seconds - begun.seconds) / alignment.line.each;
    const sameSound = note.some(
      (one) => Math.min(...[0, 0.05, 0.1].map((later) => Math.abs(pitchAt(one, since + later) - cut.midi))) < 0.6,
    );
    return (
      (sameSound && cut.strength < STRONG && cut.level <= begun.level * 1.05) ||
      (note.length > 1 && cut.strength < STRONG)
    );
  }
}

/** An extra note is struck at least so strongly. Our choice. */
const LEAST_EXTRA = 1.3;
/** An extra note is at least this loud against the usual one, and an attack of this strength is no accident of a sounding note. Our choice. */
const EXTRA_LEVEL = 0.25;
const STRONG = 2;
/** A vibrato is looked at for so long; later it dies away with its note. Seconds. */
const WAVE_SECONDS = 1.6;
/** A vibrato is asked for where it is written for so long, seconds. */
const LEAST_WAVE_SECONDS = 0.4;

/** From when to when a written note swings; undefined where it does not. */
function waveOf({ contour }: PlayedNote): { readonly from: number; readonly to: number } | undefined {
  const turns = contour.filter((point, index) => {
    const [before, after] = [contour[index - 1], contour[index + 1]];
    return before && after && (point.cents - before.cents) * (after.cents - point.cents) < 0;
  });
  const [first, last] = [turns[0], turns.at(-1)];
  if (!first || !last || turns.length < 4) return undefined;
  // A trill swings by whole frets and is none.
  const cents = turns.map((turn) => turn.cents);
  if (Math.max(...cents) - Math.min(...cents) > 160) return undefined;
  return { from: first.seconds, to: last.seconds };
}
