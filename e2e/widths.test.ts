import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import pg from 'pg';
import type { Page } from 'playwright-core';
import { onEveryPage, ROLES } from './everyPage.ts';
import { openStage, settled, type Stage } from './stage.ts';

let stage: Stage;
beforeAll(async () => void (stage = await openStage()));
afterAll(() => stage.close());

/** Whatever people give a name to, and the most letters that the book takes. */
const NAMED = [
  ['people', 'name', 120],
  ['studios', 'name', 120],
  ['requests', 'title', 120],
  ['requests', 'whose', 120],
  ['transcriptions', 'title', 120],
  ['transcriptions', 'whose', 120],
  ['sections', 'label', 24],
  ['phrases', 'name', 80],
  ['series', 'title', 120],
] as const;

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

/** Words that are broken where no word may be, with what they stand in; one of very many letters has to be. */
function brokenWords(page: Page): Promise<readonly string[]> {
  return page.evaluate(() => {
    const broken: string[] = [];
    const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let text = texts.nextNode(); text; text = texts.nextNode()) {
      const within = text.parentElement;
      if (!within || within.closest('.cm-editor, svg, .unseen, .slips thead') || !within.checkVisibility()) continue;
      for (const { 0: word, index } of (text.textContent ?? '').matchAll(/\p{L}{2,20}/gu)) {
        const range = document.createRange();
        range.setStart(text, index);
        range.setEnd(text, index + word.length);
        const lines = new Set([...range.getClientRects()].map(({ bottom }) => Math.round(bottom)));
        if (lines.size > 1) broken.push(`${word} in ${within.tagName}.${within.className}`);
      }
    }
    return broken;
  });
}

/** A phone, where pages are opened; then a page magnified twice, and a small screen upright, as the window is drawn wider. */
const SCREENS = [
  { width: 360, height: 800 },
  { width: 640, height: 400 },
  { width: 950, height: 800 },
] as const;

test.each(ROLES)(
  'no page of %s scrolls sideways or breaks a word, on a phone or wider',
  async (who) => {
    const [phone, ...wider] = SCREENS;
    const page = await stage.enter(who, { viewport: phone });
    const wrong: [string, number, readonly string[]][] = [];
    const look = async (name: string, width: number) => {
      const trouble = async () => [...(await overflow(page)), ...(await brokenWords(page))];
      let found = await trouble();
      // What is drawn anew for a width takes a moment; what stays wrong is.
      for (let tries = 1; tries < 20 && found.length > 0; tries += 1) {
        await page.waitForTimeout(100);
        found = await trouble();
      }
      if (found.length > 0) wrong.push([name, width, found]);
    };
    await onEveryPage(page, who, async (name) => {
      await look(name, phone.width);
      for (const screen of wider) {
        await page.setViewportSize(screen);
        await settled(page);
        await look(name, screen.width);
      }
      await page.setViewportSize(phone);
    });
    expect(wrong).toEqual([]);
    await page.context().close();
  },
  180_000,
);

describe('the longest names', () => {
  let long: Stage;
  beforeAll(async () => {
    long = await openStage();
    const db = new pg.Client({ connectionString: long.databaseUrl });
    await db.connect();
    // One word without a blank to be broken at.
    for (const [table, column, letters] of NAMED)
      await db.query(`UPDATE ${table} SET ${column} = rpad(${column} || ' ', ${letters}, 'Halyardwinch')`);
    await db.end();
  });
  afterAll(() => long.close());

  test.each(['mara', 'ines', 'odile'] as const)(
    'break in every page of %s',
    async (who) => {
      const page = await long.enter(who, { viewport: { width: 390, height: 800 } });
      const wide: [string, readonly string[]][] = [];
      await onEveryPage(page, who, async (name) => void wide.push([name, await overflow(page)]));
      expect(wide.filter(([, over]) => over.length > 0)).toEqual([]);
      await page.context().close();
    },
    180_000,
  );
});
