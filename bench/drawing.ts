import { join } from 'node:path';
import { build } from 'vite';
import { chromium } from 'playwright-core';
import { CHROMIUM, FLAGS } from '../e2e/stage.ts';
import { ms, ratio, time, timingOf, type Figure } from './measure.ts';
import { longSolo } from './reading.ts';
import { verovioWith } from './verovio.ts';

/** Drawings that take turns; the first are to warm up. */
const TURNS = 25;
const WARM = 5;

/** How long all of a long solo takes to be read and drawn in Chromium, beside VexFlow drawing its bare notes there and verovio engraving them. */
export async function drawingFigures(): Promise<readonly Figure[]> {
  const solo = longSolo();
  const { ours, raw } = await inChromium(solo);
  const engraved = await time((await verovioWith(solo)).engrave, 5);
  return [
    {
      what: 'Reading and drawing all of a 64-bar solo in Chromium, median',
      measured: ms(ours),
      target: '',
      met: null,
      yardstick: `VexFlow drawing its bare notes in turns with it, ${ms(raw)}; verovio engraving it from MusicXML in Node, ${ms(engraved.median)}`,
      ratio: ratio(ours, raw),
    },
  ];
}

/** Medians of our drawing and of VexFlow’s, in turns on one page. */
async function inChromium(text: string): Promise<{ readonly ours: number; readonly raw: number }> {
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: [...FLAGS] });
  try {
    const page = await browser.newPage();
    await page.addScriptTag({ content: await pageCode() });
    const times: Record<'ours' | 'raw', number[]> = { ours: [], raw: [] };
    for (let turn = -WARM; turn < TURNS; turn += 1)
      for (const who of ['ours', 'raw'] as const) {
        const took = await page.evaluate(
          ([name, drawn]) => {
            const drawings = Reflect.get(window, 'drawings') as Record<string, (text: string) => number>;
            return drawings[name]?.(drawn) ?? NaN;
          },
          [who, text] as const,
        );
        if (turn >= 0) times[who].push(took);
      }
    return { ours: timingOf(times.ours).median, raw: timingOf(times.raw).median };
  } finally {
    await browser.close();
  }
}

/** The code of the page that draws, in one script. */
async function pageCode(): Promise<string> {
  const built = await build({
    configFile: false,
    logLevel: 'error',
    resolve: { conditions: ['studio-src', 'browser', 'module', 'import', 'default'] },
    build: {
      write: false,
      minify: true,
      lib: { entry: join(import.meta.dirname, 'drawingPage.ts'), formats: ['iife'], name: 'page' },
      rolldownOptions: { output: { codeSplitting: false } },
    },
  });
  return [built]
    .flat()
    .flatMap((one) => ('output' in one ? one.output : []))
    .map((part) => (part.type === 'chunk' ? part.code : ''))
    .join('\n');
}
