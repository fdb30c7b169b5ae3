import { strToU8 } from 'fflate';
import { writeMidi, type MidiEvent } from 'midi-file';
import { centsAt, TICKS_PER_QUARTER } from '../../notation/index.ts';
import { playSong, tickAt, type PlayedSong, type SongNote } from '../played.ts';
import type { SongToWrite } from '../song.ts';

/** Semitones that a bend reaches to each side. Source: MIDI 1.0, registered parameter 0, pitch bend sensitivity. */
export const BEND_RANGE = 12;
/** Bend values to each side of the middle. Source: MIDI 1.0, pitch bend change: 14 bits. */
const BEND_VALUES = 8192;

/** So often a glide is written down, seconds. Our choice: finer than is heard. */
const GLIDE_SECONDS = 0.01;

/** MIDI program of an electric guitar, clean, counted from 0. Source: General MIDI level 1, sound set. */
const CLEAN_GUITAR = 27;
/** The channel of drums, counted from 0, which strings stay away from. Source: General MIDI level 1. */
const DRUMS = 9;
const CHANNELS = 16;

/** How long a dead string knocks, ticks: a 32nd. Our choice. */
const DEAD_TICKS = TICKS_PER_QUARTER / 8;

/** The least that a note lasts, ticks: one that begins as it ends is heard by no player. */
const MIN_TICKS = 1;

/** An event and where it stands. `order` sorts what stands at one tick. */
interface Placed {
  readonly at: number;
  readonly order: number;
  readonly event: MidiEvent;
}

/** What comes first at one tick: a note ends, its bend is taken back, the next bend is set, the next note begins. */
const ORDER = { setUp: 0, off: 1, reset: 2, bend: 3, on: 4 } as const;

/**
 * A song as a Standard MIDI File, format 1: a track with tempos, meters and sections, a track for each layer, a channel for each
 * string, so that bends are heard alone. Ticks are those of the notation. A song is written out by its form. Source: MIDI 1.0, Standard
 * MIDI Files 1.0.
 */
export function writeMidiFile(song: SongToWrite): Uint8Array {
  const played = playSong(song);
  const tracks = [conductor(song, played)];
  let channel = 0;
  for (const layer of played.layers) {
    const notes = played.notes.filter((note) => note.layer === layer);
    const strings = [...new Set(notes.map(({ string }) => string))].sort((a, b) => a - b);
    const channels = new Map<number, number>();
    for (const string of strings) {
      channels.set(string, channel);
      channel = (channel + 1) % CHANNELS;
      if (channel === DRUMS) channel += 1;
    }
    tracks.push(new TrackWriter(song, played, channels).write(layer, notes));
  }
  const header = { format: 1, numTracks: tracks.length, ticksPerBeat: TICKS_PER_QUARTER } as const;
  return Uint8Array.from(writeMidi({ header, tracks }));
}

function conductor({ title }: SongToWrite, { segments, meters, markers, ticks }: PlayedSong): MidiEvent[] {
  const placed: Placed[] = [
    ...segments.map(({ at, bpm }) =>
      set(at, { type: 'setTempo', microsecondsPerBeat: Math.round(60_000_000 / bpm), deltaTime: 0 }),
    ),
    ...meters.map(({ at, meter: { beats, unit } }) =>
      set(at, {
        type: 'timeSignature',
        numerator: beats,
        denominator: unit,
        metronome: 24,
        thirtyseconds: 8,
        deltaTime: 0,
      }),
    ),
    ...markers.map(({ at, label }) => set(at, { type: 'marker', text: bytes(label), deltaTime: 0 })),
  ];
  return inDeltas([set(0, { type: 'trackName', text: bytes(title), deltaTime: 0 }), ...placed], ticks);
}

function set(at: number, event: MidiEvent): Placed {
  return { at, order: ORDER.setUp, event };
}

/** Text as the writer wants it: a character for each byte of its UTF-8. */
function bytes(text: string): string {
  return [...strToU8(text)].map((byte) => String.fromCharCode(byte)).join('');
}

/** Events in time, each counted from the one before, with the end of the track. */
function inDeltas(placed: readonly Placed[], end: number): MidiEvent[] {
  const sorted = placed.toSorted((a, b) => a.at - b.at || a.order - b.order);
  let now = 0;
  const events = sorted.map(({ at, event }): MidiEvent => {
    const deltaTime = Math.max(0, at - now);
    now = Math.max(now, at);
    return { ...event, deltaTime };
  });
  return [...events, { type: 'endOfTrack', deltaTime: Math.max(0, end - now) }];
}

/** Writes the notes of one layer. */
class TrackWriter {
  readonly #song: SongToWrite;
  readonly #played: PlayedSong;
  readonly #channels: ReadonlyMap<number, number>;

  constructor(song: SongToWrite, played: PlayedSong, channels: ReadonlyMap<number, number>) {
    this.#song = song;
    this.#played = played;
    this.#channels = channels;
  }

  write(layer: string, notes: readonly SongNote[]): MidiEvent[] {
    const placed: Placed[] = [
      set(0, { type: 'trackName', text: bytes(layer === '' ? 'Guitar' : `Guitar, ${layer}`), deltaTime: 0 }),
    ];
    for (const channel of new Set(this.#channels.values())) placed.push(...setUp(channel));
    for (const [string, channel] of this.#channels) {
      const own = notes.filter((note) => note.string === string);
      own.forEach((note, index) => placed.push(...this.#note(note, channel, own[index + 1])));
    }
    return inDeltas(placed, this.#played.ticks);
  }

  #note(note: SongNote, channel: number, next: SongNote | undefined): readonly Placed[] {
    const { midi, string, startSeconds, durationSeconds, level } = note;
    const at = this.#tick(startSeconds);
    const nextAt = next ? this.#tick(next.startSeconds) : Infinity;
    const isDead = midi === null;
    const sounds = midi ?? (this.#song.guitar.tuning.openMidis[string - 1] ?? 40) + this.#song.guitar.capo;
    const whole = Math.min(127, Math.max(0, Math.round(sounds)));
    const ends = this.#tick(startSeconds + durationSeconds);
    const end = Math.max(at + MIN_TICKS, Math.min(isDead ? Math.min(ends, at + DEAD_TICKS) : ends, nextAt));
    const velocity = Math.max(1, Math.min(127, Math.round(level * 127)));
    const bends = isDead ? [] : this.#bends(note, { at, end, channel, offCents: (sounds - whole) * 100 });
    return [
      ...bends,
      { at, order: ORDER.on, event: { type: 'noteOn', channel, noteNumber: whole, velocity, deltaTime: 0 } },
      { at: end, order: ORDER.off, event: { type: 'noteOff', channel, noteNumber: whole, velocity: 0, deltaTime: 0 } },
    ];
  }

  /** Where the bend stands as a note begins, each step of its glides, and the way back to the middle. */
  #bends(
    note: SongNote,
    around: { readonly at: number; readonly end: number; readonly channel: number; readonly offCents: number },
  ): readonly Placed[] {
    const { at, end, channel, offCents } = around;
    const { contour, startSeconds, durationSeconds } = note;
    const times = new Set<number>([0]);
    contour.forEach(({ seconds, cents }, index) => {
      const next = contour[index + 1];
      if (seconds > 0 && seconds < durationSeconds) times.add(seconds);
      if (!next || next.cents === cents) return;
      for (let time = seconds; time < Math.min(next.seconds, durationSeconds); time += GLIDE_SECONDS)
        if (time > 0) times.add(time);
    });
    let last = 0;
    const placed = [...times]
      .sort((a, b) => a - b)
      .flatMap((seconds): readonly Placed[] => {
        const value = bendValue(centsAt(contour, seconds) + offCents);
        if (value === last) return [];
        last = value;
        const when = Math.min(seconds === 0 ? at : this.#tick(startSeconds + seconds), end - MIN_TICKS);
        return [{ at: when, order: ORDER.bend, event: { type: 'pitchBend', channel, value, deltaTime: 0 } }];
      });
    if (last === 0) return placed;
    return [...placed, { at: end, order: ORDER.reset, event: { type: 'pitchBend', channel, value: 0, deltaTime: 0 } }];
  }

  #tick(seconds: number): number {
    return Math.max(0, Math.round(tickAt(seconds, this.#played.segments)));
  }
}

/** Sets the program, and the range of the bend. Source: MIDI 1.0, controllers 100, 101 and 6, 38. */
function setUp(channel: number): readonly Placed[] {
  const controls: readonly (readonly [type: number, value: number])[] = [
    [101, 0],
    [100, 0],
    [6, BEND_RANGE],
    [38, 0],
    [101, 127],
    [100, 127],
  ];
  return [
    set(0, { type: 'programChange', channel, programNumber: CLEAN_GUITAR, deltaTime: 0 }),
    ...controls.map(([controllerType, value]) =>
      set(0, { type: 'controller', channel, controllerType, value, deltaTime: 0 }),
    ),
  ];
}

/** The bend for so many cents, −8192 to 8191. */
export function bendValue(cents: number): number {
  const value = Math.round((cents / 100 / BEND_RANGE) * BEND_VALUES);
  return Math.min(BEND_VALUES - 1, Math.max(-BEND_VALUES, value));
}
