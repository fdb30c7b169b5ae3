import type { Page } from 'playwright-core';
import { openStage, type Stage } from '../e2e/stage.ts';
import { ms, ratio, timingOf, type Figure } from './measure.ts';
import { longSolo } from './reading.ts';

/** Keys as they are typed into the middle of a phrase: an event, a bend, a mark, and taking some of it back. */
const KEYS = [' ', '7', 'G', 'b', '1', ' ', '5', 'D', '~', 'Backspace', 'Backspace', 'Backspace', 'Backspace'];

/** All three are typed in turns, so that a machine that is slow for a while is so for each. */
const TURNS = 5;

/** From a keystroke until tab and margin are redrawn and laid out, in Chromium. The yardstick: the same keys in a
 * plain text field of the same page. */
export async function typingFigures(): Promise<readonly Figure[]> {
  const stage = await openStage();
  try {
    const page = await openPhrase(stage);
    const [plains, shorts, longs]: [number[], number[], number[]] = [[], [], []];
    for (let turn = 0; turn < TURNS; turn += 1) {
      plains.push(await plainTyping(page));
      shorts.push(await typing(page, '/8 5G 7Gb1r 5G 7D /4 7D~ - | '.repeat(8).trim()));
      longs.push(await typing(page, longSolo()));
    }
    const [plain, short, long] = [plains, shorts, longs].map((times) => timingOf(times).median) as [
      number,
      number,
      number,
    ];
    const yardstick = `the same keys in a plain text field, ${ms(plain)}`;
    return [
      {
        what: `Keystroke to redrawn tab and problems, 64-bar solo, 95th percentile, median of ${TURNS} turns`,
        measured: ms(long),
        target: 'under 40 ms',
        met: long < 40,
        yardstick,
        ratio: ratio(long, plain),
      },
      {
        what: 'The same for an 8-bar phrase',
        measured: ms(short),
        target: 'under 16 ms',
        met: short < 16,
        yardstick,
        ratio: ratio(short, plain),
      },
    ];
  } finally {
    await stage.close();
  }
}

/** The song desk of the demo, at a phrase. */
export async function openPhrase(stage: Stage): Promise<Page> {
  const page = await stage.enter('mara');
  await page.goto('/songs');
  await page.getByRole('link', { name: /Slow Tide/ }).click();
  await page.locator('[data-ready="true"] svg').first().waitFor();
  return page;
}

/** Replaces the text of the phrase, and waits until it is saved. */
export async function write(page: Page, text: string): Promise<void> {
  await page.getByRole('textbox', { name: 'Fret shorthand' }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText(text);
  await page.getByText('saved', { exact: true }).waitFor();
}

/** The 95th percentile of some rounds of keys typed into the middle of a text. */
async function typing(page: Page, text: string): Promise<number> {
  await write(page, text);
  await typeRounds(page, 6);
  await watchTyping(page, '[data-ready], section[aria-label="Problems in the text"]');
  await typeRounds(page, 14);
  return p95(page);
}

/** Types the keys at one place after another; the first rounds only warm the browser up. */
async function typeRounds(page: Page, rounds: number): Promise<void> {
  for (let round = 0; round < rounds; round += 1) {
    await page.keyboard.press('Control+Home');
    for (let word = 0; word < round; word += 1) await page.keyboard.press('Control+ArrowRight');
    for (const key of KEYS) {
      await page.keyboard.press(key);
      // The completion list opens after a pause of its own; typing goes on before that.
      await page.keyboard.press('Escape');
    }
  }
}

async function plainTyping(page: Page): Promise<number> {
  await page.evaluate(() => {
    const field = document.createElement('textarea');
    field.id = 'plain';
    const echo = document.createElement('p');
    echo.id = 'echo';
    field.addEventListener('input', () => (echo.textContent = field.value));
    document.body.append(field, echo);
    field.focus();
  });
  await watchTyping(page, '#echo');
  for (let round = 0; round < 12; round += 1) for (const key of KEYS) await page.keyboard.press(key);
  const result = await p95(page);
  await page.evaluate(() => {
    for (const id of ['plain', 'echo']) document.getElementById(id)?.remove();
  });
  return result;
}

/** Times every key from its event until the last change of some elements that follows it, layout included. */
export async function watchTyping(page: Page, selector: string): Promise<void> {
  await page.evaluate((watched) => {
    const times: number[] = [];
    Reflect.set(window, 'typingTimes', times);
    let pressed: number | undefined;
    let index = -1;
    document.addEventListener(
      'keydown',
      (event) => {
        if (event.key === 'Escape') return;
        pressed = performance.now();
        index += 1;
      },
      true,
    );
    const seen = new MutationObserver(() => {
      if (pressed === undefined) return;
      document.body.getBoundingClientRect();
      times[index] = performance.now() - pressed;
    });
    for (const element of document.querySelectorAll(watched))
      seen.observe(element, { subtree: true, childList: true, characterData: true, attributes: true });
  }, selector);
}

async function p95(page: Page): Promise<number> {
  await page.evaluate(() => new Promise((done) => setTimeout(done, 100)));
  const times = await page.evaluate(() => (Reflect.get(window, 'typingTimes') as number[]).filter((one) => one >= 0));
  return timingOf(times).p95;
}
