import type { EventItem, EventMark, Feel, Item, PassesItem, Phrase, Span, StampItem, Sureness } from './model.ts';
import type { SwellItem, Writable } from './model.ts';
import { FIRST_ROUND, isIn } from './rounds.ts';
import { strokeOf, type Strokes } from './strokes.ts';
import { barTicks, beatOf, GRACE_TICKS, ticksOf, type Meter } from './values.ts';

/** Most events a phrase may play out to. Source: the notation's own limit (our choice). */
export const MAX_PLAYED = 10_000;

/** Most items walked while playing out; it stops repeats of nothing. Our choice. */
const MAX_WALKED = 200_000;

/** An event or rest where it falls in time. Ticks. */
export interface TimedEvent {
  readonly at: number;
  readonly length: number;
  /** The written event; null for a rest. */
  readonly item: EventItem | null;
  readonly span: Span;
  readonly marks: readonly (EventMark | Sureness | 'grace')[];
  readonly timed: boolean;
  /** Which bar, counted from 0 as played. */
  readonly bar: number;
  /** The pass of the innermost repeat, from 1; null outside. */
  readonly pass: number | null;
  readonly barre: number | null;
  readonly chord: string | null;
  readonly words: readonly string[];
  /** How loud it is beside what it would be without growing softer or louder, 0 to 1; left out where it does neither. */
  readonly loudness?: number;
}

/** One bar as played. Ticks; `timed` is false where an untimed event stands in it. */
export interface PlayedBar {
  readonly at: number;
  readonly length: number;
  readonly meter: Meter;
  readonly timed: boolean;
  readonly span: Span;
  /** Whether a bar line, typed or implied by a full bar at a bracket, ends it. */
  readonly closed: boolean;
}

/** A phrase along the clock: events, bars, and changes of tempo (quarters a minute) and feel, in ticks. */
export interface Timeline {
  readonly events: readonly TimedEvent[];
  readonly bars: readonly PlayedBar[];
  readonly tempos: readonly { readonly at: number; readonly tempo: number }[];
  readonly feels: readonly { readonly at: number; readonly feel: Feel }[];
  readonly chords: readonly { readonly at: number; readonly chord: string | null }[];
  /** Where in the recording a place is heard, seconds; each stamp at its first pass. */
  readonly stamps: readonly { readonly at: number; readonly seconds: number }[];
  readonly pickup: boolean;
  readonly length: number;
  /** Whether playing out was stopped at `MAX_PLAYED` events. */
  readonly truncated: boolean;
}

/** Where each written event is first heard, in words: `beat 3 of bar 2`; `note 6` where only the order is known. */
export function beatsOf(phrase: Phrase): ReadonlyMap<EventItem, string> {
  const { events, bars } = unroll(phrase);
  const places = new Map<EventItem, string>();
  let notes = 0;
  for (const { item, bar: index, at, timed } of events) {
    const bar = bars[index];
    if (!item || !bar) continue;
    notes += 1;
    if (places.has(item)) continue;
    places.set(item, timed ? `beat ${beatOf(at - bar.at, bar.meter)} of bar ${index + 1}` : `note ${notes}`);
  }
  return places;
}

/** Whether the length of every event is known, not only its order. */
export function hasRhythm(phrase: Phrase): boolean {
  return unroll(phrase).events.every(({ timed }) => timed);
}

/** How loud the softest end of a fade is. Our choice. */
const SOFTEST = 0.3;

type Draft = Writable<TimedEvent>;

interface Context {
  readonly marks: readonly (EventMark | Sureness)[];
  readonly pass: number | null;
  readonly passes: number;
  readonly barre: number | null;
  /** Strokes in turn, as far as they are counted. */
  readonly strokes: Strokes | null;
}

/** Plays repeats and passes out in time order. Linear in what is played; stops at `MAX_PLAYED` events. */
export function unroll(phrase: Phrase): Timeline {
  let timeline = known.get(phrase);
  if (!timeline) {
    const walk = new Walk(phrase.meter);
    walk.items(phrase.items, { marks: [], pass: null, passes: 1, barre: null, strokes: null });
    timeline = walk.finish();
    known.set(phrase, timeline);
  }
  return timeline;
}

/** What each phrase plays out to: nearly all that is computed of one asks for it, the reader first. Phrases do not change. */
const known = new WeakMap<Phrase, Timeline>();

/** The events of each bar, in their order; linear in both. */
export function eventsOfBars({ events, bars }: Timeline): readonly (readonly TimedEvent[])[] {
  const inside = bars.map((): TimedEvent[] => []);
  for (const event of events) inside[event.bar]?.push(event);
  return inside;
}

class Walk {
  readonly #events: Draft[] = [];
  readonly #bars: PlayedBar[] = [];
  readonly #tempos: { at: number; tempo: number }[] = [];
  readonly #feels: { at: number; feel: Feel }[] = [];
  readonly #chords: { at: number; chord: string | null }[] = [];
  readonly #stamps: Timeline['stamps'][number][] = [];
  readonly #stamped = new Set<StampItem>();
  #words: string[] = [];
  #chord: string | null = null;
  #at = 0;
  #walked = 0;
  #pickup = false;
  #truncated = false;
  #meter: Meter;
  #nextMeter: Meter;
  #bar: { at: number; timed: boolean; from: number; to: number } | undefined;
  #barAt = 0;

  constructor(meter: Meter) {
    this.#meter = meter;
    this.#nextMeter = meter;
  }

  items(items: readonly Item[], context: Context): void {
    for (const item of items) {
      this.#walked += 1;
      if (this.#events.length >= MAX_PLAYED || this.#walked >= MAX_WALKED) this.#truncated = true;
      if (this.#truncated) return;
      this.#item(item, context);
    }
  }

  #item(item: Item, context: Context): void {
    switch (item.kind) {
      case 'event':
        return this.#event(item, context);
      case 'rest':
        return this.#place(null, item.span, ticksOf(item.value), item.value !== 'untimed', context);
      case 'hold':
        return this.#hold(item.span, ticksOf(item.value), item.value !== 'untimed');
      case 'bar':
        return this.#closeBar(true);
      case 'repeat':
        return this.#repeat(item.items, item.times, context);
      case 'passes':
        if (isHeardOn(item, context)) this.items(item.items, context);
        return;
      case 'rounds':
        if (isIn(item.rounds, FIRST_ROUND)) this.items(item.items, context);
        return;
      case 'swell':
        return this.#swell(item, context);
      case 'either':
        // The first way is the one that is played.
        return this.items(item.items[0]?.items ?? [], context);
      case 'way':
        return this.items(item.items, context);
      case 'stamp':
        if (!this.#stamped.has(item)) this.#stamps.push({ at: this.#at, seconds: item.seconds });
        this.#stamped.add(item);
        return;
      case 'marked':
        return this.items(item.items, { ...context, marks: [...context.marks, ...item.marks] });
      case 'sure':
        return this.items(item.items, { ...context, marks: [...context.marks, item.sureness] });
      case 'alternate':
        return this.items(item.items, { ...context, strokes: { next: item.first } });
      case 'barre':
        return this.items(item.items, { ...context, barre: item.fret });
      case 'harmony':
        this.#chord = item.chord;
        this.#chords.push({ at: this.#at, chord: item.chord });
        return;
      case 'words':
        this.#words.push(item.text);
        return;
      case 'setting':
        return this.#set(item.setting);
    }
  }

  #set(setting: Extract<Item, { kind: 'setting' }>['setting']): void {
    if (setting.name === 'meter') {
      this.#nextMeter = setting.meter;
      if (!this.#bar) this.#meter = setting.meter;
    } else if (setting.name === 'tempo') this.#tempos.push({ at: this.#at, tempo: setting.tempo });
    else if (setting.name === 'feel') this.#feels.push({ at: this.#at, feel: setting.feel });
    else if (this.#events.length === 0) this.#pickup = true;
  }

  /** Softer or louder by even steps of time, from the first event to the last. */
  #swell({ items, to }: SwellItem, context: Context): void {
    const from = this.#events.length;
    this.items(items, context);
    const inside = this.#events.slice(from);
    const [first, last] = [inside[0], inside.at(-1)];
    for (const event of inside) {
      const whole = Math.max(1, (last?.at ?? 0) - (first?.at ?? 0));
      const share = (event.at - (first?.at ?? 0)) / whole;
      event.loudness = (event.loudness ?? 1) * (1 - (1 - SOFTEST) * (to === 'softer' ? share : 1 - share));
    }
  }

  #repeat(items: readonly Item[], times: number, context: Context): void {
    this.#closeFullBar();
    for (let pass = 1; pass <= times && !this.#truncated; pass += 1) {
      this.#walked += 1;
      if (this.#walked >= MAX_WALKED) this.#truncated = true;
      this.items(items, { ...context, pass, passes: times });
      this.#closeFullBar();
    }
  }

  #event(item: EventItem, context: Context): void {
    for (let time = 0; time < item.times && this.#events.length < MAX_PLAYED; time += 1)
      this.#place(item, item.span, ticksOf(item.value), item.value !== 'untimed', context);
  }

  #place(item: EventItem | null, span: Span, length: number, timed: boolean, context: Context): void {
    const bar = this.#openBar(span);
    bar.timed &&= timed;
    const strokes = item ? strokeOf(item, context.strokes) : [];
    const marks = item ? markSet(item, strokes.length === 0 ? context.marks : [...context.marks, ...strokes]) : [];
    const { pass, barre } = context;
    this.#events.push({
      at: this.#at,
      length,
      item,
      span,
      marks,
      timed,
      bar: this.#bars.length,
      pass,
      barre,
      chord: this.#chord,
      words: this.#words,
    });
    this.#words = [];
    this.#at += length;
  }

  #hold(span: Span, length: number, timed: boolean): void {
    const last = this.#events.at(-1);
    if (!last) return;
    this.#openBar(span).timed &&= timed;
    last.length += length;
    this.#at += length;
  }

  #openBar(span: Span): { timed: boolean } {
    this.#bar ??= { at: this.#at, timed: true, from: span.from, to: span.to };
    this.#bar.to = Math.max(this.#bar.to, span.to);
    return this.#bar;
  }

  #closeFullBar(): void {
    if (this.#bar && this.#at - this.#bar.at === barTicks(this.#meter)) this.#closeBar(true);
  }

  #closeBar(closed: boolean): void {
    if (this.#bar) {
      const { at, timed, from, to } = this.#bar;
      this.#bars.push({ at, length: this.#at - at, meter: this.#meter, timed, span: { from, to }, closed });
    }
    this.#bar = undefined;
    this.#barAt = this.#at;
    this.#meter = this.#nextMeter;
  }

  finish(): Timeline {
    this.#placeGraces();
    this.#closeBar(false);
    return {
      events: this.#events,
      bars: this.#bars,
      tempos: this.#tempos,
      feels: this.#feels,
      chords: this.#chords,
      stamps: this.#stamps,
      pickup: this.#pickup,
      length: this.#barAt,
      truncated: this.#truncated,
    };
  }

  /** Graces were placed with no length; each takes its time from the event after, else from the one before; alone, they have their own. */
  #placeGraces(): void {
    let graces: Draft[] = [];
    let before: Draft | undefined;
    for (const event of this.#events) {
      if (event.length === 0) {
        graces.push(event);
        continue;
      }
      if (graces.length > 0) {
        const each = graceTicks(graces.length, event.length);
        spread(graces, event.at, each);
        event.at += each * graces.length;
        event.length -= each * graces.length;
        graces = [];
      }
      before = event;
    }
    if (graces.length === 0) return;
    if (!before) {
      spread(graces, 0, GRACE_TICKS);
      this.#at += graces.length * GRACE_TICKS;
      return;
    }
    const each = graceTicks(graces.length, before.length);
    before.length -= each * graces.length;
    spread(graces, before.at + before.length, each);
  }
}

/** What each of some graces takes from a neighbour: a 32nd, and together at most half of it. Ticks, whole. */
function graceTicks(count: number, neighbour: number): number {
  return Math.min(GRACE_TICKS, Math.floor(neighbour / (2 * count)));
}

function spread(graces: readonly Draft[], from: number, each: number): void {
  graces.forEach((grace, index) => {
    grace.at = from + index * each;
    grace.length = each;
  });
}

function markSet(item: EventItem, around: readonly (EventMark | Sureness)[]): TimedEvent['marks'] {
  const own = item.value === 'grace' ? [...item.marks, 'grace' as const] : item.marks;
  return around.length === 0 ? own : [...new Set([...own, ...around])];
}

/** Whether items of some passes are heard on a pass of the repeat they stand in, from 1; on none outside of one. */
export function isHeardOn(
  item: PassesItem,
  { pass, passes }: { readonly pass: number | null; readonly passes: number },
): boolean {
  if (pass === null) return false;
  return isIn(item.passes, { round: pass, of: passes });
}
