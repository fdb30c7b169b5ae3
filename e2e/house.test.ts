import { afterAll, beforeAll, describe, expect } from '@jest/globals';
import type { Page } from 'playwright-core';
import { ONE_ACT, openStage, type Stage } from './stage.ts';
import { stepsOf } from './steps.ts';

let stage: Stage;
let mara: Page;
let guest: Page;
let link = '';
beforeAll(async () => {
  stage = await openStage();
  mara = await stage.enter('mara');
});
afterAll(() => stage.close());

describe('people come and go', () => {
  const step = stepsOf('people', () => [mara]);
  const people = () => mara.getByRole('region', { name: 'People' });
  const row = (name: string) => people().getByRole('row').filter({ hasText: name });

  step('a teacher enters a guardian, who must have a child', async () => {
    await mara.getByRole('link', { name: 'Studio', exact: true }).click();
    await mara.getByRole('button', { name: 'Add a person' }).click();
    const form = mara.getByRole('form', { name: 'Add a person' });
    await form.getByRole('combobox', { name: 'Role' }).click();
    expect(await mara.getByRole('option').allInnerTexts()).toEqual(['student', 'guardian']);
    await mara.getByRole('option', { name: 'guardian' }).click();
    await form.getByLabel(/^Name/).fill('Una Harrowmere');
    await form.getByRole('button', { name: 'Add' }).click();
    await form.getByText('Say whose guardian this is.').waitFor();
    await form.getByRole('checkbox', { name: 'Ines Harrowmere' }).check();
    await form.getByRole('button', { name: 'Add' }).click();
    await row('Una Harrowmere').getByText('guardian of Ines Harrowmere').waitFor();
  });

  step('an invitation is shown once, and its message lies in the outbox', async () => {
    await mara.getByRole('button', { name: 'Invite Una Harrowmere' }).click();
    link = await mara.getByRole('status').locator('code').innerText();
    await row('Una Harrowmere')
      .getByText(/^invited until/)
      .waitFor();
    await mara
      .getByRole('region', { name: 'Outbox' })
      .getByText(/Your place in the book/)
      .waitFor();
    await mara.reload();
    await row('Una Harrowmere').waitFor();
    expect(await mara.getByText(link).isVisible()).toBe(false);
  });

  step('the link opens the book once: a name, a long password, then her child’s pages only to read', async () => {
    guest = await (await stage.browser.newContext({ baseURL: stage.url, locale: 'en-GB' })).newPage();
    guest.setDefaultTimeout(ONE_ACT);
    await guest.goto(link);
    await guest.getByText(/invites you, to read along/).waitFor();
    await guest.getByLabel('Name').fill('una');
    await guest.getByLabel('Password').fill('short');
    await guest.getByRole('button', { name: 'Sign in' }).click();
    await guest.getByText('This is too short: at least 10 characters.').waitFor();
    await guest.getByLabel('Password').fill('harbour-lights');
    await guest.getByRole('button', { name: 'Sign in' }).click();
    await guest.getByRole('heading', { name: 'Lessons', level: 1 }).waitFor();
    await guest.getByText('Ten minutes a day, bends first').waitFor();
    await guest.getByRole('link', { name: 'Ledger', exact: true }).click();
    await guest.getByRole('button', { name: 'Answer', exact: true }).waitFor();
    await guest.goto('/desk');
    await guest.getByRole('heading', { name: 'Lessons', level: 1 }).waitFor();
    await guest.getByRole('link', { name: 'How “Friday blues” goes' }).click();
    await guest.getByText(/lessons are done\./).waitFor();
    await guest.locator('.js-plotly-plot .bars').first().waitFor();
    const paper = (await guest.pdf({ format: 'A4' })).toString('latin1');
    expect(paper.match(/\/Type\s*\/Page\b/g)).toHaveLength(1);
    const stranger = await (await stage.browser.newContext({ baseURL: stage.url })).newPage();
    await stranger.goto(link);
    await stranger.getByText(/was used, or is over/).waitFor();
    await stranger.close();
  });

  step('she reads what her child does, and there is nothing to press that would change it', async () => {
    await guest.getByRole('link', { name: 'Ledger', exact: true }).click();
    await guest.getByRole('button', { name: 'Answer', exact: true }).click();
    await guest
      .getByText(/target \d+/)
      .first()
      .waitFor();
    expect(await guest.getByRole('button', { name: /strike|clean|not yet|post/i }).count()).toBe(0);
    expect(await guest.getByRole('navigation').getByRole('link').allInnerTexts()).not.toEqual(
      expect.arrayContaining(['Desk', 'Songs', 'Licks', 'Lesson', 'Students', 'Studio']),
    );
    for (const path of ['/songs', '/licks', '/students', '/studio', '/lesson', '/series', '/search?q=tide']) {
      await guest.goto(path);
      await guest.getByRole('heading', { name: 'Lessons', level: 1 }).waitFor();
    }
    // What her pages do not offer the server does not do, either.
    const { piece, status } = await guest.evaluate(async () => {
      const ledger = await (await fetch('/api/ledger')).json();
      const id: string = ledger.pieces[0].id;
      const body = JSON.stringify({ id: crypto.randomUUID(), bpm: 80, outcome: 'clean', remark: '' });
      const headers = { 'Content-Type': 'application/json' };
      const answer = await fetch(`/api/pieces/${id}/entries`, { method: 'POST', headers, body });
      return { piece: id, status: answer.status };
    });
    expect([piece.length, status]).toEqual([36, 403]);
    await guest.goto(`/practice/${piece}`);
    await guest.getByRole('button', { name: /^Hear it/ }).waitFor();
    expect(await guest.getByRole('button', { name: /^(Clean|Not yet|Pin it)/ }).count()).toBe(0);
  });

  step('she changes her password; the wrong one is told at its place', async () => {
    await guest.getByRole('link', { name: 'Una Harrowmere' }).click();
    await guest.getByLabel('Current password').fill('not-it');
    await guest.getByLabel(/^New password/).fill('harbour-lights-2');
    await guest.getByRole('button', { name: 'Change the password' }).click();
    await guest.getByText('This is not the password that holds.').waitFor();
    await guest.getByLabel('Current password').fill('harbour-lights');
    await guest.getByRole('button', { name: 'Change the password' }).click();
    await guest.getByText(/Your password is changed/).waitFor();
  });

  step('a student who leaves is asked about first, and comes back with all that is theirs', async () => {
    await mara.getByRole('button', { name: 'Archive Ferris Oldegard' }).click();
    await mara.getByText(/lessons? still to come leave the desk/).waitFor();
    await mara.getByRole('button', { name: 'Archive', exact: true }).click();
    await row('Ferris Oldegard').getByText('archived').waitFor();
    await mara.getByRole('link', { name: 'Series', exact: true }).click();
    await mara
      .getByRole('list', { name: 'Series' })
      .getByRole('button', { name: /Ines Harrowmere/ })
      .waitFor();
    expect(await mara.getByRole('button', { name: /Ferris Oldegard/ }).count()).toBe(0);
    await mara.getByRole('link', { name: 'Studio', exact: true }).click();
    await mara.getByRole('button', { name: 'Bring Ferris Oldegard back' }).click();
    await mara.getByText('Ferris Oldegard is back.').waitFor();
    await mara.getByRole('link', { name: 'Series', exact: true }).click();
    await mara
      .getByRole('list', { name: 'Series' })
      .getByRole('button', { name: /Ferris Oldegard/ })
      .waitFor();
  });
});

describe('the studio', () => {
  let odile: Page;
  beforeAll(async () => void (odile = await stage.enter('odile')));
  const step = stepsOf('studio', () => [odile]);

  step('a zone that does not exist is refused at its field', async () => {
    await odile.goto('/studio');
    const zone = odile.getByLabel(/^Time zone/);
    await zone.fill('Europe/Averrow');
    await zone.blur();
    await odile.getByText('There is no time zone “Europe/Averrow”.').waitFor();
  });

  step('a holiday takes lessons out of the series, and gives them back', async () => {
    await odile.goto('/series');
    await odile.getByRole('button', { name: /Ferris Oldegard/ }).click();
    const lessons = odile.getByRole('region', { name: 'Picking it up again' }).getByRole('listitem');
    await lessons.first().waitFor();
    const closed = await lessons.filter({ hasText: 'closed: low-tide week' }).count();
    await odile.goto('/studio');
    const holidays = odile.getByRole('region', { name: 'Holidays' });
    await holidays.getByRole('button', { name: 'Remove low-tide week' }).click();
    await holidays.getByText(/has no holidays/).waitFor();
    await odile.goto('/series');
    await odile.getByRole('button', { name: /Ferris Oldegard/ }).click();
    await lessons.first().waitFor();
    expect(await lessons.filter({ hasText: 'closed' }).count()).toBe(0);
    expect(closed).toBe(1);
  });

  step('strings are named by numbers where the studio does so, on the desk and in practice', async () => {
    await odile.goto('/studio');
    const studio = odile.getByRole('region', { name: 'How the studio teaches' });
    await studio.getByRole('combobox', { name: 'Strings are named' }).click();
    await odile.getByRole('option', { name: 'numbers' }).click();
    await odile.getByText('How the studio teaches is saved.').waitFor();
    const ines = await stage.enter('ines');
    await ines
      .getByRole('listitem')
      .getByRole('link', { name: /^Answer\b/ })
      .last()
      .click();
    await ines.locator('[data-ready="true"] svg').first().waitFor();
    await ines.keyboard.press('ArrowRight');
    await ines
      .getByText(/\d on string \d/)
      .first()
      .waitFor();
    await ines.close();
  });

  step('everything can be searched with a key, and found things lead to their place', async () => {
    await odile.goto('/desk');
    await odile.getByRole('heading', { name: 'Desk' }).waitFor();
    await odile.keyboard.press('/');
    await odile.getByRole('searchbox', { name: 'Search everything' }).fill('kettle');
    await odile.getByRole('list', { name: 'Found' }).getByText('Copper Kettle Reel').first().waitFor();
    await odile.keyboard.press('Enter');
    await odile
      .getByRole('heading', { name: /Requests|Copper Kettle Reel/ })
      .first()
      .waitFor();
  });

  step('its report shows hours against estimates and the load of the weeks', async () => {
    await odile.goto('/studio/report');
    await odile.getByRole('row').filter({ hasText: 'Slow Tide at Crannoch Steps' }).waitFor();
    await odile.locator('.js-plotly-plot .bars').first().waitFor();
    await odile.getByText('As a table').click();
    expect(await odile.getByRole('region', { name: 'Load of the weeks' }).getByRole('row').count()).toBe(14);
  });
});
