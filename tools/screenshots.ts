import { openPiece, openStage, shoot } from '../e2e/stage.ts';

/** Takes the pictures of the README anew, from the demo studio. */
const FOLDER = process.argv[2] ?? 'docs/screenshots';
const stage = await openStage();

const mara = await stage.enter('mara');
await shoot(mara, FOLDER, 'desk');
await mara.goto('/requests');
await shoot(mara, FOLDER, 'requests');
await mara.goto('/songs');
await mara.getByRole('link', { name: /Slow Tide/ }).click();
await mara.getByRole('textbox', { name: 'Fret shorthand' }).click();
await shoot(mara, FOLDER, 'song-desk');
const hands = mara.getByRole('region', { name: 'Fingers and places' });
await hands.getByText(/the hand at fret/).waitFor();
await hands.evaluate((note) => note.closest('.foot')?.scrollIntoView());
await shoot(mara, FOLDER, 'hands');
await mara.evaluate(() => scrollTo(0, 0));
await mara.getByRole('link', { name: 'Pieces', exact: true }).click();
await mara.getByRole('option').filter({ hasText: 'Opening bend into Answer' }).click();
await shoot(mara, FOLDER, 'pieces');
await mara.goBack();
await mara.getByRole('link', { name: 'Handout' }).click();
await mara.getByRole('heading', { name: 'Last word' }).waitFor();
await shoot(mara, FOLDER, 'handout');
await mara.goto('/songs');
await mara.getByRole('link', { name: /Copper Kettle/ }).click();
await mara.locator('[data-ready="true"] svg').first().waitFor();
await mara.getByRole('button', { name: 'Let the simulated band play it' }).click();
await mara.getByRole('button', { name: 'Loop the phrase' }).click({ timeout: 60_000 });
await mara.getByRole('button', { name: 'Stop the clock (p)' }).click();
await mara.getByRole('button', { name: 'Unfold the repeats (f)' }).click();
await shoot(mara, FOLDER, 'recording');
await mara.goto('/licks');
await mara.getByText(/^\d+ phrases/).waitFor();
await shoot(mara, FOLDER, 'licks');
await mara.goto('/series');
await mara.getByRole('button', { name: /Ines Harrowmere/ }).click();
await mara.getByRole('heading', { name: /Friday blues/ }).waitFor();
await shoot(mara, FOLDER, 'series');
await mara.goto('/studio');
await mara.getByRole('region', { name: 'Outbox' }).waitFor();
await shoot(mara, FOLDER, 'studio');
await mara.goto('/students');
await mara.getByRole('button', { name: 'Change guitar and hand of Pia Lindquay' }).click();
await shoot(mara, FOLDER, 'students');
await mara.goto('/lesson');
await mara.getByRole('combobox', { name: 'Student' }).click();
await mara.getByRole('option', { name: 'Ines Harrowmere' }).click();
await mara
  .getByRole('button', { name: /^Opening bend\b/ })
  .first()
  .waitFor();
await shoot(mara, FOLDER, 'lesson');

const ines = await stage.enter('ines');
await ines.goto('/ledger');
await ines.getByRole('button', { name: 'Answer', exact: true }).click();
await ines.locator('.js-plotly-plot .scatter').first().waitFor();
await shoot(ines, FOLDER, 'ledger');
await ines.goto('/requests');
await shoot(ines, FOLDER, 'student-requests');
await ines.goto('/practice');
await shoot(ines, FOLDER, 'practice-list');
await openPiece(ines);
await shoot(ines, FOLDER, 'practice');

const odile = await stage.enter('odile');
await odile.goto('/studio/book');
await odile.getByRole('button', { name: 'Back up now' }).click();
await odile.getByText(/is made\.$/).waitFor();
await odile.getByRole('button', { name: 'Dismiss' }).click();
await shoot(odile, FOLDER, 'book');

const dark = await stage.enter('ines', { colorScheme: 'dark' });
await dark.goto('/home');
await dark.getByRole('link', { name: 'How “Friday blues” goes' }).click();
await dark.locator('.js-plotly-plot .bars').first().waitFor();
await shoot(dark, FOLDER, 'report');

const phone = await stage.enter('ines', { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true });
await openPiece(phone);
await shoot(phone, FOLDER, 'practice-phone');

await stage.close();
