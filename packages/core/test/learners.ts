import { nextStep, tempoLadder } from '../src/pieces/index.ts';
import type { DatedResult } from '../src/progress/index.ts';

/** Numbers from 0 to 1 that are the same each time. Source: Park and Miller’s minimal standard generator, 1988. */
export function randomFrom(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

/** Ability after so many practices, as a share of the target, from a start to a limit. */
type Curve = (practices: number, start: number, limit: number) => number;

/**
 * Published forms of the learning curve: the power law of practice (Newell & Rosenbloom 1981), the exponential (Heathcote,
 * Brown & Mewhort 2000), a straight climb, and one with plateaus.
 */
const CURVES: Readonly<Record<string, (rate: number) => Curve>> = {
  power: (rate) => (n, start, limit) => limit - (limit - start) * (1 + n) ** (-0.6 - rate),
  exponential: (rate) => (n, start, limit) => limit - (limit - start) * Math.exp(-(0.04 + rate * 0.12) * n),
  straight: (rate) => (n, start, limit) => Math.min(limit, start + (0.012 + rate * 0.02) * n),
  plateaus: (rate) => (n, start, limit) => {
    const climbing = Math.floor(n / 12) * 8 + Math.min(8, n % 12);
    return limit - (limit - start) * Math.exp(-(0.06 + rate * 0.1) * climbing);
  },
};

/** A simulated learner: their results day by day, and the day on which the target was first clean; null within a year. */
export interface Learner {
  readonly curve: string;
  readonly results: readonly DatedResult[];
  readonly reached: string | null;
}

export const TARGET = 120;
const FIRST_DAY = Date.parse('2026-01-01T12:00:00Z');
const dayOf = (index: number) => new Date(FIRST_DAY + index * 86_400_000).toISOString().slice(0, 10);

/** Practises up the ladder for a year: takes come off by ability, some by luck, some days and weeks are left out. */
export function learner(seed: number): Learner {
  const random = randomFrom(seed * 7919 + 17);
  const names = Object.keys(CURVES);
  const curve = names[Math.floor(random() * names.length)] ?? 'power';
  const ability = CURVES[curve]?.(random()) ?? (() => 1);
  const [start, limit] = [0.4 + random() * 0.2, 1.02 + random() * 0.3];
  const often = 0.3 + random() * 0.6;
  const ladder = tempoLadder({
    start: Math.round(TARGET * (start - 0.05)),
    target: TARGET,
    school: 'small even steps',
  });
  const results: DatedResult[] = [];
  let practices = 0;
  let away = 0;
  for (let index = 0; index < 365; index += 1) {
    if (away > 0) away -= 1;
    else if (random() < 0.015) away = 4 + Math.floor(random() * 10);
    if (away > 0 || random() > often) continue;
    practices += 1;
    for (let take = 0; take < 2; take += 1) {
      const { bpm } = nextStep(results, ladder);
      const lucky = random() < 0.03 ? 0.08 : 0;
      const margin = ability(practices, start, limit) + lucky - bpm / TARGET;
      const clean = random() < 1 / (1 + Math.exp(-margin / 0.03));
      results.push({
        day: dayOf(index),
        bpm,
        outcome: clean ? 'clean' : 'not-yet',
        medium: index % 7 === 0 ? 'ink' : 'pencil',
      });
      if (clean && bpm >= TARGET) return { curve, results, reached: dayOf(index) };
    }
  }
  return { curve, results, reached: null };
}
