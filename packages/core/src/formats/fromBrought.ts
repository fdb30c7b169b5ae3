import { bestPath, fretPositionsOf, fretPositionsOnPath, type Guitar } from '../fretboard/index.ts';
import {
  barTicks,
  mapEvents,
  sameMeter,
  writeShorthand,
  type EventItem,
  type Item,
  type Meter,
  type NoteValue,
  type Phrase,
  type WrittenNote,
} from '../notation/index.ts';
import { midiOf } from '../pitch/index.ts';
import { valuesOfTicks } from './bars.ts';
import type { BroughtBar, BroughtEvent, BroughtNote, BroughtPart } from './brought.ts';
import type { FileProblem } from './xml.ts';

/** Where a part is cut into phrases: at its sections alone, where it rests, or after so many bars. */
export type Cut = 'sections' | 'rests' | 'bars';

/** How a part becomes phrases. */
export interface BringOptions {
  readonly guitar: Guitar;
  readonly cut: Cut;
  /** The meter that the song is in where the part begins. */
  readonly meter: Meter;
}

/** A section made of a foreign file, with its phrases as shorthand. */
export interface BroughtSection {
  readonly label: string;
  readonly bars: number;
  readonly times: number;
  readonly phrases: readonly { readonly name: string; readonly text: string; readonly notes: number }[];
}

/** The sections, and what could not be placed. */
export interface BroughtSong {
  readonly sections: readonly BroughtSection[];
  readonly problems: readonly FileProblem[];
}

/** Bars of a phrase where a part is cut by bars. Our choice. */
const BARS_OF_PHRASE = 4;

/**
 * The sections and phrases of a part. Places on the neck are kept where the file has them and this guitar too; all others are found by
 * the cheapest way of the hand. Linear in the notes, but for the way of the hand, which is quadratic in the grips of one.
 */
export function sectionsOf(given: BroughtPart, options: BringOptions): BroughtSong {
  const problems: FileProblem[] = [];
  const part = onGuitar(given, options.guitar);
  const groups = grouped(part.bars);
  let meter = options.meter;
  let unnamed = 0;
  const sections = groups.map((bars): BroughtSection => {
    const [first] = bars;
    const times = timesOf(bars);
    const open = times > 1 ? bars.map(withoutRepeat) : bars;
    const phrases = cutBars(open, part.events, options.cut).map((some) => {
      const built = new PhraseBuilder(part, options, problems).build(some, meter);
      meter = some.at(-1)?.meter ?? meter;
      unnamed += 1;
      return { name: some[0]?.phrase ?? `Phrase ${unnamed}`, ...built };
    });
    return { label: first?.label ?? '', bars: bars.length, times, phrases: phrases.filter(({ text }) => text !== '') };
  });
  return { sections, problems };
}

/** The part with its places, where they are those of this guitar; else with the pitches that they sound at. */
function onGuitar(part: BroughtPart, { tuning, capo }: Guitar): BroughtPart {
  const own = part.tuning;
  if (!own || (own.openMidis.join() === tuning.openMidis.join() && part.capo === capo)) return part;
  const sounding = ({ place, ...note }: BroughtNote): BroughtNote => {
    if (!place || place.fret === null || place.string > own.openMidis.length)
      return { ...note, ...(place && { place }) };
    return { ...note, midi: note.midi ?? midiOf(own, place.string, place.fret, part.capo) };
  };
  return { ...part, events: part.events.map((event) => ({ ...event, notes: event.notes.map(sounding) })) };
}

/** Bars of each section; a section does not begin inside a repeat. */
function grouped(bars: readonly BroughtBar[]): readonly (readonly BroughtBar[])[] {
  const groups: BroughtBar[][] = [];
  let isInside = false;
  for (const bar of bars) {
    const last = groups.at(-1);
    if (!last || (bar.label !== undefined && !isInside)) groups.push([bar]);
    else last.push(bar);
    isInside = insideAfter(bar, isInside);
  }
  return groups;
}

/** Whether a repeat goes on behind a bar: it has not ended, or endings of it follow. */
function insideAfter(bar: BroughtBar, before: boolean): boolean {
  if (bar.repeatEnd) return false;
  return before || bar.isRepeatStart;
}

/** How often a section goes round that is one repeat from its first bar to its last. */
function timesOf(bars: readonly BroughtBar[]): number {
  const [first] = bars;
  const end = bars.findIndex(({ repeatEnd }) => repeatEnd);
  const isOne = first?.isRepeatStart === true && end === bars.length - 1 && bars.every(({ ending }) => !ending);
  const isOnly = bars.slice(1).every(({ isRepeatStart }) => !isRepeatStart);
  return isOne && isOnly && !bars[end]?.repeatEnd?.isOpen ? (bars[end]?.repeatEnd?.times ?? 1) : 1;
}

function withoutRepeat({ repeatEnd: _, ...bar }: BroughtBar): BroughtBar {
  return { ...bar, isRepeatStart: false };
}

function cutBars(
  bars: readonly BroughtBar[],
  events: readonly BroughtEvent[],
  cut: Cut,
): readonly (readonly BroughtBar[])[] {
  const phrases: BroughtBar[][] = [];
  const named = bars.some(({ phrase }) => phrase !== undefined);
  let isInside = false;
  for (const bar of bars) {
    const last = phrases.at(-1);
    const isCut =
      last !== undefined &&
      !isInside &&
      (cut === 'sections' || named
        ? bar.phrase !== undefined
        : cut === 'bars'
          ? last.length >= BARS_OF_PHRASE
          : restsBefore(bar, events));
    if (last && !isCut) last.push(bar);
    else phrases.push([bar]);
    isInside = insideAfter(bar, isInside);
  }
  return phrases;
}

/** Whether nothing sounds over the bar line for a beat at least. */
function restsBefore(bar: BroughtBar, events: readonly BroughtEvent[]): boolean {
  const last = events.findLast(({ at }) => at < bar.at);
  return last !== undefined && bar.at - (last.at + last.ticks) >= barTicks(bar.meter) / bar.meter.beats;
}

/** An item, and the growing softer or louder that it stands in. */
interface Loose {
  readonly item: Item;
  readonly swell?: BroughtEvent['swell'];
}

const NOWHERE = { from: 0, to: 0 } as const;

/** Makes one phrase of some bars. */
class PhraseBuilder {
  readonly #part: BroughtPart;
  readonly #options: BringOptions;
  readonly #problems: FileProblem[];
  /** Events whose place is to be found. */
  readonly #unplaced = new Set<EventItem>();
  #chord: string | null | undefined;
  #count = 0;
  /** Whether something of the phrase is written already. */
  #isBegun = false;

  constructor(part: BroughtPart, options: BringOptions, problems: FileProblem[]) {
    this.#part = part;
    this.#options = options;
    this.#problems = problems;
  }

  build(bars: readonly BroughtBar[], meter: Meter): { readonly text: string; readonly notes: number } {
    const loose: Loose[] = [];
    const [first] = bars;
    if (first?.isPickup) loose.push(setting({ name: 'pickup' }));
    let current = meter;
    let at = 0;
    while (at < bars.length) {
      const taken = this.#repeatFrom(bars, at);
      const some = bars.slice(at, at + taken);
      const inside = this.#bars(some, current, at === 0);
      current = some.at(-1)?.meter ?? current;
      const end = some.find(({ repeatEnd }) => repeatEnd)?.repeatEnd;
      if (taken > 1 || some[0]?.isRepeatStart || end)
        loose.push({
          item: {
            kind: 'repeat',
            span: NOWHERE,
            items: swelled(inside),
            times: end?.times ?? 2,
            open: end?.isOpen ?? false,
          },
        });
      else loose.push(...inside);
      at += taken;
      if (at < bars.length) loose.push({ item: { kind: 'bar', span: NOWHERE } });
    }
    if (this.#count === 0) return { text: '', notes: 0 };
    const phrase = this.#placed({ meter, items: swelled(loose) });
    return { text: writeShorthand(phrase, { strings: 'letters' }), notes: this.#count };
  }

  /** How many bars a repeat takes that begins here; 1 for a bar outside of any. */
  #repeatFrom(bars: readonly BroughtBar[], at: number): number {
    if (!bars[at]?.isRepeatStart) return 1;
    const end = bars.findIndex(({ repeatEnd }, index) => index >= at && repeatEnd);
    return end < 0 ? 1 : end - at + 1;
  }

  /** The items of bars, bar lines between them; endings stand in braces. */
  #bars(bars: readonly BroughtBar[], meter: Meter, isFirst: boolean): readonly Loose[] {
    const items: Loose[] = [];
    let current = meter;
    let inside: Loose[] = [];
    bars.forEach((bar, index) => {
      // Where only the order is known, bars have no length.
      if (this.#isTimed(bar)) {
        if (!sameMeter(current, bar.meter)) inside.push(setting({ name: 'meter', meter: bar.meter }));
        current = bar.meter;
      }
      const isBegin = isFirst && index === 0;
      if (bar.bpm !== undefined && !(isBegin && bar === this.#part.bars[0]))
        inside.push(setting({ name: 'tempo', tempo: bar.bpm }));
      if (bar.feel) inside.push(setting({ name: 'feel', feel: bar.feel }));
      inside.push(...this.#bar(bar));
      const before = bars[index - 1]?.ending;
      const isLast = index === bars.length - 1;
      if (bar.ending && (bar.ending.ends || isLast || bars[index + 1]?.ending?.passes !== bar.ending.passes)) {
        const passes = rangesOf(bar.ending.passes);
        items.push({ item: { kind: 'passes', span: NOWHERE, passes, items: swelled(inside) } });
        inside = [];
      } else if (!isLast) {
        inside.push({ item: { kind: 'bar', span: NOWHERE } });
        if (!bar.ending && bars[index + 1]?.ending && !before) {
          items.push(...inside);
          inside = [];
        }
      }
    });
    return [...items, ...inside];
  }

  #isTimed({ at, ticks }: BroughtBar): boolean {
    const here = this.#part.events.filter((event) => event.at >= at && event.at < at + ticks);
    return here.length === 0 || here.some(({ isTimed }) => isTimed !== false);
  }

  #bar(bar: BroughtBar): readonly Loose[] {
    const end = bar.at + bar.ticks;
    const here = this.#part.events.filter(({ at }) => at >= bar.at && at < end);
    const chords = this.#part.chords.filter(({ at }) => at >= bar.at && at < end);
    const loose: Loose[] = [];
    let now = bar.at;
    let nextChord = 0;
    const before = this.#part.events.findLast(({ at, ticks }) => at < bar.at && at + ticks > bar.at);
    if (before) {
      const until = Math.min(end, before.at + before.ticks, here[0]?.at ?? Infinity);
      // What sounds on from the phrase before is silent here: there is nothing that it could make longer.
      loose.push(...(this.#isBegun ? holds(until - now) : restsOf(until - now)));
      now = until;
    }
    const rest = (until: number) => {
      if (until > now) loose.push(...restsOf(until - now));
      now = Math.max(now, until);
    };
    const sayChords = (until: number) => {
      for (let one = chords[nextChord]; one && one.at <= until; one = chords[nextChord]) {
        rest(one.at);
        if (one.chord !== this.#chord) loose.push({ item: { kind: 'harmony', span: NOWHERE, chord: one.chord } });
        this.#chord = one.chord;
        nextChord += 1;
      }
    };
    for (const event of here) {
      sayChords(event.at);
      rest(event.at);
      const ticks = Math.min(event.ticks, end - event.at);
      loose.push(...this.#event(event, ticks));
      now = Math.max(now, event.at + (event.isGrace ? 0 : ticks));
    }
    sayChords(end);
    rest(end);
    this.#isBegun = true;
    return loose;
  }

  #event(event: BroughtEvent, ticks: number): readonly Loose[] {
    const [value, ...more] = writtenValues(event, ticks);
    if (value === undefined) return [];
    this.#count += event.notes.length;
    const { link, slideIn, slideOut, arm, marks } = event;
    const item: EventItem = {
      ...{ kind: 'event', span: NOWHERE, value, marks, times: 1 },
      notes: this.#notesOf(event),
      ...(link && { link }),
      ...(slideIn && { slideIn }),
      ...(slideOut && { slideOut }),
      ...(arm && arm.length > 0 && { arm }),
    };
    if (item.notes.length === 0) return restsOf(ticks);
    if (event.notes.some(({ place }) => !place)) this.#unplaced.add(item);
    const swell = event.swell && { swell: event.swell };
    const words = event.words.map((text): Loose => ({
      item: { kind: 'words', span: NOWHERE, text: cleaned(text) },
      ...swell,
    }));
    const held = more.map((one): Loose => ({ item: { kind: 'hold', span: NOWHERE, value: one }, ...swell }));
    return [...words, { item: this.#around(item, event), ...swell }, ...held];
  }

  #around(item: EventItem, { sureness, barre }: BroughtEvent): Item {
    const sure: Item = sureness ? { kind: 'sure', span: NOWHERE, items: [item], sureness } : item;
    return barre === undefined ? sure : { kind: 'barre', span: NOWHERE, items: [sure], fret: barre };
  }

  /** The notes where the file has them; those without a place lie anywhere for now. Notes that this guitar has not are told. */
  #notesOf(event: BroughtEvent): readonly WrittenNote[] {
    const { guitar } = this.#options;
    const taken = new Set(event.notes.flatMap(({ place }) => place?.string ?? []));
    const seen = new Set<number>();
    return event.notes.flatMap((note): readonly WrittenNote[] => {
      const { midi, place, ...rest } = note;
      if (place) {
        if (seen.has(place.string) || place.string > guitar.tuning.openMidis.length) return this.#left(event, note);
        seen.add(place.string);
        return [{ ...rest, ...place }];
      }
      const found = midi === null ? [] : fretPositionsOf(midi, guitar);
      const free = found.find(({ string }) => !taken.has(string));
      if (!free) return this.#left(event, note);
      taken.add(free.string);
      return [{ ...rest, ...free }];
    });
  }

  #left({ at }: BroughtEvent, { midi }: BroughtNote): readonly WrittenNote[] {
    const bar = this.#part.bars.findLastIndex((one) => one.at <= at) + 1;
    const what = midi === null ? 'a dead note' : `MIDI note ${midi}`;
    this.#problems.push({
      place: `bar ${bar}`,
      message: `This guitar has no free string for ${what}; it is left out.`,
    });
    return [];
  }

  /** Finds the places that the file does not say. */
  #placed(phrase: Phrase): Phrase {
    if (this.#unplaced.size === 0) return phrase;
    const { guitar } = this.#options;
    const path = bestPath(phrase, guitar, {
      choices: (item) =>
        this.#unplaced.has(item) ? undefined : [item.notes.map(({ string, fret }) => ({ string, fret }))],
    });
    const places = fretPositionsOnPath(path);
    return mapEvents(phrase, (item) => {
      const found = this.#unplaced.has(item) ? places.get(item) : undefined;
      if (!found) return item;
      const pitches = item.notes.map(({ string, fret }) => midiOf(guitar.tuning, string, fret ?? 0, guitar.capo));
      return { ...item, notes: item.notes.map((note, at) => ({ ...note, ...placeFor(found, pitches[at], guitar) })) };
    });
  }
}

/** The place among those found that sounds at a pitch. */
function placeFor(
  found: readonly { readonly string: number; readonly fret: number | null }[],
  midi: number | undefined,
  { tuning, capo }: Guitar,
): { readonly string: number; readonly fret: number | null } | undefined {
  return found.find(({ string, fret }) => fret !== null && midiOf(tuning, string, fret, capo) === midi);
}

function setting(value: Extract<Item, { kind: 'setting' }>['setting']): Loose {
  return { item: { kind: 'setting', span: NOWHERE, setting: value } };
}

/** The values that an event is written with. */
function writtenValues({ isGrace, isTimed }: BroughtEvent, ticks: number): readonly NoteValue[] {
  if (isGrace) return ['grace'];
  return isTimed === false ? ['untimed'] : valuesOfTicks(ticks);
}

/** A rest, and what it lasts longer. */
function restsOf(ticks: number): readonly Loose[] {
  return valuesOfTicks(ticks).map((value) => ({ item: { kind: 'rest', span: NOWHERE, value } }));
}

function holds(ticks: number): readonly Loose[] {
  return ticks <= 0 ? [] : valuesOfTicks(ticks).map((value) => ({ item: { kind: 'hold', span: NOWHERE, value } }));
}

/** Items with those of one hairpin put together. */
function swelled(loose: readonly Loose[]): readonly Item[] {
  const items: Item[] = [];
  let open: { number: number; to: 'softer' | 'louder'; items: Item[] } | undefined;
  for (const [index, { item, swell: own }] of loose.entries()) {
    // What lies between two notes of a hairpin, a bar line or a chord, is inside of it.
    const next = loose[index + 1]?.swell;
    const swell = own ?? (next?.number === open?.number ? next : undefined);
    if (open && swell?.number !== open.number) open = undefined;
    if (!swell) items.push(item);
    else if (open) open.items.push(item);
    else {
      open = { number: swell.number, to: swell.to, items: [item] };
      items.push({ kind: 'swell', span: NOWHERE, items: open.items, to: swell.to });
    }
  }
  return items;
}

function rangesOf(passes: readonly number[]): readonly (readonly [number, number])[] {
  const ranges: [number, number][] = [];
  for (const pass of passes) {
    const last = ranges.at(-1);
    if (last && last[1] === pass - 1) last[1] = pass;
    else ranges.push([pass, pass]);
  }
  return ranges;
}

/** Words as they can stand between quotation marks. */
function cleaned(text: string): string {
  return text.replaceAll('"', '”').replaceAll(/\s+/g, ' ').trim();
}
