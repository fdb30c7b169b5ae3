import type { ProblemList } from './problems.ts';
import { MAX_PLAYED, type Timeline } from './unroll.ts';
import { barTicks, fractionOfWhole, writeMeter } from './values.ts';

/**
 * Checks that bars add up: where any bar line stands, every bar must fill its meter, but for a pick-up bar
 * and a last short one; bars with untimed events are passed over. Also reports a phrase too long to play out.
 */
export function checkBars(timeline: Timeline, textLength: number, problems: ProblemList): void {
  const { bars, pickup, truncated } = timeline;
  if (truncated) {
    const message = `Played out, this is more than ${MAX_PLAYED} events; only those are played and checked.`;
    problems.add('too-long', { from: 0, to: textLength }, message);
  }
  if (!bars.some((bar) => bar.closed)) return;
  const seen = new Set<number>();
  bars.forEach((bar, index) => {
    const expected = barTicks(bar.meter);
    const mayBeShort = (index === 0 && pickup) || index === bars.length - 1;
    if (!bar.timed || bar.length === expected || (mayBeShort && bar.length < expected)) return;
    if (seen.has(bar.span.from)) return;
    seen.add(bar.span.from);
    const found = fractionOfWhole(bar.length);
    const wanted = fractionOfWhole(expected);
    problems.add(
      'bar-length',
      bar.span,
      `Bar ${index + 1} adds up to ${found} of a whole note; ${writeMeter(bar.meter)} wants ${wanted}.`,
    );
  });
}
