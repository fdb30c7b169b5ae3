import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { openStage, settled, type Stage } from './stage.ts';

let stage: Stage;
beforeAll(async () => void (stage = await openStage()));
afterAll(() => stage.close());

/** Every page by role: where it is, and a heading that tells that it is there. */
const PAGES = {
  odile: [
    ['/desk', 'Desk'],
    ['/studio', 'Studio'],
    ['/studio/book', 'Backups and trail'],
    ['/account', 'Odile Skerryvane'],
  ],
  mara: [
    ['/requests', 'Requests'],
    ['/songs', 'Songs'],
    ['/licks', 'Licks'],
    ['/lesson', 'Lesson'],
    ['/ledger', 'Ledger'],
    ['/series', 'Series'],
    ['/students', 'Students'],
    ['/studio/report', 'The studio’s report'],
    ['/search?q=bend', 'Search'],
  ],
  ines: [
    ['/practice', 'Practice'],
    ['/ledger', 'Ledger'],
    ['/requests', 'What you asked for'],
    ['/home', 'Lessons'],
  ],
} as const;
/** Pages of one song and of one piece, by the links that lead there. */
const INSIDE = {
  odile: [],
  mara: ['song', 'sheet', 'pieces', 'lesson'],
  ines: ['piece', 'drills', 'report'],
} as const;

/** Goes to a page that needs an id. */
async function inside(page: Page, name: (typeof INSIDE)['mara' | 'ines'][number]): Promise<void> {
  if (name === 'song' || name === 'sheet' || name === 'pieces') {
    await page.goto('/songs');
    await page.getByRole('link', { name: /Slow Tide/ }).click();
    await page.locator('[data-ready="true"] svg').first().waitFor();
    if (name === 'song') return;
    await page
      .getByRole('link', { name: name === 'sheet' ? 'Handout' : 'Pieces', exact: true })
      .first()
      .click();
    if (name === 'pieces') await page.getByRole('option').first().waitFor();
    return;
  }
  if (name === 'lesson') {
    await page.goto('/students');
    await page.getByRole('heading', { name: 'Students', level: 1 }).waitFor();
    await page.goto('/lesson');
    await page.getByRole('combobox', { name: 'Student' }).click();
    await page.getByRole('option', { name: 'Ines Harrowmere' }).click();
    await page.getByRole('region', { name: 'Hearing list' }).waitFor();
    return;
  }
  if (name === 'report') {
    await page.goto('/home');
    await page.getByRole('link', { name: 'How “Friday blues” goes' }).click();
    await page.locator('.js-plotly-plot .bars').first().waitFor();
    return;
  }
  await page.goto('/practice');
  await page
    .getByRole('link', { name: /^Opening bend into Answer/ })
    .first()
    .click();
  await page.locator('[data-ready="true"] svg').first().waitFor();
  if (name === 'drills') await page.getByRole('link', { name: 'bend and timing drills' }).click();
}

/** What reaches over the right edge of the page, the widest first; what scrolls inside a frame of its own does not. */
function overflow(page: Page): Promise<readonly string[]> {
  return page.evaluate(() => {
    const over = document.documentElement.scrollWidth - document.documentElement.clientWidth;
    if (over <= 0) return [];
    const wide = [...document.querySelectorAll<HTMLElement>('main *, header *')].filter((element) => {
      for (let box = element.parentElement; box && box !== document.body; box = box.parentElement)
        if (/(auto|scroll|hidden|clip)/.test(getComputedStyle(box).overflowX)) return false;
      return element.getBoundingClientRect().right > document.documentElement.clientWidth + 1;
    });
    return [
      `${over} px`,
      ...wide.slice(0, 4).map((one) => `${one.tagName}.${one.className} ${one.textContent.trim().slice(0, 40)}`),
    ];
  });
}

test.each(
  (Object.keys(PAGES) as (keyof typeof PAGES)[]).flatMap((who) => [360, 640].map((width) => [who, width] as const)),
)(
  'no page of %s scrolls sideways at %d pixels',
  async (who, width) => {
    const page = await stage.enter(who, { viewport: { width, height: width === 640 ? 400 : 800 } });
    const wide: [string, readonly string[]][] = [];
    for (const [path, heading] of PAGES[who]) {
      await page.goto(path);
      await page.getByRole('heading', { name: heading, level: 1 }).waitFor();
      await settled(page);
      wide.push([path, await overflow(page)]);
    }
    for (const name of INSIDE[who]) {
      await inside(page, name);
      await settled(page);
      wide.push([name, await overflow(page)]);
    }
    expect(wide.filter(([, over]) => over.length > 0)).toEqual([]);
    await page.context().close();
  },
  180_000,
);
