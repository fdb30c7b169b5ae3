import { readFile } from 'node:fs/promises';
import { AxeBuilder } from '@axe-core/playwright';
import { afterAll, beforeAll, describe, expect } from '@jest/globals';
import type { Page } from 'playwright-core';
import { openStage, signIn, type Stage } from './stage.ts';
import { stepsOf } from './steps.ts';

let stage: Stage;
let odile: Page;
let mara: Page;
beforeAll(async () => {
  stage = await openStage();
  odile = await stage.enter('odile');
  mara = await stage.enter('mara');
}, 120_000);
afterAll(() => stage.close());

/** What the published accessibility rules find (WCAG 2.1, A and AA, by axe-core), and whether the page scrolls sideways. */
async function faults(page: Page): Promise<readonly string[]> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'])
    .analyze();
  const { width, inner } = await page.evaluate(() => ({
    width: document.documentElement.scrollWidth,
    inner: document.documentElement.clientWidth,
  }));
  return [
    ...violations.flatMap(({ id, nodes }) => nodes.map(({ html }) => `${id}: ${html}`)),
    ...(width > inner ? [`scrolls sideways by ${width - inner} px`] : []),
  ];
}

describe('what was written for one goes to another', () => {
  const step = stepsOf('copies', () => [mara]);

  step('a phrase is copied for Pia, what changes is shown first', async () => {
    await mara.goto('/songs');
    await mara.getByRole('link', { name: /Slow Tide/ }).click();
    await mara.getByRole('button', { name: 'Copy for another student' }).click();
    const dialog = mara.getByRole('dialog', { name: 'Copy for another student' });
    await dialog.getByRole('combobox', { name: 'For' }).click();
    await mara.getByRole('option', { name: 'Pia Lindquay' }).click();
    await dialog.getByText(/Pia Lindquay’s guitar and hand/).waitFor();
    expect(await faults(mara)).toEqual([]);
    await dialog.getByRole('button', { name: 'Copy', exact: true }).click();
    await mara.getByRole('button', { name: 'Open it' }).click();
    await mara.getByText('for Pia Lindquay').waitFor();
    await mara.locator('[data-ready="true"] svg').first().waitFor();
  });

  step('a phrase that is struck out is put back from the list, after any time', async () => {
    await mara.getByRole('button', { name: 'Strike out Opening bend' }).click();
    await mara.getByText('“Opening bend” is struck out.').waitFor();
    await mara.reload();
    await mara.getByRole('button', { name: 'Struck out', exact: true }).click();
    await mara.getByRole('button', { name: 'Put phrase Opening bend back' }).click();
    await mara.getByText('Nothing is struck out here.').waitFor();
    await mara.keyboard.press('Escape');
    await mara.getByRole('button', { name: 'Strike out Opening bend' }).waitFor();
  });

  step('a lick of her own is for nobody yet', async () => {
    await mara.goto('/licks');
    await mara.getByRole('button', { name: 'Add a lick' }).click();
    await mara.getByRole('button', { name: 'Save the lick' }).click();
    await mara.getByText('This must not be empty.').first().waitFor();
    await mara.getByLabel('Name', { exact: true }).fill('Turnaround');
    await mara.getByLabel('How it goes').fill('5G 7Gb1r 5G 7D');
    await mara.getByRole('button', { name: 'Save the lick' }).click();
    await mara.getByText('For nobody yet').waitFor();
    await mara.locator('[data-ready="true"] svg').first().waitFor();
    expect(await mara.getByRole('form', { name: 'Assign as a practice piece' }).count()).toBe(0);
  });
});

describe('the owner’s book', () => {
  const step = stepsOf('book', () => [odile]);

  step('is backed up, and the backup is taken along', async () => {
    await odile.goto('/studio');
    await odile.getByRole('link', { name: 'Backups and trail' }).click();
    await odile.getByText('No backup is made yet').waitFor();
    await odile.getByRole('button', { name: 'Back up now' }).click();
    await odile.getByText(/^jam-ledger-.* is made\.$/).waitFor();
    const coming = odile.waitForEvent('download');
    await odile.getByRole('link', { name: /^Download the backup/ }).click();
    const file = await (await coming).path();
    expect((await readFile(file)).subarray(0, 2).toString()).toBe('PK');
    expect(await faults(odile)).toEqual([]);
    await odile.setViewportSize({ width: 360, height: 740 });
    expect(await faults(odile)).toEqual([]);
    await odile.setViewportSize({ width: 1280, height: 800 });
  });

  step('a student is to be erased, by their name typed, and is kept', async () => {
    await odile.goto('/studio');
    await odile.getByRole('button', { name: 'Archive Ferris Oldegard' }).click();
    await odile.getByRole('alertdialog').getByRole('button', { name: 'Archive' }).click();
    await odile.getByRole('button', { name: 'Erase Ferris Oldegard' }).click();
    const dialog = odile.getByRole('dialog', { name: 'Erase Ferris Oldegard?' });
    await dialog.getByRole('textbox').fill('Ferris');
    await dialog.getByRole('button', { name: 'Erase in 7 days' }).click();
    await dialog.getByText('Type Ferris Oldegard, so that').waitFor();
    await dialog.getByRole('textbox').fill('Ferris Oldegard');
    await dialog.getByRole('button', { name: 'Erase in 7 days' }).click();
    await odile.getByText(/^erased on /).waitFor();
    await odile.goto('/studio/book');
    await odile.getByRole('button', { name: 'Do not erase Ferris Oldegard' }).click();
    await odile.getByText('Odile Skerryvane kept Ferris Oldegard from being erased').waitFor();
  });

  step('goes back to the backup with the password, and everybody signs in again', async () => {
    await odile.getByRole('button', { name: /^Restore the backup/ }).click();
    const dialog = odile.getByRole('dialog', { name: 'Restore this backup?' });
    await dialog.getByLabel('Your password').fill('not this');
    await dialog.getByRole('button', { name: 'Restore' }).click();
    await dialog.getByText('This is not your password.').waitFor();
    await dialog.getByLabel('Your password').fill('keys-and-deeds');
    await dialog.getByRole('button', { name: 'Restore' }).click();
    await odile.getByText(/The book was restored, and everybody is signed out/).waitFor();
    await signIn(odile, 'odile');
    await odile.goto('/studio/book');
    await odile.getByText(/restored: as of/).waitFor();
    await odile.goto('/studio');
    await odile.getByRole('button', { name: 'Archive Ferris Oldegard' }).waitFor();
  });

  step('one signs out everywhere', async () => {
    const other = await stage.enter('odile');
    await odile.goto('/account');
    await odile.getByRole('button', { name: 'Sign out everywhere' }).click();
    await odile.getByText('You are signed out on every device.').waitFor();
    await other.reload();
    await other.getByRole('button', { name: 'Sign in' }).waitFor();
  });
});
