import {
  barTicks,
  isHeardOn,
  isNest,
  scoreOf,
  unroll,
  ticksOfTimed,
  BASE_VALUES,
  valueOfTicks,
  withItems,
  type Feel,
  type Item,
  type Meter,
  type Phrase,
  type RepeatItem,
  type ScoreBar,
  type ScoreEvent,
  type TimedValue,
} from '../notation/index.ts';
import { holds, stretchesOf, type SongToWrite, type Stretch, type Voice } from './song.ts';

/** An event or rest of a bar, as it is written. `at` in ticks from the bar line. */
export interface WrittenEvent extends Omit<ScoreEvent, 'tied'> {
  readonly ticks: number;
  /** Whether it goes on from the event before, and into the next. */
  readonly isTiedFrom: boolean;
  readonly isTiedOn: boolean;
}

/** A bar of one part. All parts of a song have as many, each as long as the others. */
export interface WrittenBar {
  readonly meter: Meter;
  readonly ticks: number;
  readonly events: readonly WrittenEvent[];
  /** Quarter notes a minute from here on. */
  readonly bpm?: number;
  readonly feel?: Feel;
  /** The stretch that begins here. */
  readonly stretch?: Stretch;
  /** Names of phrases that begin here. */
  readonly phrases: readonly string[];
  /** Whether it is the upbeat to the bar that follows. */
  readonly isPickup?: true;
  readonly isRepeatStart: boolean;
  /** How often what ends here is played; left out where it is once. */
  readonly repeatEnd?: { readonly times: number; readonly isOpen: boolean };
  /** On which passes of the repeat it is heard; whether the bracket begins and ends here. */
  readonly ending?: { readonly passes: readonly number[]; readonly begins: boolean; readonly ends: boolean };
  /** A chord symbol and words behind its last event. */
  readonly closing?: ScoreBar['closing'];
}

/** One part of a song, bar by bar. */
export interface PartBars {
  readonly layer: string;
  readonly bars: readonly WrittenBar[];
}

/** All parts of a song, and whether it was too long to be written whole. */
export interface SongBars {
  readonly parts: readonly PartBars[];
  readonly truncated: boolean;
}

/**
 * The bars of a song by its layers. Where one layer sounds, its repeats and rounds stay folded; where several do, they are written
 * out and barred as the first of them.
 */
export function barsOfSong(song: SongToWrite): SongBars {
  const layers = [...new Set(song.sections.flatMap(({ phrases }) => phrases.map(({ layer }) => layer)))];
  const isAlone = song.sections.every(({ phrases }) => new Set(phrases.map(({ layer }) => layer)).size <= 1);
  const { stretches, truncated } = stretchesOf(song, { fold: isAlone });
  const named = layers.length === 0 ? [''] : layers;
  const parts = named.map((layer) => ({ layer, bars: [] as WrittenBar[] }));
  for (const stretch of stretches) {
    const [first, ...others] = stretch.voices;
    const lead = leadBars(stretch, first);
    for (const part of parts) {
      const voice = others.find(({ layer }) => layer === part.layer);
      part.bars.push(...(part.layer === first?.layer ? lead : voice ? barredAs(lead, voice) : silent(lead)));
    }
  }
  return { parts, truncated };
}

/** The bars that a stretch has by its first layer: its phrases, and rests to its end. */
function leadBars(stretch: Stretch, voice: Voice | undefined): readonly WrittenBar[] {
  const bars: WrittenBar[] = [];
  const fold = stretch.voices.length <= 1;
  for (const { name, phrase } of voice?.phrases ?? []) {
    const own = mergedBars(scoreOf(settleRepeats(phrase, fold)).map(writtenBar));
    const [first] = own;
    const isPickup = unroll(phrase).pickup && first !== undefined && first.ticks < barTicks(first.meter);
    if (first) bars.push({ ...first, phrases: [name], ...(isPickup && { isPickup }) }, ...own.slice(1));
  }
  const full = barTicks(stretch.meter);
  let left = stretch.ticks - soundingTicks(voice);
  // What is missing in the last bar of the phrases is filled up first.
  const last = bars.at(-1);
  if (last && !last.repeatEnd && left > 0 && last.ticks < full) {
    const rest = Math.min(left, full - last.ticks);
    bars[bars.length - 1] = { ...last, ticks: last.ticks + rest, events: [...last.events, ...rests(last.ticks, rest)] };
    left -= rest;
  }
  for (; left > 0; left -= full) bars.push(restBar(stretch.meter, Math.min(left, full)));
  const [first] = bars;
  if (first)
    bars[0] = {
      ...first,
      bpm: first.bpm ?? stretch.bpm,
      stretch,
      isRepeatStart: first.isRepeatStart || stretch.times > 1,
    };
  const end = bars.at(-1);
  if (end && stretch.times > 1)
    bars[bars.length - 1] = { ...end, repeatEnd: { times: stretch.times, isOpen: stretch.isOpen } };
  return bars;
}

/** As played, repeats and all. */
function soundingTicks(voice: Voice | undefined): number {
  return (voice?.phrases ?? []).reduce((sum, { phrase }) => {
    const bars = scoreOf(settleRepeats(phrase, false));
    return sum + bars.reduce((all, bar) => all + ticksOfBar(bar), 0);
  }, 0);
}

function ticksOfBar({ events }: ScoreBar): number {
  return events.reduce((sum, { values }) => sum + ticksOfValues(values), 0);
}

/** How long tied values last together, ticks. */
export function ticksOfValues(values: readonly TimedValue[]): number {
  return values.reduce((sum, value) => sum + ticksOfTimed(value), 0);
}

function writtenBar(bar: ScoreBar, index: number, all: readonly ScoreBar[]): WrittenBar {
  const events = bar.events.map(({ tied, ...event }, at): WrittenEvent => {
    const next = bar.events[at + 1] ?? all[index + 1]?.events[0];
    return { ...event, ticks: ticksOfValues(event.values), isTiedFrom: tied, isTiedOn: next?.tied === true };
  });
  const { passes, repeatEnd } = bar;
  return {
    ...{ meter: bar.meter, ticks: ticksOfBar(bar), events, phrases: [], isRepeatStart: bar.repeatStart },
    ...(bar.tempo !== undefined && { bpm: bar.tempo }),
    ...(bar.feel && { feel: bar.feel }),
    ...(repeatEnd && { repeatEnd: { times: repeatEnd.times, isOpen: repeatEnd.open } }),
    ...(passes?.on && {
      ending: {
        passes: passes.on.flatMap((range) => (range === 'last' ? [] : range[0])),
        ...{ begins: passes.begins, ends: passes.ends },
      },
    }),
    ...(bar.closing && { closing: bar.closing }),
    ...(bar.line && { line: true }),
  };
}

/** Parts of bars that only a repeat written out has set apart are one bar again. */
function mergedBars(bars: readonly (WrittenBar & { readonly line?: true })[]): readonly WrittenBar[] {
  const merged: (WrittenBar & { readonly line?: true })[] = [];
  for (const bar of bars) {
    const last = merged.at(-1);
    const isWhole =
      !last || last.line || last.repeatEnd || last.ending?.ends || last.ticks + bar.ticks > barTicks(last.meter);
    if (isWhole || bar.isRepeatStart || bar.ending?.begins || bar.bpm !== undefined || bar.feel) merged.push(bar);
    else {
      const events = [...last.events, ...bar.events.map((event) => ({ ...event, at: event.at + last.ticks }))];
      merged[merged.length - 1] = { ...bar, ...last, events, ticks: last.ticks + bar.ticks, ...endOf(bar) };
    }
  }
  return merged.map(({ line: _, ...bar }) => bar);
}

function endOf({ repeatEnd, closing, ending, line }: WrittenBar & { readonly line?: true }) {
  return {
    ...(repeatEnd && { repeatEnd }),
    ...(closing && { closing }),
    ...(ending && { ending }),
    ...(line && { line }),
  };
}

function restBar(meter: Meter, ticks: number): WrittenBar {
  return { meter, ticks, events: rests(0, ticks), phrases: [], isRepeatStart: false };
}

function rests(from: number, ticks: number): readonly WrittenEvent[] {
  return ticks === 0 ? [] : [{ ...REST, at: from, ticks, values: valuesOfTicks(ticks) }];
}

const REST = {
  ...{
    item: null,
    span: { from: 0, to: 0 },
    timed: true,
    marks: [],
    sureness: null,
    barre: null,
    words: [],
    graces: [],
  },
  ...{ isTiedFrom: false, isTiedOn: false },
} as const;

/** A part that is silent while another plays. */
function silent(lead: readonly WrittenBar[]): readonly WrittenBar[] {
  return lead.map((bar) => ({ ...bar, phrases: [], events: rests(0, bar.ticks) }));
}

/** Phrases of another layer, cut at the bar lines of the first. */
function barredAs(lead: readonly WrittenBar[], voice: Voice): readonly WrittenBar[] {
  let start = 0;
  const placed = voice.phrases.flatMap(({ name, phrase }) =>
    scoreOf(settleRepeats(phrase, false))
      .map(writtenBar)
      .flatMap(({ events, ticks, bpm, feel }, index) => {
        const from = start;
        start += ticks;
        return events.map((event, at) => ({
          ...{ from: from + event.at, event },
          ...(at === 0 && { bpm, feel, name: index === 0 ? name : undefined }),
        }));
      }),
  );
  let at = 0;
  let next = 0;
  return lead.map((bar) => {
    const events: WrittenEvent[] = [];
    const names: string[] = [];
    const end = at + bar.ticks;
    for (let one = placed[next]; one && one.from < end; one = placed[next]) {
      if (one.name !== undefined) names.push(one.name);
      const from = Math.max(one.from, at);
      const to = Math.min(one.from + one.event.ticks, end);
      events.push(cutEvent(one.event, { from: one.from, cutFrom: from, cutTo: to, barAt: at }));
      if (one.from + one.event.ticks > end) break;
      next += 1;
    }
    const filled = events.reduce((sum, { ticks }) => sum + ticks, 0);
    at = end;
    return { ...bar, phrases: names, events: [...events, ...rests(filled, bar.ticks - filled)] };
  });
}

function cutEvent(
  event: WrittenEvent,
  {
    from,
    cutFrom,
    cutTo,
    barAt,
  }: { readonly from: number; readonly cutFrom: number; readonly cutTo: number; readonly barAt: number },
): WrittenEvent {
  const isFirst = cutFrom === from;
  const isLast = cutTo === from + event.ticks;
  const ticks = cutTo - cutFrom;
  const { chord: _, ...rest } = event;
  return {
    ...(isFirst ? event : rest),
    ...{ at: cutFrom - barAt, ticks },
    values: isFirst && isLast ? event.values : valuesOfTicks(ticks),
    words: isFirst ? event.words : [],
    graces: isFirst ? event.graces : [],
    isTiedFrom: event.item !== null && (!isFirst || event.isTiedFrom),
    isTiedOn: event.item !== null && (!isLast || event.isTiedOn),
  };
}

/** Every value that can be written, the longest first; of equals the plainest. */
const ALL_VALUES: readonly (readonly [ticks: number, value: TimedValue])[] = BASE_VALUES.flatMap((base) =>
  ([0, 1, 2] as const).flatMap((dots) =>
    ([undefined, 3, 5, 6, 7, 9, 10, 12] as const).map((tuplet) => {
      const value: TimedValue = tuplet === undefined ? { base, dots } : { base, dots, tuplet };
      return [ticksOfTimed(value), value] as const;
    }),
  ),
).sort(([a, one], [b, other]) => b - a || weight(one) - weight(other));

function weight({ dots, tuplet }: TimedValue): number {
  return (tuplet ?? 0) * 4 + dots;
}

/**
 * Values that last so many ticks together: one where there is one, else the longest plain ones first. What is left below the shortest
 * value is dropped; a length that tuplets of one kind alone make up does not come to that.
 */
export function valuesOfTicks(ticks: number): readonly TimedValue[] {
  const plain = valueOfTicks(ticks);
  if (plain) return [plain];
  const exact = ALL_VALUES.find(([length]) => length === ticks);
  if (exact) return [exact[1]];
  const pair = ALL_VALUES.find(
    ([length, value]) => length < ticks && !value.tuplet && ALL_VALUES.some(([other]) => other === ticks - length),
  );
  const first = pair ?? ALL_VALUES.find(([length, { dots, tuplet }]) => length <= ticks && dots === 0 && !tuplet);
  return first ? [first[1], ...(first[0] < ticks ? valuesOfTicks(ticks - first[0]) : [])] : [];
}

/**
 * A phrase whose repeats can all be written with repeat signs and endings: of several ways the first, and repeats that hold others, or
 * passes in their midst, written out; all of them, unless `fold`.
 */
export function settleRepeats(phrase: Phrase, fold: boolean): Phrase {
  return { ...phrase, items: settled(phrase.items, fold, undefined) };
}

interface Pass {
  readonly pass: number;
  readonly passes: number;
}

function settled(items: readonly Item[], fold: boolean, pass: Pass | undefined): readonly Item[] {
  return items.flatMap((item): readonly Item[] => {
    if (!isNest(item)) return [item];
    switch (item.kind) {
      case 'either':
        return settled(item.items[0]?.items ?? [], fold, pass);
      case 'passes':
        return pass && isHeardOn(item, pass) ? settled(item.items, fold, pass) : [];
      case 'repeat':
        return settledRepeat(item, fold);
      default:
        // Strokes in turn go on from pass to pass.
        return [withItems(item, settled(item.items, fold && item.kind !== 'alternate', pass))];
    }
  });
}

/** A repeat written out stands as repeats of one time each, so that its bars stay closed where it begins and ends. */
function settledRepeat(repeat: RepeatItem, fold: boolean): readonly Item[] {
  if (firstTimed(repeat.items) === undefined) return settled(repeat.items, fold, { pass: 1, passes: repeat.times });
  if (fold && canBeFolded(repeat)) {
    const items = repeat.items.flatMap((item) =>
      item.kind === 'passes'
        ? [
            {
              ...item,
              items: settled(item.items, fold, undefined),
              passes: passesOf(item.passes, repeat.times).map((one) => [one, one] as const),
            },
          ]
        : settled([item], fold, undefined),
    );
    return [{ ...repeat, items }];
  }
  return Array.from({ length: repeat.times }, (_, index) => ({
    ...repeat,
    times: 1,
    open: false,
    items: settled(repeat.items, fold, { pass: index + 1, passes: repeat.times }),
  }));
}

/** Whether a repeat is a common beginning and, perhaps, endings that share out its passes. */
function canBeFolded({ items, times }: RepeatItem): boolean {
  if (holds(items, 'repeat') || times < 2 || firstTimed(items)?.kind === 'hold' || endsLoose(items)) return false;
  // What changes inside holds on at the next pass; a sign at its beginning is met at each.
  if (holds(items, 'setting') || (holds(items, 'harmony') && beforeTimed(items)?.kind !== 'harmony')) return false;
  const endings = items.findIndex(({ kind }) => kind === 'passes');
  if (endings < 0) return !holds(items, 'passes');
  const tail = items.slice(endings);
  if (holds(items.slice(0, endings), 'passes') || endings === 0) return false;
  const begins = tail.map((item) => (item.kind === 'passes' ? firstTimed(item.items)?.kind : undefined));
  if (begins.some((kind) => kind === undefined || kind === 'hold')) return false;
  if (tail.some((item) => isNest(item) && endsLoose(item.items))) return false;
  const heard = tail.flatMap((item) =>
    item.kind === 'passes' && !holds(item.items, 'passes') ? passesOf(item.passes, times) : [0],
  );
  return heard.length === times && heard.every((pass, index) => pass === index + 1);
}

/** The harmony that stands before the first of some items that takes time; else that item. */
function beforeTimed(items: readonly Item[]): Item | undefined {
  for (const item of items) {
    if (item.kind === 'harmony') return item;
    const inner = isNest(item) ? beforeTimed(item.items) : undefined;
    if (inner ?? takesTime(item)) return inner ?? item;
  }
  return undefined;
}

/** Whether something stands behind the last event that belongs to the one which follows: on another pass, that is another one. */
function endsLoose(items: readonly Item[]): boolean {
  const last = items.findLast(({ kind }) => kind !== 'bar' && kind !== 'stamp');
  if (!last) return false;
  if (isNest(last)) return endsLoose(last.items);
  return last.kind === 'harmony' || last.kind === 'words' || last.kind === 'setting' || isGrace(last);
}

function isGrace(item: Item): boolean {
  return item.kind === 'event' && item.value === 'grace';
}

/** The first of some items that takes time. */
function firstTimed(items: readonly Item[]): Item | undefined {
  for (const item of items) {
    const inner = isNest(item) ? firstTimed(item.items) : undefined;
    if (inner ?? takesTime(item)) return inner ?? item;
  }
  return undefined;
}

function takesTime(item: Item): boolean {
  return item.kind === 'rest' || item.kind === 'hold' || (item.kind === 'event' && !isGrace(item));
}

function passesOf(ranges: Extract<Item, { kind: 'passes' }>['passes'], times: number): readonly number[] {
  const item = { passes: ranges } as const;
  return Array.from({ length: times }, (_, index) => index + 1).filter((pass) =>
    item.passes.some((range) => (range === 'last' ? pass === times : pass >= range[0] && pass <= range[1])),
  );
}
