import type { Page } from 'playwright-core';
import { openPiece, openStage, settled } from '../e2e/stage.ts';
import { figure, timingOf, type Figure } from './measure.ts';

/** Most bytes on the wire, in thousands: scripts and styles of each page, and fonts of any. */
const MOST = { 'the sign-in page': 220, 'the song desk': 450, 'a practice page': 300, fonts: 150 } as const;

/** What a page brings with it, thousands of bytes as they travel, by kind. */
interface Brought {
  readonly code: number;
  readonly fonts: number;
}

/** A slow phone on a slow line: the processor four times slower, 1.6 Mbit/s, 150 ms there and back. */
const SLOW = { cpu: 4, bitsPerSecond: 1_600_000, latencyMs: 150 } as const;

/**
 * What travels for each page when nothing of it is kept, and when it is seen on a slow phone. Keeping pages for a time without a line
 * begins after them and is not counted. Yardsticks: the same page as it lies in the folder, not pressed; a page with a line of text.
 */
export async function byteFigures(): Promise<readonly Figure[]> {
  const stage = await openStage();
  try {
    const context = await stage.browser.newContext({ baseURL: stage.url, serviceWorkers: 'block' });
    const stranger = await context.newPage();
    const mara = await stage.enter('mara');
    await mara.goto('/songs');
    await mara.getByRole('link', { name: /Copper Kettle/ }).click();
    await settled(mara);
    const ines = await stage.enter('ines');
    await openPiece(ines);
    const pages = [
      ['the sign-in page', stranger, '/sign-in'],
      ['the song desk', mara, new URL(mara.url()).pathname],
      ['a practice page', ines, new URL(ines.url()).pathname],
    ] as const;
    const figures: Figure[] = [];
    for (const [what, page, path] of pages) {
      const pressed = await broughtBy(page, path, {});
      const plain = await broughtBy(page, path, { 'Accept-Encoding': 'identity' });
      const yardstick = `not pressed, ${plain.code.toFixed(0)} KB`;
      figures.push(
        figure(
          `Scripts and styles of ${what}, on the wire`,
          `${pressed.code.toFixed(0)} KB`,
          `at most ${MOST[what]} KB`,
          pressed.code <= MOST[what],
          yardstick,
        ),
        figure(
          `Fonts of ${what}`,
          `${pressed.fonts.toFixed(0)} KB`,
          `at most ${MOST.fonts} KB`,
          pressed.fonts <= MOST.fonts,
          `not pressed, ${plain.fonts.toFixed(0)} KB`,
        ),
      );
    }
    // Nothing else runs beside what is measured now.
    await ines.context().close();
    return [...figures, ...(await slowFigures(stranger, mara, new URL(mara.url()).pathname))];
  } finally {
    await stage.close();
  }
}

/** Opens a page with nothing kept, and adds up what came before it was still. */
async function broughtBy(page: Page, path: string, headers: Record<string, string>): Promise<Brought> {
  const devtools = await page.context().newCDPSession(page);
  await devtools.send('Network.enable');
  await devtools.send('Network.setCacheDisabled', { cacheDisabled: true });
  await devtools.send('Network.setExtraHTTPHeaders', { headers });
  const kinds = new Map<string, string>();
  const sums = { code: 0, fonts: 0 };
  devtools.on('Network.responseReceived', ({ requestId, response }) => kinds.set(requestId, response.mimeType));
  devtools.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    const kind = kinds.get(requestId) ?? '';
    if (/javascript|css/.test(kind)) sums.code += encodedDataLength / 1000;
    else if (kind.includes('font')) sums.fonts += encodedDataLength / 1000;
  });
  await page.goto(path);
  await settled(page);
  await devtools.detach();
  return sums;
}

/** How soon something is to be seen on a slow phone, the median of three. */
async function slowFigures(stranger: Page, mara: Page, desk: string): Promise<readonly Figure[]> {
  const painted: number[] = [];
  const blocked: number[] = [];
  const drawn: number[] = [];
  for (let run = 0; run < 3; run += 1) {
    const seen = await slowly(stranger, async () => {
      await stranger.goto('/sign-in', { waitUntil: 'load' });
      await stranger.waitForTimeout(3000);
      return stranger.evaluate(paintedAndBlocked);
    });
    painted.push(seen.paintedMs);
    blocked.push(seen.blockedMs);
    drawn.push(
      await slowly(mara, async () => {
        const from = performance.now();
        await mara.goto(desk, { waitUntil: 'commit' });
        await mara.locator('[data-ready="true"] svg').first().waitFor({ timeout: 60_000 });
        return performance.now() - from;
      }),
    );
  }
  const middle = (values: readonly number[]) => timingOf(values).median;
  const plain = await slowly(stranger, async () => {
    await stranger.route('**/a-line', (route) => route.fulfill({ contentType: 'text/html', body: '<p>A line.</p>' }));
    await stranger.goto('/a-line', { waitUntil: 'load' });
    await stranger.waitForTimeout(1000);
    return stranger.evaluate(paintedAndBlocked);
  });
  const yardstick = `a line of text there, ${plain.paintedMs.toFixed(0)} ms`;
  const slow = `processor ${SLOW.cpu} × slower, ${SLOW.bitsPerSecond / 1e6} Mbit/s, median of three`;
  const line = (what: string, measured: number, most: number) =>
    figure(`${what} (${slow})`, `${measured.toFixed(0)} ms`, `under ${most} ms`, measured < most, yardstick);
  return [
    line('Sign-in: largest paint', middle(painted), 2000),
    line('Sign-in: time the page was blocked', middle(blocked), 300),
    line('Song desk: first tab drawn', middle(drawn), 5000),
  ];
}

/** Does something while a page is on a slow phone. */
async function slowly<Result>(page: Page, work: () => Promise<Result>): Promise<Result> {
  const devtools = await page.context().newCDPSession(page);
  await devtools.send('Network.enable');
  await devtools.send('Network.setCacheDisabled', { cacheDisabled: true });
  const throughput = SLOW.bitsPerSecond / 8;
  await devtools.send('Network.emulateNetworkConditions', {
    ...{ offline: false, latency: SLOW.latencyMs, downloadThroughput: throughput, uploadThroughput: throughput },
  });
  await devtools.send('Emulation.setCPUThrottlingRate', { rate: SLOW.cpu });
  try {
    return await work();
  } finally {
    await devtools.detach();
  }
}

/** In the page: when the largest thing was painted, and how long tasks went beyond 50 ms each, milliseconds (Web Vitals: LCP, TBT). */
function paintedAndBlocked(): Promise<{ paintedMs: number; blockedMs: number }> {
  return new Promise((done) => {
    const seen = { paintedMs: 0, blockedMs: 0 };
    new PerformanceObserver((list) => {
      for (const { startTime } of list.getEntries()) seen.paintedMs = startTime;
    }).observe({ type: 'largest-contentful-paint', buffered: true });
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) seen.blockedMs += Math.max(0, duration - 50);
    }).observe({ type: 'longtask', buffered: true });
    setTimeout(() => done(seen), 200);
  });
}
