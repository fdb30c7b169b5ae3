import { describe, expect, test } from '@jest/globals';
import { hearingList, MAX_POINTS, type HearingOptions } from '../src/hearing/index.ts';
import { readShorthand } from '../src/notation/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';

const list = (text: string, more: Partial<HearingOptions> = {}) =>
  hearingList(readShorthand(text).phrase, { tuning: TUNINGS.standard, capo: 0, ...more });
const said = (text: string, more: Partial<HearingOptions> = {}) => list(text, more).map(({ says }) => says);

// What goes wrong at each technique, and the pitches: common practice (the fret plus two a whole step is the target).
describe('what to listen for, from the marks of a phrase', () => {
  test.each([
    ['a whole-step bend at fret 7 of the G string reaches E4', '7Gb1', ['The bend at 7 on G reaches E4.']],
    ['a bend that is released comes back', '7Gb1r', ['The bend at 7 on G reaches E4, and comes back to D4.']],
    ['a half-step bend at fret 8 of the B string reaches Ab4', '8Bb½', ['The bend at 8 on B reaches A♭4.']],
    ['a quarter bend lies between the frets', '5Gb¼', ['The bend at 5 on G reaches a quarter step above C4.']],
    ['a hammer-on is not picked', '5Gh7', ['7 on G is hammered from 5, not picked, and as loud.']],
    ['a pull-off is not picked', '7Gp5', ['5 on G is pulled from 7, not picked, and as loud.']],
    [
      'a slide arrives and still sounds',
      '7Gs9',
      ['The slide from 7 arrives at 9 on G, still sounding, not picked again.'],
    ],
    ['a shift slide is picked again', '7GS9', ['The slide from 7 arrives at 9 on G before it is picked again.']],
    ['the string between octaves is silent', '5A7G', ['Muted between the two that sound: D.']],
    ['a dead note has no pitch', 'xD', ['Dead, with no pitch: D.']],
  ])('%s', (_, text, points) => expect(said(text)).toEqual(points));

  test('a plain run has nothing to inspect', () => expect(said('/8 5G 7G 5B 8B')).toEqual([]));

  test('a capo raises what a bend reaches', () =>
    expect(said('7Gb1', { capo: 2 })).toEqual(['The bend at 7 on G reaches F♯4.']));

  test('a bend is spelt in the key; a unison bend meets its partner; without a rhythm, notes are counted', () => {
    expect(said('12Bb1', { key: { fifths: 3, mode: 'major' } })).toEqual(['The bend at 12 on B reaches C♯5.']);
    expect(said('15Bb1+12e')).toEqual([
      'The bend at 15 on B meets 12 on the high e, both E5, with no beating between them.',
    ]);
    expect(list('/? 5G 5G 7Gb1').map(({ place }) => place)).toEqual(['note 3']);
  });

  test('strings are named as the studio names them', () =>
    expect(said('5Gh7', { names: 'numbers' })).toEqual(['7 on string 3 is hammered from 5, not picked, and as loud.']));

  test('points stand in the order of the music, the same thing at the same place once', () => {
    const points = list('/4 7Gb1 5G | 5Gh7 7Gb1 | 5Gh7 5G');
    expect(points.map(({ place, kind }) => `${place} ${kind}`)).toEqual(['bar 1 bend', 'bar 2 slur']);
    expect(points.map(({ at }) => at)).toEqual([...points.map(({ at }) => at)].sort((a, b) => a - b));
  });

  test('in the ballpark only pitch and silence are inspected', () =>
    expect(list('/8 5Gh7 7Gb1 5G', { essentialsOnly: true }).map(({ kind }) => kind)).toEqual(['bend']));

  test('of very many points only so many are told', () => {
    const text = Array.from({ length: 60 }, (_, index) => `${1 + (index % 15)}${'EADGBe'[index % 6] ?? 'E'}b1`).join(
      ' ',
    );
    expect(list(`/16 ${text}`).length).toBeLessThanOrEqual(MAX_POINTS);
  });
});
