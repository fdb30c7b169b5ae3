import { afterAll, beforeAll, describe, expect } from '@jest/globals';
import type { Page } from 'playwright-core';
import { openStage, type Stage } from './stage.ts';
import { stepsOf } from './steps.ts';

let stage: Stage;
let page: Page;
beforeAll(async () => {
  stage = await openStage();
  page = await stage.enter('mara');
});
afterAll(() => stage.close());

async function openLesson(name: string): Promise<void> {
  await page.getByRole('link', { name: 'Lesson', exact: true }).click();
  await page.getByRole('combobox', { name: 'Student' }).click();
  await page.getByRole('option', { name }).click();
  await page.getByRole('list', { name: 'To hear' }).waitFor();
}

describe('a lesson, heard and written up', () => {
  const step = stepsOf('lesson', () => [page]);
  const list = () => page.getByRole('region', { name: 'Hearing list' });
  const summary = () => page.getByRole('region', { name: 'Summary of the lesson' });
  const chosen = () => page.getByRole('list', { name: 'To hear' }).getByRole('button', { pressed: true });

  step('what the last one came to is at hand, and the first thing to hear is open', async () => {
    await openLesson('Ines Harrowmere');
    await page.getByText(/^Last time/).click();
    await page.getByText('She rushes the bend when she is tired').waitFor();
    await page.getByRole('button', { name: 'Go on writing it' }).click();
    await summary().getByLabel('For the studio').fill('She rushes the bend when tired; begin at 60.');
    await summary().getByText('saved', { exact: true }).waitFor();
    await page.getByRole('button', { name: 'Back to the pieces' }).click();
    await page.reload();
    await openLesson('Ines Harrowmere');
    await page.getByText(/^Last time/).click();
    await page.getByText('She rushes the bend when tired; begin at 60.').waitFor();
    await chosen().getByText('Climb to the top').waitFor();
  });

  step('its hearing list comes from its own marks; points are ticked and remarked on by key', async () => {
    await page.keyboard.press('ArrowDown');
    await page.getByRole('heading', { name: /^Answer target/ }).waitFor();
    await list()
      .getByText(/is hammered from 7, not picked/)
      .waitFor();
    await page.keyboard.press('t');
    await page.getByText('Heard, and right.').waitFor();
    await list().getByRole('img', { name: 'right', exact: true }).waitFor();
    await page.keyboard.press('j');
    await page.keyboard.press('k');
    await page.keyboard.press('r');
    await page.keyboard.type('let it ring longer');
    await page.keyboard.press('Enter');
    await list().getByRole('img', { name: 'not right yet' }).waitFor();
    await list().getByText('let it ring longer').waitFor();
    await page.keyboard.press('Escape');
    await page.evaluate(() => {
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    });
  });

  step('the engraved tab is stepped through and heard, and a watch-out is pinned to an event', async () => {
    await page.keyboard.press('ArrowRight');
    await page
      .getByText(/bar 1, beat 1/)
      .first()
      .waitFor();
    await page.getByLabel(/^Watch out, at bar 1/).fill('quietly');
    await page.getByRole('button', { name: 'Pin it' }).click();
    await page.getByRole('region', { name: 'Pinned notes' }).getByText('quietly').waitFor();
    await page.keyboard.press('h');
    await page.getByRole('button', { name: /Counting in|Stop/ }).waitFor();
    await page.keyboard.press('h');
    await page.getByRole('button', { name: /^Hear it at/ }).waitFor();
  });

  step('what is clean is inked, and stands in the summary with the tempo it is assigned at', async () => {
    const bpm = parseInt(await page.getByLabel('Played at').inputValue(), 10);
    await page.keyboard.press('c');
    await page.getByText(`${bpm}, clean is posted in ink.`).waitFor();
    await page.keyboard.press('e');
    await summary()
      .getByText(new RegExp(`${bpm} clean · Answer`))
      .waitFor();
    const tempo = summary().getByLabel('Tempo of Answer');
    await tempo.fill('70');
    await tempo.blur();
    await summary()
      .getByLabel(/takes home/)
      .fill('Ten minutes, hammer-ons first.');
    await summary().getByLabel('For the studio').fill('Good ears today.');
    await summary().getByText('saved', { exact: true }).waitFor();
    await summary().getByRole('button', { name: 'Share with the student' }).click();
    await page.getByText(/It is written home/).waitFor();
  });

  step('it can be changed until the next lesson, with what it was before', async () => {
    await page.reload();
    await page.getByRole('heading', { name: /target/ }).waitFor();
    await page.keyboard.press('e');
    const home = summary().getByLabel(/takes home/);
    expect(await home.inputValue()).toBe('Ten minutes, hammer-ons first.');
    await home.fill('Fifteen minutes, hammer-ons first.');
    await summary()
      .getByText(/^What it was before/)
      .click();
    await summary().getByText('Ten minutes, hammer-ons first.').first().waitFor();
  });

  step('the student reads what goes home, and practises at that tempo’s piece', async () => {
    const ines = await stage.enter('ines');
    await ines.getByRole('link', { name: 'Lessons' }).click();
    await ines.getByText('Fifteen minutes, hammer-ons first.').waitFor();
    expect(await ines.getByText('Good ears today.').count()).toBe(0);
    await ines.getByRole('listitem').filter({ hasText: 'at 70' }).getByRole('link', { name: 'Answer' }).click();
    await ines.getByRole('heading', { name: 'Answer', level: 1 }).waitFor();
    await ines.getByText('quietly').first().waitFor();
    await ines.close();
  });
});

describe('lessons of pieces', () => {
  const step = stepsOf('spreading', () => [page]);
  const moves = () => page.getByRole('region', { name: 'Lessons to accept' });

  step('are proposed, accepted, and undone', async () => {
    await page.getByRole('link', { name: 'Songs', exact: true }).click();
    await page.getByRole('link', { name: /Slow Tide/ }).click();
    await page.getByRole('link', { name: 'Pieces', exact: true }).click();
    await moves()
      .getByText(/pieces are spread over the coming lessons/)
      .waitFor();
    await moves().getByRole('button', { name: 'Accept the lessons' }).click();
    await moves().waitFor({ state: 'detached' });
    await page.getByText('Saved.').waitFor();
  });

  step('one put into a lesson by hand stays there; what moves for it says why', async () => {
    const waiting = page.getByRole('option').filter({ hasText: /for \d/ });
    await waiting.first().click();
    await page.getByRole('combobox', { name: 'Begin in the lesson of' }).click();
    await page
      .getByRole('option')
      .filter({ hasText: /\d+ \w+$/ })
      .nth(1)
      .click();
    await page.getByText('Saved.').waitFor();
    const chosen = await page.getByRole('combobox', { name: 'Begin in the lesson of' }).innerText();
    await page.reload();
    await waiting.first().click();
    expect(await page.getByRole('combobox', { name: 'Begin in the lesson of' }).innerText()).toBe(chosen);
  });

  step('after a lesson falls out, its pieces move and say so', async () => {
    await page.getByRole('link', { name: 'Series', exact: true }).click();
    await page.getByRole('button', { name: /Ines Harrowmere/ }).click();
    const lessons = page.getByRole('region', { name: 'Friday blues' });
    await lessons.getByText(/of 17 pieces are there/).waitFor();
    await lessons.getByRole('button', { name: 'Cancel this lesson' }).first().click();
    await page.getByText(/is left out\.$/).waitFor();
    await page.getByRole('link', { name: 'Songs', exact: true }).click();
    await page.getByRole('link', { name: /Slow Tide/ }).click();
    await page.getByRole('link', { name: 'Pieces', exact: true }).click();
    await moves()
      .getByText(/There is no lesson on that day any more/)
      .first()
      .waitFor();
    await moves().getByRole('button', { name: 'Accept the lessons' }).click();
    await moves().waitFor({ state: 'detached' });
  });
});

describe('hours and promises', () => {
  const step = stepsOf('hours', () => [page]);
  const weir = () => page.getByRole('listitem').filter({ hasText: 'The Weir Song' }).last();

  step('a timer is started and stopped, and runs on over pages', async () => {
    await page.getByRole('link', { name: /^Requests( \d+ new)?$/ }).click();
    await weir().getByRole('button', { name: 'Start the timer' }).click();
    await weir().getByRole('button', { name: 'Stop the timer, 0 min' }).waitFor();
    await page.getByRole('link', { name: /^Desk( \d+ new)?$/ }).click();
    await page.getByRole('heading', { name: 'Desk' }).waitFor();
    await page.getByRole('link', { name: /^Requests( \d+ new)?$/ }).click();
    await weir()
      .getByRole('button', { name: /^Stop the timer/ })
      .click();
    await weir().getByRole('button', { name: 'Start the timer' }).waitFor();
  });

  step('an agreed request is promised for the earliest honest day, which the student sees', async () => {
    await weir().getByRole('button', { name: 'Agree on the scope' }).click();
    await weir().getByRole('button', { name: 'Agreed', exact: true }).click();
    await weir().getByRole('button', { name: 'Promise a day' }).click();
    await weir().getByRole('button', { name: 'Promise', exact: true }).click();
    await weir()
      .getByText(/^Promised for/)
      .waitFor();
    const ferris = await stage.enter('ferris');
    await ferris.getByRole('link', { name: 'Requests' }).click();
    await ferris.getByText(/^Promised for/).waitFor();
    await ferris.close();
  });

  step('parts are handed out lesson by lesson, and ticked off', async () => {
    await page.getByRole('link', { name: 'Series', exact: true }).click();
    await page.getByRole('button', { name: /Ferris Oldegard/ }).click();
    const parts = page.getByRole('region', { name: 'Handed out in parts' });
    await parts.getByRole('checkbox', { name: /^intro/ }).check();
    await page.getByText('“intro, The Weir Song” is handed out.').waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await parts.getByRole('checkbox', { name: /^intro/, checked: false }).waitFor();
  });

  step('two lessons change places, and back', async () => {
    await page.getByRole('button', { name: /Pia Lindquay/ }).click();
    const lessons = page.getByRole('region', { name: 'Songs to sing' });
    await lessons.getByRole('button', { name: 'Swap' }).first().click();
    await lessons.getByRole('combobox', { name: 'The other lesson' }).click();
    await page
      .getByRole('option', { name: /Tomas Brackwater/ })
      .first()
      .click();
    await page.getByText('Pia Lindquay and Tomas Brackwater have changed places.').waitFor();
    await lessons.getByText('moved', { exact: true }).waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await lessons.getByText('17:30').waitFor({ state: 'detached' });
  });
});
