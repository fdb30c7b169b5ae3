import { AxeBuilder } from '@axe-core/playwright';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { openStage, settled, type Stage } from './stage.ts';

let stage: Stage;
beforeAll(async () => void (stage = await openStage()));
afterAll(() => stage.close());

/** Views of the teacher and of the student, each with something that tells that it is there. */
const TEACHER = [
  ['/desk', 'Desk'],
  ['/requests', 'Requests'],
  ['/songs', 'Songs'],
  ['/licks', 'Licks'],
  ['/lesson', 'Lesson'],
  ['/ledger', 'Ledger'],
  ['/series', 'Series'],
  ['/students', 'Students'],
  ['/studio', 'Studio'],
  ['/studio/report', 'The studio’s report'],
  ['/search?q=bend', 'Search'],
] as const;
const STUDENT = [
  ['/practice', 'Practice'],
  ['/ledger', 'Ledger'],
  ['/requests', 'What you asked for'],
  ['/home', 'Lessons'],
] as const;

async function openView(page: Page, [path, heading]: readonly [string, string]): Promise<void> {
  await page.goto(path);
  await page.getByRole('heading', { name: heading, level: 1 }).waitFor();
  await settled(page);
}

/** Opens the piece of that name from the list of today. */
async function openAnswer(page: Page): Promise<void> {
  await page
    .getByRole('listitem')
    .getByRole('link', { name: /^Answer\b/ })
    .last()
    .click();
  await page.locator('[data-ready="true"] svg').first().waitFor();
}

/**
 * What the published accessibility rules find on light and on dark paper: WCAG 2.1, levels A and AA, by the axe-core rule set. On
 * dark paper all but the colours is as on light paper.
 */
async function faults(page: Page): Promise<readonly string[]> {
  const all = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']).analyze();
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.locator('html[data-look="dark"]').waitFor();
  const dark = await new AxeBuilder({ page }).withRules(['color-contrast']).analyze();
  await page.emulateMedia({ colorScheme: 'light' });
  await page.locator('html[data-look="light"]').waitFor();
  return [...all.violations, ...dark.violations].flatMap(({ id, nodes }) => nodes.map(({ html }) => `${id}: ${html}`));
}

describe('everybody can read, on light and on dark paper,', () => {
  let page: Page;
  const nothingWrong = async () => expect(await faults(page)).toEqual([]);

  describe('of the teacher’s views', () => {
    beforeAll(async () => void (page = await stage.enter('mara')));

    test.each(TEACHER)('%s', async (...view) => {
      await openView(page, view);
      await nothingWrong();
    });

    test('a song’s desk with its set-up, and its pieces', async () => {
      await page.goto('/songs');
      await page.getByRole('link', { name: /Slow Tide/ }).click();
      await page.locator('[data-ready="true"] svg').first().waitFor();
      await page.getByRole('region', { name: 'How hard' }).waitFor();
      await page.getByRole('button', { name: 'Set up' }).click();
      await nothingWrong();
      await page.getByRole('link', { name: 'Pieces', exact: true }).click();
      await page.getByRole('option').first().waitFor();
      await nothingWrong();
    });

    test('guitar and hand of a student', async () => {
      await page.goto('/students');
      await page.getByRole('button', { name: /Change guitar and hand of Pia/ }).click();
      await page.getByRole('form', { name: /Guitar and hand of Pia/ }).waitFor();
      await nothingWrong();
    });

    test('the summary of a lesson', async () => {
      await page.goto('/lesson');
      await page.getByRole('combobox', { name: 'Student' }).click();
      await page.getByRole('option', { name: 'Ines Harrowmere' }).click();
      await page.getByRole('region', { name: 'Hearing list' }).waitFor();
      // The list of students is gone from the page before it is looked at.
      await page.getByRole('listbox').waitFor({ state: 'detached' });
      await page.getByRole('heading', { name: 'Lesson', exact: true }).click();
      await page.keyboard.press('e');
      await page.getByRole('region', { name: 'Summary of the lesson' }).waitFor();
      await nothingWrong();
    });
  });

  describe('of the student’s views', () => {
    beforeAll(async () => void (page = await stage.enter('ines')));

    test.each(STUDENT)('%s', async (...view) => {
      await openView(page, view);
      await nothingWrong();
    });

    test('how a song goes', async () => {
      await page.goto('/home');
      await page.getByRole('link', { name: 'How “Friday blues” goes' }).click();
      await page.locator('.js-plotly-plot .bars').first().waitFor();
      await nothingWrong();
    });

    test('a piece that is practised, and its drills', async () => {
      await page.goto('/practice');
      await openAnswer(page);
      await page.getByText('Foot pedal').click();
      await nothingWrong();
      await page.getByRole('link', { name: 'bend and timing drills' }).click();
      await page.getByRole('region', { name: 'Bend at 7 on G' }).waitFor();
      await nothingWrong();
    });
  });
});

test('the student’s pages fit a phone of 390 pixels', async () => {
  const page = await stage.enter('ines', { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true });
  const overflow = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  for (const view of STUDENT) {
    await openView(page, view);
    expect([view[0], await overflow()]).toEqual([view[0], 0]);
  }
  await page.goto('/practice');
  await page
    .getByRole('link', { name: /^Climb/ })
    .last()
    .click();
  await page.locator('[data-ready="true"] svg').first().waitFor();
  expect(await overflow()).toBe(0);
});

test('nothing is fetched from anywhere but the studio’s own server', async () => {
  const page = await stage.enter('mara');
  const elsewhere: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith(stage.url) && !request.url().startsWith('data:')) elsewhere.push(request.url());
  });
  const refused: string[] = [];
  page.on('console', (message) => {
    if (message.type() === 'error') refused.push(message.text());
  });
  for (const view of TEACHER) await openView(page, view);
  expect({ elsewhere, refused }).toEqual({ elsewhere: [], refused: [] });
});
