import { isNest, type EventItem, type Item, type NestItem, type Phrase, type Span, type Sureness } from './model.ts';
import type { EventMark, Feel, PassRange, Writable } from './model.ts';
import { strokeOf, type Strokes } from './strokes.ts';
import { barTicks, sameValue, ticksOf, valueOfTicks, type Meter, type NoteValue, type TimedValue } from './values.ts';

/** An event or rest as it stands on the page. */
export interface ScoreEvent {
  /** The written event; null for a rest. */
  readonly item: EventItem | null;
  readonly span: Span;
  /** Place in its bar, ticks. */
  readonly at: number;
  /** Written values, tied together; usually one. */
  readonly values: readonly TimedValue[];
  /** False where only the order is known. */
  readonly timed: boolean;
  /** Whether it goes on from the bar before, through a hold. */
  readonly tied: boolean;
  readonly marks: readonly EventMark[];
  readonly sureness: Sureness | null;
  readonly barre: number | null;
  /** Chord symbol that changes here; null for “no chord”. */
  readonly chord?: string | null;
  readonly words: readonly string[];
  /** The stretch of growing softer or louder that it stands in; those of a phrase are counted. */
  readonly swell?: { readonly to: 'softer' | 'louder'; readonly number: number };
  /** What its notes are against the chord, else against the key, from the lowest up; where that is to be shown. */
  readonly degrees?: string;
  /** Grace notes before it. */
  readonly graces: readonly EventItem[];
}

/** A stretch between two lines of the page: a bar, or the part of one up to a repeat sign. */
export interface ScoreBar {
  readonly events: readonly ScoreEvent[];
  readonly meter: Meter;
  /** Whether the meter is shown here: it changes, or the phrase begins. */
  readonly showMeter: boolean;
  readonly tempo?: number;
  readonly feel?: Feel;
  readonly repeatStart: boolean;
  /** How often the repeat that ends here is played; `open`: to taste. */
  readonly repeatEnd: { readonly times: number; readonly open: boolean } | null;
  /** When it is heard: the label, `1–2`, the passes of a repeat it names, and whether the bracket begins and ends here. */
  readonly passes: {
    readonly label: string;
    readonly on?: readonly PassRange[];
    readonly begins: boolean;
    readonly ends: boolean;
  } | null;
  /** What stands behind its last event, at the end of the phrase; left out where nothing does. */
  readonly closing?: ScoreClosing;
  /** Whether a bar line was typed at its end; without any in the phrase, bars are told apart by the meter alone. */
  readonly line: boolean;
}

/** A chord symbol and words that no event follows. */
export interface ScoreClosing {
  /** Null for “no chord”. */
  readonly chord?: string | null;
  readonly words: readonly string[];
}

/** Most events put on the page; the rest of a longer text is left to reading and playing. Our choice. */
export const MAX_ENGRAVED = 4_000;

type EventDraft = Writable<ScoreEvent>;
type BarDraft = Writable<Omit<ScoreBar, 'events'>> & { events: EventDraft[] };

interface Around {
  readonly marks: readonly EventMark[];
  readonly strokes: Strokes | null;
  readonly sureness: Sureness | null;
  readonly barre: number | null;
  readonly swell?: NonNullable<ScoreEvent['swell']>;
}

/** Lays a phrase out for the page: bars in the order of the text, repeats folded, holds tied or merged. */
export function scoreOf(phrase: Phrase): readonly ScoreBar[] {
  const walk = new ScoreWalk(phrase.meter, hasBarLines(phrase.items));
  walk.items(phrase.items, { marks: [], strokes: null, sureness: null, barre: null });
  return walk.finish();
}

function hasBarLines(items: readonly Item[]): boolean {
  return items.some((item) => item.kind === 'bar' || (isNest(item) && hasBarLines(item.items)));
}

class ScoreWalk {
  readonly #bars: BarDraft[] = [];
  readonly #barred: boolean;
  #bar: BarDraft;
  #ticks = 0;
  #count = 0;
  #nextMeter: Meter;
  #graces: EventItem[] = [];
  #words: string[] = [];
  #chord: string | null | undefined;
  #passes: { label: string; on?: readonly PassRange[]; begins: boolean } | undefined;
  #swells = 0;

  constructor(meter: Meter, barred: boolean) {
    this.#barred = barred;
    this.#nextMeter = meter;
    this.#bar = this.#newBar(meter, true);
  }

  items(items: readonly Item[], around: Around): void {
    for (const item of items) {
      if (this.#count >= MAX_ENGRAVED) return;
      this.#item(item, around);
    }
  }

  #item(item: Item, around: Around): void {
    switch (item.kind) {
      case 'event':
        for (let time = 0; time < item.times && this.#count < MAX_ENGRAVED; time += 1) this.#event(item, around);
        return;
      case 'rest':
        return this.#place(null, item.span, item.value, around);
      case 'hold':
        return this.#hold(item.span, item.value);
      case 'bar':
        return this.#close(true);
      case 'harmony':
        this.#chord = item.chord;
        return;
      case 'words':
        this.#words.push(item.text);
        return;
      case 'stamp':
        return;
      case 'setting':
        return this.#set(item.setting);
      default:
        return this.#nest(item, around);
    }
  }

  #nest(item: NestItem, around: Around): void {
    switch (item.kind) {
      case 'repeat': {
        this.#close(false);
        this.#bar.repeatStart = true;
        this.items(item.items, around);
        const { times, open } = item;
        // Played once, it takes nothing from one that ends with it.
        this.#endAt((bar) => (bar.repeatEnd = times === 1 && bar.repeatEnd ? bar.repeatEnd : { times, open }));
        return;
      }
      case 'passes':
        return this.#labelled(labelOf(item.passes, 'time'), item.items, around, item.passes);
      case 'rounds':
        return this.#labelled(labelOf(item.rounds, 'round'), item.items, around);
      case 'either':
        item.items.forEach((way, index) => this.#labelled(index === 0 ? 'either' : 'or', way.items, around));
        return;
      case 'way':
        return this.items(item.items, around);
      case 'swell':
        this.#swells += 1;
        return this.items(item.items, { ...around, swell: { to: item.to, number: this.#swells } });
      case 'marked':
        return this.items(item.items, { ...around, marks: [...around.marks, ...item.marks] });
      case 'sure':
        return this.items(item.items, { ...around, sureness: item.sureness });
      case 'barre':
        return this.items(item.items, { ...around, barre: item.fret });
      case 'alternate':
        return this.items(item.items, { ...around, strokes: { next: item.first } });
    }
  }

  /** Items under a bracket that says when they are played. */
  #labelled(label: string, items: readonly Item[], around: Around, on?: readonly PassRange[]): void {
    const outer = this.#passes;
    this.#close(false);
    this.#passes = { label: outer ? `${outer.label}, ${label}` : label, ...(on && { on }), begins: true };
    this.items(items, around);
    this.#endAt((bar) => {
      if (bar.passes) bar.passes = { ...bar.passes, ends: true };
    });
    this.#passes = outer && { ...outer, begins: true };
  }

  #set(setting: Extract<Item, { kind: 'setting' }>['setting']): void {
    if (setting.name === 'meter') {
      this.#nextMeter = setting.meter;
      if (this.#bar.events.length > 0) return;
      this.#bar.meter = setting.meter;
      this.#bar.showMeter = true;
    } else if (setting.name === 'tempo') this.#bar.tempo = setting.tempo;
    else if (setting.name === 'feel') this.#bar.feel = setting.feel;
  }

  #event(item: EventItem, around: Around): void {
    this.#count += 1;
    if (item.value === 'grace') this.#graces.push(item);
    else {
      const marks = [...around.marks, ...strokeOf(item, around.strokes)];
      this.#place(item, item.span, item.value, { ...around, marks });
    }
  }

  #place(item: EventItem | null, span: Span, value: NoteValue, around: Around, tied = false): void {
    this.#splitWhenFull();
    if (this.#passes && !this.#bar.passes) {
      this.#bar.passes = { ...this.#passes, ends: false };
      this.#passes.begins = false;
    }
    this.#bar.events.push({
      item,
      span,
      at: this.#ticks,
      values: [shownValue(value)],
      timed: value !== 'untimed',
      tied,
      marks: [...new Set([...(item?.marks ?? []), ...around.marks])],
      sureness: around.sureness,
      barre: around.barre,
      ...(this.#chord !== undefined && { chord: this.#chord }),
      words: this.#words,
      ...(around.swell && { swell: around.swell }),
      graces: this.#graces,
    });
    this.#ticks += ticksOf(value);
    this.#graces = [];
    this.#words = [];
    this.#chord = undefined;
  }

  /** A hold makes the event before longer, or ties it over into a bar that has just begun. */
  #hold(span: Span, value: NoteValue): void {
    this.#splitWhenFull();
    const last = this.#bar.events.at(-1);
    if (last) {
      last.values = merged([...last.values, shownValue(value)]);
      this.#ticks += ticksOf(value);
      return;
    }
    const before = this.#bars.findLast(({ events }) => events.length > 0)?.events.at(-1);
    if (before) {
      const { marks, sureness, barre } = before;
      this.#place(before.item, span, value, { marks, strokes: null, sureness, barre }, before.item !== null);
    }
  }

  #splitWhenFull(): void {
    if (!this.#barred && this.#ticks >= barTicks(this.#bar.meter)) this.#close(false);
  }

  /** Ends the bar that holds the last events, where a repeat or pass bracket closes. */
  #endAt(mark: (bar: BarDraft) => void): void {
    this.#close(false);
    const last = this.#bars.at(-1);
    if (last) mark(last);
  }

  #close(line: boolean): void {
    if (this.#bar.events.length === 0) {
      const last = this.#bars.at(-1);
      if (line && last) last.line = true;
      return;
    }
    this.#bar.line = line;
    this.#bars.push(this.#bar);
    const changes = this.#nextMeter !== this.#bar.meter;
    this.#bar = this.#newBar(this.#nextMeter, changes);
    this.#ticks = 0;
  }

  #newBar(meter: Meter, showMeter: boolean): BarDraft {
    return { events: [], meter, showMeter, repeatStart: false, repeatEnd: null, passes: null, line: false };
  }

  finish(): readonly ScoreBar[] {
    this.#close(false);
    const closing = this.#closing();
    if (closing) {
      // Where there is no event at all, they stand in a bar of their own.
      if (this.#bars.length === 0) this.#bars.push(this.#bar);
      const last = this.#bars.at(-1);
      if (last) last.closing = closing;
    }
    return this.#bars;
  }

  #closing(): ScoreClosing | undefined {
    if (this.#chord === undefined && this.#words.length === 0) return undefined;
    return { words: this.#words, ...(this.#chord !== undefined && { chord: this.#chord }) };
  }
}

/** An untimed event is drawn where an eighth would stand. */
function shownValue(value: NoteValue): TimedValue {
  return value === 'untimed' || value === 'grace' ? { base: 8, dots: 0 } : value;
}

/** Two values held together become one where a plain or dotted value lasts as long. */
function merged(values: readonly TimedValue[]): readonly TimedValue[] {
  const last = values.at(-1);
  const before = values.at(-2);
  if (!last || !before) return [...values];
  const sameTuplet = last.tuplet === before.tuplet;
  const plain = (value: TimedValue): TimedValue => ({ base: value.base, dots: value.dots });
  const together = sameTuplet ? valueOfTicks(ticksOf(plain(last)) + ticksOf(plain(before))) : undefined;
  if (!together || (last.tuplet !== undefined && !sameValue(last, before))) return [...values];
  const value = last.tuplet === undefined ? together : { ...together, tuplet: last.tuplet };
  return [...values.slice(0, -2), value];
}

function labelOf(ranges: readonly PassRange[], of: 'time' | 'round'): string {
  const numbers = (range: readonly [number, number]) =>
    range[0] === range[1] ? `${range[0]}` : `${range[0]}–${range[1]}`;
  return ranges
    .map((range) => (range === 'last' ? `last ${of}` : `${of === 'round' ? 'round ' : ''}${numbers(range)}`))
    .join(', ');
}
