import type { Page } from 'playwright-core';
import { watchStarts } from '../e2e/listening.ts';
import { openStage } from '../e2e/stage.ts';
import { ms, ratio, timingOf, type Figure } from './measure.ts';
import { longSolo } from './reading.ts';
import { openPhrase, write } from './typing.ts';

/** How often a solo is begun. */
const PLAYS = 20;

/** From the key that plays until sound is to be heard, in Chromium. The yardstick: the same for a phrase of one bar. */
export async function hearingFigures(): Promise<readonly Figure[]> {
  const stage = await openStage();
  try {
    const page = await openPhrase(stage);
    await page.getByLabel('count-in').uncheck();
    await watchStarts(page);
    const short = await firstSounds(page, '/8 5G 7Gb1r 5G 7D /4 7D~ -');
    const long = await firstSounds(page, longSolo());
    return [
      {
        what: 'First sound of a 64-bar solo after the key, in Chromium, 95th percentile',
        measured: ms(long),
        target: 'under 200 ms',
        met: long < 200,
        yardstick: `a phrase of one bar, ${ms(short)}`,
        ratio: ratio(long, short),
      },
    ];
  } finally {
    await stage.close();
  }
}

async function firstSounds(page: Page, text: string): Promise<number> {
  await write(page, text);
  const times: number[] = [];
  for (let play = 0; play < PLAYS; play += 1) {
    await page.keyboard.press('Control+Home');
    await page.evaluate(() => Reflect.set(window, 'firstSound', undefined));
    await page.keyboard.press('Control+Enter');
    const wait = await page.waitForFunction(() => Reflect.get(window, 'firstSound') as number | undefined);
    times.push(Number(await wait.jsonValue()));
    await page.keyboard.press('Control+Enter');
    await page.getByRole('button', { name: /Hear it/ }).waitFor();
  }
  return timingOf(times).p95;
}
