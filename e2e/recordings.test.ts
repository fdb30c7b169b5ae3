import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { writeWav } from '@jam-ledger/core/formats';
import { openStage, type Stage } from './stage.ts';

let stage: Stage;
let mara: Page;
const errors: string[] = [];
beforeAll(async () => {
  stage = await openStage();
  mara = await stage.enter('mara');
  mara.on('pageerror', (error) => errors.push(error.message));
  await mara.addInitScript(() => {
    // The sound card's own clock: on a busy machine it falls behind the wall's.
    window.AudioContext = class extends AudioContext {
      constructor(options?: AudioContextOptions) {
        super(options);
        Object.assign(window, { soundCard: this });
      }
    };
  });
  await openSong(mara, /Slow Tide/);
});
afterAll(() => stage.close());

async function openSong(page: Page, name: RegExp): Promise<void> {
  await page.goto('/songs');
  await page.getByRole('link', { name }).first().click();
  await page.locator('.form-strip').waitFor();
}
const bar = (page = mara) => page.getByRole('region', { name: 'The recording' });
const agree = (page = mara) => page.getByRole('region', { name: 'The phrase against the recording' });
const ready = (page = mara) => bar(page).getByRole('button', { name: 'Hold this moment' }).waitFor({ timeout: 60_000 });
/**
 * Where the song clock and the sound card's stand, seconds, in the moment in which the song clock next shows something else: what
 * it shows on a busy machine may be old.
 */
async function clocks(): Promise<readonly [song: number, card: number]> {
  const shown = await mara.locator('.place').innerText();
  const both = await mara.waitForFunction((before) => {
    const text = (document.querySelector('.place') as HTMLElement).innerText;
    return (
      text !== before && ([text, (window as unknown as { soundCard: AudioContext }).soundCard.currentTime] as const)
    );
  }, shown);
  const [text, card] = (await both.jsonValue()) as readonly [string, number];
  const [, minutes, seconds] = /^(\d+):([\d.]+)/.exec(text) ?? [];
  return [Number(minutes) * 60 + Number(seconds), card];
}
/** A tone of so many seconds as a file. */
const tone = (seconds: number) => {
  const samples = Float32Array.from(
    { length: seconds * 22_050 },
    (_, n) => 0.3 * Math.sin((2 * Math.PI * 220 * n) / 22_050),
  );
  return { name: 'tone.wav', mimeType: 'audio/wav', buffer: Buffer.from(writeWav([samples], 22_050)) };
};
const bring = (file: { name: string; mimeType: string; buffer: Buffer }) =>
  bar().locator('input[type=file]').setInputFiles(file);

describe('the recording of a song', () => {
  test('that is no sound, or empty, is refused in a sentence', async () => {
    await bring({ name: 'words.mp3', mimeType: 'audio/mpeg', buffer: Buffer.from('nothing that sounds') });
    await bar().getByText('This file cannot be read as sound.').waitFor();
    await bring({ name: 'empty.wav', mimeType: 'audio/wav', buffer: Buffer.alloc(0) });
    await bar().getByText('This file is empty.').waitFor();
  });

  test('is dropped on the desk; a score that is dropped is brought in instead', async () => {
    const drop = (name: string, type: string) =>
      mara.evaluate(
        ([called, kind]) => {
          const data = new DataTransfer();
          data.items.add(new File(['nothing that sounds'], called ?? '', { type: kind ?? '' }));
          document.body.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true }));
        },
        [name, type],
      );
    await bar().getByText('This file is empty.').waitFor();
    await drop('words.flac', '');
    await bar().getByText('This file cannot be read as sound.').waitFor();
    await drop('song.mid', 'audio/midi');
    await mara.getByRole('dialog').waitFor();
    await mara.keyboard.press('Escape');
    await mara.getByRole('dialog').waitFor({ state: 'detached' });
  });

  test('is played by the simulated band, and lies under the strip', async () => {
    await bar().getByRole('button', { name: 'Let the simulated band play it' }).click();
    await ready();
    await mara.getByRole('img', { name: /^Loudness of the recording/ }).waitFor();
    // It is off pitch as the set-up says, and at its tempo: nothing disagrees.
    expect(await mara.getByRole('list', { name: 'What the recording says of the set-up' }).count()).toBe(0);
  });

  test('runs the song clock, and at half the speed half as fast', async () => {
    await mara.getByRole('button', { name: 'Run the song clock (p)' }).click();
    await mara.waitForFunction(() => /^0:0[1-9]/.test(document.querySelector('.place')?.textContent ?? ''));
    await mara.getByRole('button', { name: 'Stop the clock (p)' }).click();
    await bar().getByRole('spinbutton', { name: 'speed' }).fill('50 %');
    await bar().getByRole('spinbutton', { name: 'speed' }).press('Tab');
    await mara.getByRole('button', { name: 'Run the song clock (p)' }).click();
    const [from, began] = await clocks();
    await mara.waitForTimeout(3000);
    const [to, ended] = await clocks();
    const rate = (to - from) / (ended - began);
    await mara.getByRole('button', { name: 'Stop the clock (p)' }).click();
    expect(rate).toBeGreaterThan(0.35);
    expect(rate).toBeLessThan(0.65);
    await bar().getByRole('spinbutton', { name: 'speed' }).fill('100 %');
    await bar().getByRole('spinbutton', { name: 'speed' }).press('Tab');
  });

  test('holds a moment and names what sounds in it', async () => {
    await mara.locator('.ruler').click({ position: { x: 500, y: 8 } });
    await bar().getByRole('button', { name: 'Hold this moment' }).click();
    await bar()
      .getByText(/^[A-G][#b♯♭]?\d/)
      .waitFor();
    await bar().getByRole('button', { name: 'Let the moment go' }).click();
  });

  test('stamps the note at the caret by key, where the clock stands', async () => {
    const text = mara.locator('.cm-content');
    const before = await text.innerText();
    await text.click();
    await mara.keyboard.press('Control+End');
    await mara.keyboard.press('Alt+h');
    const at = await mara.locator('.place').innerText();
    await mara.waitForFunction(() => /@\d:\d\d/.test(document.querySelector('.cm-content')?.textContent ?? ''));
    expect(await text.innerText()).toContain(`@${/^[\d:.]+/.exec(at)?.[0] ?? 'none'}`);
    await mara.keyboard.press('Control+z');
    expect(await text.innerText()).toBe(before);
    // What is taken as evidence next is what was saved.
    await mara
      .locator('.phrase-desk .state')
      .filter({ hasText: /^saved$/ })
      .waitFor();
  });

  test('agrees with the tab, and that is evidence', async () => {
    await agree().getByRole('button', { name: 'Ask the recording' }).click();
    await agree()
      .getByText(/notes agree with the recording/)
      .waitFor({ timeout: 30_000 });
    await agree().getByRole('button', { name: 'Take it as evidence' }).click();
    await mara.getByText(/^Checked against the recording/).waitFor();
  });

  test('doubts a note that is a fret off, and shows where it stands', async () => {
    const text = mara.locator('.cm-content');
    await text.click();
    await mara.keyboard.press('Control+a');
    await mara.keyboard.insertText(':A7 /8 5G 7Gb1r 5G 7D /4 8D~ - | /8 5B 8Bb1 5e 8Bb.5r /4 5B~ - |');
    await agree().getByRole('button', { name: 'Ask the recording' }).click();
    await agree().getByRole('button', { name: 'B♭3 is written, A3 was heard' }).click();
    // The editor selects with the next frame.
    await mara.waitForFunction(() => document.getSelection()?.toString().includes('8D'));
  });

  test('is stamped for the phrase by a key, and that is undone', async () => {
    await mara.locator('.block').first().focus();
    await mara.keyboard.press('s');
    await mara.getByText(/^“Opening bend” is heard from/).waitFor();
    await mara.waitForFunction(() => document.querySelector('.cm-content')?.textContent.startsWith('@0:'));
    await mara.getByRole('button', { name: 'Undo' }).last().press('Enter');
    await mara.waitForFunction(() => document.querySelector('.cm-content')?.textContent.startsWith('@0:') === false);
  });

  test('says when the set-up is another, and is taken over with one press', async () => {
    const id = new URL(mara.url()).pathname.split('/').at(-1) ?? '';
    const song: object = (await (await mara.request.get(`/api/transcriptions/${id}`)).json()) as object;
    expect(song).toMatchObject({ offsetCents: -14 });
    await mara.getByRole('button', { name: 'Set up' }).click();
    await mara.getByRole('spinbutton', { name: /^Recording is off by/ }).fill('0');
    await mara.getByRole('button', { name: 'Save the set-up' }).click();
    await mara.getByText(/cents below A4 = 440 Hz; the set-up says 0/).waitFor();
    await mara.getByRole('button', { name: /^Set -1[345] cents/ }).click();
    await mara.getByText(/cents below A4 = 440 Hz; the set-up says 0/).waitFor({ state: 'detached' });
  });

  test('is kept in the studio, and another device fetches it', async () => {
    await bar().getByRole('button', { name: 'Keep in the studio' }).click();
    await bar().getByRole('button', { name: 'Delete from the studio' }).waitFor({ timeout: 30_000 });
    const other = await stage.enter('mara');
    await openSong(other, /Slow Tide/);
    await bar(other)
      .getByRole('button', { name: /^Fetch “Slow Tide/ })
      .click();
    await ready(other);
    await other.context().close();
  });

  test('stays on the device over a reload; what cannot be read does not take its place', async () => {
    await mara.reload();
    await ready();
    await bar().getByRole('button', { name: 'Remove' }).click();
    await mara.getByText('The recording is taken from this device.').waitFor();
    await bring(tone(3));
    await ready();
    await mara.getByText(/The studio keeps another recording of this song, “Slow Tide/).waitFor();
  });
});

describe('a take that is sent', () => {
  test('is heard, answered and inked in the lesson', async () => {
    const ines = await stage.enter('ines');
    await ines.goto('/practice');
    await ines.getByRole('link', { name: /^Opening bend into Answer/ }).click();
    await ines.getByRole('button', { name: 'Hear the practice room' }).click();
    await ines.getByRole('button', { name: /^Send the take/ }).click({ timeout: 60_000 });
    await ines.getByRole('heading', { name: 'Sent to the teacher' }).waitFor();
    const piece = new URL(ines.url()).pathname.split('/').at(-1) ?? '';
    await mara.goto(`/lesson?piece=${piece}`);
    await mara.getByRole('combobox').first().click();
    await mara.getByRole('option', { name: /Ines/ }).click();
    await mara.goto(`${new URL(mara.url()).pathname}?piece=${piece}`);
    const sent = mara.getByRole('region', { name: 'Takes that were sent' });
    await sent.waitFor();
    const address = await sent.locator('audio').getAttribute('src');
    const sound = await mara.request.get(address ?? '', { headers: { Range: 'bytes=0-3' } });
    expect([sound.status(), (await sound.body()).toString()]).toEqual([206, 'RIFF']);
    await sent.getByRole('textbox').fill('The release a little later.');
    await sent.getByRole('button', { name: 'Answer' }).click();
    await mara.getByText('The answer is sent.').waitFor();
    await sent.getByRole('button', { name: /^Ink it at/ }).click();
    await ines.reload();
    await ines.getByText('The release a little later.').waitFor();
  });

  test('waits without a line, and goes when it is back', async () => {
    const ines = await stage.enter('ines');
    await ines.goto('/practice');
    await ines.getByRole('link', { name: /^Opening bend into Answer/ }).click();
    await ines.getByRole('button', { name: 'Hear the practice room' }).click();
    await ines.getByRole('button', { name: /^Send the take/ }).waitFor({ timeout: 60_000 });
    await ines.context().setOffline(true);
    await ines.getByRole('button', { name: /^Send the take/ }).click();
    await ines.getByText('waits to be sent').waitFor();
    await ines.context().setOffline(false);
    await ines.getByText('waits to be sent').waitFor({ state: 'detached' });
    await ines
      .getByRole('button', { name: /^Delete the take .* from the studio/ })
      .first()
      .click();
    await ines.getByText('The take is deleted from the studio.').waitFor();
  });
});

test('nothing of it is an error of the page', () => expect(errors).toEqual([]));
