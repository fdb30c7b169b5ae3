import { execFileSync } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { openStage, type Stage } from './stage.ts';

let stage: Stage;
let mara: Page;
let folder: string;
beforeAll(async () => {
  stage = await openStage();
  mara = await stage.enter('mara');
  folder = await mkdtemp(join(tmpdir(), 'jam-formats-'));
}, 120_000);
afterAll(async () => {
  await stage.close();
  await rm(folder, { recursive: true, force: true });
});

/** Does something that saves a file, and puts that into the folder; its path. */
async function saved(page: Page, work: () => Promise<unknown>): Promise<string> {
  const [download] = await Promise.all([page.waitForEvent('download'), work()]);
  const path = join(folder, download.suggestedFilename());
  await download.saveAs(path);
  return path;
}

async function openSong(): Promise<void> {
  await mara.goto('/songs');
  await mara.getByRole('link', { name: /Slow Tide/ }).click();
  await mara.locator('[data-ready="true"] svg').first().waitFor();
}

async function download(format: string): Promise<string> {
  await mara.getByRole('button', { name: 'Download' }).click();
  await mara.getByRole('dialog').getByText(format, { exact: true }).click();
  return saved(mara, () => mara.getByRole('button', { name: 'Save the file' }).click());
}

const run = (command: string, ...args: readonly string[]) => execFileSync(command, [...args], { encoding: 'utf8' });

describe('what leaves the desk', () => {
  test('every format, each with what it cannot carry, read by somebody else', async () => {
    await openSong();
    const midi = await download('MIDI');
    expect(run('midicsv', midi)).toMatch(/Marker_t, "1A solo"/);
    expect(await readFile(await download('MusicXML'), 'utf8')).toContain(
      '<work-title>Slow Tide at Crannoch Steps</work-title>',
    );
    expect((await readFile(await download('MusicXML, compressed'))).subarray(0, 2).toString()).toBe('PK');
    expect(await readFile(await download('Text tab'), 'utf8')).toContain('-- Opening bend --');
    expect(await readFile(await download('Shorthand'), 'utf8')).toContain('-- Opening bend --');
    await mara.getByRole('button', { name: 'Download' }).click();
    await mara.getByRole('dialog').getByText('MIDI', { exact: true }).click();
    await mara.getByRole('region', { name: 'What does not come along' }).getByText('strings and frets').waitFor();
    await mara.keyboard.press('Escape');
  });

  test('one phrase as sound, slow and then at full tempo', async () => {
    await mara.getByRole('button', { name: 'Download' }).click();
    const dialog = mara.getByRole('dialog');
    await dialog.getByRole('combobox', { name: 'What' }).click();
    await mara.getByRole('option', { name: /“Opening bend”/ }).click();
    await dialog.getByText('Sound (WAV)', { exact: true }).click();
    await dialog.getByRole('spinbutton', { name: 'Tempo' }).fill('60');
    await dialog.getByRole('spinbutton', { name: 'Tempo' }).blur();
    await dialog.getByLabel('then at full tempo').check();
    const wav = await saved(mara, () => dialog.getByRole('button', { name: 'Save the file' }).click());
    expect(run('soxi', '-r', wav).trim()).toBe('44100');
    // Two bars of four at 84 beats a minute, at 60 % and whole, each with its end dying away, and a second between.
    const bars = (8 * 60) / 84;
    expect(Number(run('soxi', '-D', wav))).toBeCloseTo(bars / 0.6 + bars + 2 * 1.5 + 1, 0);
  });
});

describe('the handout', () => {
  test('as PDF: vectors, words that can be searched, fonts embedded, a picture that is not empty', async () => {
    await mara.getByRole('link', { name: 'Handout' }).click();
    await mara.getByRole('region', { name: 'Page 1' }).waitFor();
    const pdf = await saved(mara, () => mara.getByRole('button', { name: 'Save as PDF' }).click());
    expect(run('pdfinfo', pdf)).toMatch(/Page size: +595\.\d+ x 841\.\d+ pts \(A4\)/);
    const words = run('pdftotext', '-layout', pdf, '-');
    expect(words).toContain('Slow Tide at Crannoch Steps');
    expect(words).toContain('for Ines Harrowmere');
    expect(words).toMatch(/Made for a private lesson/);
    const fonts = run('pdffonts', pdf).trim().split('\n').slice(2);
    expect(fonts.length).toBeGreaterThan(0);
    // The columns: embedded, subset, with Unicode.
    expect(fonts.every((line) => /\byes\s+(?:yes|no)\s+yes\b/.test(line))).toBe(true);
    expect(run('pdfimages', '-list', pdf).trim().split('\n')).toHaveLength(2);
    run('pdftoppm', '-r', '60', '-gray', '-singlefile', pdf, join(folder, 'page'));
    const picture = await readFile(join(folder, 'page.pgm'));
    const dark = picture.subarray(20).filter((grey) => grey < 128).length / picture.length;
    expect(dark).toBeGreaterThan(0.004);
    expect(dark).toBeLessThan(0.2);
  });

  test('on Letter, without some of what stands on it, and printed page by page from dark paper', async () => {
    await mara.getByRole('combobox', { name: 'Paper' }).click();
    await mara.getByRole('option', { name: 'Letter' }).click();
    await mara.getByLabel('chords').uncheck();
    const pdf = await saved(mara, () => mara.getByRole('button', { name: 'Save as PDF' }).click());
    expect(run('pdfinfo', pdf)).toMatch(/Page size: +612 x 792 pts \(letter\)/);
    expect(run('pdftotext', pdf, '-')).not.toMatch(/\bA7\b/);
    await mara.getByRole('button', { name: 'Dark paper' }).click();
    const printed = join(folder, 'printed.pdf');
    await writeFile(printed, await mara.pdf({ preferCSSPageSize: true }));
    run('pdftoppm', '-r', '40', '-gray', '-singlefile', printed, join(folder, 'printed'));
    const picture = await readFile(join(folder, 'printed.pgm'));
    const light = picture.subarray(20).filter((grey) => grey > 200).length / picture.length;
    expect(light).toBeGreaterThan(0.7);
    await mara.getByRole('button', { name: 'Light paper' }).click();
  });

  test('every phrase is there in words: for a reader of the screen, and on the paper where that is wanted', async () => {
    const unseen = mara.getByRole('list', { name: 'The tab in words' });
    expect((await unseen.first().innerText()).trim()).toMatch(/ on the (?:low E|A|D|G|B|high E)/);
    const [sentence = ''] = (await unseen.first().innerText()).trim().split('\n');
    await mara.getByRole('checkbox', { name: 'the tab in words' }).check();
    await mara
      .getByText(`1. ${sentence.slice(0, 40)}`)
      .first()
      .waitFor();
    // What stands on the paper is not read twice.
    expect(await unseen.count()).toBe(0);
    const pdf = await saved(mara, () => mara.getByRole('button', { name: 'Save as PDF' }).click());
    expect(run('pdftotext', '-layout', pdf, '-')).toContain(`1. ${sentence.slice(0, 40)}`);
    await mara.getByRole('checkbox', { name: 'the tab in words' }).uncheck();
  });

  test('a student takes their own on a phone, another’s is closed to them', async () => {
    const path = new URL(mara.url()).pathname;
    const ines = await stage.enter('ines', { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true });
    await ines.goto('/ledger');
    await ines.getByRole('button', { name: 'Download' }).click();
    await ines.getByRole('menuitem', { name: /Handout of Slow Tide/ }).click();
    await ines.getByRole('region', { name: 'Page 1' }).waitFor();
    expect(await ines.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
    await saved(ines, () => ines.getByRole('button', { name: 'Save as PDF' }).click());
    const tomas = await stage.enter('tomas');
    await tomas.goto(path);
    await tomas.getByText('This belongs to somebody else.').waitFor();
  });
});

describe('what comes in', () => {
  test('a file dropped on the desk is previewed, taken in as drafts, and taken back in one', async () => {
    await openSong();
    const before = await mara.getByRole('group', { name: /Section/ }).count();
    const xml = await readFile(join(folder, 'Slow Tide at Crannoch Steps.musicxml'), 'utf8');
    const transfer = await mara.evaluateHandle((text) => {
      const data = new DataTransfer();
      data.items.add(new File([text], 'tune.musicxml'));
      return data;
    }, xml);
    await mara.dispatchEvent('main', 'drop', { dataTransfer: transfer });
    const dialog = mara.getByRole('dialog', { name: 'Import a file' });
    await dialog.getByRole('list', { name: 'Phrases' }).getByText('Opening bend').waitFor();
    await dialog.getByRole('button', { name: /^Import \d+ phrases$/ }).click();
    await mara.getByText(/phrases are brought in from tune\.musicxml\./).waitFor();
    await mara.getByRole('button', { name: 'Undo' }).click();
    await mara.getByText(/brought in/).waitFor({ state: 'hidden' });
    expect(await mara.getByRole('group', { name: /Section/ }).count()).toBe(before);
  });

  test('what cannot be read is told at its place, and nothing is kept', async () => {
    await mara.getByRole('button', { name: 'Import' }).click();
    const dialog = mara.getByRole('dialog', { name: 'Import a file' });
    const chooser = dialog.locator('input[type=file]');
    await chooser.setInputFiles({
      name: 'cut.musicxml',
      mimeType: 'text/xml',
      buffer: Buffer.from('<score-partwise><part>'),
    });
    await dialog.getByText(/ends before “<part>” is closed/).waitFor();
    await chooser.setInputFiles({
      name: 'photo.txt',
      mimeType: 'text/plain',
      buffer: Buffer.from([0xff, 0xd8, 0xff, 0xe0]),
    });
    await dialog.getByText(/“photo\.txt” is no MusicXML, MIDI, text tab or shorthand file/).waitFor();
    expect(await dialog.getByRole('button', { name: /^Import/ }).isDisabled()).toBe(true);
    await dialog.getByRole('button', { name: 'Cancel' }).click();
  });

  test('a pasted tab becomes shorthand in one press', async () => {
    const editor = mara.getByRole('textbox', { name: 'Fret shorthand' });
    await editor.click();
    await mara.keyboard.press('Control+a');
    const tab = ['e|-----|', 'B|-----|', 'G|-7-9-|', 'D|-----|', 'A|-----|', 'E|-----|'].join('\n');
    await mara.evaluate((text) => {
      const data = new DataTransfer();
      data.setData('text/plain', text);
      document.activeElement?.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
    }, tab);
    await mara.getByRole('button', { name: 'Write it as shorthand' }).click();
    await editor.getByText('7G').waitFor();
    expect((await editor.innerText()).trim()).toBe('/? 7G 9G');
  });
});

test('lessons go into one’s own calendar by an address that can be ended', async () => {
  await mara.goto('/account');
  await mara.getByRole('button', { name: 'Make an address' }).click();
  const address = await mara.getByRole('textbox', { name: 'Address' }).inputValue();
  const answer = await fetch(address);
  expect(answer.headers.get('content-type')).toMatch(/^text\/calendar/);
  expect(await answer.text()).toContain('SUMMARY:Lesson');
  await mara.getByRole('button', { name: 'End the address' }).click();
  await mara.getByRole('button', { name: 'Make an address' }).waitFor();
  expect((await fetch(address)).status).toBe(404);
  await mara.goto('/series');
  await mara.getByRole('button', { name: 'Download' }).click();
  const file = await saved(mara, () => mara.getByRole('menuitem', { name: /^Calendar file/ }).click());
  expect(await readFile(file, 'utf8')).toMatch(/BEGIN:VTIMEZONE[\s\S]*RRULE:FREQ=WEEKLY/);
});

test('on paper the ledger has all its columns, upright and across, and nothing to press', async () => {
  const ines = await stage.enter('ines');
  await ines.getByRole('link', { name: 'Ledger', exact: true }).click();
  await ines.getByRole('columnheader', { name: 'Next step' }).waitFor();
  for (const landscape of [false, true]) {
    const pdf = join(folder, `ledger-${landscape}.pdf`);
    await ines.pdf({ path: pdf, format: 'A4', landscape, preferCSSPageSize: true });
    const words = run('pdftotext', '-layout', pdf, '-');
    for (const heading of ['Phrase', 'Of target', 'Next step', 'Opening bend', 'join on'])
      expect(words).toContain(heading);
    expect(words).not.toMatch(/Print|Download/);
  }
});
