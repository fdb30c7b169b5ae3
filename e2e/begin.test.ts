import { afterAll, beforeAll, describe, expect } from '@jest/globals';
import type { Page } from 'playwright-core';
import { openStage, type Stage } from './stage.ts';
import { stepsOf } from './steps.ts';

const KEY = 'a-key-for-the-tests-of-the-first-page';
let stage: Stage;
let mara: Page;
let owner: Page;
beforeAll(async () => {
  process.env['BEGIN_KEY'] = KEY;
  stage = await openStage();
  delete process.env['BEGIN_KEY'];
  mara = await stage.enter('mara');
  owner = await (
    await stage.browser.newContext({ baseURL: stage.url, viewport: { width: 360, height: 740 } })
  ).newPage();
}, 120_000);
afterAll(() => stage.close());

describe('a studio of one’s own', () => {
  const step = stepsOf('begin', () => [mara, owner]);

  step('the demo says that it is one, and leads to the first page', async () => {
    await mara.getByText('The demo: everybody here is made up.').first().waitFor();
    await owner.goto('/');
    await owner.getByRole('link', { name: 'Begin your own studio' }).click();
    await owner.getByText(/everything in the demo is removed/).waitFor();
    await owner.getByLabel('Key').waitFor();
  });

  step('with the key of the start command, and every problem at its field', async () => {
    await owner.goto(`/begin#${KEY}`);
    await owner.getByRole('button', { name: 'Begin' }).click();
    await owner.locator('[aria-invalid="true"]').nth(2).waitFor();
    await owner.getByLabel('Name of the studio').fill('Lantern Street Guitar');
    await owner.getByLabel('Your name').fill('Wren Aldous');
    await owner.getByLabel('Name to sign in with').fill('wren');
    await owner.getByLabel('Password').fill('wren aldous wren');
    await owner.getByRole('button', { name: 'Begin' }).click();
    await owner.getByText(/Take something longer/).waitFor();
    expect(await owner.getByLabel('Name of the studio').inputValue()).toBe('Lantern Street Guitar');
    const width = await owner.evaluate(() => document.documentElement.scrollWidth);
    expect(width).toBeLessThanOrEqual(360);
    await owner.getByLabel('Password').fill('lantern copper tide 42');
    await owner.getByRole('button', { name: 'Begin' }).click();
    await owner.getByRole('heading', { name: 'The first day' }).waitFor();
  });

  step('whoever was in the demo is out of it', async () => {
    await mara.reload();
    await mara.getByRole('button', { name: 'Sign in' }).waitFor();
    expect(await mara.getByRole('link', { name: 'Begin your own studio' }).count()).toBe(0);
  });

  step('the owner renames the studio, and takes that back', async () => {
    await owner.goto('/studio');
    const name = owner.getByLabel('Name of the studio');
    await name.fill('Quay Guitar');
    await name.press('Tab');
    await owner.getByText('How the studio teaches is saved.').waitFor();
    await owner.getByRole('button', { name: 'Undo' }).click();
    await owner.waitForFunction(() =>
      [...document.querySelectorAll('input')].some(({ value }) => value === 'Lantern Street Guitar'),
    );
  });
});

describe('the first week', () => {
  const step = stepsOf('week-one', () => [owner]);

  step('a student is entered, and a name that was misheard is corrected', async () => {
    await owner.setViewportSize({ width: 1280, height: 800 });
    await owner.goto('/studio');
    await owner.getByRole('button', { name: 'Add a person' }).click();
    await owner.getByRole('form', { name: 'Add a person' }).getByRole('textbox').fill('Jonn Quill');
    await owner.getByRole('button', { name: 'Add', exact: true }).click();
    await owner.getByRole('button', { name: 'Edit Jonn Quill' }).click();
    const dialog = owner.getByRole('dialog', { name: 'Edit Jonn Quill' });
    await dialog.getByLabel('Name', { exact: true }).fill('Jon Quill');
    await dialog.getByLabel('Address for mail').fill('jon at home');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await dialog.getByText('This is no address for mail').waitFor();
    await dialog.getByLabel('Address for mail').fill('jon@home.example');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await owner.getByText('Jon Quill is saved.').waitFor();
  });

  step('what was asked in the lesson is written down, for somebody who does not sign in', async () => {
    await owner.goto('/requests');
    await owner.getByRole('button', { name: 'Add a request' }).click();
    await owner.getByLabel('Song', { exact: true }).fill('Old Harbour Shanty');
    await owner.getByRole('button', { name: 'Save the request' }).click();
    await owner.getByText('Say who asked for it.').waitFor();
    await owner.getByRole('combobox', { name: /Asked by/ }).click();
    await owner.getByRole('option', { name: 'Jon Quill' }).click();
    await owner
      .getByRole('checkbox', { name: /^riff.*/ })
      .first()
      .check();
    await owner.getByRole('button', { name: 'Save the request' }).click();
    await owner.getByText('“Old Harbour Shanty” is written down.').waitFor();
    await owner
      .getByRole('listitem')
      .filter({ hasText: 'Old Harbour Shanty' })
      .getByText('Jon Quill')
      .first()
      .waitFor();
  });

  step('a song that nobody asked for is begun', async () => {
    await owner.goto('/songs');
    await owner.getByRole('button', { name: 'Begin a song' }).click();
    await owner.getByRole('combobox', { name: /^For/ }).waitFor();
    await owner.getByLabel('Song', { exact: true }).fill('Warm-up of my own');
    await owner.getByRole('button', { name: 'Begin the song' }).click();
    await owner.getByRole('heading', { name: 'Warm-up of my own' }).waitFor();
    await owner.getByText('Lay out the form first').waitFor();
  });
});
