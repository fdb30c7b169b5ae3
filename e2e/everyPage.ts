import type { Page } from 'playwright-core';
import { settled } from './stage.ts';

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
  signe: [
    ['/ledger', 'Ledger'],
    ['/home', 'Lessons'],
    ['/requests', 'Requests'],
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
  signe: [],
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
    await page.getByRole('link', { name: /^How “Friday blues/ }).click();
    await page.locator('.js-plotly-plot .bars').first().waitFor();
    return;
  }
  await page.goto('/practice');
  await page
    .getByRole('link', { name: /^Opening bend .*into Answer/ })
    .first()
    .click();
  await page.locator('[data-ready="true"] svg').first().waitFor();
  if (name === 'drills') await page.getByRole('link', { name: 'bend and timing drills' }).click();
}

/** Whoever has pages of their own: the owner, a teacher, a guardian and a student of the demo studio. */
export const ROLES = Object.keys(PAGES) as readonly (keyof typeof PAGES)[];

/** Opens every page of somebody in turn, and does something on each once everything is drawn. */
export async function onEveryPage(
  page: Page,
  who: keyof typeof PAGES,
  act: (name: string) => Promise<void>,
): Promise<void> {
  for (const [path, heading] of PAGES[who]) {
    await page.goto(path);
    await page.getByRole('heading', { name: heading, level: 1 }).waitFor();
    await settled(page);
    await act(path);
  }
  for (const name of INSIDE[who]) {
    await inside(page, name);
    await settled(page);
    await act(name);
  }
}
