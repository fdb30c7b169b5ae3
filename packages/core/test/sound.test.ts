import { describe, expect, test } from '@jest/globals';
import { PitchDetector } from 'pitchy';
import { accompany, perform, readShorthand, type PlayedNote } from '../src/notation/index.ts';
import { centsBetween, hzOf, TUNINGS } from '../src/pitch/index.ts';
import { backingOf, renderClick, renderNotes, startRendering, voiceChord } from '../src/sound/index.ts';

const RATE = 44_100;
const setup = { tuning: TUNINGS.standard, capo: 0 };
const play = (text: string, bpm = 60) => perform(readShorthand(text).phrase, { ...setup, bpm });
const sound = (text: string, bpm = 60) => renderNotes(play(text, bpm), { sampleRate: RATE });

/** One note of a string, a second long. */
function noteOf(midi: number): PlayedNote {
  const span = { from: 0, to: 0 };
  const plain = { string: 1, contour: [{ seconds: 0, cents: 0 }], attack: 'pick', level: 0.75 } as const;
  return { ...plain, startSeconds: 0, durationSeconds: 1, midi, palmMuted: false, harmonic: false, span };
}

/**
 * Hertz at a time, by the independent tracker `pitchy` (McLeod pitch method): the median of readings around it.
 */
function hertzAt(samples: Float32Array, seconds: number, window = 8192): number {
  const detector = PitchDetector.forFloat32Array(window);
  const readings = [-2, -1, 0, 1, 2].map((step) => {
    const from = Math.round((seconds + step * 0.006) * RATE) - window / 2;
    return detector.findPitch(samples.subarray(from, from + window), RATE)[0];
  });
  return readings.sort((a, b) => a - b)[2] ?? 0;
}

/** The first sample that is louder than a share of the loudest, seconds. */
function onsetOf(samples: Float32Array, from = 0): number {
  const first = samples.findIndex((sample, index) => index >= from * RATE && Math.abs(sample) > 1e-4);
  return first / RATE;
}

describe('pitch, by an independent tracker', () => {
  test('the tracker itself reads sines from E2 to E6 within a cent', () => {
    const errors = [40, 52, 64, 76, 88].map((midi) => {
      const sine = Float32Array.from({ length: RATE }, (_, n) => Math.sin((2 * Math.PI * hzOf(midi) * n) / RATE));
      return Math.abs(centsBetween(hzOf(midi), hertzAt(sine, 0.35)));
    });
    expect(Math.max(...errors)).toBeLessThan(1);
  });

  test('every note from E2 to E6 is in tune: median under 2 cents, worst under 5', () => {
    const errors = Array.from({ length: 49 }, (_, step) => {
      const midi = 40 + step;
      const heard = hertzAt(renderNotes([noteOf(midi)], { sampleRate: RATE }), 0.35);
      return { midi, cents: Math.abs(centsBetween(hzOf(midi), heard)) };
    }).sort((a, b) => a.cents - b.cents);
    expect(errors[24]?.cents).toBeLessThan(2);
    expect(errors.filter(({ cents }) => cents >= 5)).toEqual([]);
  });

  test.each([
    ['a whole-step bend at string 3 fret 7 sounds E4', '/1 7Gb1', 64],
    ['a half-step bend at string 2 fret 8 sounds G♯4', '/1 8Bb.5', 68],
    ['a step and a half at string 1 fret 14 sounds A5', '/1 14eb1.5', 81],
    ['a pre-bend at string 2 fret 10 sounds B4', '/1 10Bpb1', 71],
    ['a quarter bend lies between the frets', '/1 5Gb.25', 60.5],
  ])('%s, its plateau within 5 cents', (_fact, text, midi) => {
    expect(Math.abs(centsBetween(hzOf(midi), hertzAt(sound(text, 90), 1.6)))).toBeLessThan(5);
  });

  test('a release comes back to the fret, and a slide arrives', () => {
    expect(Math.abs(centsBetween(hzOf(62), hertzAt(sound('/1 7Gb1r', 60), 3.4)))).toBeLessThan(5);
    expect(Math.abs(centsBetween(hzOf(64), hertzAt(sound('/2 5G s9', 60), 3)))).toBeLessThan(5);
  });

  test('a recording 25 cents sharp is played 25 cents sharp', () => {
    const notes = perform(readShorthand('/1 5G').phrase, { ...setup, bpm: 60, offsetCents: 25 });
    const heard = hertzAt(renderNotes(notes, { sampleRate: RATE }), 0.5);
    expect(centsBetween(hzOf(60), heard)).toBeCloseTo(25, -1);
  });

  test('the natural harmonic at fret 7 sounds an octave and a fifth above the open string', () => {
    expect(Math.abs(centsBetween(3 * hzOf(50), hertzAt(sound('/1 7D*'), 0.5)))).toBeLessThan(5);
  });
});

describe('time', () => {
  test('onsets are within a millisecond of what is performed', () => {
    const notes = play('/4 5E - 7D - 12e - 0A - xG', 100);
    const samples = renderNotes(notes, { sampleRate: RATE });
    for (const { startSeconds, midi } of notes) {
      const heard = onsetOf(samples, Math.max(0, startSeconds - 0.005));
      expect([midi, Math.abs(heard - startSeconds) < 0.001]).toEqual([midi, true]);
    }
  });

  test('pieces joined are the whole, whatever their sizes', () => {
    const notes = play('/16 5D h7 p5 7Gb1r 5A7D%4', 120);
    const whole = renderNotes(notes, { sampleRate: RATE, seconds: 2 });
    const rendering = startRendering(notes, { sampleRate: RATE });
    const sizes = [1, 777, 16_384, 4000, 30_000];
    const joined = new Float32Array(whole.length);
    for (let at = 0, index = 0; at < whole.length; index += 1) {
      const piece = rendering.next(Math.min(sizes[index % sizes.length] ?? 1, whole.length - at));
      joined.set(piece, at);
      at += piece.length;
    }
    const differing = joined.findIndex((sample, index) => Math.abs(sample - (whole[index] ?? 0)) > 1e-6);
    expect(differing).toBe(-1);
  });

  test('a click lies on its beat, the accented one is higher', () => {
    const clicks = [
      { seconds: 0.25, accent: true },
      { seconds: 0.75, accent: false },
    ];
    const samples = renderClick(clicks, { sampleRate: RATE, from: 0, frames: RATE });
    expect(onsetOf(samples)).toBeCloseTo(0.25, 3);
    expect(onsetOf(samples, 0.5)).toBeCloseTo(0.75, 3);
    const crossings = (from: number) => {
      const part = samples.subarray(Math.round(from * RATE), Math.round((from + 0.02) * RATE));
      return part.filter((sample, index) => index > 0 && sample >= 0 && (part[index - 1] ?? 0) < 0).length;
    };
    expect(crossings(0.25)).toBeGreaterThan(crossings(0.75));
  });
});

describe('the backing', () => {
  // Source: common practice, the notes of each chord.
  test.each([
    ['Em', 40, [55, 59, 64]],
    ['F#7/E', 40, [58, 61, 64, 66]],
    ['C', 36, [55, 60, 64]],
  ])('%s has its bass and its notes', (symbol, bass, chord) => expect(voiceChord(symbol)).toEqual({ bass, chord }));

  test('follows the harmony from bar to bar, and rests where none is written', () => {
    const { phrase } = readShorthand('/4 5G 5G 5G 5G | :Am 5G 5G :D 5G 5G | :- 5G 5G 5G 5G');
    const basses = backingOf(accompany(phrase, { bpm: 60 })).filter(({ midi }) => (midi ?? 99) < 48);
    expect(basses.map(({ startSeconds, midi }) => [startSeconds, midi])).toEqual([
      [4, 45],
      [6, 38],
    ]);
    expect(voiceChord('Zz')).toBeUndefined();
  });
});

describe('how it sounds', () => {
  const energy = (samples: Float32Array, from: number, to: number) =>
    Math.sqrt(
      samples.subarray(from * RATE, to * RATE).reduce((sum, sample) => sum + sample * sample, 0) / ((to - from) * RATE),
    );

  test('the same seed gives the same samples, another one others', () => {
    const notes = play('5D 7D');
    const render = (seed: number) => renderNotes(notes, { sampleRate: RATE, seed });
    expect(render(3)).toEqual(render(3));
    expect(render(3)).not.toEqual(render(4));
  });

  test('palm-muted and dead notes die away sooner than open ones', () => {
    const rest = (text: string) => energy(sound(text), 0.5, 0.6) / energy(sound(text), 0.01, 0.06);
    expect(rest('/1 3Am')).toBeLessThan(rest('/1 3A') / 4);
    expect(rest('/1 xA')).toBeLessThan(rest('/1 3Am'));
  });

  test('a note that is cut short is silent in its second half', () => {
    const whole = energy(sound('/1 5G'), 2.6, 3.4);
    expect(energy(sound('/1 5G,'), 2.6, 3.4)).toBeLessThan(whole / 50);
  });

  test('bending makes no click: no jump between samples larger than in the plain note', () => {
    const jump = (samples: Float32Array) => {
      let max = 0;
      for (let n = Math.round(0.3 * RATE); n < 3 * RATE; n += 1)
        max = Math.max(max, Math.abs((samples[n] ?? 0) - (samples[n - 1] ?? 0)));
      return max;
    };
    expect(jump(sound('/1 7Gbb1rr~~'))).toBeLessThan(jump(sound('/1 7G')) * 1.5);
  });

  test('six loud strings together stay under full scale', () => {
    const samples = sound('/2 0E+2A+2D+1G+0B+0e! 3E+2A+0DGB+3e! | 0E+2A+2D+1G+0B+0e! 3E+2A+0DGB+3e!', 120);
    expect(samples.reduce((max, sample) => Math.max(max, Math.abs(sample)), 0)).toBeLessThan(1);
  });
});
