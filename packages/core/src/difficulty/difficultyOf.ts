import { bestPath, mmBetween, namesOf, sayNote, sayString, type Guitar, type Path } from '../fretboard/index.ts';
import {
  isPicked,
  beatsOf,
  hasRhythm,
  secondsOfEvents,
  rarityOf,
  techniquesOf,
  type EventItem,
  type Phrase,
  type Span,
  type Technique,
} from '../notation/index.ts';
import { crossingCost, crossings, planStrokes, type PickingPolicy } from '../picking/index.ts';

/** What makes a phrase hard. */
export type PartName = 'speed' | 'reach' | 'shifts' | 'crossings' | 'techniques';

/** Who plays it, on what, and how fast. */
export interface DifficultyContext extends Guitar {
  /** Quarter notes a minute. */
  readonly bpm: number;
  /** Techniques this student has played before; all when left out. */
  readonly known?: ReadonlySet<Technique>;
  readonly policy?: PickingPolicy;
  /** The way of the hand through the phrase as written, where it is known already. */
  readonly path?: Path;
}

/** One part of the difficulty: 0 to 100, its number in words, and where it is greatest. */
export interface DifficultyPart {
  readonly name: PartName;
  readonly score: number;
  readonly says: string;
  readonly span: Span;
}

/** The hardest place, named as a teacher would. */
export interface HardSpan {
  readonly span: Span;
  readonly part: PartName;
  readonly says: string;
}

/** How hard a phrase is for somebody. */
export interface Difficulty {
  /** 0 to 100; never lower at a higher tempo, with a further jump, or with a wider stretch. */
  readonly total: number;
  readonly parts: readonly DifficultyPart[];
  /** False where only the order of the notes is known; speed is left out then. */
  readonly rhythmKnown: boolean;
  readonly hardest: HardSpan | undefined;
}

/** How much each part counts in the whole, and the load at which it is half of what it can be. Our choice. */
const PARTS: Readonly<Record<PartName, { readonly weight: number; readonly half: number }>> = {
  speed: { weight: 0.75, half: 0.55 },
  reach: { weight: 0.6, half: 0.9 },
  shifts: { weight: 0.7, half: 0.5 },
  crossings: { weight: 0.4, half: 0.6 },
  techniques: { weight: 0.6, half: 1.2 },
};

/** A stroke, a slurred note, and a string change of cost 1, seconds; a hand’s speed, mm a second. Our choice. */
const WORK = { strokeSeconds: 0.07, slurSeconds: 0.05, crossingSeconds: 0.03, handMmPerSecond: 900 } as const;

/** What a longer run adds for each doubling of its length. Our choice. */
const ENDURANCE = 0.08;

/** What the rarest technique adds. Our choice. */
const RAREST_TECHNIQUE = 0.3;

/** What a technique that is new to the student adds. Our choice. */
const NEW_TECHNIQUE = 0.8;

/** Shortest time that is computed with, seconds. */
const MIN_SECONDS = 0.01;

interface Load {
  readonly item: EventItem;
  readonly load: number;
  readonly says: () => string;
}

/**
 * How hard a phrase is, in parts and as a whole. Each part is the greatest load of any event, so that adding to a phrase
 * never makes it easier; loads are squeezed to 0-100 and joined as independent causes. Linear in the events.
 */
export function difficultyOf(phrase: Phrase, context: DifficultyContext): Difficulty {
  const loads = loadsOf(phrase, context);
  const rhythmKnown = hasRhythm(phrase);
  const names = Object.keys(PARTS)
    .filter(isPart)
    .filter((name) => rhythmKnown || name !== 'speed');
  const parts = names.flatMap((name): readonly DifficultyPart[] => {
    const greatest = greatestOf(loads[name]);
    if (!greatest || greatest.load <= 0) return [];
    // Many techniques in one phrase are harder than the hardest of them.
    const load = name === 'techniques' ? loads[name].reduce((sum, one) => sum + one.load, 0) : greatest.load;
    return [{ name, score: 100 * squeezed(name, load), says: greatest.says(), span: greatest.item.span }];
  });
  const ease = parts.reduce((product, { name, score }) => product * (1 - (PARTS[name].weight * score) / 100), 1);
  return { total: 100 * (1 - ease), parts, rhythmKnown, hardest: hardestOf(phrase, loads, names) };
}

function isPart(name: string): name is PartName {
  return Object.hasOwn(PARTS, name);
}

function greatestOf(loads: readonly Load[]): Load | undefined {
  return loads.reduce<Load | undefined>((best, one) => (best && best.load >= one.load ? best : one), undefined);
}

function squeezed(name: PartName, load: number): number {
  return load / (load + PARTS[name].half);
}

/** The event on which the most of all parts together falls, and what of it stands out most from the rest of the phrase. */
function hardestOf(
  phrase: Phrase,
  loads: Readonly<Record<PartName, readonly Load[]>>,
  names: readonly PartName[],
): HardSpan | undefined {
  const sums = new Map<EventItem, { sum: number; max: number; part: PartName; load: Load }>();
  for (const part of names) {
    const weighed = loads[part].map(({ load }) => PARTS[part].weight * squeezed(part, load));
    const usual = median(weighed);
    loads[part].forEach((load, index) => {
      const weight = weighed[index] ?? 0;
      const max = weight - usual;
      const known = sums.get(load.item) ?? { sum: 0, max: -1, part, load };
      const stands = max > known.max ? { max, part, load } : {};
      sums.set(load.item, { ...known, ...stands, sum: known.sum + weight });
    });
  }
  let worst: { sum: number; part: PartName; load: Load } | undefined;
  for (const one of sums.values()) if (!worst || one.sum > worst.sum) worst = one;
  if (!worst || worst.sum <= 0) return undefined;
  const { item } = worst.load;
  return {
    span: item.span,
    part: worst.part,
    says: `${worst.load.says()}, ${beatsOf(phrase).get(item) ?? 'at the start'}`,
  };
}

/** What is usual in a phrase; with fewer than three there is no usual. */
function median(values: readonly number[]): number {
  if (values.length < 3) return 0;
  return [...values].sort((a, b) => a - b)[Math.floor((values.length - 1) / 2)] ?? 0;
}

function loadsOf(phrase: Phrase, context: DifficultyContext): Readonly<Record<PartName, readonly Load[]>> {
  const path = context.path ?? bestPath(phrase, context, { asWritten: true });
  const times = secondsOfEvents(phrase, context.bpm);
  const secondsOf = (item: EventItem | undefined) => Math.max(MIN_SECONDS, (item && times.get(item)) ?? Infinity);
  const events = path.growth.map(({ item }) => item);
  return {
    speed: speedLoads(events, secondsOf),
    reach: reachLoads(path, context, secondsOf),
    shifts: shiftLoads(path, context, secondsOf),
    crossings: crossingLoads(phrase, context, secondsOf),
    techniques: techniqueLoads(phrase, events, context),
  };
}

type SecondsOf = (item: EventItem | undefined) => number;

function speedLoads(events: readonly EventItem[], secondsOf: SecondsOf): readonly Load[] {
  const seconds = events.map(secondsOf);
  const runs: number[] = [];
  return events.map((item, index) => {
    const own = seconds[index] ?? Infinity;
    // So many events in a row are at least as fast; what was counted for one before is not counted again.
    let run = 1;
    while (run <= index && (seconds[index - run] ?? 0) <= own + 1e-9) run += runs[index - run] ?? 1;
    runs.push(run);
    const work = isPicked(item) ? WORK.strokeSeconds : WORK.slurSeconds;
    const load = Number.isFinite(own) ? (work / own) * (1 + ENDURANCE * Math.log2(run)) : 0;
    return {
      item,
      load,
      says: () => `the ${run > 1 ? `run of ${run} notes` : 'note'} at ${(1 / own).toFixed(1)} a second`,
    };
  });
}

function reachLoads(path: Path, context: DifficultyContext, secondsOf: SecondsOf): readonly Load[] {
  return path.growth.map(({ item, spanMm }, index) => {
    const before = path.growth[index - 1]?.item;
    const mm = Math.max(spanMm, slurMm(item, before, context));
    const hurry = 1 + 0.1 / secondsOf(item);
    return {
      item,
      load: (mm / context.reachMm) ** 2 * hurry,
      says: () =>
        `the stretch of ${Math.round(mm)} mm at ${sayNote(item.notes[0] ?? { string: 1, fret: 0 }, namesOf(context))}`,
    };
  });
}

/** From the fret that stays down to the one hammered or pulled to, millimetres. */
function slurMm(item: EventItem, before: EventItem | undefined, context: DifficultyContext): number {
  if (item.link !== 'hammer' && item.link !== 'pull') return 0;
  const [to] = item.notes;
  const from = before?.notes.find(({ string }) => string === to?.string);
  return from?.fret && to?.fret ? mmBetween(context, from.fret, to.fret) : 0;
}

function shiftLoads(path: Path, context: DifficultyContext, secondsOf: SecondsOf): readonly Load[] {
  const names = namesOf(context);
  return path.growth.map(({ item, shiftMm }, index) => {
    const before = path.growth[index - 1]?.item;
    const [from, to] = [before?.notes[0], item.notes[0]];
    const says = () => {
      if (!from || !to) return 'the jump';
      if (from.string !== to.string) return `the jump from ${sayNote(from, names)} to ${sayNote(to, names)}`;
      return `the jump from ${from.fret ?? 'x'} to ${to.fret ?? 'x'} on ${sayString(to.string, names)}`;
    };
    return { item, load: before ? shiftMm / (WORK.handMmPerSecond * secondsOf(before)) : 0, says };
  });
}

function crossingLoads(phrase: Phrase, context: DifficultyContext, secondsOf: SecondsOf): readonly Load[] {
  const { strokes } = planStrokes(phrase, context.policy ?? 'alternate from down');
  const before = new Map(strokes.map((struck, index) => [struck, strokes[index - 1]]));
  return crossings(strokes).list.map((crossing) => {
    const { to } = crossing;
    const from = before.get(to)?.item;
    const load = (crossingCost(crossing) * WORK.crossingSeconds) / secondsOf(from);
    const strings = [from?.notes[0]?.string ?? 1, to.strings[0] ?? 1].map((string) =>
      sayString(string, namesOf(context)),
    );
    return { item: to.item, load, says: () => `the string change from ${strings.join(' to ')}` };
  });
}

/** The rarer a technique is in what students play, the more it weighs; a new one weighs more still. */
function techniqueLoads(phrase: Phrase, events: readonly EventItem[], { known }: DifficultyContext): readonly Load[] {
  const bySpan = new Map(events.map((item) => [item.span, item]));
  return [...techniquesOf(phrase)].flatMap(([technique, span]): readonly Load[] => {
    const item = bySpan.get(span);
    const isNew = known !== undefined && !known.has(technique);
    const load = RAREST_TECHNIQUE * rarityOf(technique) + (isNew ? NEW_TECHNIQUE : 0);
    return item ? [{ item, load, says: () => `the ${technique}${isNew ? ', new to this student' : ''}` }] : [];
  });
}
