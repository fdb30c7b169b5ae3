import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import type { Piece } from '@jam-ledger/contract';
import { writeWav } from '@jam-ledger/core/formats';
import { playAsLearner, type Learner } from '@jam-ledger/core/listen';
import { perform, readMeter, COMMON_TIME } from '@jam-ledger/core/notation';
import { readTuning, TUNINGS } from '@jam-ledger/core/pitch';
import { readPlaced } from '@jam-ledger/core/placing';
import { renderNotes } from '@jam-ledger/core/sound';
import { openStage, type Stage } from './stage.ts';

/** What the microphone hears: the browser’s own stand-in for one plays this file, once, when it is opened. */
let folder: string;
let heard: string;
let stage: Stage;
let page: Page;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'jam-ledger-takes-'));
  heard = join(folder, 'microphone.wav');
  stage = await openStage([
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream',
    `--use-file-for-fake-audio-capture=${heard}%noloop`,
  ]);
  page = await stage.enter('ines', { permissions: ['microphone'] });
  await openPiece(page);
});
afterAll(async () => {
  await stage.close();
  await rm(folder, { recursive: true });
});

async function openPiece(on: Page): Promise<void> {
  await on.goto('/practice');
  await on.getByRole('link', { name: /^Opening bend into Answer/ }).click();
  await on.getByRole('heading', { name: 'Takes' }).waitFor();
}
const result = (on = page) => on.getByRole('group', { name: 'What was heard' });
const signs = (on = page) =>
  on.locator('.tab-mark[data-sign]').evaluateAll((marks) => marks.map((mark) => (mark as HTMLElement).dataset['sign']));
async function practise(who: string): Promise<void> {
  await page.getByRole('combobox', { name: 'Who plays in the practice room' }).click();
  await page.getByRole('option', { name: who }).click();
  await page.getByRole('button', { name: 'Hear the practice room' }).click();
  await result().waitFor({ timeout: 60_000 });
}

/** Lays before the microphone how a learner plays the piece that is open; at which tempo. */
async function play(learner: Omit<Learner, 'seed'>): Promise<number> {
  const id = new URL(page.url()).pathname.split('/').at(-1) ?? '';
  const piece = (await (await page.request.get(`/api/pieces/${id}`)).json()) as Piece;
  const tuning = readTuning(piece.song.tuning) ?? TUNINGS.standard;
  const meter = readMeter(piece.song.meter) ?? COMMON_TIME;
  const { phrase } = readPlaced(piece.phrase.text, { tuning, meter, capo: piece.song.capo });
  const played = perform(phrase, { tuning, capo: piece.song.capo, bpm: piece.next.bpm });
  const { audio } = playAsLearner(played, { seed: 21, startSeconds: 1.5, ...learner });
  await writeFile(heard, writeWav([audio.samples], audio.sampleRate));
  return piece.next.bpm;
}
async function record(): Promise<void> {
  await page.getByRole('button', { name: 'Record a take' }).click();
  await page.getByText('Recording: the microphone is open.').waitFor();
}

describe('a take', () => {
  test('of the practice room is judged on the tab and proposed as an entry, which goes into the ledger in pencil', async () => {
    await practise('A steady player');
    await result()
      .getByText(/^Clean at 59 bpm\./)
      .waitFor();
    expect(new Set(await signs())).toEqual(new Set(['✓']));
    await result().getByRole('button', { name: 'Enter it: clean, 59 bpm' }).click();
    await page.getByText('59, clean', { exact: true }).waitFor();
  });

  test('with slips says where, and loops the place', async () => {
    await practise('One who is slow and misses notes');
    await result()
      .getByText(/^Not yet, at \d+ bpm\./)
      .waitFor();
    expect((await signs()).some((sign) => sign === '○' || sign === '×')).toBe(true);
    const spots = page.getByRole('list', { name: 'Where to work' }).getByRole('listitem');
    const place = /^(Bar \d+, beat \d+)/.exec(await spots.first().innerText())?.[1] ?? 'none';
    await spots.first().getByRole('button', { name: 'Loop this' }).click();
    await page.getByText(new RegExp(`Loop: .*${place.toLowerCase()}`)).waitFor();
    await page.getByRole('button', { name: 'the whole' }).click();
  });

  test('by the microphone is heard note by note; what all notes share is taken out, and bends are told in cents', async () => {
    const bpm = await play({ noiseDb: 40, slips: { 'short bend': 100 } });
    await record();
    // It ends by itself, some time after the piece.
    await result()
      .getByText(/bends did not reach their pitch/)
      .waitFor({ timeout: 60_000 });
    const told = await signs();
    expect(told.filter((sign) => sign !== '✓').every((sign) => /^−[3456]\d¢$/.test(sign ?? ''))).toBe(true);
    expect(told.filter((sign) => sign === '✓').length).toBeGreaterThan(15);
    const words = await result().innerText();
    expect(Math.abs(Number(/Played at ([\d.]+) bpm/.exec(words)?.[1]) - bpm)).toBeLessThan(1);
    expect(Math.abs(Number(/begins ([\d.]+) s into/.exec(words)?.[1]) - 1.5)).toBeLessThan(0.35);
  });

  test('tells how far behind the click it is, once the delay of the device was clapped', async () => {
    const clap = Float32Array.from({ length: 1800 }, (_, n) => Math.sin(n * n) * Math.exp(-n / 400));
    const samples = new Float32Array(44_100 * 14);
    // Four clicks are counted in; a hand claps to the eight that follow, through a device that is slow.
    for (let beat = 4; beat < 12; beat += 1) samples.set(clap, Math.round((0.4 + 0.8 * beat) * 44_100));
    await writeFile(heard, writeWav([samples], 44_100));
    await page.getByRole('button', { name: 'Find the delay of this device' }).click();
    await page.getByText('clap once to each of the next eight').waitFor();
    await page.getByText(/^This device hears \d+ ms after its click, by 8 claps\.$/).waitFor({ timeout: 30_000 });
    await play({ noiseDb: 40 });
    await record();
    await page.getByRole('button', { name: 'Find the delay again' }).waitFor({ timeout: 60_000 });
    await result()
      .getByText(/as a whole \d+ ms (behind|ahead of) the click|as a whole on the click/)
      .waitFor();
    await page.evaluate(() => localStorage.removeItem('jam-take-delay'));
    await openPiece(page);
  });

  test('is kept when the page is closed in the middle, and judged later', async () => {
    await play({ noiseDb: 40, startSeconds: 0.6 });
    await record();
    await page.waitForTimeout(3500);
    await page.reload();
    const line = page.getByRole('listitem').filter({ hasText: 'not judged yet' });
    await line.getByRole('button', { name: /^Show the take/ }).click();
    await result().waitFor({ timeout: 60_000 });
    await page.getByRole('listitem').filter({ hasText: 'not judged yet' }).waitFor({ state: 'detached' });
  });

  test('is deleted, and put back', async () => {
    const lines = page.getByRole('region', { name: 'Takes' }).getByRole('button', { name: /^Delete the take/ });
    const before = await lines.count();
    await lines.first().click();
    await page.getByText('The take is deleted from this device.').waitFor();
    expect(await lines.count()).toBe(before - 1);
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.waitForFunction((count) => document.querySelectorAll('.kept li').length === count, before);
  });

  test('of a file that is no sound, or nothing, is refused in a sentence', async () => {
    const choose = page.locator('.takes input[type=file]');
    await choose.setInputFiles({ name: 'broken.wav', mimeType: 'audio/wav', buffer: Buffer.from('this is no sound') });
    await page.getByRole('alert').filter({ hasText: 'cannot be read as sound' }).waitFor();
    await choose.setInputFiles({ name: 'empty.wav', mimeType: 'audio/wav', buffer: Buffer.alloc(0) });
    await page.getByRole('alert').filter({ hasText: 'Nothing was recorded.' }).waitFor();
    const silence = writeWav([new Float32Array(44_100)], 44_100);
    await choose.setInputFiles({ name: 'silent.wav', mimeType: 'audio/wav', buffer: Buffer.from(silence) });
    await result().getByText('Nothing can be heard in this take.').waitFor();
    expect(
      await result()
        .getByRole('button', { name: /^Enter it/ })
        .count(),
    ).toBe(0);
  });

  test.each([
    ['NotAllowedError', 'The microphone may not be used.'],
    ['NotFoundError', 'There is no microphone.'],
  ])('where the browser says %s says so', async (name, words) => {
    await page.evaluate((asked) => {
      navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', asked));
    }, name);
    await page.getByRole('button', { name: 'Record a take' }).click();
    await page.getByRole('alert').filter({ hasText: words }).waitFor();
    await page.getByRole('button', { name: 'Record a take' }).waitFor();
  });

  test('of one student is not shown to another on the same device', async () => {
    expect(await page.getByRole('button', { name: /^Delete the take/ }).count()).toBeGreaterThan(0);
    const others = await page.evaluate(
      () =>
        new Promise<readonly string[]>((resolve, reject) => {
          const opening = indexedDB.open('jam-ledger');
          opening.onerror = () => reject(new Error('not opened'));
          opening.onsuccess = () => {
            const all = opening.result.transaction('takes').objectStore('takes').getAll();
            all.onsuccess = () => resolve(all.result.map((one: { personId: string }) => one.personId));
          };
        }),
    );
    expect(new Set(others).size).toBe(1);
  });
});

describe('a take on a bad day', () => {
  const choose = () => page.locator('.takes input[type=file]');
  const alert = (words: string) => page.getByRole('alert').filter({ hasText: words }).waitFor({ timeout: 30_000 });
  beforeAll(() => openPiece(page));

  test('of a file that lasts too long says how long it is; a film without sound is none', async () => {
    const silence = Buffer.from(writeWav([new Float32Array(8000 * 60 * 20)], 8000));
    await choose().setInputFiles({ name: 'evening.wav', mimeType: 'audio/wav', buffer: silence });
    await alert('This file lasts 20 minutes; a take has at most 10.');
    const film = await page.evaluate(async () => {
      const canvas = document.createElement('canvas');
      canvas.getContext('2d');
      const recorder = new MediaRecorder(canvas.captureStream(10), { mimeType: 'video/webm' });
      const chunks: Blob[] = [];
      recorder.ondataavailable = ({ data }) => chunks.push(data);
      const stopped = new Promise((resolve) => (recorder.onstop = resolve));
      recorder.start();
      await new Promise((resolve) => setTimeout(resolve, 600));
      recorder.stop();
      await stopped;
      return [...new Uint8Array(await new Blob(chunks).arrayBuffer())];
    });
    await choose().setInputFiles({ name: 'film.webm', mimeType: 'video/webm', buffer: Buffer.from(film) });
    await alert('This file cannot be read as sound.');
  });

  test('whose microphone is unplugged in the middle is judged as far as it goes', async () => {
    await play({ noiseDb: 40, startSeconds: 0.6 });
    await page.evaluate(() => {
      const open = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
      navigator.mediaDevices.getUserMedia = async (asked) => {
        const stream = await open(asked);
        Reflect.set(window, 'microphone', stream.getAudioTracks()[0]);
        return stream;
      };
    });
    const lines = page.getByRole('button', { name: /^Delete the take/ });
    const before = await lines.count();
    await record();
    await page.waitForTimeout(2500);
    await page.evaluate(() => (Reflect.get(window, 'microphone') as EventTarget).dispatchEvent(new Event('ended')));
    await alert('The microphone was unplugged; what was recorded so far is judged.');
    await lines.nth(before).waitFor();
    await result().waitFor();
    await openPiece(page);
  });

  test('in two tabs at once is kept in each', async () => {
    await play({ noiseDb: 40, startSeconds: 0.6 });
    const other = await page.context().newPage();
    await openPiece(other);
    const lines = (on: Page) => on.getByRole('button', { name: /^Delete the take/ });
    const before = await lines(page).count();
    await record();
    await other.getByRole('button', { name: 'Record a take' }).click();
    await other.getByText('Recording: the microphone is open.').waitFor();
    await other.waitForTimeout(2500);
    for (const one of [page, other]) {
      await one.bringToFront();
      await one.getByRole('button', { name: 'Stop and listen' }).click();
    }
    for (const one of [page, other])
      await one.getByRole('button', { name: 'Record a take' }).waitFor({ timeout: 60_000 });
    await other.close();
    await openPiece(page);
    await lines(page)
      .nth(before + 1)
      .waitFor();
    expect(await lines(page).count()).toBe(before + 2);
  });

  test('on a device that is full is judged, and the page says that it is not kept', async () => {
    await page.evaluate(() => {
      IDBObjectStore.prototype.put = () => {
        throw new DOMException('full', 'QuotaExceededError');
      };
    });
    await page.getByRole('button', { name: 'Hear the practice room' }).click();
    await result().waitFor({ timeout: 60_000 });
    await alert('This device has no room for the take: it is gone when the page is closed.');
    await openPiece(page);
  });
});

describe('by the microphone', () => {
  /** How far the recording of the song stands off concert pitch, cents; the guitar is tuned to it. */
  const RECORDING_CENTS = -14;
  /** Lays notes before the microphone: a text of the shorthand, so many cents off the recording, bent to a share of its height. */
  async function sound(text: string, cents: number, share: number): Promise<void> {
    const { phrase } = readPlaced(text, { tuning: TUNINGS.standard, meter: COMMON_TIME, capo: 0 });
    const played = perform(phrase, { tuning: TUNINGS.standard, capo: 0, bpm: 60 });
    const notes = played.map((note) => ({
      ...note,
      midi: (note.midi ?? 0) + (RECORDING_CENTS + cents) / 100,
      contour: note.contour.map((point) => ({ ...point, cents: point.cents * share })),
    }));
    await writeFile(heard, writeWav([renderNotes(notes, { sampleRate: 44_100 })], 44_100));
  }
  beforeAll(async () => {
    await openPiece(page);
    await page.getByRole('link', { name: 'bend and timing drills' }).click();
    await page.getByRole('heading', { name: 'Tune the guitar' }).waitFor();
  });

  test('a string is tuned', async () => {
    await sound('/1 0A', 13, 1);
    const tuner = page.getByRole('region', { name: 'Tune the guitar' });
    await tuner.getByRole('button', { name: 'Tune by the microphone' }).click();
    await tuner.getByText(/^A: 1[2-4] cents sharp, loosen it\.$/).waitFor();
    await tuner.getByRole('button', { name: 'Close the microphone' }).click();
    await tuner.getByRole('button', { name: 'Tune by the microphone' }).waitFor();
  });

  test.each([
    ['that reaches its pitch', 1, /^Reached: [+−]\d cents from its pitch\.$/],
    ['that falls short', 0.7, /^(5|6)\d cents short: further\.$/],
  ])('a bend %s is told', async (_, share, says) => {
    await sound('/1 7Gb1', 0, share);
    const attempt = page.getByRole('group', { name: 'Try the bend' }).first();
    await attempt.getByRole('button', { name: 'Bend it into the microphone' }).click();
    await attempt.getByText(says).waitFor();
    await attempt.getByRole('button', { name: 'Close the microphone' }).click();
  });
});
