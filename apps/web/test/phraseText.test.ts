/** @jest-environment jsdom */
import type { Phrase, PhraseChange } from '@jam-ledger/contract';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { UNMOVED } from '@jam-ledger/core/notation';
import { effectScope, ref, type EffectScope } from 'vue';
import { usePhraseText } from '../src/songs/phrase/usePhraseText.ts';
import { CUT, openStudio, Refusing, type Asked } from './studio.ts';

const PHRASE: Phrase = {
  ...{
    id: 'one',
    version: 1,
    sectionId: 's',
    name: 'Opening',
    text: '5G',
    layer: 'lead',
    certainty: 'heard',
    reason: '',
  },
  ...{ status: 'draft', checkedBy: '', checkedAgainst: '', checkedAt: null, struck: false },
  ...{ alternateOf: null, chosen: true, refersTo: null, move: UNMOVED },
};
const sentIn = (asked: readonly Asked[]) => asked.map(({ body }) => body as PhraseChange);

let scope: EffectScope;
beforeEach(() => {
  localStorage.clear();
  jest.useFakeTimers();
});
afterEach(() => {
  scope.stop();
  jest.useRealTimers();
});

/** The desk of a phrase on a studio that keeps what it is sent. */
function openDesk(first: Phrase = PHRASE) {
  let stored = first;
  const studio = openStudio({
    changePhrase: ({ body }) => {
      const { version, ...change } = body as PhraseChange;
      if (version !== stored.version) return new Refusing(409, 'stale', { current: stored });
      stored = { ...stored, ...change, version: version + 1 };
      return stored;
    },
  });
  const phrase = ref<Phrase | undefined>(first);
  const saved: Phrase[] = [];
  scope = effectScope();
  const desk = scope.run(() => usePhraseText(phrase, (one) => saved.push(one)));
  if (!desk) throw new Error('the desk did not open');
  return { desk, studio, phrase, saved, put: (one: Phrase) => (stored = one), stored: () => stored };
}
/** Time goes by, and what it set going comes to its end. */
const wait = (milliseconds: number) => jest.advanceTimersByTimeAsync(milliseconds);

describe('the text of a phrase', () => {
  test('is saved after a pause, once, over the version seen', async () => {
    const { desk, studio } = openDesk();
    desk.type('5G 7');
    await wait(300);
    desk.type('5G 7G');
    expect(desk.state.value).toBe('waiting');
    await wait(499);
    expect(studio.asked).toEqual([]);
    await wait(1);
    expect(sentIn(studio.asked)).toMatchObject([{ text: '5G 7G', version: 1, struck: false }]);
    expect(desk.state.value).toBe('saved');
  });

  test('typed during a save is saved after it, over the version that save made', async () => {
    const { desk, studio, stored } = openDesk();
    desk.type('5G 7G');
    const saving = desk.save();
    desk.type('5G 7G 8G');
    await saving;
    expect(desk.text.value).toBe('5G 7G 8G');
    expect(JSON.parse(localStorage.getItem('jam-draft-one') ?? '')).toMatchObject({ text: '5G 7G 8G', version: 2 });
    await wait(500);
    expect(sentIn(studio.asked)).toMatchObject([
      { text: '5G 7G', version: 1 },
      { text: '5G 7G 8G', version: 2 },
    ]);
    expect([stored().text, desk.state.value]).toEqual(['5G 7G 8G', 'saved']);
    expect(localStorage.getItem('jam-draft-one')).toBeNull();
  });

  test('is kept here while the line is cut, and tried again', async () => {
    const { desk, studio } = openDesk();
    const { answers } = studio;
    studio.answers = { changePhrase: () => CUT };
    desk.type('5G 7G');
    await wait(500);
    expect(desk.state.value).toBe('kept-here');
    expect(localStorage.getItem('jam-draft-one')).toContain('5G 7G');
    studio.answers = answers;
    await wait(3000);
    expect(desk.state.value).toBe('saved');
  });

  test('is not saved over a newer one; both are there to choose from', async () => {
    const { desk, put, stored } = openDesk();
    put({ ...PHRASE, version: 2, text: '9G' });
    desk.type('5G 7G');
    await wait(500);
    expect([desk.state.value, desk.theirs.value?.text, desk.text.value]).toEqual(['stale', '9G', '5G 7G']);
    desk.type('5G 7G 8G');
    await wait(5000);
    expect(stored().text).toBe('9G');
    await desk.settle('mine');
    expect([stored().text, desk.state.value]).toEqual(['5G 7G 8G', 'saved']);
  });

  test('gives way to theirs where that is chosen', async () => {
    const { desk, put, saved } = openDesk();
    put({ ...PHRASE, version: 2, text: '9G' });
    desk.type('5G 7G');
    await wait(500);
    await desk.settle('theirs');
    expect([desk.text.value, desk.state.value, saved.at(-1)?.version]).toEqual(['9G', 'saved', 2]);
    expect(localStorage.getItem('jam-draft-one')).toBeNull();
  });

  test('goes on over a row that was only renamed meanwhile', async () => {
    const { desk, put, stored } = openDesk();
    put({ ...PHRASE, version: 2, name: 'Beginning' });
    desk.type('5G 7G');
    await wait(1100);
    expect([stored().text, stored().version, desk.state.value]).toEqual(['5G 7G', 3, 'saved']);
  });

  test('that is the same as theirs is saved', async () => {
    const { desk, put, studio } = openDesk();
    put({ ...PHRASE, version: 2, text: '5G 7G' });
    desk.type('5G 7G');
    await wait(500);
    expect([desk.state.value, studio.asked.length]).toEqual(['saved', 1]);
  });

  test('refused is told with its sentence, and stays', async () => {
    const { desk, studio } = openDesk();
    const problems = [{ field: 'text', message: 'This is too long.' }];
    studio.answers = { changePhrase: () => new Refusing(422, 'invalid', { problems }) };
    desk.type('x'.repeat(20));
    await wait(500);
    expect([desk.state.value, desk.trouble.value, desk.text.value.length]).toEqual([
      'refused',
      'This is too long.',
      20,
    ]);
  });

  test('left before the pause is saved as it is left', async () => {
    const { desk, phrase, studio } = openDesk();
    desk.type('5G 7G');
    phrase.value = { ...PHRASE, id: 'two', text: '0E' };
    await wait(0);
    expect(sentIn(studio.asked)).toMatchObject([{ text: '5G 7G' }]);
    expect(studio.asked[0]?.path).toBe('/phrases/one');
    expect(desk.text.value).toBe('0E');
  });
});

describe('what this browser kept', () => {
  const keep = (draft: object | string) =>
    localStorage.setItem('jam-draft-one', typeof draft === 'string' ? draft : JSON.stringify(draft));

  test('is taken up and saved where nobody else typed', async () => {
    keep({ text: '5G 7G', version: 1, base: '5G' });
    const { desk, stored } = openDesk();
    expect(desk.text.value).toBe('5G 7G');
    await wait(500);
    expect(stored().text).toBe('5G 7G');
  });

  test('is shown beside theirs where somebody did', () => {
    keep({ text: '5G 7G', version: 1, base: '5G' });
    const { desk } = openDesk({ ...PHRASE, version: 4, text: '9G' });
    expect([desk.state.value, desk.text.value, desk.theirs.value?.text]).toEqual(['stale', '5G 7G', '9G']);
  });

  test('is forgotten where it is what the studio has', () => {
    keep({ text: '5G', version: 1, base: '' });
    const { desk } = openDesk();
    expect([desk.state.value, localStorage.getItem('jam-draft-one')]).toEqual(['saved', null]);
  });

  test.each(['5G 7G', '{"text":5}', '{'])('that is none of ours, %s, is only a text', (kept) => {
    keep(kept);
    const { desk } = openDesk();
    expect([desk.text.value, desk.state.value]).toEqual([kept, 'stale']);
  });
});
