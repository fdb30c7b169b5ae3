import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { openStage, type Stage } from './stage.ts';

let stage: Stage;
let page: Page;
beforeAll(async () => {
  stage = await openStage();
  page = await stage.enter('mara');
});
afterAll(() => stage.close());

describe('a series of lessons', () => {
  const section = (title: string) => page.getByRole('region', { name: title });

  test('is begun by a rule that says what is wrong while it is filled in', async () => {
    await page.getByRole('link', { name: 'Series', exact: true }).click();
    await page.getByRole('button', { name: 'Begin a series' }).click();
    const form = page.getByRole('form', { name: 'Series of lessons' });
    await form.getByLabel('Title').fill('Mornings');
    await form.getByLabel(/^At/).fill('09:00');
    await form.getByLabel(/^Lessons/).fill('');
    await form.getByLabel(/^Lessons/).blur();
    await form.getByText('A series ends: say how many lessons, or until which day.').waitFor();
    await form.getByLabel(/^Lessons/).fill('6');
    await form.getByLabel(/^Lessons/).blur();
    await form.getByText(/6 lessons, the last on/).waitFor();
    await form.getByRole('button', { name: 'Save' }).click();
    await page.getByText('6 lessons of Ferris Oldegard are entered.').waitFor();
    expect(await section('Mornings').getByRole('listitem').count()).toBe(6);
  });

  test('one that overlaps another is refused with the day, and what was typed stays', async () => {
    await page.getByRole('button', { name: 'Begin a series' }).click();
    const form = page.getByRole('form', { name: 'Series of lessons' });
    await form.getByLabel('Title').fill('Too early');
    await form.getByLabel(/^At/).fill('09:30');
    await form.getByRole('button', { name: 'Save' }).click();
    await form
      .getByText(/it overlaps the lesson of Ferris Oldegard from 09:00 to 09:45/)
      .first()
      .waitFor();
    expect(await form.getByLabel('Title').inputValue()).toBe('Too early');
    await form.getByRole('button', { name: 'Cancel' }).click();
  });

  test('lessons are left out, moved and added, and each is taken back', async () => {
    const lessons = section('Mornings').getByRole('listitem');
    await lessons.nth(1).getByRole('button', { name: 'Cancel this lesson' }).click();
    await page.getByText(/is left out\.$/).waitFor();
    expect(await lessons.count()).toBe(5);
    await page.getByRole('button', { name: 'Undo' }).click();
    await lessons.nth(5).waitFor();
    await lessons.nth(2).getByRole('button', { name: 'Move' }).click();
    await section('Mornings').getByLabel('At').fill('10:15');
    await section('Mornings').getByRole('button', { name: 'Move it' }).click();
    await lessons.nth(2).getByText(/10:15/).waitFor();
    await lessons.nth(2).getByText('moved').waitFor();
    await section('Mornings').getByRole('button', { name: 'A lesson besides the rule' }).click();
    await section('Mornings').getByLabel('At').fill('21:00');
    await section('Mornings').getByRole('button', { name: 'Add it' }).click();
    await section('Mornings').getByText('besides the rule').waitFor();
  });

  test('the desk says what each lesson opens with, and leads there', async () => {
    await page.getByRole('link', { name: 'Desk' }).click();
    const lessons = page.getByRole('region', { name: 'Lessons' });
    await lessons.getByText(/^Opens with “Climb to the top” \(hear again\)/).waitFor();
    const line = lessons.getByRole('listitem').filter({ hasText: 'Ines Harrowmere' });
    await page.keyboard.press(await line.locator('kbd').innerText());
    await page.getByText(/Friday blues, \d+ of \d+/).waitFor();
  });
});

describe('requests and hours', () => {
  test('what cannot be met is told, and the full week says what to move; more hours mend it', async () => {
    const odile = await stage.enter('odile');
    await odile.goto('/requests');
    const ferry = odile.getByRole('listitem').filter({ hasText: 'Night Ferry Stomp' }).last();
    await ferry.getByText(/About \d+ min of work \(\d+–\d+, from 3 of your own\)/).waitFor();
    await ferry.getByText(/It cannot be met by then with these hours/).waitFor();
    // On a weekend no hours are left before the lesson in which its first part is due.
    await odile
      .getByRole('listitem')
      .filter({ hasText: 'The Weir Song' })
      .getByText(/The earliest honest promise|It cannot be met by then/)
      .waitFor();
    await odile.goto('/studio');
    await odile.getByLabel(/^Transcribing, a week/).fill('2000');
    await odile.getByLabel(/^Transcribing, a week/).blur();
    await odile.getByText('How the studio teaches is saved.').waitFor();
    await odile.goto('/requests');
    await odile.getByText('33.3 h a week for transcribing').waitFor();
    await ferry.getByText(/The earliest honest promise/).waitFor();
    await odile.close();
  });
});

describe('a lesson', () => {
  const list = () => page.getByRole('list', { name: 'To hear' });
  const chosen = () => list().getByRole('button', { pressed: true });

  test('has an agenda with minutes: to hear again, joins, and what there is time for', async () => {
    expect(await list().getByRole('heading').allInnerTexts()).toEqual(['hear again', 'join', 'if there is time']);
    await page.getByText(/of \d+ minutes are planned/).waitFor();
    await chosen().getByText('Climb to the top').waitFor();
  });

  test('is run without a mouse: chosen, a rung down, posted, left out, with a clock', async () => {
    await page.keyboard.press('ArrowDown');
    await chosen().getByText('Answer', { exact: true }).waitFor();
    await page.getByRole('heading', { name: /^Answer target/ }).waitFor();
    const before = parseInt(await page.getByLabel('Played at').inputValue(), 10);
    await page.keyboard.press('d');
    const lower = parseInt(await page.getByLabel('Played at').inputValue(), 10);
    expect(lower).toBeLessThan(before);
    await page.keyboard.press('c');
    await page.getByText(`${lower}, clean is posted in ink.`).waitFor();
    await page.keyboard.press('s');
    await page.getByRole('button', { name: 'Pause' }).waitFor();
    await page.getByRole('timer').filter({ hasText: '0:01' }).waitFor();
    await page.keyboard.press('s');
    await page.getByRole('button', { name: 'Start' }).waitFor();
    const count = await list().getByRole('listitem').count();
    await page.keyboard.press('x');
    await page.getByText(/“Answer” is left out of this lesson\./).waitFor();
    expect(await list().getByRole('listitem').count()).toBe(count);
    await page.getByRole('button', { name: 'Undo' }).click();
  });
});
