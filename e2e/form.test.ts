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
});
afterAll(() => stage.close());

describe('the form', () => {
  test('says where clock, bars and phrases do not agree, mends it, and takes that back', async () => {
    const margin = page.getByRole('list', { name: 'What does not agree in the form' });
    expect(await margin.count()).toBe(0);
    await page.getByRole('button', { name: 'Change section' }).click();
    const form = page.getByRole('form', { name: 'Section' });
    await form.getByLabel('Bars').fill('12');
    await form.getByRole('button', { name: 'Save' }).click();
    await margin.getByText('From 1A to 1B are 11.4 s (± 1 s), but 12 bars at 84 bpm take 34.3 s').waitFor();
    await margin.getByText('The phrases of 1A fill 4 of its 12 bars.').waitFor();
    await margin.getByRole('button', { name: 'Make it 4 bars' }).click();
    await page.getByText('1A now has 4 bars.').waitFor();
    expect(await margin.count()).toBe(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await margin.getByText('The phrases of 1A fill 4 of its 12 bars.').waitFor();
    await margin.getByRole('button', { name: 'Make it 4 bars' }).click();
    await margin.waitFor({ state: 'detached' });
  });

  test('a tempo is tapped, with its uncertainty, and used', async () => {
    await page.getByRole('button', { name: 'Set up' }).click();
    const tap = page.getByRole('button', { name: 'Tap', exact: true });
    await tap.focus();
    const told = page.getByText(/bpm, between/);
    // A machine that stands still for a moment begins a new row of taps; they go on until there are enough.
    for (let beat = 0; beat < 60 && (beat < 8 || !(await told.isVisible())); beat += 1) {
      await page.keyboard.press('Space');
      // The taps themselves are what is timed here, not something awaited.
      await new Promise((done) => setTimeout(done, 500));
    }
    await told.waitFor();
    await page.getByRole('button', { name: 'Use it' }).click();
    const tempo = Number(await page.getByRole('spinbutton', { name: 'Tempo' }).inputValue());
    expect(tempo).toBeGreaterThan(30);
    expect(tempo).toBeLessThan(125);
    await page.getByRole('button', { name: 'Cancel' }).click();
  });

  test('a phrase that is an earlier one, moved, is told while it is typed', async () => {
    await page.getByRole('button', { name: /^1B/ }).click();
    await page.getByRole('button', { name: 'Last word' }).first().click();
    const editor = page.getByRole('textbox', { name: 'Fret shorthand' });
    await editor.click();
    await page.keyboard.press('Control+a');
    await page.keyboard.insertText(':A7 /8 7G 9Gb1r 7G 9D /4 9D~ - | /8 7B 10Bb1 7e 10Bb.5r /4 7B~ - |');
    await page.getByText('1A Opening bend, moved up 2 frets.').waitFor();
    await page.getByRole('button', { name: 'Show it' }).click();
    await page.getByRole('region', { name: 'Section 1A' }).waitFor();
    expect(await page.getByLabel('Name of the phrase').inputValue()).toBe('Opening bend');
  });
});

describe('laying out a song', () => {
  const strip = () => page.getByRole('region', { name: 'Form of the song, to scale against the clock' });
  const blocks = () => strip().getByRole('group', { name: 'lead' }).getByRole('button');
  const margin = () => page.getByRole('list', { name: 'What does not agree in the form' });
  const sectionForm = () => page.getByRole('form', { name: 'Section' });

  test('repeats are folded and unfolded, the last time with what is different', async () => {
    await page.goto('/songs');
    await page.getByRole('link', { name: /Copper Kettle/ }).click();
    await page.locator('[data-ready="true"] svg').first().waitFor();
    expect(await blocks().allInnerTexts()).toEqual([
      expect.stringMatching(/^1A\s*4×\s*0:06\s+last time stops on the power chord$/),
      expect.stringMatching(/^1B\s*0:21.2$/),
    ]);
    await strip().getByRole('button', { name: 'Unfold the repeats (f)' }).click();
    expect(await blocks().count()).toBe(5);
    await blocks().first().focus();
    await page.keyboard.press('f');
    expect(await blocks().count()).toBe(2);
  });

  test('stamp, bar and beat stand where the pointer is', async () => {
    const view = await strip().locator('.view').boundingBox();
    // The strip shows 74 s; a quarter of it is 18.5 s, the fourth time round.
    await page.mouse.move((view?.x ?? 0) + (view?.width ?? 0) / 4, (view?.y ?? 0) + 30);
    await strip()
      .getByText(/^0:18.5 · 1A, time 4, bar 1, beat 3.\d · bar 7 of the song · bridge pickup, driven$/)
      .waitFor();
  });

  test('a boundary is moved by key and by mouse, told against the bars, and moved back', async () => {
    await blocks().nth(1).focus();
    for (let step = 0; step < 2; step += 1) {
      await page.keyboard.press('Alt+Shift+ArrowRight');
      await page.getByText(`1B starts at 0:${22 + step}.2.`).waitFor();
    }
    await margin()
      .getByText(/From 1A to 1B are 17.2 s \(± 1 s\), but 8 bars at 126 bpm take 15.2 s/)
      .waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await strip().getByText('0:22.2').waitFor();
    const edge = await blocks().nth(1).locator('.edge').boundingBox();
    const view = await strip().locator('.view').boundingBox();
    const place = (view?.x ?? 0) + ((view?.width ?? 0) * 21.2) / 74;
    await page.mouse.move((edge?.x ?? 0) + 2, (edge?.y ?? 0) + 10);
    await page.mouse.down();
    await page.mouse.move(place, (edge?.y ?? 0) + 12, { steps: 4 });
    await page.mouse.up();
    await page.getByText(/^1B starts at 0:21\.[123]\.$/).waitFor();
    await margin().waitFor({ state: 'detached' });
  });

  test('an open repeat with something after it has no way out, and that is fixed', async () => {
    await blocks().first().click();
    await page.getByRole('button', { name: 'Change section' }).click();
    await sectionForm().getByLabel('about so often, to the fade').check();
    await sectionForm().getByRole('button', { name: 'Save' }).click();
    await margin()
      .getByText(/its last pass has no way out/)
      .waitFor();
    await page.getByText('from 0:06, 2 bars, about 4 times').waitFor();
    await margin().getByRole('button', { name: 'Play it 4 times' }).click();
    await margin().waitFor({ state: 'detached' });
  });

  test('a jump back is laid out; one that leads nowhere is refused in words', async () => {
    await blocks().nth(1).click();
    await page.getByRole('button', { name: 'Change section' }).click();
    await sectionForm().getByRole('combobox', { name: 'After it' }).click();
    await page.getByRole('option', { name: 'back to 1A' }).click();
    await sectionForm().getByRole('button', { name: 'Save' }).click();
    await page.getByRole('button', { name: 'Unfold the repeats (f)' }).click();
    await blocks().nth(9).waitFor();
    expect((await blocks().allInnerTexts()).map((text) => text.slice(0, 2))).toEqual([
      '1A',
      '1A',
      '1A',
      '1A',
      '1B',
      '1A',
      '1A',
      '1A',
      '1A',
      '1B',
    ]);
    await page.getByRole('button', { name: 'Change section' }).click();
    await sectionForm().getByRole('combobox', { name: 'After it' }).click();
    await page.getByRole('option', { name: 'go on' }).click();
    await sectionForm().getByLabel('Bars', { exact: true }).fill('0');
    await sectionForm().getByRole('button', { name: 'Save' }).click();
    await sectionForm().getByText('This must be at least 1.').waitFor();
    await sectionForm().getByLabel('Bars', { exact: true }).fill('2');
    await sectionForm().getByRole('button', { name: 'Save' }).click();
    await sectionForm().waitFor({ state: 'detached' });
    await page.getByRole('button', { name: 'Fold the repeats (f)' }).click();
  });

  test('a section is dropped in time with the running clock', async () => {
    await strip()
      .locator('.ruler')
      .click({ position: { x: 700, y: 5 } });
    await blocks().first().focus();
    await page.keyboard.press('p');
    await strip().getByRole('button', { name: 'Stop the clock (p)' }).waitFor();
    await page.keyboard.press('d');
    await blocks().nth(2).waitFor();
    await page.keyboard.press('p');
    expect(await blocks().nth(2).innerText()).toMatch(/^1C\s*0:4\d/);
    await page.getByRole('button', { name: 'Strike out', exact: true }).click();
    await blocks().nth(2).waitFor({ state: 'detached' });
  });

  test('two people at one section: a sentence, and nothing typed is lost', async () => {
    const other = await stage.enter('odile');
    await other.goto(page.url());
    await other.getByRole('button', { name: 'Change section' }).click();
    await blocks().first().click();
    await page.getByRole('button', { name: 'Change section' }).click();
    await sectionForm().getByLabel('Role').fill('the main riff');
    await sectionForm().getByRole('button', { name: 'Save' }).click();
    await page.getByText('the main riff').first().waitFor();
    const theirs = other.getByRole('form', { name: 'Section' });
    await theirs.getByLabel('Role').fill('verse riff');
    await theirs.getByRole('button', { name: 'Save' }).click();
    await theirs.getByText(/Somebody changed this in the meantime, and nothing was overwritten/).waitFor();
    expect(await theirs.getByLabel('Role').inputValue()).toBe('verse riff');
    await theirs.getByRole('button', { name: 'Save' }).click();
    await other.getByText('verse riff').first().waitFor();
    await other.close();
    await page.reload();
    await page.locator('[data-ready="true"] svg').first().waitFor();
  });
});

describe('the set-up', () => {
  const form = () => page.getByRole('form', { name: 'Set-up' });

  test('another tuning tells which notes change, and moves them', async () => {
    await page.getByRole('button', { name: 'Set up' }).click();
    await form().getByRole('combobox', { name: 'Tuning' }).click();
    await page.getByRole('option', { name: 'by its strings …' }).click();
    await form().getByLabel('Strings').fill('C2 nonsense');
    await form().getByRole('button', { name: 'Save the set-up' }).click();
    await form()
      .getByText(/This is no tuning: name one, or write 4 to 9 open strings/)
      .waitFor();
    await form().getByLabel('Strings').fill('C2 A2 D3 G3 B3 E4');
    await form().getByRole('button', { name: 'Save the set-up' }).click();
    const note = page.getByRole('status', { name: 'What the new tuning changes' });
    await note.getByText(/13 written notes of 2 phrases would sound at another pitch/).waitFor();
    await note.getByRole('button', { name: 'Move them to sound as before' }).click();
    await page.getByText('2 phrases are moved; the versions before are kept.').waitFor();
    await page.getByRole('textbox', { name: 'Fret shorthand' }).getByText('2E%2').first().waitFor();
  });

  test('the recording’s pitch: Hz for each string, or the speed of the playback', async () => {
    await page.getByRole('button', { name: 'Set up' }).click();
    await form().getByLabel('Recording is off by').fill('-20');
    await form().getByLabel('Recording is off by').press('Tab');
    await form().getByText('A2 108.74 Hz').waitFor();
    await form().getByRole('combobox', { name: 'To match it' }).click();
    await page.getByRole('option', { name: 'shift the playback' }).click();
    await form()
      .getByText(/Play the recording 1.0116 times as fast \(1.16 %\)/)
      .waitFor();
  });

  test('a tempo from two stamps and the bars between, as a range; changes and rig notes with their places', async () => {
    const stamps = form().getByRole('group', { name: 'Tempo from two stamps' });
    await stamps.getByLabel('From').fill('0:17');
    await stamps.getByLabel('To', { exact: true }).fill('0:33');
    await stamps.getByLabel('Bars between').fill('8');
    await stamps.getByText('120.0 bpm, between 112.9 and 128.0').waitFor();
    await form().getByRole('button', { name: 'Add a change' }).click();
    await form().getByLabel('Change 1 at').fill('0:40');
    await form().getByLabel('Meter of change 1').fill('3/5');
    await form().getByRole('button', { name: 'Save the set-up' }).click();
    await form().getByText('Line 1: This is not a meter such as 4/4 or 6/8.').waitFor();
    await form().getByLabel('Meter of change 1').fill('3/4');
    await form().getByLabel('Key of change 1').fill('H');
    await form().getByRole('button', { name: 'Save the set-up' }).click();
    await form()
      .getByText(/Line 1: This is no key/)
      .waitFor();
    await form().getByLabel('Key of change 1').fill('C lydian');
    await form().getByLabel('Rig note 1 to').fill('0:00');
    await form().getByRole('button', { name: 'Save the set-up' }).click();
    await form().getByText('Line 1: This must be after the start.').waitFor();
    await form().getByLabel('Rig note 1 to').fill('0:20');
    await form().getByRole('button', { name: 'Save the set-up' }).click();
    await form().waitFor({ state: 'detached' });
  });
});

describe('evidence', () => {
  const evidence = () => page.getByRole('region', { name: 'Evidence' });
  const editor = () => page.getByRole('textbox', { name: 'Fret shorthand' });
  const text = async () => (await editor().locator('.cm-line').allInnerTexts()).join('\n');

  test('a phrase is checked against something; a changed text is a draft again', async () => {
    await evidence().getByRole('button', { name: 'Check it off …' }).click();
    await evidence().getByRole('button', { name: 'Checked', exact: true }).click();
    await evidence().getByText('Say against what').waitFor();
    await evidence().getByLabel('Checked against').fill('the recording at half speed');
    await evidence().getByRole('button', { name: 'Checked', exact: true }).click();
    await evidence()
      .getByText(/Checked against the recording at half speed by Mara Tenfold/)
      .waitFor();
    await editor().click();
    await page.keyboard.press('Control+End');
    await page.keyboard.type(' | 9G');
    await evidence().getByText('A draft.').waitFor();
  });

  test('versions are compared event by event, and gone back to', async () => {
    const before = await text();
    await page.getByRole('button', { name: 'Earlier versions' }).click();
    const earlier = page.getByRole('region', { name: 'Earlier versions' });
    await earlier
      .getByRole('button', { name: /until .* Mara Tenfold/ })
      .first()
      .click();
    await earlier.getByRole('list', { name: 'What changed since' }).getByText('bar 3, beat 1: 9G came in').waitFor();
    await earlier.getByRole('button', { name: 'Go back to it' }).click();
    expect(await text()).not.toContain('9G');
    await editor().click();
    await page.keyboard.press('Control+z');
    expect(await text()).toBe(before);
  });

  test('all that is not certain is gathered for a second listen, in playing order', async () => {
    await page.getByText('Second listen (2)').click();
    const list = page.getByRole('list', { name: 'What wants a second listen, in playing order' });
    expect((await list.getByRole('listitem').allInnerTexts()).map((one) => one.replaceAll(/\s+/g, ' '))).toEqual([
      '1B The break likely: two guitars there',
      '1B The break, bar 1, beat 3 7DG guess: could be 9',
    ]);
    await list.getByRole('button', { name: '1B The break', exact: true }).click();
    await page.getByLabel('Why, or where it was seen').and(page.locator('input')).waitFor();
    expect(await page.getByLabel('Why, or where it was seen').inputValue()).toBe('two guitars there');
  });

  test('another way is kept beside a phrase, and one is chosen for this student', async () => {
    await evidence().getByRole('button', { name: 'Keep another way beside it' }).click();
    const ways = evidence().getByRole('group', { name: 'Tomas Brackwater plays' });
    await ways.getByRole('button', { name: 'The break, another way' }).waitFor();
    await ways.getByRole('radio').nth(1).check();
    await page.getByRole('listitem').filter({ hasText: 'kept beside' }).getByText('The break').waitFor();
    expect(await ways.getByRole('radio').nth(1).isChecked()).toBe(true);
  });

  test('a phrase that is another one, moved, refers to it instead, and follows it', async () => {
    await page.getByRole('button', { name: 'Add a phrase' }).click();
    await page.waitForFunction(() => {
      const name = document.querySelector<HTMLInputElement>('[aria-label="Name of the phrase"]');
      return name?.value === 'Phrase 3';
    });
    await editor().click();
    await page.keyboard.press('Control+a');
    await page.keyboard.insertText('/16 7Dh9p7 9A 7D 9D s11 9D /4 {guess: "could be 9" 9DG} 7DG | /2 4E2AD - |');
    const likeness = page.getByRole('region', { name: 'Likeness' });
    await likeness
      .getByText(/moved up 2 frets/)
      .first()
      .waitFor();
    await likeness.getByRole('button', { name: 'Refer to it instead' }).first().click();
    await page.getByText(/This is “The break.*”, 2 frets higher; it changes along with it/).waitFor();
    await page.getByRole('button', { name: 'Write it out' }).click();
    await page.getByText(/it changes along with it/).waitFor({ state: 'detached' });
  });
});
