import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Locator, Page } from 'playwright-core';
import { heard, listen } from './listening.ts';
import { choose, openStage, type Stage } from './stage.ts';

let stage: Stage;
let page: Page;
beforeAll(async () => {
  stage = await openStage();
  page = await stage.enter('ines', { viewport: { width: 390, height: 844 } });
});
afterAll(() => stage.close());

const wide = (on: Page) => on.evaluate(() => document.documentElement.scrollWidth - innerWidth);

describe('the ledger', () => {
  test('says when a target is expected, as a range with the chance by the day it is wanted, or that it cannot', async () => {
    await page.goto('/ledger');
    const grid = page.getByRole('grid', { name: 'Ledger' });
    await grid.getByText(/about \d+\/\d+ · \d+ % by/).waitFor();
    await grid.getByText('too little to say').first().waitFor();
    await page.getByRole('region', { name: 'Since the last lesson' }).getByText('Answer: 67 → 73').waitFor();
    await page.getByText(/of 8 bars held \d+ % · playable at full speed \d+ %, at 80 %/).waitFor();
    await page.getByRole('button', { name: 'Answer', exact: true }).click();
    const piece = page.getByRole('region', { name: 'Answer', exact: true });
    await piece.getByText(/Expected .* to .*, most likely about .*\. \d+ % by .*, when it is wanted\./).waitFor();
  });

  test('a line is struck out and put back, and its cell follows', async () => {
    const piece = page.getByRole('region', { name: 'Answer', exact: true });
    const cell = page.getByRole('gridcell').filter({ hasText: /73\s*clean, pencil/ });
    await cell.waitFor();
    await piece.getByRole('listitem').first().getByRole('button', { name: 'strike out' }).click();
    await cell.waitFor({ state: 'detached' });
    await page.getByRole('button', { name: 'Undo' }).click();
    await cell.waitFor();
  });

  test('rows are chosen by how they stand, by what they are and by name', async () => {
    const rows = page.getByRole('grid', { name: 'Ledger' }).getByRole('button');
    await choose(page, 'Standing', 'stuck');
    expect(await rows.allInnerTexts()).toEqual(['Climb to the top']);
    await page.getByText('1 of 4 rows').waitFor();
    await choose(page, 'Standing', 'slipping');
    await page.getByText('No row matches.').waitFor();
    await page.getByRole('button', { name: 'Show all' }).click();
    await choose(page, 'Pieces', 'joins');
    expect(await rows.allInnerTexts()).toEqual(['Opening bend into Answer']);
    await choose(page, 'Pieces', 'all pieces');
    await page.getByLabel('Name', { exact: true }).fill('climb');
    await page.getByText('1 of 4 rows').waitFor();
    await page.getByLabel('Name', { exact: true }).fill('');
  });

  test('on a phone shows names whole, beside them what is next, and the days when it is drawn aside', async () => {
    const grid = page.getByRole('grid', { name: 'Ledger' });
    /** Whether both ends of each line of something are to be seen, with nothing before them. */
    const isWhole = (of: Locator) =>
      of.evaluate((element) => {
        const text = document.createRange();
        text.selectNodeContents(element);
        return [...text.getClientRects()].every(({ left, right, top, bottom }) =>
          [left + 1, right - 1].every((x) => {
            const found = document.elementFromPoint(x, (top + bottom) / 2);
            return found !== null && (element.contains(found) || found.contains(element));
          }),
        );
      });
    const name = grid.getByRole('button', { name: 'Opening bend into Answer' });
    const heads = grid.getByRole('columnheader');
    const [newest, ofTarget, next] = [heads.nth(-3), heads.nth(-2), heads.nth(-1)];
    await name.scrollIntoViewIfNeeded();
    expect([await isWhole(name), await isWhole(ofTarget), await isWhole(next)]).toEqual([true, true, true]);
    await grid.evaluate((table) => table.parentElement?.scrollBy({ left: -150 }));
    expect([await isWhole(name), await isWhole(newest)]).toEqual([true, true]);
  });

  test('is walked through with the arrows, and printed whole', async () => {
    const grid = page.getByRole('grid', { name: 'Ledger' });
    await grid.getByRole('button', { name: 'Opening bend', exact: true }).focus();
    await page.keyboard.press('ArrowRight');
    const focused = () => page.evaluate(() => document.activeElement?.textContent.trim().replace(/\s+/g, ' '));
    expect(await focused()).toBe('50clean, ink');
    await page.keyboard.press('End');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowDown');
    expect(await focused()).toBe('73clean, pencil');
    await page.keyboard.press('Enter');
    await page.getByRole('region', { name: 'Answer', exact: true }).waitFor({ state: 'detached' });
    await page.emulateMedia({ media: 'print' });
    expect(await page.getByRole('search').isVisible()).toBe(false);
    await page.emulateMedia({ media: 'screen' });
  });
});

describe('today’s practice', () => {
  const today = () => page.getByRole('region', { name: 'Today’s practice' });

  test('fills the minutes there are, says why, and fits a phone', async () => {
    await page.goto('/practice');
    await today().getByText('Warm up', { exact: true }).waitFor();
    expect(await today().getByRole('listitem').first().innerText()).toContain('One finger a fret');
    await today()
      .getByText(/of 20 minutes are planned/)
      .waitFor();
    expect(await wide(page)).toBeLessThanOrEqual(0);
  });

  test('fewer minutes leave less, and are remembered', async () => {
    const before = await today().getByRole('listitem').count();
    await today().getByText('10 min').click();
    await today()
      .getByText(/of 10 minutes are planned/)
      .waitFor();
    expect(await today().getByRole('listitem').count()).toBeLessThan(before);
    await page.reload();
    await today()
      .getByText(/of 10 minutes are planned/)
      .waitFor();
  });

  test('what is held says by when it is to be played again', async () => {
    await page.getByRole('heading', { name: 'Held' }).waitFor();
    await page.getByText(/Again by/).waitFor();
  });

  test('a task leads to its piece, where it says what is held', async () => {
    await today()
      .getByRole('link', { name: /Next step|Join/ })
      .first()
      .click();
    await page.getByRole('heading', { name: 'Next step' }).waitFor();
    await page.getByText(/Clean at \d+ % of the target, in (ink|pencil)/).waitFor();
    expect(await wide(page)).toBeLessThanOrEqual(0);
  });
});

describe('one piece', () => {
  async function open(name: RegExp, on: Page = page): Promise<void> {
    await on.goto('/practice');
    await on.getByRole('listitem').getByRole('link', { name }).last().click();
    await on.locator('[data-ready="true"] svg').first().waitFor();
  }
  const steps = () => page.getByRole('group', { name: 'Step by step' });

  test('is stepped through event by event, each said and heard', async () => {
    await open(/^Answer\b/);
    await listen(page);
    await page.keyboard.press('ArrowRight');
    await steps().getByText('bar 1, beat 1 7 on D').waitFor();
    await page.waitForFunction(() => (Reflect.get(window, 'heardSound') as { buffers: number }).buffers > 0);
    for (let step = 0; step < 3; step += 1) await steps().getByRole('button', { name: 'One step on' }).click();
    await steps().getByText('bar 1, beat 2').waitFor();
    expect((await heard(page)).loudest).toBeGreaterThan(0.02);
  });

  test('any of its beats go round and round, by key or by thumb', async () => {
    await page.keyboard.press('[');
    for (let step = 0; step < 3; step += 1) await page.keyboard.press('ArrowRight');
    await steps().getByRole('button', { name: 'to here' }).click();
    await steps().getByText('bar 1, beat 2 to bar 1, beat 3').waitFor();
    expect(await page.locator('.tab-mark-loop').count()).toBe(4);
    await page.keyboard.press('0');
    await steps().getByText('the whole', { exact: true }).first().waitFor();
    expect(await page.locator('.tab-mark-loop').count()).toBe(0);
  });

  test('is heard at full speed first, then at the tempo to practise; by the other school the other way', async () => {
    await page.getByRole('button', { name: 'Hear 84, then 72' }).click();
    await page.getByRole('button', { name: /Counting in|Stop/ }).waitFor();
    await page.getByRole('button', { name: /Counting in|Stop/ }).click();
    const odile = await stage.enter('odile');
    await odile.goto('/studio');
    await odile
      .getByRole('region', { name: 'How the studio teaches' })
      .getByRole('combobox', { name: 'First hearing' })
      .click();
    await odile.getByRole('option', { name: 'slow first' }).click();
    await odile.getByText('How the studio teaches is saved.').waitFor();
    await odile.close();
    await open(/^Answer\b/);
    await page.getByRole('button', { name: 'Hear 72, then 84' }).waitFor();
  });

  test('a note is pinned to an event, found there by the teacher, and taken out again', async () => {
    const pins = page.getByRole('region', { name: 'Pinned notes' });
    await pins.getByText('Do I pick the 9 again, or slide into it?').waitFor();
    await page.keyboard.press('ArrowRight');
    await pins.getByLabel('Note to the teacher, at bar 1, beat 1').fill('Is this the first finger?');
    await pins.getByRole('button', { name: 'Pin it' }).click();
    await pins.getByText('Is this the first finger?').waitFor();
    const mara = await stage.enter('mara');
    await mara.goto('/lesson');
    await mara.getByRole('combobox', { name: 'Student' }).click();
    await mara.getByRole('option', { name: 'Ines Harrowmere' }).click();
    await mara.getByRole('button', { name: /^Answer\b/ }).click();
    await mara.getByRole('region', { name: 'Pinned notes' }).getByText('Is this the first finger?').waitFor();
    await mara.close();
    await pins
      .getByRole('listitem')
      .filter({ hasText: 'first finger' })
      .getByRole('button', { name: 'remove' })
      .click();
    await pins.getByText('Is this the first finger?').waitFor({ state: 'detached' });
  });

  test('the teacher’s watch-out stands at its place', async () => {
    await open(/^Climb to the top\b/);
    await page.getByText('Third finger, with the first two behind it.').waitFor();
    await page.getByRole('button', { name: /^Watch out · bar 1/ }).click();
    await steps().getByText('10 on B · whole-step bend').waitFor();
    // It is stuck: its halves go round one by one.
    await page.getByRole('button', { name: 'Second half' }).click();
    await steps().getByText('bar 2, beat 1 to bar 2, beat 3').waitFor();
  });

  test('the tempo follows the ladder by itself, by key, thumb or pedal', async () => {
    await open(/^Answer\b/);
    await page.keyboard.press('c');
    await page.getByText('72, clean is posted in pencil.').waitFor();
    expect(await page.getByLabel('Played at').inputValue()).toBe('78 bpm');
    await page.getByText('72, clean is posted in pencil.').waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByText('today').waitFor({ state: 'detached' });
    await page.getByRole('button', { name: /^72/ }).click();
    await page.keyboard.press('c');
    await page.getByText('72, clean is posted in pencil.').waitFor();
    await page.getByText('Foot pedal').click();
    await page.getByRole('button', { name: 'Set the pedal for not yet' }).click();
    await page.keyboard.press('F8');
    await page.keyboard.press('F8');
    await page.getByText('78, not yet is posted in pencil.').waitFor();
    await page.keyboard.press('PageDown');
    await page.getByText('78, clean is posted in pencil.').waitFor();
  });

  test('without a connection results wait, the ladder goes on, and everything is posted once', async () => {
    await open(/^Opening bend into Answer\b/);
    const before = await page.getByLabel('Played at').inputValue();
    // Each attempt to post is waited for, those of pages that are opened too: one that is late would get through.
    const posting = async (act: () => Promise<void>) => {
      const lost = page.waitForEvent('requestfailed', (request) => request.url().endsWith('/entries'));
      await act();
      await lost;
    };
    await page.context().setOffline(true);
    await posting(() => page.keyboard.press('c'));
    await page.getByText('One result waits on this device').waitFor();
    await posting(() => page.keyboard.press('c'));
    await page.getByText('2 results wait on this device').waitFor();
    await page.getByText('waits here').first().waitFor();
    expect(parseInt(await page.getByLabel('Played at').inputValue(), 10)).toBeGreaterThan(parseInt(before, 10));
    // Another piece that was seen before can be opened meanwhile.
    await posting(() => page.getByRole('link', { name: /^Practice( \d+ new)?$/ }).click());
    await page.getByText('2 results wait on this device').waitFor();
    const answer = page.getByRole('listitem').getByRole('link', { name: /^Answer\b/ });
    await posting(() => answer.last().click());
    await page.getByRole('heading', { name: 'Answer', exact: true }).waitFor();
    // The line comes back, and goes again while they are posted by themselves; then they are posted by hand.
    const entries = '**/api/pieces/*/entries';
    await page.route(entries, (route) => route.abort());
    await posting(() => page.context().setOffline(false));
    await page.unroute(entries);
    await page.getByRole('button', { name: 'Post now' }).click();
    await page.getByText(/wait on this device/).waitFor({ state: 'detached' });
    await open(/^Opening bend into Answer\b/);
    await page.getByText('waits here').waitFor({ state: 'detached' });
    expect(await page.getByText('today').count()).toBe(2);
  });

  test('an answer that is lost on its way doubles nothing', async () => {
    await page.route('**/api/pieces/*/entries', async (route) => {
      await route.fetch();
      await route.abort();
    });
    await page.keyboard.press('n');
    await page.getByText('One result waits on this device').waitFor();
    await page.unroute('**/api/pieces/*/entries');
    await page.reload();
    await page.locator('[data-ready="true"] svg').first().waitFor();
    await page.getByText(/waits on this device/).waitFor({ state: 'detached' });
    await page.waitForFunction(() => document.body.innerText.match(/not yet\s*today/g)?.length === 1);
  });

  test('after ten minutes without a break a rest is due, on whatever piece, until it is taken', async () => {
    await page.clock.install();
    await open(/^Climb to the top\b/);
    for (let take = 0; take < 8; take += 1) {
      await page.keyboard.press('n');
      await page
        .getByText(`${await page.getByLabel('Played at').inputValue().then(parseFloat)}, not yet is posted`)
        .waitFor();
      await page.clock.fastForward(90_000);
    }
    await open(/^Answer\b/);
    await page.getByText(/minutes without a break: shake the hands out and rest/).waitFor();
    await page.getByRole('button', { name: 'I have rested' }).click();
    await page.getByText(/minutes without a break/).waitFor({ state: 'detached' });
  });

  test('its bends and its rhythm are drilled on pages of their own', async () => {
    await open(/^Answer\b/);
    await page.getByRole('link', { name: 'bend and timing drills' }).click();
    await page.getByRole('region', { name: 'Bend at 7 on G' }).getByText('Hear fret 9 first').waitFor();
    await page
      .getByRole('region', { name: 'Rhythm of bar 1' })
      .getByRole('button', { name: /Hear it at/ })
      .click();
    await page.getByRole('button', { name: 'Stop' }).click();
    expect(await wide(page)).toBeLessThanOrEqual(0);
  });
});
