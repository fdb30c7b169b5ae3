import { describe, expect, test } from '@jest/globals';
import { lossesOf, SONG_FORMATS } from '../../src/formats/index.ts';
import { songOf } from './songs.ts';

describe('what a format cannot carry', () => {
  test('of a plain melody: MIDI no strings, others nothing', () => {
    const song = songOf(['/4 5G 7G 9G 5G']);
    expect(lossesOf('midi', song)).toEqual(['strings and frets']);
    expect(SONG_FORMATS.filter((format) => lossesOf(format, song).length > 0)).toEqual(['midi', 'wav']);
  });

  test('only what stands in the song is told', () => {
    const song = songOf(['/4 5Gf1 "softly" 7Gb? [ 5G 7G ]2'], { offsetCents: -20 });
    expect(lossesOf('text', song)).toEqual([
      'fingers',
      'words of advice',
      'bends whose size is open: the smaller one is written',
      'how far the recording stands off pitch',
    ]);
    expect(lossesOf('shorthand', song)).toEqual([]);
  });

  test('a song that is too long is written up to a point, which is told before', () => {
    const endless = songOf(['[ 5G 7G 9G 7G ]64'], { times: 500 });
    const told = 'what comes after the first 100,000 events: so long a song is cut off';
    for (const format of ['musicxml', 'mxl', 'midi', 'text', 'wav'] as const)
      expect(lossesOf(format, endless)).toContain(told);
    expect(lossesOf('musicxml', songOf(['[ 5G 7G 9G 7G ]64'], { times: 2 }))).toEqual([]);
  });
});
