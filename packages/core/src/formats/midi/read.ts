import { strFromU8 } from 'fflate';
import { parseMidi, type MidiData, type MidiEvent } from 'midi-file';
import { COMMON_TIME, TICKS_PER_QUARTER, barTicks, type BendMove, type Meter } from '../../notation/index.ts';
import {
  FileProblems,
  MAX_BARS,
  MAX_NOTES,
  notBrought,
  type Brought,
  type BroughtBar,
  type BroughtEvent,
  type BroughtNote,
  type BroughtPart,
} from '../brought.ts';
import { checkMidi } from './check.ts';
import { quantised } from './quantise.ts';

/** Largest file that is read, bytes. Our choice. */
const MAX_BYTES = 10_000_000;

/** Reach of a bend where the file does not say it, semitones. Source: General MIDI level 1. */
const USUAL_BEND = 2;

/**
 * Reads a Standard MIDI File of format 0 or 1: each track with notes is a part. Onsets are put on the nearest place that can be
 * written. MIDI says no strings. Never throws. Source: Standard MIDI Files 1.0.
 */
export function readMidiFile(bytes: Uint8Array): Brought {
  if (bytes.length > MAX_BYTES) return notBrought({ place: '', message: 'The file is too long to be read.' });
  if (strFromU8(bytes.subarray(0, 4), true) !== 'MThd')
    return notBrought({ place: 'byte 1', message: 'This is no MIDI file; it does not begin with “MThd”.' });
  const broken = checkMidi(bytes);
  if (broken) return notBrought(broken);
  let data: MidiData;
  try {
    data = parseMidi(bytes);
  } catch (error) {
    return notBrought({
      place: '',
      message: `The file cannot be read to its end: ${error instanceof Error ? error.message : 'it is broken'}.`,
    });
  }
  const { ticksPerBeat } = data.header;
  if (!ticksPerBeat)
    return notBrought({ place: '', message: 'The file counts in frames of film, not in beats; it is not read.' });
  if (data.header.format === 2)
    return notBrought({
      place: '',
      message: 'The file holds several songs (format 2); save them each as a file of format 1.',
    });
  return new MidiReader(data, ticksPerBeat).read();
}

interface Timed {
  readonly at: number;
  readonly event: MidiEvent;
}

/** A note with the bends that are heard while it sounds. Ticks of the notation. */
interface RawNote {
  readonly at: number;
  end: number;
  readonly midi: number;
  /** Semitones over time. */
  readonly bends: { readonly at: number; readonly semitones: number }[];
}

class MidiReader {
  readonly #tracks: readonly (readonly Timed[])[];
  readonly #problems = new FileProblems();

  constructor(data: MidiData, ticksPerBeat: number) {
    this.#tracks = data.tracks.map((events) => {
      let at = 0;
      return events.map((event) => {
        at += event.deltaTime;
        return { at: Math.round((at * TICKS_PER_QUARTER) / ticksPerBeat), event };
      });
    });
  }

  read(): Brought {
    const all = this.#tracks.flat().sort((a, b) => a.at - b.at);
    const raw = this.#tracks.map((track) => ({ name: nameOf(track), notes: notesOf(track) }));
    const count = raw.reduce((sum, { notes }) => sum + notes.length, 0);
    if (count > MAX_NOTES)
      return notBrought({ place: '', message: `The file holds ${count} notes; at most ${MAX_NOTES} are read.` });
    const end = Math.max(0, ...raw.flatMap(({ notes }) => notes.map((note) => note.end)));
    const bars = barsOf(all, end, this.#problems);
    const last = bars.at(-1);
    const read = last ? last.at + last.ticks : 0;
    if (read < end) this.#problems.add('', `Only the first ${MAX_BARS} bars are read.`);
    const parts = raw
      .filter(({ notes }) => notes.length > 0)
      .map(({ name, notes }, index): BroughtPart => ({
        ...{ name: name || `Track ${index + 1}`, capo: 0, bars, chords: [] },
        events: eventsOf(notes.filter((note) => note.at < read)),
      }));
    if (parts.length === 0) this.#problems.add('', 'No track of this file has notes.');
    const bpm = bars[0]?.bpm;
    return {
      title: nameOf(this.#tracks[0] ?? []),
      credit: '',
      ...(bpm !== undefined && { bpm }),
      parts,
      problems: this.#problems.all,
    };
  }
}

function nameOf(track: readonly Timed[]): string {
  for (const { event } of track) if (event.type === 'trackName') return textOf(event.text);
  return '';
}

/** Text of the file, UTF-8 where it is. */
function textOf(text: string): string {
  return strFromU8(Uint8Array.from(text, (character) => character.charCodeAt(0) & 0xff)).trim();
}

/** The notes of a track, by channel and pitch; one that nothing ends lasts to the end of the track. */
function notesOf(track: readonly Timed[]): readonly RawNote[] {
  const notes: RawNote[] = [];
  const open = new Map<string, RawNote>();
  const channels = new Map<number, { semitones: number; range: number; rpn: number; sounding: Set<RawNote> }>();
  const channelOf = (number: number) => {
    const known = channels.get(number) ?? {
      semitones: 0,
      range: USUAL_BEND,
      rpn: 0x3fff,
      sounding: new Set<RawNote>(),
    };
    channels.set(number, known);
    return known;
  };
  for (const { at, event } of track) {
    if (event.type === 'noteOn' || event.type === 'noteOff') {
      const channel = channelOf(event.channel);
      const key = `${event.channel} ${event.noteNumber}`;
      const before = open.get(key);
      if (before) {
        before.end = at;
        open.delete(key);
        channel.sounding.delete(before);
      }
      if (event.type === 'noteOff' || event.velocity === 0 || event.channel === 9) continue;
      const note: RawNote = { at, end: at, midi: event.noteNumber, bends: [{ at, semitones: channel.semitones }] };
      notes.push(note);
      open.set(key, note);
      channel.sounding.add(note);
    } else if (event.type === 'pitchBend') {
      const channel = channelOf(event.channel);
      channel.semitones = (event.value / 8192) * channel.range;
      for (const note of channel.sounding) note.bends.push({ at, semitones: channel.semitones });
    } else if (event.type === 'controller') {
      const channel = channelOf(event.channel);
      if (event.controllerType === 101) channel.rpn = (channel.rpn & 0x7f) | (event.value << 7);
      if (event.controllerType === 100) channel.rpn = (channel.rpn & 0x3f80) | event.value;
      if (event.controllerType === 6 && channel.rpn === 0) channel.range = event.value;
    }
  }
  const end = track.at(-1)?.at ?? 0;
  for (const note of open.values()) note.end = end;
  return notes.filter((note) => note.end > note.at);
}

/** Bars by the time signatures, with tempos and markers. */
function barsOf(all: readonly Timed[], end: number, problems: FileProblems): readonly BroughtBar[] {
  const bars: BroughtBar[] = [];
  let meter: Meter = COMMON_TIME;
  let next = 0;
  let at = 0;
  while (at < end && bars.length < MAX_BARS) {
    let bpm: number | undefined;
    let label: string | undefined;
    const middle = at + barTicks(meter) / 2;
    for (let one = all[next]; one && one.at < middle; one = all[next]) {
      const { event } = one;
      if (event.type === 'timeSignature')
        meter = meterOf(event.numerator, event.denominator, bars.length, problems) ?? meter;
      if (event.type === 'setTempo' && event.microsecondsPerBeat > 0)
        bpm = Math.round(600_000_000 / event.microsecondsPerBeat) / 10;
      if (event.type === 'marker') label ??= textOf(event.text);
      next += 1;
    }
    const ticks = barTicks(meter);
    const before = bars.findLast((bar) => bar.bpm !== undefined)?.bpm;
    const isTempo = bpm !== undefined && bpm >= 10 && bpm <= 500 && bpm !== before;
    bars.push({
      at,
      ticks,
      meter,
      isRepeatStart: false,
      ...(isTempo && { bpm: bpm ?? 0 }),
      ...(label ? { label } : {}),
    });
    at += ticks;
  }
  return bars;
}

function meterOf(beats: number, unit: number, bar: number, problems: FileProblems): Meter | undefined {
  if (beats >= 1 && beats <= 32 && [1, 2, 4, 8, 16, 32].includes(unit)) return { beats, unit };
  problems.add(`bar ${bar + 1}`, 'A time signature could not be read; the one before goes on.');
  return undefined;
}

/** Notes put where they can be written, as stacks one after the other. */
function eventsOf(notes: readonly RawNote[]): readonly BroughtEvent[] {
  const placed = quantised(notes);
  const stacks: { at: number; end: number; notes: RawNote[] }[] = [];
  for (const { note, at, end } of placed) {
    const last = stacks.at(-1);
    if (last?.at === at) {
      last.notes.push(note);
      last.end = Math.max(last.end, end);
    } else stacks.push({ at, end, notes: [note] });
  }
  return stacks.map(({ at, end, notes: some }, index): BroughtEvent => {
    const next = stacks[index + 1]?.at ?? Infinity;
    const rings = end > next;
    const pitches = [...new Map(some.map((note) => [note.midi, note])).values()];
    return {
      ...{ at, ticks: Math.min(end, next) - at, isGrace: false, words: [], marks: rings ? ['let-ring'] : [] },
      notes: pitches.map(noteOf),
    };
  });
}

/** Below this a bend is none, semitones. Our choice: a little less than a quarter tone. */
const LEAST_BEND = 0.4;
/** So often a pitch turns round in a vibrato, at least; a bend and its release turn once. Our choice. */
const VIBRATO_TURNS = 3;

/** A note with what its bends say: a vibrato; or a height that is held as it begins, the highest it goes to, and where it ends. */
function noteOf({ midi, bends }: RawNote): BroughtNote {
  const heights = bends.map(({ semitones }) => semitones);
  const start = heights[0] ?? 0;
  const top = Math.max(...heights);
  const end = heights.at(-1) ?? 0;
  const swing = top - Math.min(...heights);
  if (turnsIn(heights) >= VIBRATO_TURNS) return { midi, vibrato: swing > 2 * LEAST_BEND ? 'wide' : 'narrow' };
  const steps = (semitones: number) => Math.max(0, Math.round(semitones * 2) / 4);
  const moves: BendMove[] = [];
  if (top - start >= LEAST_BEND) moves.push({ kind: 'bend', steps: steps(top) });
  if (top - end >= LEAST_BEND && top >= LEAST_BEND) moves.push({ kind: 'release', steps: steps(end) });
  return { midi, ...(start >= LEAST_BEND && { preBend: steps(start) }), ...(moves.length > 0 && { moves }) };
}

/** How often a row of heights turns from up to down or back. */
function turnsIn(heights: readonly number[]): number {
  const moves = heights.slice(1).flatMap((height, index) => {
    const by = height - (heights[index] ?? 0);
    return by === 0 ? [] : [Math.sign(by)];
  });
  return moves.filter((sign, index) => index > 0 && sign !== moves[index - 1]).length;
}
