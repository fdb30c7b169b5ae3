import type { Entry } from '@jam-ledger/contract';
import { describe, expect, test } from '@jest/globals';
import { readShorthand } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';
import { nextTick, ref } from 'vue';
import { countingOf, sayLoop, sayPart } from '../src/playing/entries.ts';
import { phrasesBefore } from '../src/songs/phrase/useAlike.ts';
import { useStepping } from '../src/playing/useStepping.ts';

const TEXT = '/4 5G 7G 5D 7D | 5G 7G 5D 7D';
const QUARTER = 20_160;
const stepping = () => {
  const text = ref(TEXT);
  return { text, ...useStepping(() => readShorthand(text.value).phrase, TUNINGS.standard) };
};

describe('what was played', () => {
  test('is the whole where nothing is looped, and where the loop holds all of it', () => {
    const { playedOf, move, loopFrom, loopTo, steps } = stepping();
    expect(playedOf(100)).toEqual({ percent: 100 });
    move(1);
    loopFrom();
    for (let step = 1; step < steps.value.length; step += 1) move(1);
    loopTo();
    expect(playedOf(100)).toEqual({ percent: 100 });
  });

  test('is what the rung asked for, as long as nobody chose another loop', () => {
    const { playedOf, keepPart, move, loopTo } = stepping();
    keepPart(0, 25);
    expect(playedOf(25)).toEqual({ percent: 25 });
    for (let step = 0; step < 4; step += 1) move(1);
    loopTo();
    expect(playedOf(25)).toEqual({ percent: 100, loop: { from: 0, to: 4 * QUARTER } });
  });

  test('is the loop that was chosen by hand, one beat or a half', () => {
    const { playedOf, keepPart, move, loopFrom, loopTo } = stepping();
    move(1);
    move(1);
    loopFrom();
    loopTo();
    expect(playedOf(100)).toEqual({ percent: 100, loop: { from: QUARTER, to: 2 * QUARTER } });
    keepPart(50, 100);
    expect(playedOf(100)).toEqual({ percent: 100, loop: { from: 4 * QUARTER, to: 8 * QUARTER } });
  });

  test('stays looped when the same text is read anew, and not when it has changed', async () => {
    const { text, playedOf, loopSays, move, loopFrom, loopTo } = stepping();
    move(1);
    loopFrom();
    loopTo();
    text.value = `${TEXT} `;
    await nextTick();
    expect([loopSays.value, playedOf(100).loop]).toEqual(['bar 1, beat 1', { from: 0, to: QUARTER }]);
    text.value = '/4 5G 7G';
    await nextTick();
    expect([loopSays.value, playedOf(100)]).toEqual(['the whole', { percent: 100 }]);
  });
});

describe('entries', () => {
  const entry = (more: Partial<Entry>): Entry => ({
    id: 'e',
    version: 1,
    bpm: 84,
    outcome: 'clean',
    medium: 'pencil',
    percent: 100,
    loop: null,
    counts: true,
    remark: '',
    postedAt: '2026-03-14T10:00:00.000Z',
    day: '2026-03-14',
    postedBy: { id: 'ines', name: 'Ines' },
    struck: false,
    ...more,
  });

  test('count where they move the ladder and stand', () => {
    const all = [entry({}), entry({ counts: false }), entry({ struck: true }), entry({ id: 'f' })];
    expect(countingOf({ before: [], entries: all }).map((one) => 'id' in one && one.id)).toEqual(['e', 'f']);
  });

  test('say what was played of the piece', () => {
    expect(sayPart(entry({}))).toBe('');
    expect(sayPart(entry({ percent: 25 }))).toBe(' (25 %)');
    expect(sayPart(entry({ loop: { from: 0, to: 1 } }))).toBe(' (a loop)');
  });

  test('say where a loop went round, as long as it is there', () => {
    const { phrase } = readShorthand(TEXT);
    expect(sayLoop({ from: 0, to: QUARTER }, phrase)).toBe('bar 1, beat 1');
    expect(sayLoop({ from: 3 * QUARTER, to: 6 * QUARTER }, phrase)).toBe('bar 1, beat 4 to bar 2, beat 2');
    expect(sayLoop({ from: 90 * QUARTER, to: 91 * QUARTER }, phrase)).toBe('what was cut away');
  });
});

describe('the phrases before one', () => {
  const phrase = (id: string, more: object = {}) => ({
    id,
    name: id.toUpperCase(),
    alternateOf: null,
    refersTo: null,
    ...more,
  });
  // Only what is looked at is there.
  const song = (...sections: readonly (readonly object[])[]) =>
    ({ sections: sections.map((phrases, index) => ({ label: `${index + 1}A`, phrases })) }) as unknown as Parameters<
      typeof phrasesBefore
    >[0];
  const before = (of: ReturnType<typeof song>, one: object) =>
    phrasesBefore(of, one as Parameters<typeof phrasesBefore>[1]).map(({ name }) => name);

  test('are those of all sections up to it, without its own ways and those that refer to another', () => {
    const [a, b, c] = [phrase('a'), phrase('b', { refersTo: 'a' }), phrase('c')];
    const way = phrase('way', { alternateOf: 'c' });
    const of = song([a, b, way], [c, phrase('d')]);
    expect(before(of, c)).toEqual(['1A A']);
    expect(before(of, way)).toEqual(['1A A']);
    expect(before(of, a)).toEqual([]);
  });
});
