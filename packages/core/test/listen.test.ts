import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  addNoise,
  bendTargetOf,
  finePitch,
  hearNow,
  judgeTake,
  LISTEN_RATE,
  loudness,
  nearestString,
  onsetsOf,
  playAsLearner,
  proposeEntry,
  resample,
  riseOf,
  toleranceAt,
  trackPitch,
  weakSpots,
  type Audio,
  type Learner,
} from '../src/listen/index.ts';
import { perform, readShorthand, type PlayedNote } from '../src/notation/index.ts';
import { hzOf, midiAt, TUNINGS } from '../src/pitch/index.ts';
import { renderNotes, renderPlucks } from '../src/sound/index.ts';
import { sox } from './elsewhere.ts';

const BPM = 90;
const SETUP = { tuning: TUNINGS.standard, capo: 0 } as const;
const GUITARS = ['string', 'plucks'] as const;
const phraseOf = (text: string) => readShorthand(text, { tuning: SETUP.tuning }).phrase;
const play = (text: string) => perform(phraseOf(text), { ...SETUP, bpm: BPM });
/** A line, a bend that is held, a vibrato at the end. */
const LICK = '/8 5B 8B 5e 8e 8Bb1 5e | /4 7G 5G /2 7G~';
const LINE = play(LICK);
const SEVERAL = play('/8 5D 7D 5G 7G 5B 8B 5e 8e | 8e 5e 8B 5B 7G 5G 7D 5D');

const noteAt = (midi: number): PlayedNote => ({
  ...{ startSeconds: 0, durationSeconds: 1, string: 1, midi, contour: [{ seconds: 0, cents: 0 }], attack: 'pick' },
  ...{ level: 0.75, palmMuted: false, harmonic: false, span: { from: 0, to: 0 } },
});

function take(played: readonly PlayedNote[], learner: Partial<Learner> = {}) {
  const made = playAsLearner(played, { seed: 5, noiseDb: 30, sampleRate: LISTEN_RATE, ...learner });
  return { ...made, judged: judgeTake(made.audio, played, { bpm: BPM }) };
}
const verdictsOf = ({ judged }: ReturnType<typeof take>) => judged.events.map(({ verdict }) => verdict);
function sine(hz: number, seconds: number, sampleRate: number): Audio {
  return {
    sampleRate,
    samples: Float32Array.from(
      { length: seconds * sampleRate },
      (_, n) => 0.5 * Math.sin((2 * Math.PI * hz * n) / sampleRate),
    ),
  };
}
/** The plucked string of `sox`. */
function soxPluck(note: string, seconds = 2): Float32Array {
  return sox('synth', String(seconds), 'pluck', note);
}

describe('sound at another rate', () => {
  test.each([8000, 44_100, 48_000, 96_000, 192_000])(
    'a tone from %d samples a second keeps its pitch and loudness',
    (rate) => {
      const { samples, sampleRate } = resample(sine(1000, 1, rate));
      expect(sampleRate).toBe(LISTEN_RATE);
      expect(samples.length).toBe(LISTEN_RATE);
      expect(loudness(samples, 2000, 20_000)).toBeCloseTo(0.5 / Math.SQRT2, 2);
      expect(midiAt(1000)).toBeCloseTo(finePitch(samples, 0.1, 0.5, midiAt(1000)), 2);
    },
  );
  test('what is too high for the new rate is gone, not folded down', () => {
    expect(loudness(resample(sine(15_000, 1, 44_100)).samples)).toBeLessThan(0.001);
  });
  test('a rate of nothing throws', () => {
    expect(() => resample({ samples: new Float32Array(9), sampleRate: 0 })).toThrow(/above 0/);
  });
});

describe('pitch', () => {
  // Source of the frequencies: ISO 16:1975 and equal temperament.
  test.each([40, 50, 59, 69, 84])('MIDI %d of both guitars is heard to a cent', (midi) => {
    const note = noteAt(midi);
    for (const render of [renderNotes, renderPlucks]) {
      const samples = render([note], { sampleRate: LISTEN_RATE });
      addNoise(samples, 20, midi);
      expect(Math.abs(finePitch(samples, 0.05, 0.6, midi + 0.2) - midi) * 100).toBeLessThan(1.5);
    }
  });
  // An independent plucked string: `sox`, of which the manual says that `pluck` is a Karplus-Strong string tuned to the note named.
  test.each([
    ['E2', 40],
    ['A2', 45],
    ['G3', 55],
    ['E4', 64],
    ['A4', 69],
  ])('a string plucked elsewhere at %s is heard there', (name, midi) => {
    const samples = soxPluck(name);
    expect(Math.abs(finePitch(samples, 0.1, 0.5, midi) - midi) * 100).toBeLessThan(12);
    const { midis } = trackPitch(samples);
    const voiced = [...midis.subarray(10, 60)].filter((one) => !Number.isNaN(one));
    expect(voiced.length).toBeGreaterThan(40);
    expect(voiced.filter((one) => Math.abs(one - midi) > 0.5)).toEqual([]);
  });
  test('silence has none', () => {
    expect([...trackPitch(new Float32Array(9000)).midis].every(Number.isNaN)).toBe(true);
    expect(finePitch(new Float32Array(9000), 0, 0.3, 60)).toBeNaN();
    expect(trackPitch(new Float32Array(3)).midis).toHaveLength(0);
  });
});

describe('onsets', () => {
  test.each(GUITARS)('of %s are where notes begin, to 10 ms', (guitar) => {
    const { audio, played } = take(SEVERAL, { guitar, noiseDb: 20 });
    const onsets = onsetsOf(riseOf(resample(audio).samples)).map(({ seconds }) => seconds);
    expect(onsets).toHaveLength(played.length);
    played.forEach(({ startSeconds }, index) =>
      expect(Math.abs((onsets[index] ?? 0) - startSeconds)).toBeLessThan(0.01),
    );
  });
  test('a wide vibrato and a slow bend are one note each', () => {
    for (const text of ['/1 7G~~', '/1 7Gbb1']) {
      const samples = renderNotes(
        play(text).map((note) => ({ ...note, startSeconds: 0.3 })),
        { sampleRate: LISTEN_RATE },
      );
      addNoise(samples, 30, 1);
      expect([text, onsetsOf(riseOf(samples)).length]).toEqual([text, 1]);
    }
  });
  test('notes plucked elsewhere begin where they were put', () => {
    const samples = new Float32Array(4 * LISTEN_RATE);
    const starts = [0.5, 1.1, 1.7, 2.6];
    const names = ['A2', 'E3', 'C4', 'G3'];
    starts.forEach((at, index) =>
      soxPluck(names[index] ?? 'A2', 0.55).forEach((one, n) => (samples[Math.round(at * LISTEN_RATE) + n] = one)),
    );
    const onsets = onsetsOf(riseOf(samples)).map(({ seconds }) => seconds);
    for (const at of starts)
      expect([at, Math.min(...onsets.map((one) => Math.abs(one - at)))]).toEqual([at, expect.closeTo(0, 1.5)]);
  });
});

describe('a take', () => {
  test.each(GUITARS)(
    'played as written on %s is right note by note, at the tempo and tuning it really has',
    (guitar) => {
      const heard = take(LINE, { guitar, tempo: 0.9, tuningCents: -22 });
      expect(verdictsOf(heard)).toEqual(heard.judged.events.map(() => 'right'));
      expect(heard.judged.extras).toEqual([]);
      expect(heard.judged.tuningCents).toBeCloseTo(-22, 0);
      expect(Math.abs(heard.judged.bpm / (0.9 * BPM) - 1)).toBeLessThan(0.012);
      expect(proposeEntry(heard.judged)).toEqual({ outcome: 'clean', bpm: Math.round(heard.judged.bpm), why: [] });
      expect(weakSpots(heard.judged, phraseOf(LICK))).toEqual([]);
    },
  );

  test('every slip is told where it happens', () => {
    const told = { missed: 'missing', wrong: 'wrong', early: 'early', late: 'late' } as const;
    let slipped = 0;
    for (const [index, guitar] of GUITARS.entries())
      for (const kind of ['missed', 'wrong', 'early', 'late'] as const) {
        const heard = take(SEVERAL, { guitar, seed: 11 + index, slips: { [kind]: 14 } });
        slipped += heard.slips.length;
        const at = new Set(heard.slips.map(({ event }) => event));
        const should = heard.judged.events.map((_, event) => (at.has(event) ? told[kind] : 'right'));
        expect([guitar, kind, verdictsOf(heard)]).toEqual([guitar, kind, should]);
      }
    expect(slipped).toBeGreaterThan(8);
  });

  test('what was played instead is named', () => {
    const heard = take(SEVERAL, { seed: 3, slips: { wrong: 30 } });
    const wrong = heard.judged.events.filter(({ verdict }) => verdict === 'wrong');
    expect(wrong.length).toBeGreaterThan(1);
    for (const { heardMidi, seconds } of wrong) {
      const meant = SEVERAL.find(({ startSeconds }) => startSeconds === seconds);
      expect([1, 2]).toContain(Math.abs((heardMidi ?? 0) - (meant?.midi ?? 0)));
    }
  });

  test('a note too many is told with its pitch', () => {
    const slow = play('/4 5D 7D 5G 7G | 5B 8B 5e 8e');
    const heard = take(slow, { seed: 8, slips: { extra: 35 } });
    expect(heard.slips.length).toBeGreaterThan(0);
    expect(heard.judged.extras.map(({ midi }) => midi === null)).toEqual(heard.slips.map(() => false));
    expect(proposeEntry(heard.judged).outcome).toBe('not-yet');
  });

  test('a bend that falls short is told in cents, and what to try', () => {
    const text = '/4 5B /2 8Bb1 /4 5B | /2 7Gb1 /4 5G 5D';
    const heard = take(play(text), { seed: 4, slips: { 'short bend': 100 } });
    const bends = heard.judged.events.flatMap(({ bend }) => (bend ? [bend] : []));
    expect(bends).toHaveLength(2);
    for (const { targetCents, reachedCents } of bends) {
      expect(targetCents).toBeCloseTo(200, 0);
      // A bend of a whole step that is stopped at seven tenths of its way.
      expect(Math.abs(reachedCents - 140)).toBeLessThan(10);
    }
    expect(proposeEntry(heard.judged).why).toEqual(['2 bends did not reach their pitch.']);
    expect(weakSpots(heard.judged, phraseOf(text))[0]?.says).toMatch(
      /^Bar 1.*: the bend stops (5|6)\d cents short\. Try the bend drill/,
    );
  });

  test.each([
    ['/4 5B 5B | /1 7G~', 30],
    ['/4 5B 5B | /1 7G~~', 60],
  ])('the vibrato of %s has its rate and width', (text, cents) => {
    const { vibrato } = take(play(text)).judged.events.at(-1) ?? {};
    expect(Math.abs((vibrato?.hz ?? 0) - 5.5)).toBeLessThan(0.2);
    expect(Math.abs((vibrato?.cents ?? 0) - cents)).toBeLessThan(6);
  });
  test('a vibrato that is written and not played is told', () => {
    const still = play('/4 5B 5B | /1 7G');
    const { audio } = playAsLearner(still, { seed: 2 });
    expect(judgeTake(audio, play('/4 5B 5B | /1 7G~'), { bpm: BPM }).events.at(-1)?.vibrato).toBeNull();
  });

  test('chords and dead notes are found', () => {
    const heard = take(
      play('/4 5A7D7G x 5A7D7G xx | 3A5D5G x 3A5D5G 5A7D7G'.replaceAll(' x ', ' xADG ').replace(' xx ', ' xADG ')),
    );
    expect(verdictsOf(heard).filter((verdict) => verdict !== 'right' && verdict !== 'cannot tell')).toEqual([]);
  });

  test('of another piece is not judged as this one', () => {
    const { audio } = playAsLearner(play('/16 0E 3E 0A 3A 0E 3E 0A 3A 0E 3E 0A 3A 0E 3E 0A 3A'), { seed: 1 });
    const judged = judgeTake(audio, play('/2 12e 15B | 17e 12G'), { bpm: BPM });
    expect(judged.trouble).toBe('another piece');
    expect(proposeEntry(judged)).toMatchObject({
      outcome: null,
      why: [expect.stringContaining('does not sound like the piece')],
    });
  });

  test('of silence, of a moment, and of a piece without notes says so and does not throw', () => {
    const silent = { samples: new Float32Array(44_100), sampleRate: 44_100 };
    expect(judgeTake(silent, LINE, { bpm: BPM }).trouble).toBe('silent');
    expect(proposeEntry(judgeTake(silent, LINE, { bpm: BPM }))).toMatchObject({ outcome: null });
    expect(judgeTake({ samples: new Float32Array(5), sampleRate: 44_100 }, LINE, { bpm: BPM }).trouble).toBe('silent');
    expect(judgeTake(take(LINE).audio, [], { bpm: BPM }).events).toEqual([]);
  });

  test('that is clipped is told, and judged all the same', () => {
    const { audio } = take(LINE);
    const loud = { ...audio, samples: audio.samples.map((one) => Math.max(-1, Math.min(1, one * 12))) };
    const judged = judgeTake(loud, LINE, { bpm: BPM });
    expect(judged.trouble).toBe('clipped');
    expect(judged.events.filter(({ verdict }) => verdict === 'right').length).toBeGreaterThan(6);
  });

  test.each([8000, 48_000])('at %d samples a second is judged alike', (rate) => {
    const { audio } = playAsLearner(SEVERAL, { seed: 6 });
    const judged = judgeTake(resample(audio, rate), SEVERAL, { bpm: BPM });
    expect(judged.events.map(({ verdict }) => verdict)).toEqual(SEVERAL.map(() => 'right'));
  });

  test('that begins later is the same take', () => {
    const { audio } = playAsLearner(SEVERAL, { seed: 9, slips: { missed: 10, wrong: 10 } });
    const at = (judged: ReturnType<typeof judgeTake>) => judged.events.map(({ verdict }) => verdict);
    const plain = judgeTake(audio, SEVERAL, { bpm: BPM });
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 60_000 }), (frames) => {
        const samples = new Float32Array(audio.samples.length + frames);
        samples.set(audio.samples, frames);
        const later = judgeTake({ ...audio, samples }, SEVERAL, { bpm: BPM });
        expect(at(later)).toEqual(at(plain));
        expect(later.startSeconds - plain.startSeconds).toBeCloseTo(frames / audio.sampleRate, 1.7);
      }),
      { numRuns: 3 },
    );
  });

  test('by the same learner is the same, sample by sample', () => {
    const [one, other] = [playAsLearner(LINE, { seed: 4, noiseDb: 20 }), playAsLearner(LINE, { seed: 4, noiseDb: 20 })];
    expect(one.audio.samples).toEqual(other.audio.samples);
    expect(playAsLearner(LINE, { seed: 5, noiseDb: 20 }).audio.samples).not.toEqual(one.audio.samples);
  });

  test('may be less exact at speed than slowly', () => {
    expect([40, 50, 75, 100, 200].map((bpm) => Math.round(1000 * toleranceAt(bpm)))).toEqual([35, 35, 43, 50, 50]);
  });
});

describe('a weak spot', () => {
  test('is told with its place, the worst first', () => {
    const text = '/8 5D 7D 5G 7G 5B 8B 5e 8e | 8e 5e 8B 5B 7G 5G 7D 5D';
    const made = playAsLearner(
      SEVERAL.filter((_, index) => index !== 9 && index !== 10),
      { seed: 1 },
    );
    const judged = judgeTake(made.audio, SEVERAL, { bpm: BPM });
    const [worst] = weakSpots(judged, phraseOf(text));
    expect(worst?.says).toMatch(/^Bar 2.*not heard\. Loop these beats slower/);
    expect(worst && worst.to > worst.from).toBe(true);
    expect(hzOf(69)).toBe(440);
  });
});

describe('what sounds just now', () => {
  const sounding = (midi: number) => {
    const note = noteAt(midi);
    const samples = renderNotes([note], { sampleRate: 44_100 });
    return { samples: samples.subarray(2000, 10_192), sampleRate: 44_100 };
  };
  test.each([
    [40.1, 6, 10],
    [44.82, 5, -18],
    [64, 1, 0],
    [58.7, 2, -30],
  ])('MIDI %d is for string %d, %d cents off', (midi, string, cents) => {
    const heard = hearNow(sounding(midi));
    const near = nearestString(heard ?? 0, TUNINGS.standard);
    expect([near.string, Math.abs(near.cents - cents) < 3]).toEqual([string, true]);
  });
  test('a guitar tuned to a recording is tuned to its pitch', () => {
    expect(nearestString(63.8, TUNINGS.standard, -20)).toEqual({ string: 1, cents: expect.closeTo(0, 6) });
  });
  test('silence, and too little, is nothing', () => {
    expect(hearNow({ samples: new Float32Array(9000), sampleRate: 44_100 })).toBeUndefined();
    expect(hearNow({ samples: new Float32Array(10), sampleRate: 44_100 })).toBeUndefined();
  });
  test('a whole-step bend of G at fret 7 goes from D4 to E4; a plain line has none', () => {
    expect(bendTargetOf(play('/1 7Gb1'))).toEqual({ from: 62, to: 64 });
    expect(bendTargetOf(SEVERAL)).toBeUndefined();
  });
});
