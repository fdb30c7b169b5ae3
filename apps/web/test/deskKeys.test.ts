/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { pressOnDesk } from '../src/songs/deskKeys.ts';

let asked: string[] = [];
const root = () => document.body;

function press(code: string, more: KeyboardEventInit = { altKey: true }): boolean {
  const event = new KeyboardEvent('keydown', { code, cancelable: true, ...more });
  pressOnDesk(event, root(), {
    addPhrase: () => void asked.push('phrase'),
    repeatSection: () => void asked.push('section'),
  });
  return event.defaultPrevented;
}

beforeEach(() => {
  asked = [];
  document.body.innerHTML = `
    <div class="phrase-desk"><input class="name" /></div>
    <div class="editor"><div class="cm-content" tabindex="0"></div></div>
    <form class="assign"><input class="start" /></form>`;
});

describe('keys of the song desk', () => {
  test('a new phrase, and this section again', () => {
    expect([press('KeyN'), press('KeyG')]).toEqual([true, true]);
    expect(asked).toEqual(['phrase', 'section']);
  });

  test('assigning sends the form that stands there, and nothing where none does', () => {
    const form = document.querySelector('form');
    if (form) form.requestSubmit = () => void asked.push('assigned');
    press('KeyA');
    expect(asked).toEqual(['assigned']);
    document.body.replaceChildren();
    expect(press('KeyA')).toBe(true);
    expect(asked).toHaveLength(1);
  });

  test('the next field goes from the text over its tempos to its name, and round again', () => {
    const fields = Array.from({ length: 4 }, () => {
      press('KeyJ');
      return document.activeElement?.className;
    });
    expect(fields).toEqual(['cm-content', 'start', 'name', 'cm-content']);
  });

  test('the text is a plain field until the editor is there', () => {
    document.querySelector('.cm-content')?.replaceWith(document.createElement('textarea'));
    press('KeyJ');
    expect(document.activeElement?.tagName).toBe('TEXTAREA');
  });

  test('other keys, and the same without Alt or with more than that, are the browser’s', () => {
    expect([press('KeyX'), press('KeyN', {}), press('KeyN', { altKey: true, ctrlKey: true })]).toEqual([
      false,
      false,
      false,
    ]);
    expect(asked).toEqual([]);
  });
});
