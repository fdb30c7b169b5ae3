import { openMidi } from '../pitch/index.ts';
import { contourOf, type ArmMove, type ContourPlan, type ContourPoint } from './contour.ts';
import { LINK_RECORDS } from './linkRecords.ts';
import { HARMONIC_RATIOS } from './links.ts';
import { isPlucking, levelOfMarks } from './marks.ts';
import type { EventItem, Feel, Phrase, Span, WrittenNote } from './model.ts';
import { isGuessed, type Setup } from './playOut.ts';
import { heldTo, StandingBends } from './standing.ts';
import { clockOf, type Clock } from './time.ts';
import { unroll, type TimedEvent, type Timeline } from './unroll.ts';
import { barTicks, TICKS_PER_QUARTER, TICKS_PER_WHOLE } from './values.ts';

/** How a note is set going. `none`: the string goes on sounding at a new pitch. */
export type Attack = 'pick' | 'finger' | 'hammer' | 'pull' | 'tap' | 'none';

/** A note in time. Seconds count from the start of what is performed. */
export interface PlayedNote {
  readonly startSeconds: number;
  readonly durationSeconds: number;
  readonly string: number;
  /** Plain sounding pitch, possibly fractional (harmonics, a recording off concert pitch); null when dead. */
  readonly midi: number | null;
  /** Cents above `midi` over time, straight between points. */
  readonly contour: readonly ContourPoint[];
  readonly attack: Attack;
  /** Loudness, 0 to 1. */
  readonly level: number;
  readonly palmMuted: boolean;
  readonly harmonic: boolean;
  /** Brought along by a rake or a tremolo, not asked for by itself. */
  readonly ornament?: true;
  readonly span: Span;
}

/** How a phrase is performed. */
export interface PerformOptions extends Setup {
  /** Quarter notes a minute at the start of the phrase. */
  readonly bpm: number;
  /** How far the recording stands from concert pitch, cents. */
  readonly offsetCents?: number;
  /** The feel of the song, where the phrase says none; straight when left out. */
  readonly feel?: Feel;
  /** Only what begins from this tick on, its time counted from here. */
  readonly from?: number;
  /** Only what begins before this tick. */
  readonly to?: number;
}

/** Loudness by the way a note is played. Our choice. */
const LEVELS = { plain: 0.75, grace: 0.6, rake: 0.35 } as const;

/** What `cut` leaves of a note's length. */
const CUT_SHARE = 0.5;

/** A let-ring note sounds at most this long past its own length: a whole note, ticks. Our choice. */
const LONGEST_RING = TICKS_PER_WHOLE;

/** Tremolo picking: a stroke each 32nd, but never faster than this, seconds. Our choice. */
const FASTEST_TREMOLO_SECONDS = 1 / 16;

/** A rake brushes so many dead thicker strings, so far apart in time. Our choice. */
const RAKE = { strings: 2, seconds: 0.03 } as const;

/**
 * The phrase in seconds, in order of start. The only place where notation becomes sound in time.
 *
 * @throws RangeError for a tempo not above 0 or a string the tuning lacks.
 */
export function perform(phrase: Phrase, options: PerformOptions): readonly PlayedNote[] {
  const timeline = unroll(phrase);
  const performer = new Performer(timeline, clockOf(timeline, options), options);
  return performer.notes();
}

class Performer {
  readonly #events: readonly TimedEvent[];
  readonly #clock: Clock;
  readonly #options: PerformOptions;
  readonly #from: number;
  readonly #to: number;
  readonly #standing = new StandingBends();
  /** Until when a string rings because its bend goes on later, by the event and string it is struck in; ticks. */
  readonly #held: ReadonlyMap<TimedEvent, ReadonlyMap<number, number>>;
  readonly #arms: readonly TimedEvent[];

  constructor(timeline: Timeline, clock: Clock, options: PerformOptions) {
    this.#events = timeline.events;
    this.#clock = clock;
    this.#options = options;
    this.#from = options.from ?? 0;
    this.#to = options.to ?? Infinity;
    this.#held = heldTo(timeline.events);
    this.#arms = timeline.events.filter(({ item }) => item?.arm !== undefined);
  }

  notes(): readonly PlayedNote[] {
    const notes: PlayedNote[] = [];
    this.#events.forEach((event, index) => {
      const { item } = event;
      if (!item) return this.#standing.silence();
      for (const note of item.notes) {
        const played = this.#note(note, item, event, index);
        if (!isGuessed(note.sought) && event.at >= this.#from && event.at < this.#to)
          notes.push(...this.#gestures(played, item, event));
      }
      if (event.marks.includes('cut')) this.#standing.silence(item.notes.map(({ string }) => string));
    });
    return notes.sort((a, b) => a.startSeconds - b.startSeconds);
  }

  #note(note: WrittenNote, item: EventItem, event: TimedEvent, index: number): PlayedNote {
    const cut = event.marks.includes('cut') ? CUT_SHARE : 1;
    const length = event.length * cut;
    const start = this.#seconds(event.at);
    const standing = this.#standing.under(note, { link: item.link, before: this.#events[index - 1]?.item });
    const ring = cut === 1 ? this.#ringTicks(note.string, event, index) : 0;
    const sounding = Math.max(length, ring, cut === 1 ? this.#heldTicks(note.string, event) : 0);
    const arms = this.#armsOver(event, sounding);
    const contour = contourOf({
      note,
      length,
      standing,
      ...this.#slides(note, item, index),
      ...(arms.length > 0 && { arms }),
      secondsAt: (tick) => this.#seconds(event.at + tick) - start,
    });
    this.#standing.take(note, item, contour.endCents);
    return {
      startSeconds: start,
      durationSeconds: this.#seconds(event.at + sounding) - start,
      string: note.string,
      midi: this.#midi(note),
      contour: contour.points,
      attack: note.held !== undefined ? 'none' : note.plucked ? 'finger' : attackOf(item, event),
      level: note.quiet ? (levelOfMarks(['quiet']) ?? LEVELS.plain) : levelOf(item, event),
      palmMuted: event.marks.includes('palm-mute'),
      harmonic: note.harmonic !== undefined,
      span: event.span,
    };
  }

  /** How long a note sounds until the bend on its string goes on; 0 where it does not. Ticks. */
  #heldTicks(string: number, event: TimedEvent): number {
    const to = this.#held.get(event)?.get(string);
    return to === undefined ? 0 : to - event.at;
  }

  /** What the tremolo arm does while a note sounds: it takes every string with it. */
  #armsOver(event: TimedEvent, sounding: number): readonly ArmMove[] {
    if (this.#arms.length === 0) return [];
    return this.#arms
      .filter(({ at }) => at >= event.at && at < event.at + sounding)
      .map(({ at, length, item }) => ({ from: at - event.at, length, steps: item?.arm ?? [] }));
  }

  /** Where a note slides from and to; a slide that goes on to another string leaves this one toward it, and enters that one so. */
  #slides(note: WrittenNote, { slideIn, slideOut }: EventItem, index: number): Partial<ContourPlan> {
    const slideToFrets = this.#slideToFrets(note, index);
    const into = this.#across(index);
    const away = this.#across(index + 1);
    const from = slideIn ?? (into && (into > 0 ? 'below' : 'above'));
    const to = slideOut ?? (away && (away > 0 ? 'up' : 'down'));
    return {
      ...(from && { slideIn: from }),
      ...(to && { slideOut: to }),
      ...(slideToFrets !== undefined && { slideToFrets }),
    };
  }

  /** How far an event lies above the one before it where it is slid to over strings, semitones; undefined elsewhere. */
  #across(index: number): number | undefined {
    const [before, item] = [this.#events[index - 1]?.item, this.#events[index]?.item];
    if (item?.link !== 'shift' || !before) return undefined;
    const [from, to] = [before.notes[0], item.notes[0]];
    if (!from || !to || before.notes.some(({ string }) => string === to.string)) return undefined;
    return (this.#midi(to) ?? 0) - (this.#midi(from) ?? 0);
  }

  #slideToFrets(note: WrittenNote, index: number): number | undefined {
    const next = this.#events[index + 1]?.item;
    if ((next?.link !== 'slide' && next?.link !== 'shift') || note.fret === null) return undefined;
    const target = next.notes.find(({ string }) => string === note.string)?.fret;
    return typeof target === 'number' ? target - note.fret : undefined;
  }

  /** How long a note sounds when it may ring: until its string is played again, a rest, or long enough. Ticks. */
  #ringTicks(string: number, event: TimedEvent, index: number): number {
    if (!event.marks.includes('let-ring')) return 0;
    const longest = event.length + LONGEST_RING;
    for (let next = index + 1; next < this.#events.length; next += 1) {
      const later = this.#events[next];
      if (!later || later.at - event.at >= longest) break;
      if (!later.item || later.item.notes.some((note) => note.string === string)) return later.at - event.at;
    }
    const end = this.#events.at(-1);
    return Math.min(longest, end ? end.at + end.length - event.at : longest);
  }

  #midi({ string, fret, harmonic }: WrittenNote): number | null {
    const open = openMidi(this.#options.tuning, string) + this.#options.capo + (this.#options.offsetCents ?? 0) / 100;
    if (fret === null) return null;
    const ratio = harmonic === 'natural' ? HARMONIC_RATIOS[fret] : undefined;
    if (ratio !== undefined) return open + 12 * Math.log2(ratio);
    return open + fret + (harmonic === 'pinch' ? 12 : 0);
  }

  /** Splits tremolo picking into its strokes and puts the brushed strings before a raked note. */
  #gestures(note: PlayedNote, item: EventItem, event: TimedEvent): readonly PlayedNote[] {
    if (event.marks.includes('tremolo')) return this.#tremolo(note, event);
    if (!event.marks.includes('rake') || note.midi === null || item.notes.length > 1) return [note];
    const strings = this.#options.tuning.openMidis.length;
    const brushed: PlayedNote[] = [];
    for (let away = Math.min(RAKE.strings, strings - note.string); away > 0; away -= 1)
      brushed.push({
        ...note,
        startSeconds: Math.max(0, note.startSeconds - away * RAKE.seconds),
        durationSeconds: RAKE.seconds,
        string: note.string + away,
        midi: null,
        contour: [{ seconds: 0, cents: 0 }],
        attack: 'pick',
        level: LEVELS.rake,
        ornament: true,
      });
    return [...brushed, note];
  }

  #tremolo(note: PlayedNote, event: TimedEvent): readonly PlayedNote[] {
    const stroke = this.#clock.secondsIn(TICKS_PER_QUARTER / 8, event.at);
    const count = Math.max(1, Math.floor(note.durationSeconds / Math.max(stroke, FASTEST_TREMOLO_SECONDS) + 1e-9));
    const each = note.durationSeconds / count;
    return Array.from({ length: count }, (_, index) => ({
      ...note,
      ...(index > 0 && { ornament: true as const }),
      startSeconds: note.startSeconds + index * each,
      durationSeconds: each,
      contour: note.contour.map(({ seconds, cents }) => ({ seconds: seconds - index * each, cents })),
    }));
  }

  #seconds(tick: number): number {
    return this.#clock.secondsAt(tick) - this.#clock.secondsAt(this.#from);
  }
}

function attackOf({ link }: EventItem, { marks }: TimedEvent): Attack {
  if (link === 'hammer' || link === 'pull' || link === 'tap') return link;
  if (link === 'slide') return 'none';
  return marks.some(isPlucking) ? 'finger' : 'pick';
}

function levelOf({ link }: EventItem, { marks, loudness = 1 }: TimedEvent): number {
  const plain = marks.includes('grace') ? LEVELS.grace : ((link && LINK_RECORDS[link].level) ?? LEVELS.plain);
  return loudness * (levelOfMarks(marks) ?? plain);
}

/** A beat of the click. Seconds; `accent` marks the first beat of a bar. */
export interface Click {
  readonly seconds: number;
  readonly accent: boolean;
}

/** One event along the clock, for a cursor that moves with the sound. Seconds. */
export interface EventTime {
  readonly startSeconds: number;
  readonly endSeconds: number;
  readonly span: Span;
  readonly bar: number;
}

/** Everything besides the notes that goes along with a performance. */
export interface Accompaniment {
  readonly clicks: readonly Click[];
  readonly events: readonly EventTime[];
  readonly chords: readonly { readonly seconds: number; readonly chord: string | null }[];
  /** Seconds from the start of what is performed to its end. */
  readonly seconds: number;
  /** Beats in the bar that a count-in fills, and how long each lasts, seconds. */
  readonly countIn: { readonly beats: number; readonly beatSeconds: number };
}

/** The click, the cursor's times and the harmony of what `perform` plays with the same options. */
export function accompany(phrase: Phrase, options: Omit<PerformOptions, keyof Setup>): Accompaniment {
  const timeline = unroll(phrase);
  const clock = clockOf(timeline, options);
  const from = options.from ?? 0;
  const to = Math.min(options.to ?? Infinity, timeline.length);
  const seconds = (tick: number) => clock.secondsAt(tick) - clock.secondsAt(from);
  const meter = timeline.bars.find(({ at, length }) => at + length > from)?.meter ?? phrase.meter;
  const before = timeline.chords.findLast(({ at }) => at <= from);
  return {
    clicks: beats(timeline)
      .filter(({ at }) => at >= from && at < to)
      .map(({ at, accent }) => ({ seconds: clock.secondsIn(at - from, from), accent })),
    events: timeline.events
      .filter(({ at }) => at >= from && at < to)
      .map(({ at, length, span, bar }) => ({
        startSeconds: seconds(at),
        endSeconds: seconds(at + length),
        span,
        bar,
      })),
    chords: [
      ...(before ? [{ seconds: 0, chord: before.chord }] : []),
      ...timeline.chords
        .filter(({ at }) => at > from && at < to)
        .map(({ at, chord }) => ({ seconds: seconds(at), chord })),
    ],
    seconds: Math.max(0, seconds(to)),
    countIn: { beats: meter.beats, beatSeconds: clock.secondsIn(TICKS_PER_WHOLE / meter.unit, from) },
  };
}

/** Beats of every bar; those of a pick-up bar count back from its end. */
function beats({ bars, pickup }: Timeline): readonly { at: number; accent: boolean }[] {
  return bars.flatMap((bar, index) => {
    const beat = TICKS_PER_WHOLE / bar.meter.unit;
    const full = barTicks(bar.meter);
    const offset = index === 0 && pickup && bar.length < full ? full - bar.length : 0;
    const found: { at: number; accent: boolean }[] = [];
    for (let at = Math.ceil(offset / beat) * beat; at - offset < bar.length; at += beat)
      found.push({ at: bar.at + at - offset, accent: at % full === 0 });
    return found;
  });
}
