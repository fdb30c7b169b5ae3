import { daysBetween, forecast } from '@jam-ledger/core/progress';
import { learner, randomFrom, TARGET } from '../packages/core/test/learners.ts';

/** Learners the constants are chosen on, and others on which they are held against what happens. The tests have the latter. */
const SETS = {
  'chosen on': { from: 100_001, to: 103_000, seed: 99 },
  'held out': { from: 1, to: 1200, seed: 4711 },
} as const;

/** What became of one forecast: how the true time relates to the middle that was said, as a logarithm; and whether it was inside. */
interface Outcome {
  readonly ratio: number;
  readonly isInside: boolean;
}

/** Asks each learner of a set once, at a chance moment of their way. */
function outcomesOf({
  from,
  to,
  seed,
}: {
  readonly from: number;
  readonly to: number;
  readonly seed: number;
}): readonly Outcome[] {
  const random = randomFrom(seed);
  const outcomes: Outcome[] = [];
  for (let one = from; one <= to; one += 1) {
    const { results, reached } = learner(one);
    const days = [...new Set(results.map(({ day }) => day))];
    const today = days[Math.floor(days.length * (0.2 + 0.7 * random()))];
    if (today === undefined || reached === null || today >= reached) continue;
    const history = results.filter(({ day }) => day <= today);
    const found = forecast(history, { target: TARGET, today });
    if ('tooLittle' in found) continue;
    const { early, middle, late } = found.says;
    const said = Math.max(1, daysBetween(today, middle));
    outcomes.push({
      ratio: Math.log(daysBetween(today, reached) / said),
      isInside: reached >= early && reached <= late,
    });
  }
  return outcomes;
}

function quantile(sorted: readonly number[], share: number): number {
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0;
}

for (const [name, set] of Object.entries(SETS)) {
  const outcomes = outcomesOf(set);
  const ratios = outcomes.map(({ ratio }) => ratio).sort((a, b) => a - b);
  const inside = outcomes.filter(({ isInside }) => isInside).length / outcomes.length;
  const [low, middle, high] = [0.1, 0.5, 0.9].map((share) => quantile(ratios, share).toFixed(2));
  process.stdout.write(
    `${name}: ${outcomes.length} forecasts, ${(100 * inside).toFixed(1)} % inside the range of 80 in 100; true time to the middle said, ` +
      `as a logarithm: a tenth below ${low ?? ''}, half below ${middle ?? ''}, nine tenths below ${high ?? ''}\n`,
  );
}
process.stdout.write(
  'The middle of SHAPE (core/progress/forecast.ts) is right where half lie below 0; `below` and `above` where a tenth lie outside each.\n',
);
