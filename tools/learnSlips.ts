import {
  FEATURES,
  logOddsOf,
  logSum,
  rewritten,
  SLIP_KINDS,
  weighReadings,
  type FeatureValues,
  type SlipKind,
  type Weighed,
} from '@jam-ledger/core/checks';
import { eventsOf, type EventItem } from '@jam-ledger/core/notation';
import { HELD_OUT, readCorpus, type RightPhrase } from '../packages/core/test/corpus.ts';
import { randomFrom } from '../packages/core/test/learners.ts';
import { guitar, slipInto } from '../packages/core/test/slipping.ts';

/** A typed note: its other readings, and which of them was meant; undefined where it is right as it stands. */
interface Site {
  readonly readings: readonly Weighed[];
  readonly meant: number | undefined;
}
interface Model {
  readonly weights: FeatureValues;
  readonly costs: Record<SlipKind, number>;
}

/** How much a right note counts in fitting against a slip, since there are many more of them. Our choice. */
const RIGHT_WEIGHT = 0.6;
const STEPS = 200;
const RATE = 0.05;
/** Parts that the threshold is taken from, each by a fit to the others. Our choice. */
const FOLDS = 4;
/** Alarms in 100 right events of idioms left out, at which the threshold is taken. Our choice, well below the target of one. */
const ALARMS = 0.7;

function sitesOfRight({ phrase, key }: RightPhrase): readonly (readonly Site[])[] {
  const { line, sites } = weighReadings(phrase, guitar, key);
  return line.events.map((notes) => notes.map((index) => ({ readings: sites[index] ?? [], meant: undefined })));
}

function sitesOfSlips(right: RightPhrase, random: () => number): readonly Site[] {
  const meantItems = eventsOf(right.phrase).map(({ item }) => item);
  return slipInto(right, random).flatMap(({ phrase, event, note }): readonly Site[] => {
    const { line, sites } = weighReadings(phrase, guitar, right.key);
    const items = eventsOf(phrase).map(({ item }) => item);
    const place = line.notes.find(({ item, at }) => item === items[event] && at === note);
    const readings = sites[place?.index ?? -1] ?? [];
    const meant = readings.findIndex(({ reading }) => {
      const events = rewritten(reading, line);
      return items.every((item, index) => sameNotes(events.get(item) ?? item, meantItems[index]));
    });
    return meant < 0 ? [] : [{ readings, meant }];
  });
}

function sameNotes(a: EventItem, b: EventItem | undefined): boolean {
  return JSON.stringify(a.notes) === JSON.stringify(b?.notes);
}

/** The place of a kind’s cost among all that is fitted; the weights of the features stand before it. */
const costAt = (kind: SlipKind) => FEATURES.length + SLIP_KINDS.indexOf(kind);

/**
 * Fits weights and costs so that each site is read as it was meant; weights do not go below nothing. Source: Kingma and Ba, Adam, 2015,
 * with its usual constants.
 */
function fit(sites: readonly Site[]): Model {
  const values = [...FEATURES.map(() => 1), ...SLIP_KINDS.map(() => 4)];
  const [mean, square] = [values.map(() => 0), values.map(() => 0)];
  for (let step = 1; step <= STEPS; step += 1) {
    slopeOf(sites, values).forEach((slope, index) => {
      mean[index] = 0.9 * (mean[index] ?? 0) + 0.1 * slope;
      square[index] = 0.999 * (square[index] ?? 0) + 0.001 * slope * slope;
      const [m, v] = [(mean[index] ?? 0) / (1 - 0.9 ** step), (square[index] ?? 0) / (1 - 0.999 ** step)];
      const moved = (values[index] ?? 0) + (RATE * m) / (Math.sqrt(v) + 1e-8);
      values[index] = index < FEATURES.length ? Math.max(0, moved) : moved;
    });
  }
  return modelOf(values.map((value) => Math.round(value * 2) / 2));
}

function modelOf(values: readonly number[]): Model {
  const costs = Object.fromEntries(SLIP_KINDS.map((kind) => [kind, values[costAt(kind)] ?? 0]));
  return { weights: values.slice(0, FEATURES.length), costs: costs as Record<SlipKind, number> };
}

/** How the log-likelihood of all sites grows with each value, on average. */
function slopeOf(sites: readonly Site[], values: readonly number[]): readonly number[] {
  const slope = values.map(() => 0);
  const { weights, costs } = modelOf(values);
  for (const { readings, meant } of sites) {
    const share = meant === undefined ? RIGHT_WEIGHT : 1;
    const odds = readings.map((one) => Math.exp(Math.min(30, logOddsOf(one, weights, costs))));
    const all = 1 + odds.reduce((sum, one) => sum + one, 0);
    readings.forEach(({ reading, gains }, index) => {
      const pull = (share / sites.length) * ((index === meant ? 1 : 0) - (odds[index] ?? 0) / all);
      gains.forEach((gain, feature) => (slope[feature] = (slope[feature] ?? 0) + pull * gain));
      slope[costAt(reading.kind)] = (slope[costAt(reading.kind)] ?? 0) - pull;
    });
  }
  return slope;
}

function eventOdds(events: readonly (readonly Site[])[], { weights, costs }: Model): readonly number[] {
  return events.map((notes) =>
    Math.max(...notes.map(({ readings }) => logSum(readings.map((one) => logOddsOf(one, weights, costs))))),
  );
}

const random = randomFrom(20_160);
const all = readCorpus().filter(({ idiom }) => !HELD_OUT.includes(idiom));
const data = all.map((right) => ({
  idiom: right.idiom,
  events: sitesOfRight(right),
  slips: sitesOfSlips(right, random),
}));
const sitesOf = (some: typeof data) => some.flatMap(({ events, slips }) => [...events.flat(), ...slips]);
const idioms = [...new Set(data.map(({ idiom }) => idiom))];
const leftOut: number[] = [];
for (let fold = 0; fold < FOLDS; fold += 1) {
  const out = new Set(idioms.filter((_, index) => index % FOLDS === fold));
  const others = fit(sitesOf(data.filter(({ idiom }) => !out.has(idiom))));
  for (const one of data.filter(({ idiom }) => out.has(idiom))) leftOut.push(...eventOdds(one.events, others));
}
leftOut.sort((a, b: number) => b - a);
const threshold = leftOut[Math.floor((leftOut.length * ALARMS) / 100)] ?? 0;
const model = fit(sitesOf(data));
process.stdout.write(`${data.flatMap(({ slips }) => slips).length} slips, ${leftOut.length} right events\n`);
FEATURES.forEach((feature, index) => process.stdout.write(`  '${feature}': ${model.weights[index] ?? 0},\n`));
for (const kind of SLIP_KINDS) process.stdout.write(`  '${kind}': ${model.costs[kind]},\n`);
process.stdout.write(`threshold ${threshold.toFixed(2)}\n`);
