import type { Page } from 'playwright-core';
import { heard, listen, watchStarts, type Heard } from '../e2e/listening.ts';
import { openStage, type Stage } from '../e2e/stage.ts';
import { busy, longestOf, watchTasks } from './form.ts';
import { bytesOf, ms, ratio, timingOf, type Figure } from './measure.ts';
import { longSolo } from './reading.ts';
import { openPhrase, write } from './typing.ts';

/** How often a solo is begun. */
const PLAYS = 20;

/** From the key that plays until sound is to be heard, in Chromium. The yardstick: the same for a phrase of one bar. */
export async function hearingFigures(): Promise<readonly Figure[]> {
  const stage = await openStage();
  try {
    const page = await openToPlay(stage);
    await watchStarts(page);
    const { first: long, busiest } = await firstSounds(page, longSolo());
    const { first: short } = await firstSounds(page, '/8 5G 7Gb1r 5G 7D /4 7D~ -');
    await page.context().close();
    // A page of its own: one that has played keeps the memory that it took for that.
    const { grown, buffers, late } = await hearSong(await openToPlay(stage));
    const whole = 3 * 4 * 44_100 * SONG_SECONDS;
    return [
      {
        what: 'First sound of a 64-bar solo after the key, in Chromium, 95th percentile',
        measured: ms(long),
        target: 'under 200 ms',
        met: long < 200,
        yardstick: `a phrase of one bar, ${ms(short)}`,
        ratio: ratio(long, short),
      },
      {
        what: 'Longest time that the page is busy at a stretch while the solo begins, the first time among it',
        measured: busy(busiest),
        target: 'at most 50 ms',
        met: busiest <= 50,
        yardstick: `its first sound, ${ms(long)}`,
        ratio: '',
      },
      {
        what: 'Memory that the page and its sound take on while six minutes are played',
        measured: megabytes(grown),
        target: 'under 40 MB',
        met: grown < 40e6,
        yardstick: `the samples of its three tracks, ${megabytes(whole)}`,
        ratio: ratio(grown, whole),
      },
      {
        what: 'Buffers that came too late while they are played, so that a gap was heard',
        measured: String(late),
        target: 'none',
        met: late === 0,
        yardstick: `all that were played, ${buffers}`,
        ratio: '',
      },
    ];
  } finally {
    await stage.close();
  }
}

/** A phrase that begins without counting in. */
async function openToPlay(stage: Stage): Promise<Page> {
  const page = await openPhrase(stage);
  await page.getByLabel('count-in').uncheck();
  return page;
}

/** How long a song is played, seconds. */
const SONG_SECONDS = 360;

const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(0)} MB`;

/** Plays a solo of six minutes and longer; by how many bytes the process of the page, workers among it, has grown at most, and what was heard. */
async function hearSong(page: Page): Promise<Heard & { readonly grown: number }> {
  await write(page, Array.from({ length: 4 }, longSolo).join(' '));
  await page.waitForTimeout(5000);
  const before = await memoryOf(page);
  await listen(page);
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('Control+Enter');
  let most = before;
  for (let seconds = 0; seconds < SONG_SECONDS; seconds += 10) {
    await page.waitForTimeout(10_000);
    most = Math.max(most, await memoryOf(page));
  }
  if (!(await page.getByRole('button', { name: /Stop/ }).isVisible())) throw new Error('it ended before its time');
  await page.keyboard.press('Control+Enter');
  return { ...(await heard(page)), grown: most - before };
}

/** Bytes of the processes that show pages, as the system counts those that nobody shares. */
async function memoryOf(page: Page): Promise<number> {
  const session = await page.context().newCDPSession(page);
  await session.send('HeapProfiler.collectGarbage');
  await session.detach();
  const browser = page.context().browser();
  if (!browser) throw new Error('no browser');
  const whole = await browser.newBrowserCDPSession();
  const { processInfo } = await whole.send('SystemInfo.getProcessInfo');
  await whole.detach();
  const pids = processInfo.filter(({ type }) => type === 'renderer').map(({ id }) => id);
  return (await Promise.all(pids.map(bytesOf))).reduce((sum, bytes) => sum + bytes, 0);
}

/** From the key to the first sound, 95th percentile, and how long the page is busy at a stretch meanwhile at most. Milliseconds. */
async function firstSounds(page: Page, text: string): Promise<{ readonly first: number; readonly busiest: number }> {
  await write(page, text);
  const times: number[] = [];
  let busiest = 0;
  for (let play = 0; play < PLAYS; play += 1) {
    await page.keyboard.press('Control+Home');
    await page.evaluate(() => Reflect.set(window, 'firstSound', undefined));
    await watchTasks(page);
    await page.keyboard.press('Control+Enter');
    const wait = await page.waitForFunction(() => Reflect.get(window, 'firstSound') as number | undefined);
    times.push(Number(await wait.jsonValue()));
    await page.evaluate(() => new Promise((done) => setTimeout(done, 100)));
    busiest = Math.max(busiest, await longestOf(page));
    await page.keyboard.press('Control+Enter');
    await page.getByRole('button', { name: /Hear it/ }).waitFor();
  }
  return { first: timingOf(times).p95, busiest };
}
