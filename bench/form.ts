import pg from 'pg';
import type { Page } from 'playwright-core';
import { openStage } from '../e2e/stage.ts';
import { ms, ratio, timingOf, type Figure } from './measure.ts';
import { watchTyping } from './typing.ts';

const SECTIONS = 60;
const PHRASES = 400;
/** Fifty events each; together 20,000. */
const EVENTS = 50;
const EDITS = 40;
/** Shorter stretches of work are not reported by the browser, milliseconds. Source: Long Tasks API, W3C. */
const MIN_COUNTED = 50;

/** A form of 60 sections with 400 phrases: how long an edit takes until all of it is redrawn. */
export async function formFigures(): Promise<readonly Figure[]> {
  const stage = await openStage();
  try {
    const page = await stage.enter('mara');
    const small = await movingBoundaries(page, /Copper Kettle/);
    await fillSong(stage.databaseUrl);
    const large = await movingBoundaries(page, /Slow Tide/);
    const typing = await longestTask(page, stage.databaseUrl);
    return [
      {
        what: `Moving a boundary among ${SECTIONS} sections, ${PHRASES} phrases, ${PHRASES * EVENTS} events: key to strip and margin redrawn, 95th percentile`,
        measured: ms(large),
        target: 'under 100 ms',
        met: large < 100,
        yardstick: `the same with two sections, ${ms(small)}`,
        ratio: ratio(large, small),
      },
      {
        what: 'Longest time that page is busy at a stretch while an event typed into the last phrase is drawn, saved, checked and compared with all before it',
        measured: busy(typing),
        target: 'under 100 ms',
        met: typing < 100,
        yardstick: `moving a boundary, ${ms(large)}`,
        ratio: typing < MIN_COUNTED ? '' : ratio(typing, large),
      },
    ];
  } finally {
    await stage.close();
  }
}

async function openSong(page: Page, name: RegExp): Promise<void> {
  await page.goto('/songs');
  await page.getByRole('link', { name }).click();
  await page.locator('[data-ready="true"] svg').first().waitFor();
}

async function movingBoundaries(page: Page, name: RegExp): Promise<number> {
  await openSong(page, name);
  const strip = page.getByRole('region', { name: /Form of the song/ });
  await strip.getByRole('group').first().getByRole('button').nth(1).focus();
  await watchTyping(page, '.form-strip .scale, .form-margin');
  for (let edit = 0; edit < EDITS; edit += 1) {
    const saved = page.waitForResponse((answer) => answer.request().method() === 'PUT');
    await page.keyboard.press(edit % 2 === 0 ? 'Alt+ArrowRight' : 'Alt+ArrowLeft');
    await saved;
  }
  const times = await page.evaluate(() => Reflect.get(window, 'typingTimes') as number[]);
  return timingOf(times.filter((one) => one >= 0)).p95;
}

/** Types an event at a time into the last phrase, which is compared with all before it, and waits until all that follows has settled. */
async function longestTask(page: Page, databaseUrl: string): Promise<number> {
  await openSong(page, /Slow Tide/);
  await page.goto(`${page.url().split('?')[0] ?? ''}?phrase=${await lastPhraseOf(databaseUrl)}`);
  await page.locator('[data-ready="true"] svg').first().waitFor();
  await page.getByRole('textbox', { name: 'Fret shorthand' }).click();
  await page.keyboard.press('Control+End');
  await watchTasks(page);
  for (let edit = 0; edit < 10; edit += 1) {
    const saved = page.waitForResponse((answer) => answer.request().method() === 'PUT');
    await page.keyboard.type(' 5G');
    await page.keyboard.press('Escape');
    await saved;
    await page.evaluate(() => new Promise((done) => setTimeout(done, 1500)));
  }
  return longestOf(page);
}

/** Notes from now on how long the page is busy at a stretch. */
export async function watchTasks(page: Page): Promise<void> {
  await page.evaluate(() => {
    const tasks: number[] = [];
    Reflect.set(window, 'longTasks', tasks);
    new PerformanceObserver((list) => tasks.push(...list.getEntries().map(({ duration }) => duration))).observe({
      type: 'longtask',
    });
  });
}

/** The longest time the page was busy at a stretch since `watchTasks`, milliseconds; 0 for less than the browser reports. */
export async function longestOf(page: Page): Promise<number> {
  const tasks = await page.evaluate(() => Reflect.get(window, 'longTasks') as number[]);
  return Math.max(0, ...tasks);
}

/** Such a time as it is read. */
export function busy(longest: number): string {
  return longest < MIN_COUNTED ? `under ${MIN_COUNTED} ms, the least that the browser reports` : ms(longest);
}

async function lastPhraseOf(databaseUrl: string): Promise<string> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows } = await client.query<{ id: string }>(
    `SELECT f.id FROM phrases f JOIN sections c ON c.id = f.section_id JOIN transcriptions t ON t.id = c.transcription_id
      WHERE t.title LIKE 'Slow Tide%' AND f.chosen ORDER BY c.start_seconds DESC, c.label DESC, f.position DESC LIMIT 1`,
  );
  await client.end();
  return rows[0]?.id ?? '';
}

/** Gives a song of the demo so many sections and phrases that each differs a little from the others. */
export async function fillSong(databaseUrl: string, phrases = PHRASES): Promise<void> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows } = await client.query<{ studio: string; song: string }>(
    `SELECT studio_id AS studio, id AS song FROM transcriptions WHERE title LIKE 'Slow Tide%'`,
  );
  const [where] = rows;
  if (!where) throw new Error('the demo studio has lost a song');
  for (let section = 0; section < SECTIONS - 2; section += 1) {
    const added = await client.query<{ id: string }>(
      `INSERT INTO sections (studio_id, transcription_id, label, role, start_seconds, bars)
       VALUES ($1, $2, $3, 'riff', $4, 4) RETURNING id`,
      [where.studio, where.song, `2${section}`, 40 + section * 12],
    );
    for (let phrase = section; phrase < phrases; phrase += SECTIONS - 2)
      await client.query(
        'INSERT INTO phrases (studio_id, section_id, position, name, text) VALUES ($1, $2, $3, $4, $5)',
        [where.studio, added.rows[0]?.id, phrase, `Phrase ${phrase}`, phraseText(phrase)],
      );
  }
  await client.end();
}

function phraseText(seed: number): string {
  const strings = 'EADGBe';
  const event = (index: number) => `${(seed * 7 + index * 5) % 15}${strings.charAt((seed + index * index) % 6)}`;
  return `/16 ${Array.from({ length: EVENTS }, (_, index) => event(index)).join(' ')}`;
}
