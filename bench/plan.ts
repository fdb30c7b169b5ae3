import { planSeries } from '@jam-ledger/core/series';
import { openStage } from '../e2e/stage.ts';
import { busy, fillSong, longestOf, watchTasks } from './form.ts';
import { ms, ratio, time, type Figure } from './measure.ts';

/** A long song: a solo of some ten minutes. */
const PHRASES = 200;

/** Plans of a long song: spread over lessons by the core, and proposed, drawn and kept by the page. */
export async function planFigures(): Promise<readonly Figure[]> {
  const small = (await time(() => plan(160, 40), 10)).median;
  const large = (await time(() => plan(400, 40), 10)).median;
  const stage = await openStage();
  try {
    await fillSong(stage.databaseUrl, PHRASES);
    const page = await stage.enter('mara');
    await page.goto('/songs');
    await page.getByRole('link', { name: /Slow Tide/ }).click();
    await page.getByRole('link', { name: 'Pieces', exact: true }).click();
    await page.getByRole('button', { name: 'Propose again' }).waitFor({ timeout: 120_000 });
    await watchTasks(page);
    const kept = page.waitForResponse((answer) => answer.request().method() === 'PUT', { timeout: 120_000 });
    const from = performance.now();
    await page.getByRole('button', { name: 'Propose again' }).click();
    const proposed = await page.getByText(/^\d+ pieces are proposed/).innerText({ timeout: 120_000 });
    const told = performance.now() - from;
    if ((await kept).status() !== 200) throw new Error('the plan was not kept');
    await page.getByText('Kept.').waitFor();
    await page
      .getByText(/spread over the coming lessons|move to another lesson|no lesson is left for/)
      .first()
      .waitFor();
    const longest = await longestOf(page);
    return [
      {
        what: 'Spreading 400 pieces that need nothing over 40 lessons, exactly, median',
        measured: ms(large),
        target: '',
        met: null,
        yardstick: `160 pieces over 40 lessons, ${ms(small)}`,
        ratio: ratio(large, small),
      },
      {
        what: `“Propose anew” on ${PHRASES} phrases (${proposed.split(',')[0] ?? ''}, told after ${ms(told)}) until the plan is kept: longest time the page is busy at a stretch`,
        measured: busy(longest),
        target: 'under 200 ms',
        met: longest < 200,
        yardstick: `until it is told, ${ms(told)}`,
        ratio: longest === 0 ? '' : ratio(longest, told),
      },
    ];
  } finally {
    await stage.close();
  }
}

/** Spreads so many pieces over so many lessons. */
export function plan(pieces: number, lessons: number): void {
  planSeries(
    Array.from({ length: pieces }, (_, index) => ({
      id: `p${index}`,
      minutes: 3 + (index % 6),
      needs: [],
      fixed: null,
    })),
    Array.from({ length: lessons }, () => ({ roomMinutes: 30 })),
  );
}
