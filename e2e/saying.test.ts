import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { openStage, type Stage } from './stage.ts';

let stage: Stage;
let page: Page;
beforeAll(async () => {
  stage = await openStage();
  page = await stage.enter('mara');
  await page.goto('/songs');
  await page.getByRole('link', { name: /Slow Tide/ }).click();
  await page.locator('[data-ready="true"] svg').first().waitFor();
  await page.keyboard.press('Alt+n');
  await page.getByText('The tab appears here as you type.').waitFor();
});
afterAll(() => stage.close());

const line = () => page.getByLabel('What you would say');
const saying = () => page.getByRole('region', { name: 'Say it', exact: true });
const text = () => page.locator('.cm-content').first().innerText();

describe('the line that takes down what is said', () => {
  test('shows the notes as the words come, and asks what is not sure', async () => {
    await page.keyboard.press('Alt+y');
    await line().pressSequentially(
      'nine on the third string, bend it up a whole step and let it down, then 7 on the E',
    );
    await saying().getByText('9Gb1r 7e').waitFor();
    await saying().locator('[data-ready="true"] svg').first().waitFor();
    await saying().getByText('Which E was not said; the high one is taken.').waitFor();
    await saying().getByRole('button', { name: 'low E' }).click();
    await saying().getByText('9Gb1r 7E').waitFor();
    expect(await line().inputValue()).toMatch(/7 on the low E$/);
  });

  test('a press takes them over, and undo takes them back', async () => {
    await line().press('Enter');
    await page.getByText('What you said is written.').waitFor();
    expect(await text()).toBe('/? 9Gb1r 7E');
    expect(await line().inputValue()).toBe('');
    await page.getByRole('button', { name: 'Undo' }).first().click();
    await page.waitForFunction(() => document.querySelector('.cm-content')?.textContent.includes('9G') !== true);
  });

  test('what was meant is known the next time, until it is to be asked again', async () => {
    await line().fill('3 on the E');
    await saying().getByText('3E', { exact: true }).waitFor();
    expect(await saying().getByText('Which E was not said').count()).toBe(0);
    await saying().getByRole('button', { name: 'Ask me again' }).click();
    await saying()
      .getByText(/^Which E was not said/)
      .waitFor();
    await line().press('Escape');
    await saying().waitFor({ state: 'detached' });
    expect(await page.evaluate(() => document.activeElement?.classList.contains('cm-content'))).toBe(true);
  });
});

describe('a page of talk', () => {
  const dialog = () => page.getByRole('dialog', { name: 'From words' });
  const PAGE = `Okay, this one is all about the bends.

[0:17] Start with five on the G, then seven on the G, bend it a whole step and let it down.
Next lick: eight on the B, bend it, then five on the E.

The solo goes ten on the B, hammer on to twelve, pull off to ten.`;

  test('becomes phrases beside its words; doubts are answered in them', async () => {
    await page.getByRole('button', { name: 'From words' }).click();
    await dialog().getByLabel('What was said').fill(PAGE);
    await dialog().getByRole('button', { name: 'Import 3 phrases' }).waitFor();
    await dialog().getByText('@0:17 /? 5G 7Gb1r').waitFor();
    await dialog()
      .getByRole('button', { name: /^Next lick/ })
      .click();
    await dialog().getByRole('button', { name: 'a half step' }).click();
    await dialog().getByText('/? 8Bb.5 5e').waitFor();
    await dialog().getByRole('button', { name: 'high E' }).click();
    await dialog()
      .getByText(/not sure/)
      .first()
      .waitFor({ state: 'detached' });
  });

  test('outlives leaving, and comes in as drafts, but for what was left out; undo takes all of it back', async () => {
    await dialog().getByRole('button', { name: 'Cancel' }).click();
    await page.reload();
    await page.locator('.form-strip .block').first().waitFor();
    await page.getByRole('button', { name: 'From words' }).click();
    await dialog().getByRole('checkbox').nth(1).uncheck();
    await dialog().getByRole('button', { name: 'Import 2 phrases' }).click();
    await page.getByText('2 phrases are brought in from words.').waitFor();
    await page.locator('.form-strip .block').nth(3).waitFor();
    await page.getByRole('button', { name: 'Undo' }).first().click();
    await page.waitForFunction(() => document.querySelectorAll('.form-strip .block').length === 2);
  });

  test('is a lesson in few acts: six pieces from a page of talk, every doubt answered', async () => {
    let acts = 0;
    const act = async (what: Promise<unknown>) => {
      acts += 1;
      await what;
    };
    await act(page.getByRole('button', { name: 'From words' }).click());
    await act(dialog().getByLabel('What was said').fill(TEN_MINUTES));
    await act(
      dialog()
        .getByRole('button', { name: /Power chord/ })
        .click(),
    );
    for (const choice of ['low E', 'string 6']) {
      await act(dialog().getByRole('button', { name: choice, exact: true }).click());
      await dialog().getByRole('button', { name: choice, exact: true }).waitFor({ state: 'detached' });
    }
    await act(dialog().getByRole('button', { name: 'Import 6 phrases' }).click());
    await page.getByText('6 phrases are brought in from words.').waitFor();
    for (let left = 6; left > 0; left -= 1) {
      await page.locator('form.assign').waitFor();
      await act(page.keyboard.press('Alt+a'));
      await page.locator('form.assign').waitFor({ state: 'detached' });
      if (left === 1) break;
      await page.locator('.cm-content').first().focus();
      await act(page.keyboard.press('Alt+ArrowDown'));
    }
    expect(acts).toBeLessThanOrEqual(17);
    await page.getByRole('link', { name: 'Pieces', exact: true }).click();
    await page.getByText('Phrase 2').nth(2).waitFor();
    expect(await page.getByText(/^Phrase [12]$/).count()).toBeGreaterThanOrEqual(6);
  });
});

/** What is said of a lesson of ten minutes. */
const TEN_MINUTES = `Right, so this is the whole intro and the first half of the verse, about ten minutes worth I'd say.

[0:04] The intro. It opens on the A string: open A twice, then 3 on the A, 5 on the A, and then you slide from 5 up to 7. Let that ring.
Next lick: on the D string five, seven, then five and seven on the G, and you bend that last seven up a whole step and let it down.

[0:21] Verse. Power chord at five on the low E, palm muted, four times, then a power chord at three, twice, then open E.
Next lick: hammer from five to seven on the G, pull back to five, then seven on the D with some vibrato.

[0:38] The solo. Start at the twelfth fret on the high E, fifteen on the B, bend it a full step, pick it again, then twelve on the B.
Next lick: fifteen twelve on the high E, fifteen twelve on the B, fourteen on the G, sorry, fourteen twelve on the G, then rake into 12 on the high E.`;
