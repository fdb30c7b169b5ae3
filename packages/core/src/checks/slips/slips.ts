import type { Guitar } from '../../fretboard/index.ts';
import type { EventItem, Phrase } from '../../notation/index.ts';
import type { Key } from '../../pitch/index.ts';
import { betterKey } from '../keys.ts';
import { FEATURES, FIRST_FEATURES, Surroundings, type FeatureValues } from './features.ts';
import { lineOf, type Line } from './line.ts';
import { MOST_READINGS, readingsOf, SLIP_KINDS, type Reading, type SlipKind } from './readings.ts';
import { KIND_COSTS, THRESHOLD, WEIGHTS } from './weights.ts';

/** Another reading of an event, and how much likelier it is than what stands, log-odds. */
export interface LikelyReading {
  readonly kind: SlipKind;
  readonly logOdds: number;
  /** What would be written: for each event its notes. */
  readonly events: ReadonlyMap<EventItem, EventItem>;
}

/** An event that was likely said or typed wrongly, and what was likely meant, the likeliest first. */
export interface Slip {
  readonly item: EventItem;
  /** How much likelier any other reading of one of its numbers or letters is, log-odds. */
  readonly logOdds: number;
  readonly readings: readonly LikelyReading[];
}

/** With fewer events there is too little that one could stand apart from. Our choice. */
const MIN_EVENTS = 4;

/** Most readings offered for one event. */
const MAX_READINGS = 3;

/** The log-odds of another reading of a note, and what they come from: how much less speaks against it, feature by feature. */
export interface Weighed {
  readonly reading: Reading;
  readonly gains: FeatureValues;
}

/** Every other reading of each note of a phrase with what speaks for it; what the weights are fitted to. */
export function weighReadings(
  phrase: Phrase,
  guitar: Guitar,
  key: Key | undefined,
): { readonly line: Line; readonly sites: readonly (readonly Weighed[])[] } {
  const { line, around } = laidOut(phrase, guitar, key);
  const asWritten = line.notes.map(({ index }) => around.featuresOf(index, NO_CHANGES));
  const weigh = (reading: Reading): Weighed => ({ reading, gains: gainsIn(reading, around, asWritten) });
  return { line, sites: line.notes.map((note) => readingsOf(note, line, guitar).map(weigh)) };
}

/** The notes of a phrase, and what they stand among: a key that is in doubt is none. */
function laidOut(phrase: Phrase, guitar: Guitar, key: Key | undefined): Pick<Scene, 'line' | 'around'> {
  const line = lineOf(phrase, guitar);
  return { line, around: new Surroundings(line, key && !betterKey(phrase, key, guitar) ? key : undefined) };
}

/** The notes of a phrase, and what speaks against each as it is written, log-odds. */
interface Scene {
  readonly line: Line;
  readonly around: Surroundings;
  readonly against: readonly number[];
}

function sceneOf(phrase: Phrase, guitar: Guitar, key: Key | undefined): Scene {
  const { line, around } = laidOut(phrase, guitar, key);
  return { line, around, against: line.notes.map(({ index }) => weighed(around.featuresOf(index, NO_CHANGES))) };
}

const NO_CHANGES = new Map<never, never>();

function gainsIn(reading: Reading, around: Surroundings, asWritten: readonly FeatureValues[]): FeatureValues {
  const gains = NO_GAINS.slice();
  for (const index of reading.changes.keys()) {
    const [written, read] = [asWritten[index] ?? NO_GAINS, around.featuresOf(index, reading.changes)];
    for (let feature = 0; feature < gains.length; feature += 1)
      gains[feature] = (gains[feature] ?? 0) + (written[feature] ?? 0) - (read[feature] ?? 0);
  }
  return gains;
}

const NO_GAINS = FEATURES.map(() => 0);
const WEIGHT_VALUES = FEATURES.map((feature) => WEIGHTS[feature]);
const FIRST_WEIGHTS = FIRST_FEATURES.map((feature) => WEIGHTS[feature]);

/** The log-odds of a reading. */
export function logOddsOf(
  { reading, gains }: Weighed,
  weights: FeatureValues = WEIGHT_VALUES,
  costs: Readonly<Record<SlipKind, number>> = KIND_COSTS,
): number {
  return weighed(gains, weights, -costs[reading.kind]);
}

/** The log-odds of all readings that any note may have, together, where nothing speaks against it nor against them. */
const ALL_READINGS = logSum(
  SLIP_KINDS.flatMap((kind) => Array.from({ length: MOST_READINGS[kind] }, () => -KIND_COSTS[kind])),
);

/**
 * How much the readings of each note could gain at most: all that speaks against it as written and against what is linked on to it, since
 * no more can go away. Only a unison that is met speaks for a note. Most notes gain so little that no reading of them could be told, and
 * none of those need be looked at.
 */
function mostGains({ line, against }: Scene): readonly number[] {
  const gains: number[] = [];
  for (const { index, event } of line.notes.toReversed()) {
    const stack = line.events[event] ?? [];
    const meets = stack.length > 1 && stack.some((one) => (line.notes[one]?.bend ?? 0) > 0);
    const linked = (line.events[event + 1] ?? []).filter((one) => line.notes[one]?.from === index);
    const own = (against[index] ?? 0) + (meets ? WEIGHTS['unison missed'] : 0);
    gains[index] = linked.reduce((sum, one) => sum + (gains[one] ?? 0), own);
  }
  return gains;
}

/** The log-odds of a reading where so much speaks against each note that it changes. */
function oddsWhere(
  speaks: (index: number, changes: Reading['changes']) => number,
  { kind, changes }: Reading,
  { against }: Scene,
): number {
  let odds = -KIND_COSTS[kind];
  for (const index of changes.keys()) odds += (against[index] ?? 0) - speaks(index, changes);
  return odds;
}

/**
 * Likely slips of a phrase, in the order of the text; at most one an event. A noisy channel: what is likely to be meant against what
 * goes wrong when it is said or typed. Linear in the notes.
 */
export function slipsOf(phrase: Phrase, guitar: Guitar, key: Key | undefined): readonly Slip[] {
  const scene = sceneOf(phrase, guitar, key);
  const { line, around } = scene;
  const itemOf = ([first = -1]: readonly number[]) => line.notes[first]?.item;
  if (line.events.reduce((sum, indices) => sum + (itemOf(indices)?.times ?? 0), 0) < MIN_EVENTS) return [];
  const gains = mostGains(scene);
  const least = (index: number, changes: Reading['changes']) => weighed(around.firstOf(index, changes), FIRST_WEIGHTS);
  const speaks = (index: number, changes: Reading['changes']) => weighed(around.featuresOf(index, changes));
  return line.events.flatMap((indices): readonly Slip[] => {
    if (indices.every((index) => (gains[index] ?? 0) + ALL_READINGS <= THRESHOLD)) return [];
    const readings = indices.map((index) => {
      const note = line.notes[index];
      return note ? readingsOf(note, line, guitar) : [];
    });
    if (readings.every((site) => logSum(site.map((reading) => oddsWhere(least, reading, scene))) <= THRESHOLD))
      return [];
    const sites = readings.map((site) =>
      site.map((reading) => ({ ...reading, logOdds: oddsWhere(speaks, reading, scene) })),
    );
    const logOdds = Math.max(...sites.map((site) => logSum(site.map((one) => one.logOdds))));
    const item = itemOf(indices);
    if (!item || !(logOdds > THRESHOLD)) return [];
    const best = sites
      .flat()
      .toSorted((a, b) => b.logOdds - a.logOdds)
      .slice(0, MAX_READINGS);
    return [{ item, logOdds, readings: best.map((one) => ({ ...one, events: rewritten(one, line) })) }];
  });
}

/**
 * Which fret a note most likely has that was said without one: the one that least speaks against, of `frets` on its string.
 * Undefined where there is none to choose from.
 */
export function likeliestFret(
  phrase: Phrase,
  { item, at }: { readonly item: EventItem; readonly at: number },
  frets: readonly number[],
  guitar: Guitar,
): number | undefined {
  const line = lineOf(phrase, guitar);
  const note = line.notes.find((one) => one.item === item && one.at === at);
  if (!note) return frets[0];
  const around = new Surroundings(line, undefined);
  const against = frets.map((fret) => {
    const midi = note.midi + fret - note.fret;
    const changes = new Map([[note.index, { string: note.string, fret, bend: note.bend, midi }]]);
    const values = around.featuresOf(note.index, changes);
    return { fret, cost: weighed(values) };
  });
  return against.toSorted((a, b) => a.cost - b.cost || a.fret - b.fret)[0]?.fret;
}

/**
 * What speaks against a phrase as it stands, log-odds summed over the notes of some of its events; less is likelier.
 * @param from the first event that counts, of those that are heard; all stand around each other
 */
export function costOf(phrase: Phrase, guitar: Guitar, key: Key | undefined, from = 0): number {
  const { line, around } = laidOut(phrase, guitar, key);
  return line.notes
    .filter(({ event }) => event >= from)
    .reduce((sum, { index }) => sum + weighed(around.featuresOf(index, NO_CHANGES)), 0);
}

/** The log-odds that some values of the features come to, on top of others. */
function weighed(values: FeatureValues, weights: FeatureValues = WEIGHT_VALUES, others = 0): number {
  let sum = others;
  for (let feature = 0; feature < values.length; feature += 1) sum += (values[feature] ?? 0) * (weights[feature] ?? 0);
  return sum;
}

/** The logarithm of a sum of odds; -Infinity for none. */
export function logSum(logOdds: readonly number[]): number {
  const max = Math.max(...logOdds);
  return max === -Infinity ? max : max + Math.log(logOdds.reduce((sum, one) => sum + Math.exp(one - max), 0));
}

/** The events as they would be written in another reading. */
export function rewritten({ changes }: Reading, { notes }: Line): ReadonlyMap<EventItem, EventItem> {
  const events = new Map<EventItem, EventItem>();
  for (const [index, { string, fret, bend }] of changes) {
    const note = notes[index];
    if (!note) continue;
    const event = events.get(note.item) ?? note.item;
    const changed = event.notes.map((one, at) =>
      at === note.at ? resized({ ...one, string, fret }, note.bend, bend) : one,
    );
    events.set(note.item, { ...event, notes: changed });
  }
  return events;
}

/** A note whose highest bend goes to another height. */
function resized(note: EventItem['notes'][number], from: number, to: number): EventItem['notes'][number] {
  if (from === to) return note;
  return {
    ...note,
    ...(note.preBend === from && { preBend: to }),
    ...(note.moves && { moves: note.moves.map((move) => (move.steps === from ? { ...move, steps: to } : move)) }),
  };
}
