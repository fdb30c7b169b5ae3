/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { readShorthand } from '@jam-ledger/core/notation';
import { enableAutoUnmount } from '@vue/test-utils';
import { nextTick } from 'vue';
import InWords from '../src/tab/InWords.vue';
import { button, show, words } from './mounting.ts';

enableAutoUnmount(afterEach);

/** A voice of the browser that says a sentence as soon as it is told to end. */
class Voice {
  readonly said: string[] = [];
  #now: SpeechSynthesisUtterance | undefined;
  speak(utterance: SpeechSynthesisUtterance): void {
    this.said.push(utterance.text);
    this.#now = utterance;
  }
  cancel(): void {
    this.#now = undefined;
  }
  async end(): Promise<void> {
    this.#now?.onend?.(undefined as unknown as SpeechSynthesisEvent);
    await nextTick();
  }
}
let voice: Voice;
beforeEach(() => {
  localStorage.clear();
  jest.useFakeTimers();
  voice = new Voice();
  Object.assign(globalThis, {
    speechSynthesis: voice,
    SpeechSynthesisUtterance: class {
      onend = null;
      lang = '';
      readonly text: string;
      constructor(text: string) {
        this.text = text;
      }
    },
  });
});
afterEach(() => {
  jest.useRealTimers();
  Reflect.deleteProperty(globalThis, 'speechSynthesis');
});

const TEXT = '/4 7Gdf3 5G 7D 5D | 7Gb1 - - - |';
const open = (names: 'letters' | 'numbers' = 'letters') => show(InWords, { phrase: readShorthand(TEXT).phrase, names });
const lines = (shown: ReturnType<typeof open>) => shown.findAll('li').map((one) => one.text());

describe('a tab in words', () => {
  test('is a sentence a bar, in the way the student names strings', async () => {
    expect(lines(open())).toEqual([
      '7 on the G, then 5 on the G, then 7 on the D, then 5 on the D.',
      '7 on the G, bent up a whole step, then rest.',
    ]);
    const shown = open('numbers');
    await shown.get('input[type=checkbox]').setValue(true);
    expect(lines(shown)[0]).toMatch(/^7 on the third string, third finger, down stroke, then 5 on the third string/);
  });

  test('is read line by line, each when the hands are ready', async () => {
    const shown = open();
    await button(shown, 'Read it to me').trigger('click');
    expect(words(shown)).toContain('Stop reading');
    await voice.end();
    expect(voice.said).toHaveLength(1);
    await button(shown, 'That line again').trigger('click');
    await voice.end();
    await button(shown, 'Read line 2').trigger('click');
    await voice.end();
    expect(voice.said.map((one) => one.slice(0, 12))).toEqual(['7 on the G, ', '7 on the G, ', '7 on the G, ']);
    expect(voice.said[2]).toMatch(/bent up/);
    // After the last it begins anew.
    expect(words(shown)).toContain('Read it to me');
  });

  test('goes on by itself after a pause, until it is stopped', async () => {
    const shown = open();
    const boxes = shown.findAll('input[type=checkbox]');
    await boxes[1]?.setValue(true);
    await button(shown, 'Read it to me').trigger('click');
    await voice.end();
    await jest.advanceTimersByTimeAsync(1900);
    expect(voice.said).toHaveLength(1);
    await jest.advanceTimersByTimeAsync(200);
    expect(voice.said).toHaveLength(2);
    await button(shown, 'Stop reading').trigger('click');
    await voice.end();
    await jest.advanceTimersByTimeAsync(5000);
    expect(voice.said).toHaveLength(2);
  });

  test('is only to be read where the browser has no voice', () => {
    Reflect.deleteProperty(globalThis, 'speechSynthesis');
    const shown = open();
    expect(lines(shown)).toHaveLength(2);
    expect(words(shown)).not.toContain('Read it to me');
  });
});
