import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Locator, Page } from 'playwright-core';
import { openStage, settled, type Stage } from './stage.ts';

let stage: Stage;
let page: Page;
beforeAll(async () => {
  stage = await openStage();
  page = await stage.enter('mara');
  await openSong(page, /Slow Tide/);
});
afterAll(() => stage.close());

async function openSong(on: Page, title: RegExp): Promise<void> {
  await on.goto('/songs');
  await on.getByRole('link', { name: title }).click();
  await on.locator('[data-ready="true"] svg').first().waitFor();
  await on.getByRole('region', { name: 'How hard' }).waitFor();
}

const editor = (): Locator => page.getByRole('textbox', { name: 'Fret shorthand' });
const margin = (): Locator => page.getByRole('region', { name: 'Problems in the text' });
const part = (name: string): Locator => page.getByRole('region', { name });

async function type(text: string): Promise<void> {
  await editor().click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText(text);
}

/** Waits until the text on the desk is so. */
async function reads(text: string): Promise<void> {
  await page.locator('.cm-content').filter({ hasText: text }).waitFor();
}

describe('what hands and guitar have against a phrase', () => {
  test('a likely slip is told while it is typed, and fixed by a button', async () => {
    await type('/8 5G 7G 19G 5B 8B');
    await margin()
      .getByText('19 on G stands apart from what is around it; 7 on G would not (an octave away).')
      .waitFor();
    await margin().getByRole('button', { name: 'Make it 7 on G' }).click();
    await reads('/8 5G 7G 7G 5B 8B');
    await margin().getByText('Nothing to remark').waitFor();
  });

  test('a fret the guitar lacks goes to another string', async () => {
    await type('/8 17B 24B 20B');
    await margin().getByText('This guitar ends at fret 22; fret 24 is not there.').waitFor();
    await margin().getByRole('button', { name: 'Play 19 on the high e, the same pitch' }).click();
    await reads('/8 17B 19e 20B');
  });

  test('a bend without a size is given the next plain note’s', async () => {
    await type('/8 12Gb? 15G 12G');
    await margin().getByRole('button', { name: 'Bend a step and a half' }).click();
    await reads('/8 12Gb1.5 15G 12G');
  });

  test('heavy bends bring a caution, which is put away for the day', async () => {
    const care = part('Care');
    await care.getByText('Heavy bends').waitFor();
    await care.getByText('see a health professional').waitFor();
    await care.getByRole('button', { name: 'Not again today' }).click();
    await care.waitFor({ state: 'detached' });
    await page.reload();
    await part('How hard').waitFor();
    expect(await care.count()).toBe(0);
  });
});

describe('where, with which strokes, and how hard', () => {
  test('the hard spot is named, and is gone to', async () => {
    await type('/8 12e 12e 12e 12e 12e 19e 17e 19e');
    const spot = part('How hard').getByRole('button', {
      name: 'the jump from 12 to 19 on the high e, beat 3 of bar 1.',
    });
    await spot.click();
    expect(await page.evaluate(() => getSelection()?.toString())).toBe('19e');
  });

  test('fingers at the caret, with others and why; written in, and taken back', async () => {
    await type('/8 5G 7G 8G');
    await editor().press('Home');
    await part('Fingers and places')
      .getByText(/the hand at fret 5/)
      .waitFor();
    await part('Fingers and places').getByRole('button', { name: 'Write the fingers in' }).click();
    await reads('/8 5Gf1 7Gf3 8Gf4');
    await editor().press('Control+z');
    await reads('/8 5G 7G 8G');
  });

  test('the cheapest places, with a string avoided and what is selected left alone', async () => {
    await type('/8 5e 17B 5e');
    const places = part('Fingers and places');
    await places.getByRole('button', { name: 'Cheapest places' }).click();
    await page.getByText(/Saves the hand \d+ ms of work/).waitFor();
    const text = await editor().innerText();
    expect(text).not.toContain('17B');
    await type('/8 5e 8e 5e');
    await places.getByRole('combobox', { name: 'String to avoid' }).click();
    await page.getByRole('option', { name: 'not the high e' }).click();
    await places.getByRole('button', { name: 'Cheapest places' }).click();
    await page.getByText(/Costs the hand|Saves the hand|Nothing moves/).waitFor();
    await page.locator('.cm-content').filter({ hasNotText: 'e' }).waitFor();
    await editor().press('Control+a');
    await places.getByText('What is selected stays where it is.').waitFor();
  });

  test('a string over, with the B string right, and what cannot be kept', async () => {
    await type('/8 8B 5e 7G');
    await part('Fingers and places').getByRole('button', { name: 'A string thicker' }).click();
    await reads('/8 12G 10B 12D');
    await page.getByText('One string thicker, all of it.').waitFor();
  });

  test('strokes by plan, counted, turned round and written in', async () => {
    await type('/8 5D 7D 5G 7G');
    const strokes = part('Strokes');
    await strokes.getByText('No stroke is written; the player chooses.').waitFor();
    await strokes.getByRole('combobox').click();
    await page.getByRole('option', { name: 'alternate from down' }).click();
    await strokes.getByText('String changes: 0 outside, 1 inside.').waitFor();
    await strokes.getByText('Starting with the other stroke: 1 outside, 0 inside.').waitFor();
    await strokes.getByRole('button', { name: 'Write that' }).click();
    await reads('/8 5Du 7Dd 5Gu 7Gd');
  });

  test('the other school is one key away', async () => {
    await editor().press('Alt+o');
    await part('Fingers and places')
      .getByText(/The hand stays at fret \d+/)
      .waitFor();
    await editor().press('Alt+p');
    await part('Strokes').getByText('alternate from up').waitFor();
    const titles = () => page.locator('.foot h2').allInnerTexts();
    expect((await titles())[0]).toBe('Fingers and places');
    await editor().press('Alt+w');
    await page.locator('.foot h2').first().getByText('Harmony').waitFor();
  });

  test('what is new to the student comes with a drill', async () => {
    await type('/4 5G 7Gtr9');
    const hard = part('How hard');
    await hard.getByRole('button', { name: 'trill', exact: true }).waitFor();
    await hard.getByRole('button', { name: 'Add its drill' }).last().click();
    await page.getByText('“Drill: trill” is added to the section.').waitFor();
    await page.getByRole('button', { name: 'Drill: trill' }).first().click();
    await reads('/4 7Gtr9 - 7Gtr9 - | 7Gtr9 - 7Gtr9 -');
  });

  test('an octave down stands beside it as arranged, with what is different', async () => {
    await page
      .getByRole('button', { name: /^Answer/ })
      .first()
      .click();
    await type('/8 12B 15e 12e');
    await part('Made for this student').getByRole('button', { name: 'down an octave' }).click();
    await page.getByText('“Answer, down an octave” stands beside it.').waitFor();
    expect(await page.getByLabel('Name of the phrase').inputValue()).toBe('Answer, down an octave');
    expect(await part('Evidence').getByRole('textbox').first().inputValue()).toContain('All of it an octave lower');
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByText('stands beside it').waitFor({ state: 'detached' });
  });
});

describe('guitar and hand of a student', () => {
  test('a smaller reach is asked with one question, and the checks follow', async () => {
    await page.goto('/students');
    await page.getByRole('button', { name: 'Change guitar and hand of Ines Harrowmere' }).click();
    const form = page.getByRole('form', { name: 'Guitar and hand of Ines Harrowmere' });
    await form.getByLabel(/how many frets further/).fill('3');
    await form.getByLabel(/how many frets further/).press('Tab');
    await form.getByText('5 to 8 is 77 mm').waitFor();
    await form.getByText('left-handed').click();
    await form.getByRole('button', { name: 'Save' }).click();
    await page.getByText('5 to 8, 77 mm, left-handed').waitFor();
    await openSong(page, /Slow Tide/);
    expect(await page.getByRole('checkbox', { name: 'left-handed' }).isChecked()).toBe(true);
    await type('/2 5E9D');
    await margin().getByText('Spans 100 mm; this hand reaches 77 mm.').waitFor();
  });

  test('the neck is drawn mirrored for a left-handed student, and the same is written', async () => {
    const neck = page.getByRole('application', { name: /^Neck/ });
    await type('/8');
    await editor().press('End');
    const box = await neck.boundingBox();
    if (!box) throw new Error('the neck is not drawn');
    // The nut stands on the right.
    await neck.click({ position: { x: box.width - 5, y: 12 } });
    await reads('/8 0e');
  });

  test('the student sees the neck their way round', async () => {
    const ines = await stage.enter('ines', { viewport: { width: 390, height: 800 } });
    await ines.getByRole('link', { name: /Climb to the top/ }).click();
    await ines.locator('[data-ready="true"] svg').first().waitFor();
    await settled(ines);
    await ines.getByRole('checkbox', { name: 'neck' }).check();
    await ines.getByRole('img', { name: /as a left-handed player sees it/ }).waitFor();
    const wide = await ines.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(wide).toBeLessThanOrEqual(0);
  });

  test('the owner decides how the studio teaches, and can take it back', async () => {
    const odile = await stage.enter('odile');
    await odile.goto('/studio');
    const studio = odile.getByRole('region', { name: 'How the studio teaches' });
    await studio.getByRole('combobox', { name: 'Strokes' }).click();
    await odile.getByRole('option', { name: 'economy' }).click();
    await odile.getByText('How the studio teaches is saved.').waitFor();
    await openSong(odile, /Slow Tide/);
    await odile.getByRole('region', { name: 'Strokes' }).getByText('economy').waitFor();
  });
});

describe('licks', () => {
  test('are found by technique and by how they go, in any key and place', async () => {
    await page.goto('/licks');
    const list = page.getByRole('main').getByRole('listitem');
    await page.getByText(/^\d+ phrases/).waitFor();
    await page.getByRole('combobox', { name: 'Technique' }).click();
    await page.getByRole('option', { name: 'palm mute' }).click();
    await list.filter({ hasText: 'Kettle riff' }).waitFor();
    await page.getByRole('button', { name: 'Show all' }).click();
    await page.getByLabel('It goes like').fill('8D h10 p8 10A');
    await list.filter({ hasText: 'Rocking boat' }).waitFor({ state: 'detached' });
    await list.filter({ hasText: 'The break' }).waitFor();
    await page.getByLabel('Degrees in a row').fill('x');
    await page.getByText('Write degrees with blanks between').waitFor();
  });

  test('more like one, and to its place', async () => {
    await page.getByRole('button', { name: 'Show all' }).click();
    await page.getByRole('button', { name: 'More like Kettle riff' }).click();
    await page.getByText(/like “Kettle riff”/).waitFor();
    await page.getByRole('button', { name: 'Show all' }).click();
    await page.getByRole('link', { name: 'The break' }).click();
    await page.locator('.cm-content').waitFor();
    // The song opens at the phrase that was asked for, once it is there.
    await page.waitForFunction(
      (name) => [...document.querySelectorAll('input')].some(({ value }) => value === name),
      'The break',
    );
  });
});
