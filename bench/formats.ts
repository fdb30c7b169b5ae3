import { readFile } from 'node:fs/promises';
import { XMLParser } from 'fast-xml-parser';
import { readMusicXml, writeMusicXml } from '@jam-ledger/core/formats';
import { songOf } from '../packages/core/test/formats/songs.ts';
import { openStage } from '../e2e/stage.ts';
import { longSolo } from './reading.ts';
import { ms, ratio, time, type Figure } from './measure.ts';
import { quietVerovio } from './verovio.ts';

/** Phrases of a long song: two bars each, eleven notes. Our choice. */
const PHRASE = '/16 5D h7 p5 7A 5D 7D s9 7D /8 10Bb1r 8B~ | /4 5A7D 7B';
const PHRASES = 200;
/** Notes of a score that is read. */
const NOTES = 10_000;

/** How long files take: a song of 200 phrases out, 10,000 notes in, beside verovio and the bare XML package over the same bytes. */
export async function formatFigures(): Promise<readonly Figure[]> {
  const song = songOf(Array.from({ length: PHRASES }, () => PHRASE));
  const xml = writeMusicXml(song);
  const toolkit = await quietVerovio();
  const writing = await time(() => writeMusicXml(song), 10);
  const loading = await time(() => toolkit.loadData(xml), 3);
  const solo = longSolo();
  const notesOfSolo = writeMusicXml(songOf([solo])).split('<note>').length - 1;
  const long = writeMusicXml(songOf(Array.from({ length: Math.ceil(NOTES / notesOfSolo) }, () => solo)));
  const notes = long.split('<note>').length - 1;
  const parser = new XMLParser({ preserveOrder: true, ignoreAttributes: false, parseTagValue: false });
  const reading = await time(() => readMusicXml(long), 5);
  const parsing = await time(() => parser.parse(long) as unknown, 5);
  const loadingLong = await time(() => toolkit.loadData(long), 2);
  const pdf = await pdfOf(xml);
  return [
    {
      what: `A song of ${PHRASES} phrases written as MusicXML (${Math.round(xml.length / 1024)} KB), median`,
      measured: ms(writing.median),
      target: 'under 1 s',
      met: writing.median < 1000,
      yardstick: `verovio loading the same file, ${ms(loading.median)}`,
      ratio: ratio(writing.median, loading.median),
    },
    {
      what: `MusicXML of ${notes} notes read, median`,
      measured: ms(reading.median),
      target: 'under 1 s',
      met: reading.median < 1000,
      yardstick: `the same bytes through the XML package alone, ${ms(parsing.median)}; verovio loading them, ${ms(loadingLong.median)}`,
      ratio: ratio(reading.median, parsing.median),
    },
    {
      what: `The same song of ${PHRASES} phrases as PDF in the browser (${pdf.pages} pages, ${Math.round(pdf.bytes / 1024)} KB)`,
      measured: ms(pdf.took),
      target: 'under 10 s',
      met: pdf.took < 10_000,
      yardstick: `verovio loading the same song, ${ms(loading.median)}`,
      ratio: ratio(pdf.took, loading.median),
    },
    {
      what: 'The longest that the page stood still meanwhile',
      measured: ms(pdf.longest),
      target: '50 ms, as slices',
      met: pdf.longest <= 50,
      yardstick: `a frame of the screen, ${ms(1000 / 60)}`,
      ratio: ratio(pdf.longest, 1000 / 60),
    },
  ];
}

/** Brings the song in on the desk, and saves its handout. */
async function pdfOf(
  xml: string,
): Promise<{ readonly took: number; readonly longest: number; readonly pages: number; readonly bytes: number }> {
  const stage = await openStage();
  try {
    const page = await stage.enter('mara');
    page.setDefaultTimeout(120_000);
    await page.goto('/songs');
    await page.getByRole('link', { name: /Slow Tide/ }).click();
    await page.getByRole('button', { name: 'Import' }).click();
    const dialog = page.getByRole('dialog', { name: 'Bring in a file' });
    await dialog
      .locator('input[type=file]')
      .setInputFiles({ name: 'long.musicxml', mimeType: 'text/xml', buffer: Buffer.from(xml) });
    await dialog.getByRole('button', { name: /^Bring in \d+ phrases$/ }).click();
    await page.getByText(/brought in from/).waitFor();
    await page.getByRole('link', { name: 'Handout' }).click();
    await page.getByRole('region', { name: 'Page 1', exact: true }).waitFor();
    const pages = await page.getByRole('region', { name: /^Page \d+$/ }).count();
    await page.evaluate(() => {
      const watched = globalThis as unknown as { longest: number };
      watched.longest = 0;
      new PerformanceObserver((list) => {
        for (const { duration } of list.getEntries()) watched.longest = Math.max(watched.longest, duration);
      }).observe({ type: 'longtask' });
    });
    const from = performance.now();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save as PDF' }).click(),
    ]);
    const took = performance.now() - from;
    const bytes = (await readFile(await download.path())).length;
    const longest = await page.evaluate(() => (globalThis as unknown as { longest: number }).longest);
    return { took, longest, pages, bytes };
  } finally {
    await stage.close();
  }
}
