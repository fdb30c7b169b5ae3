import { describe, expect, test } from '@jest/globals';
import { crossCells, readShorthand, sayCell } from '../src/notation/index.ts';

const FOUR = { meter: { beats: 4, unit: 4 } };
const cells = (text: string) => crossCells(readShorthand(text, FOUR).phrase);

// Three against four: the least common multiples, common practice.
describe('a short cell repeated against the bar', () => {
  test('three 16ths in 4/4 come round with the beat after three, with the bar after three', () => {
    const [cell] = cells(`/16 ${'5G 7G 5B '.repeat(5)} 8B | /4 5G 7G 5G 7G`);
    expect(cell).toMatchObject({ events: 3, times: 5, beats: 3, bars: 3, breaksOff: 'bar 1, beat 4' });
    expect(cell && sayCell(cell)).toBe(
      'A cell of 3 events, 5 times against the bar: with the beat again after 3 beats, with the bar after 3 bars; it breaks off at bar 1, beat 4.',
    );
  });
  test('five 16ths come round with the beat after five, and it may go on to the end', () =>
    expect(cells(`/16 ${'5G 7G 5B 8B 5e '.repeat(16)}`)[0]).toMatchObject({
      ...{ events: 5, times: 16, beats: 5, bars: 5, breaksOff: undefined },
    }));
  test('three quarters in 4/4 lie on the beat, and against the bar', () =>
    expect(cells(`/4 ${'5G 7G 5B '.repeat(4)}`)[0]).toMatchObject({ beats: 3, bars: 3 }));
  test.each([
    ['four 16ths fill a beat', `/16 ${'5G 7G 5B 8B '.repeat(8)}`],
    ['triplets fill a beat', `/8t ${'5G 7G 5B '.repeat(8)}`],
    ['one note over and over is no cell', `/16 ${'5G '.repeat(24)}`],
    ['twice is too few', '/16 5G 7G 5B 5G 7G 5B 8B 10B 8B 5B'],
    ['without a rhythm there is no bar', `/? ${'5G 7G 5B '.repeat(5)}`],
  ])('%s', (_, text) => expect(cells(text)).toEqual([]));
});
