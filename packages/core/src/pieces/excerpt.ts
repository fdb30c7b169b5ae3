import {
  barTicks,
  beatOf,
  growsFromBefore,
  heldSpans,
  isHeardOn,
  isNest,
  sameMeter,
  settledStrokes,
  unroll,
  withItems,
  TICKS_PER_WHOLE,
} from '../notation/index.ts';
import type { Item, Meter, Phrase, Span, Timeline } from '../notation/index.ts';
import type { CutPhrase, Excerpt } from './cut.ts';

/** A phrase to be cut, with how hard it is for the student and where it is hardest. */
export interface PhraseToCut {
  readonly id: string;
  readonly sectionId: string;
  readonly difficulty: number;
  readonly hardest?: Span | undefined;
}

/** Bars on each side of a seam. Our choice. */
const SEAM_BARS = 2;

/** A half is at least this long, as a share of a bar. Our choice: shorter is a drill. */
const MIN_HALF_BARS = 0.5;

/** What a place is worth where a phrase is to fall into two; how far from the middle costs. Our choice. */
const CUT_WORTH = { rest: 0.35, bar: 0.25, beat: 0.1, offCentre: 1.2 } as const;

/** A place between two items of a phrase where it can be cut, ticks as played. */
export interface CutPoint {
  readonly at: number;
  /** After a rest, at a bar line, on a beat, or between beats. */
  readonly by: 'rest' | 'bar' | 'beat' | 'note';
}

/** What cutting needs to know of a phrase. Linear. */
export function phraseToCut(phrase: Phrase, { id, sectionId, difficulty, hardest }: PhraseToCut): CutPhrase {
  const timeline = unroll(phrase);
  const { bars, length } = timeline;
  const full = barTicks(phrase.meter);
  return {
    id,
    sectionId,
    difficulty,
    length,
    bars: Math.max(1, Math.round(length / full)),
    middle: middleOf(phrase, timeline),
    hard: hardest ? hardSpot(timeline, hardest, phrase) : null,
    headTo: bars[SEAM_BARS]?.at ?? length,
    tailFrom: bars[Math.max(0, bars.length - SEAM_BARS)]?.at ?? 0,
  };
}

/**
 * Every place inside a phrase where it can be cut without cutting an item; before a note that is slurred or slid to, or that a
 * grace leads to, it cannot.
 */
export function cutPoints(phrase: Phrase): readonly CutPoint[] {
  const timeline = unroll(phrase);
  const items = placed(phrase.items, phrase.meter, timeline);
  const starts = new Set(items.flatMap(({ item, at, length }) => (length > 0 && !isLinked(item) ? [at] : [])));
  const afterGrace = new Set(
    timeline.events.flatMap(({ marks, at, length }) => (marks.includes('grace') ? [at + length] : [])),
  );
  const held = heldSpans(timeline.events);
  const rests = new Set(timeline.events.flatMap(({ item, at, length }) => (item ? [] : [at + length])));
  return [...starts]
    .filter(
      (at) =>
        at > 0 && at < timeline.length && !afterGrace.has(at) && !held.some(({ from, to }) => at > from && at <= to),
    )
    .sort((a, b) => a - b)
    .map((at): CutPoint => {
      const bar = timeline.bars.findLast((one) => one.at <= at);
      const beat = TICKS_PER_WHOLE / (bar?.meter ?? phrase.meter).unit;
      if (rests.has(at)) return { at, by: 'rest' };
      if (bar?.at === at) return { at, by: 'bar' };
      return { at, by: (at - (bar?.at ?? 0)) % beat === 0 ? 'beat' : 'note' };
    });
}

function middleOf(phrase: Phrase, { length }: Timeline): number | null {
  const min = barTicks(phrase.meter) * MIN_HALF_BARS;
  const worth = ({ at, by }: CutPoint) =>
    (by === 'note' ? 0 : CUT_WORTH[by]) - CUT_WORTH.offCentre * Math.abs(at / length - 0.5);
  const points = cutPoints(phrase).filter(({ at }) => at >= min && length - at >= min);
  return points.toSorted((a, b) => worth(b) - worth(a))[0]?.at ?? null;
}

/** The hard spot, from the beat before it to the end of the beat it is in; null where that is more than half the phrase. */
function hardSpot(timeline: Timeline, span: Span, phrase: Phrase): CutPhrase['hard'] {
  const there = timeline.events.find((event) => event.span.from < span.to && event.span.to > span.from);
  const bar = timeline.bars[there?.bar ?? -1];
  if (!there || !bar) return null;
  const beat = TICKS_PER_WHOLE / bar.meter.unit;
  const first = beatOf(there.at - bar.at, bar.meter) - 1;
  const points = [0, ...cutPoints(phrase).map(({ at }) => at), timeline.length];
  const from = points.findLast((at) => at <= Math.max(0, bar.at + (first - 1) * beat)) ?? 0;
  const after = Math.max(there.at + there.length, bar.at + (first + 1) * beat);
  const to = points.find((at) => at >= after) ?? timeline.length;
  return (to - from) * 2 > timeline.length ? null : { from, to };
}

/** An item of a phrase as it falls in time. Ticks; bar lines, words and holds have no length of their own. */
interface Placed {
  readonly item: Item;
  readonly at: number;
  readonly length: number;
}

/** Items one after the other as they fall in time: each takes as many of the events played as it plays. */
function placed(items: readonly Item[], meter: Meter, timeline: Timeline): readonly Placed[] {
  let index = 0;
  let now = 0;
  return items.map((item): Placed => {
    const at = now;
    const played = timeline.events.slice(index, index + countOf(item, meter));
    index += played.length;
    const last = played.at(-1);
    if (last) now = last.at + last.length;
    return { item, at, length: now - at };
  });
}

/** How many events an item plays, rests among them. */
function countOf(item: Item, meter: Meter): number {
  if (item.kind === 'event') return item.times;
  if (item.kind === 'rest') return 1;
  return isNest(item) ? unroll({ meter, items: [item] }).events.length : 0;
}

/** Whether an item begins with a note that a link holds to the one before, or with a hold of it. */
function isLinked(item: Item): boolean {
  if (item.kind === 'event') return growsFromBefore(item);
  if (item.kind === 'hold') return true;
  const first = isNest(item) ? item.items.find(hasTime) : undefined;
  return first !== undefined && isLinked(first);
}

/** Whether an item takes time, or can: what is nested and empty cannot. */
function hasTime(item: Item): boolean {
  return (
    item.kind === 'event' || item.kind === 'rest' || item.kind === 'hold' || (isNest(item) && item.items.some(hasTime))
  );
}

/** The items of a phrase with those taken apart that a cut lies inside: repeats are written out, spans and rolls spread over their events. */
function apart(phrase: Phrase, timeline: Timeline, cuts: readonly number[]): readonly Placed[] {
  let items = phrase.items;
  for (;;) {
    const all = placed(items, phrase.meter, timeline);
    const inside = all.filter(({ at, length }) => cuts.some((cut) => at < cut && cut < at + length));
    const divided = new Map(inside.map(({ item }) => [item, dividedOf(item)]));
    if ([...divided.values()].every((parts) => parts.length < 2)) return all;
    items = all.flatMap(({ item, at, length }): readonly Item[] =>
      cuts.some((cut) => at < cut && cut < at + length) ? (divided.get(item) ?? [item]) : [item],
    );
  }
}

/** The same in parts that can be told apart; itself where there are none. */
function dividedOf(item: Item): readonly Item[] {
  if (item.kind === 'event') return Array.from({ length: item.times }, () => ({ ...item, times: 1 }));
  if (item.kind === 'repeat')
    return Array.from({ length: item.times }, (_, index) => onPass(item.items, index + 1, item.times)).flat();
  if (item.kind === 'alternate') return settledStrokes(item);
  if (item.kind === 'either') return item.items[0]?.items ?? [];
  // What is heard on some passes alone has been decided with its repeat.
  if (!isNest(item) || item.kind === 'passes') return [item];
  const [only] = item.items;
  const parts = only && item.items.length === 1 ? dividedOf(only) : item.items;
  return parts.map((one) => ({ ...item, items: [one] }));
}

/** What of a repeat is heard on one of its passes. */
function onPass(items: readonly Item[], pass: number, passes: number): readonly Item[] {
  return items.flatMap((item): readonly Item[] => {
    if (item.kind === 'passes') return isHeardOn(item, { pass, passes }) ? onPass(item.items, pass, passes) : [];
    if (item.kind === 'repeat' || !isNest(item)) return [item];
    return [withItems(item, onPass(item.items, pass, passes))];
  });
}

/** A piece put together, and where in it each of its stretches begins. Ticks as played. */
export interface Assembled {
  readonly phrase: Phrase;
  readonly parts: readonly (Excerpt & { readonly at: number; readonly length: number })[];
}

/**
 * The phrase that a piece plays: its stretches one after the other, each under the chord, meter, tempo and feel that hold there.
 * A stretch that begins within a bar begins with a pick-up; a slur or hold out of what is cut away is left out. A stretch that is
 * no longer in its phrase, since the text has changed, gives what is left of it. A cut inside a repeat plays what the repeat plays there.
 * Linear.
 */
export function assemble(parts: readonly Excerpt[], phraseOf: (phraseId: string) => Phrase | undefined): Assembled {
  const items: Item[] = [];
  const placedParts: (Excerpt & { at: number; length: number })[] = [];
  let meter: Meter | undefined;
  let first: Meter | undefined;
  let at = 0;
  for (const part of parts) {
    const phrase = phraseOf(part.phraseId);
    if (!phrase) continue;
    const cut = sliceOf(phrase, part);
    if (meter && items.at(-1)?.kind !== 'bar') items.push(plain('bar'));
    if (meter && !sameMeter(meter, cut.meter)) items.push(setting({ name: 'meter', meter: cut.meter }));
    first ??= cut.meter;
    meter = cut.endMeter;
    items.push(...cut.items);
    placedParts.push({ ...part, at, length: cut.length });
    at += cut.length;
  }
  return { phrase: { meter: first ?? { beats: 4, unit: 4 }, items }, parts: placedParts };
}

interface Slice {
  readonly items: readonly Item[];
  readonly meter: Meter;
  readonly endMeter: Meter;
  readonly length: number;
}

function sliceOf(phrase: Phrase, { from, to }: Excerpt): Slice {
  const timeline = unroll(phrase);
  const end = Math.min(to ?? timeline.length, timeline.length);
  const all = apart(phrase, timeline, [from, end]);
  let held = false;
  const inside = all.filter(({ item, at, length }) => {
    if (length > 0) return (held = at >= from && at < end);
    // A hold goes with the event it holds, also one that stands alone in a repeat or a span.
    if (isLinked(item)) return held;
    if (item.kind === 'bar') return at > from && at <= end;
    return at >= from && at < end;
  });
  const bar = timeline.bars.findLast((one) => one.at <= from);
  const meter = bar?.meter ?? phrase.meter;
  const last = timeline.bars.findLast((one) => one.at < end);
  const lead = from === 0 ? [] : leadOf(all, from, bar !== undefined && bar.at !== from);
  const items = from === 0 ? inside.map(({ item }) => item) : begin(inside.map(({ item }) => item));
  const length = inside.reduce((sum, one) => sum + one.length, 0);
  return { items: [...lead, ...items], meter, endMeter: last?.meter ?? meter, length };
}

/** What holds where a stretch begins: chord, tempo and feel, and that it is a pick-up. The meter is told apart. */
function leadOf(all: readonly Placed[], from: number, withinBar: boolean): readonly Item[] {
  const before = all.filter(({ at }) => at < from).map(({ item }) => item);
  const lastSetting = (name: string) =>
    before.findLast((item) => item.kind === 'setting' && item.setting.name === name);
  const kept = [
    lastSetting('tempo'),
    lastSetting('feel'),
    lastSetting('box'),
    before.findLast(({ kind }) => kind === 'harmony'),
  ];
  return [...(withinBar ? [setting({ name: 'pickup' })] : []), ...kept.filter((item) => item !== undefined)];
}

/** Without a hold of, or a slur out of, what is cut away. */
function begin(items: readonly Item[]): readonly Item[] {
  const index = items.findIndex(hasTime);
  const item = items[index];
  if (item?.kind === 'hold')
    return begin([...items.slice(0, index), { ...item, kind: 'rest' }, ...items.slice(index + 1)]);
  if (item?.kind !== 'event' || !growsFromBefore(item)) return items;
  const { link: _, ...unlinked } = item;
  const notes = item.notes.map(({ held: _held, again: _again, ...note }) => note);
  return [...items.slice(0, index), { ...unlinked, notes }, ...items.slice(index + 1)];
}

const NOWHERE: Span = { from: 0, to: 0 };
function plain(kind: 'bar'): Item {
  return { kind, span: NOWHERE };
}
function setting(value: Extract<Item, { kind: 'setting' }>['setting']): Item {
  return { kind: 'setting', span: NOWHERE, setting: value };
}
