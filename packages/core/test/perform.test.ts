import { describe, expect, test } from '@jest/globals';
import { accompany, centsAt, MAX_PLAYED, perform, playOut, readShorthand, scoreOf } from '../src/notation/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';

const setup = { tuning: TUNINGS.standard, capo: 0 };
/** At 60 quarters a minute a whole note lasts four seconds. */
const play = (text: string, bpm = 60) => perform(readShorthand(text).phrase, { ...setup, bpm });
/** Cents above the plain pitch of one note at a time after its start. */
const cents = (text: string, seconds: number, index = 0) => centsAt(play(text)[index]?.contour ?? [], seconds);

describe('contours, as the notation defines them', () => {
  test('a bend glides at most a sixteenth and then stays', () => {
    expect(cents('/1 7Gb1', 0)).toBe(0);
    expect(cents('/1 7Gb1', 0.125)).toBeCloseTo(100, 6);
    expect(cents('/1 7Gb1', 0.25)).toBeCloseTo(200, 6);
    expect(cents('/1 7Gb1', 3.9)).toBeCloseTo(200, 6);
  });

  test('moves split the length, holds included, into equal parts', () => {
    expect(cents('/2 7Gb1r _', 1.9)).toBeCloseTo(200, 6);
    expect(cents('/2 7Gb1r _', 2.3)).toBeCloseTo(0, 6);
    expect(cents('/1 17eb1r.5b1r.5', 1.5)).toBeCloseTo(100, 6);
  });

  test('in a short note the glide takes half of its part', () => {
    expect(cents('/16 7Gb1', 0.0625)).toBeCloseTo(100, 6);
    expect(cents('/16 7Gb1', 0.125)).toBeCloseTo(200, 6);
  });

  test('a slow bend glides over the whole of its part', () => {
    expect(cents('/1 7Gbb1', 2)).toBeCloseTo(100, 6);
    expect(cents('/1 7Gbb1rr', 3)).toBeCloseTo(100, 6);
  });

  test('a pre-bend starts at its height', () => {
    expect(cents('/1 10Bpb1', 0)).toBe(200);
    expect(cents('/1 10Bpb1r', 3)).toBeCloseTo(0, 6);
  });

  test('a bend of unknown size sounds as half a step, a range as its lower end', () => {
    expect(cents('/1 9Gb?', 3)).toBeCloseTo(100, 6);
    expect(cents('/1 9Gb1-2', 3)).toBeCloseTo(200, 6);
    expect(cents('/1 14eb>17', 3)).toBeCloseTo(300, 6);
  });

  test('a slide leaves the note before in its last quarter, at most a sixteenth', () => {
    expect(cents('/4 5G s9', 0.74)).toBe(0);
    expect(cents('/4 5G s9', 0.875)).toBeCloseTo(200, 6);
    expect(cents('/1 5G s9', 3.7)).toBe(0);
    expect(play('/4 5G s9')[1]?.attack).toBe('none');
    expect(play('/4 5G S9')[1]?.attack).toBe('pick');
  });

  test('slides from and to nowhere: two frets in a quarter, five frets away, never past the nut', () => {
    expect(cents('/4 <14D', 0)).toBe(-200);
    expect(cents('/4 >14D', 0.125)).toBeCloseTo(100, 6);
    expect(cents('/4 <1D', 0)).toBe(-100);
    expect(cents('/4 14D>', 1)).toBeCloseTo(-500, 6);
    expect(cents('/4 14D<', 1)).toBeCloseTo(500, 6);
    expect(cents('/4 3D>', 1)).toBeCloseTo(-300, 6);
  });

  test('vibrato swings 30 cents to each side 5.5 times a second, wide 60', () => {
    const turn = 1 / 5.5;
    expect(cents('/1 5G~', turn / 4)).toBeCloseTo(30, 6);
    expect(cents('/1 5G~', turn * 0.75)).toBeCloseTo(-30, 6);
    expect(cents('/1 5G~~', turn / 4)).toBeCloseTo(60, 6);
    expect(cents('/1 5Gb1~', 0.25 + turn / 4)).toBeCloseTo(230, 0);
  });

  test('a dip goes down in the first quarter and is back at the half', () => {
    expect(cents('/1 5Gw-1', 1)).toBeCloseTo(-200, 6);
    expect(cents('/1 5Gw-.5', 2)).toBeCloseTo(0, 6);
  });

  test('a tap on a bent string sounds as far above its fret as the bend stands; the pull-off falls back to it', () => {
    const notes = play('/4 10Bb1 t17 p10 p8');
    expect(notes.map(({ midi }) => midi)).toEqual([69, 76, 69, 67]);
    expect(notes.map(({ contour }) => contour[0]?.cents)).toEqual([0, 200, 200, 0]);
  });
});

describe('what sounds when', () => {
  test('harmonics sound their partial, not their fret', () => {
    // Source: the nodes of an ideal string; ratios 2, 3, 4 and 5 to the open string.
    const ratios = (text: string) => play(text).map(({ midi }) => 2 ** (((midi ?? 0) - 50) / 12));
    ratios('12D* 7D* 5D* 4D*').forEach((ratio, index) => expect(ratio).toBeCloseTo([2, 3, 4, 5][index] ?? 0, 9));
  });

  test('graces alone, with nothing to take time from, each sound for a 32nd', () => {
    expect(play('5A7D/g').map(({ durationSeconds }) => durationSeconds)).toEqual([0.125, 0.125]);
    const [first, second] = play('5G/g 7G/g');
    expect([first?.startSeconds, second?.startSeconds]).toEqual([0, 0.125]);
  });

  test('a grace note takes a 32nd from the event after it', () => {
    const [grace, main] = play('/4 5G 7G/g 9G').slice(1);
    expect([grace?.startSeconds, grace?.durationSeconds]).toEqual([1, 0.125]);
    expect([main?.startSeconds, main?.durationSeconds]).toEqual([1.125, 0.875]);
  });

  test('a cut note lasts half its length, a let-ring note until its string is played again', () => {
    expect(play('/4 5G,')[0]?.durationSeconds).toBeCloseTo(0.5, 9);
    expect(play('/4 5Gl 5D 5D 7G')[0]?.durationSeconds).toBeCloseTo(3, 9);
  });

  test('swing puts the off-beat eighth on the last third of the beat', () => {
    const starts = play('feel=swing /8 5G 5G 5G 5G').map(({ startSeconds }) => startSeconds);
    [0, 2 / 3, 1, 5 / 3].forEach((expected, index) => expect(starts[index]).toBeCloseTo(expected, 9));
  });

  test('a tempo written later keeps its proportion', () => {
    const starts = play('tempo=100 /4 5G 5G tempo=50 5G 5G', 50).map(({ startSeconds }) => startSeconds);
    expect(starts.map((start) => Math.round(start * 1000))).toEqual([0, 1200, 2400, 4800]);
  });

  test('from and to cut out a stretch and count from its start', () => {
    const { phrase } = readShorthand('/4 5G 7G 9G 5B');
    const notes = perform(phrase, { ...setup, bpm: 60, from: 20_160, to: 60_480 });
    expect(notes.map(({ startSeconds, midi }) => [startSeconds, midi])).toEqual([
      [0, 62],
      [1, 64],
    ]);
    expect(accompany(phrase, { bpm: 60, from: 20_160, to: 60_480 }).seconds).toBe(2);
  });

  test('the click counts the meter, a pick-up from its end', () => {
    const { phrase } = readShorthand('pickup meter=3/4 /4 12D | 5G 5G 5G');
    const { clicks, countIn } = accompany(phrase, { bpm: 60 });
    expect(clicks).toEqual([
      { seconds: 0, accent: false },
      { seconds: 1, accent: true },
      { seconds: 2, accent: false },
      { seconds: 3, accent: false },
    ]);
    expect(countIn).toEqual({ beats: 3, beatSeconds: 1 });
  });
});

describe('what nobody should type', () => {
  const planes = Array.from({ length: 17 }, (_, plane) => String.fromCodePoint(plane * 0x10000 + 0x1234)).join(' ');
  test.each([
    ['a megabyte of notes', '5G 7G '.repeat(170_000), 'too-long'],
    ['a megabyte of nothing known', 'zz ! '.repeat(200_000), 'unknown-item'],
    ['one word of a megabyte', 'q'.repeat(1_000_000), 'unknown-item'],
    ['10,000 nested brackets', `5G ${'[ '.repeat(10_000)}7G${' ]2'.repeat(10_000)}`, 'too-long'],
    ['10,000 brackets that are never closed', `5G ${'[ '.repeat(10_000)}`, 'too-long'],
    ['every plane of Unicode', `5G ${planes}`, 'unknown-item'],
    ['a repeat of a billion', '5G [ 7G ]1000000000', 'too-long'],
    ['repeats inside repeats inside repeats', `${'[ '.repeat(20)}5G${' ]99'.repeat(20)}`, 'too-long'],
  ])('%s is answered in words, and what can be read is', (_what, text, code) => {
    const { phrase, problems } = readShorthand(text);
    expect(problems.map((problem) => problem.code)).toContain(code);
    expect(problems.length).toBeLessThanOrEqual(200);
    const events = playOut(phrase, setup);
    expect(events.length).toBeLessThanOrEqual(MAX_PLAYED);
    expect(scoreOf(phrase).length).toBeLessThan(5000);
    if (text.includes('5G')) expect(events[0]?.notes[0]?.midi).toBe(60);
  });
});

describe('the feel of the song', () => {
  const starts = (text: string, feel?: 'straight' | 'swing') =>
    perform(readShorthand(text).phrase, { tuning: TUNINGS.standard, capo: 0, bpm: 60, ...(feel && { feel }) }).map(
      ({ startSeconds }) => Math.round(startSeconds * 1000) / 1000,
    );

  // Source: common practice, swing eighths stand like the outer two of a triplet.
  test('swings where the phrase says nothing, and not where the phrase says straight', () => {
    expect(starts('/8 5G 7G 5G 7G')).toEqual([0, 0.5, 1, 1.5]);
    expect(starts('/8 5G 7G 5G 7G', 'swing')).toEqual([0, 0.667, 1, 1.667]);
    expect(starts('feel=straight /8 5G 7G 5G 7G', 'swing')).toEqual([0, 0.5, 1, 1.5]);
  });
});
