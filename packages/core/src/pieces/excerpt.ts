import { barTicks, beatOf, isNest, unroll, TICKS_PER_WHOLE } from '../notation/index.ts';
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

/** Every place inside a phrase where it can be cut without cutting an item. */
export function cutPoints(phrase: Phrase): readonly CutPoint[] {
  const timeline = unroll(phrase);
  const starts = new Set(placed(phrase, timeline).flatMap(({ at, length }) => (length > 0 ? [at] : [])));
  const rests = new Set(timeline.events.flatMap(({ item, at, length }) => (item ? [] : [at + length])));
  return [...starts]
    .filter((at) => at > 0 && at < timeline.length)
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

/** A top item of a phrase as it falls in time. Ticks; bar lines and words have no length. */
interface Placed {
  readonly item: Item;
  readonly at: number;
  readonly length: number;
}

function placed(phrase: Phrase, timeline: Timeline): readonly Placed[] {
  let index = 0;
  let now = 0;
  return phrase.items.map((item): Placed => {
    const at = now;
    // Events come in the order of the items; a repeat has many of its own.
    while (index < timeline.events.length) {
      const event = timeline.events[index];
      if (!event || event.span.from < item.span.from || event.span.to > item.span.to) break;
      now = event.at + event.length;
      index += 1;
    }
    return { item, at, length: now - at };
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
 * no longer in its phrase, since the text has changed, gives what is left of it. Linear.
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
  const all = placed(phrase, timeline);
  const inside = all.filter(({ item, at, length }) => {
    if (length > 0) return at >= from && at < end;
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
  const kept = [lastSetting('tempo'), lastSetting('feel'), before.findLast(({ kind }) => kind === 'harmony')];
  return [...(withinBar ? [setting({ name: 'pickup' })] : []), ...kept.filter((item) => item !== undefined)];
}

/** Without a hold of, or a slur out of, what is cut away. */
function begin(items: readonly Item[]): readonly Item[] {
  const index = items.findIndex(
    (item) => item.kind === 'event' || item.kind === 'rest' || item.kind === 'hold' || isNest(item),
  );
  const item = items[index];
  if (item?.kind === 'hold')
    return begin([...items.slice(0, index), { ...item, kind: 'rest' }, ...items.slice(index + 1)]);
  if (item?.kind !== 'event' || item.link === undefined) return items;
  const { link: _, ...unlinked } = item;
  return [...items.slice(0, index), unlinked, ...items.slice(index + 1)];
}

const NOWHERE: Span = { from: 0, to: 0 };
function plain(kind: 'bar'): Item {
  return { kind, span: NOWHERE };
}
function setting(value: Extract<Item, { kind: 'setting' }>['setting']): Item {
  return { kind: 'setting', span: NOWHERE, setting: value };
}
function sameMeter(a: Meter, b: Meter): boolean {
  return a.beats === b.beats && a.unit === b.unit;
}
