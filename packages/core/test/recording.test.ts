import { describe, expect, it } from '@jest/globals';
import { readCorpus } from './corpus.ts';
import { partOf } from './bands.ts';
import { usualGuitar } from '../src/fretboard/index.ts';
import { draftText } from '../src/formats/index.ts';
import {
  draftLine,
  hearBeat,
  LISTEN_RATE,
  offPitchOf,
  pitchesAt,
  playAsBand,
  weighTab,
  type BandOptions,
  type BandRecording,
} from '../src/listen/index.ts';
import { perform, readShorthand } from '../src/notation/index.ts';
import { hzOf, TUNINGS } from '../src/pitch/index.ts';

const phrases = readCorpus();
const phraseOf = (text: string) => {
  const found = phrases.find((one) => one.text.startsWith(text));
  if (!found) throw new Error(`the corpus has no “${text}”`);
  return found;
};
const LINE = phraseOf('/8 7Gb1 5B 5e 8B');
const BASIC = { seed: 3, sampleRate: LISTEN_RATE, noiseDb: 35 } as const;

function mono({ left, right }: BandRecording): Float32Array<ArrayBuffer> {
  return left.map((sample, n) => (sample + (right[n] ?? 0)) / 2);
}
function bandOf(seconds: number, options: Partial<BandOptions> = {}) {
  const part = partOf(LINE, seconds);
  const recording = playAsBand(part, { ...BASIC, ...options });
  return { part, recording, samples: mono(recording) };
}
/** A plain sum of sines, made here and not by anything that is tested. */
function sines(hertz: readonly number[], seconds: number): Float32Array {
  return Float32Array.from({ length: Math.round(seconds * LISTEN_RATE) }, (_, n) =>
    hertz.reduce((sum, hz) => sum + 0.2 * Math.sin((2 * Math.PI * hz * n) / LISTEN_RATE), 0),
  );
}

describe('how far a recording stands from concert pitch', () => {
  it.each([-41, -14, 0, 23, 48])('finds %d cents of sines to half a cent', (cents) => {
    const hertz = [57, 61, 64].map((midi) => hzOf(midi, undefined, cents));
    expect(Math.abs((offPitchOf(sines(hertz, 2))?.cents ?? 99) - cents)).toBeLessThan(0.5);
  });

  it('finds it of a band, modulo a semitone', () => {
    const off = offPitchOf(bandOf(6, { tuningCents: -18, drumsDb: -4 }).samples);
    expect(Math.abs((off?.cents ?? 99) + 18)).toBeLessThan(1.5);
    expect(off?.sure).toBeGreaterThan(0.1);
  });

  it('says nothing of silence, and little of noise', () => {
    expect(offPitchOf(new Float32Array(LISTEN_RATE * 2))).toBeUndefined();
    let state = 1;
    const noise = Float32Array.from({ length: LISTEN_RATE * 2 }, () => {
      state = (state * 16_807) % 2_147_483_647;
      return state / 1_073_741_823.5 - 1;
    });
    expect(offPitchOf(noise)?.sure ?? 0).toBeLessThan(0.1);
  });
});

describe('the beat of a recording', () => {
  const { part, recording, samples } = bandOf(16, { drumsDb: -3, drift: 0.01 });
  const beat = hearBeat(samples);

  it('is as fast as it was played, or twice or half of that is offered', () => {
    const { beats } = recording;
    const played = (60 * (beats.length - 1)) / ((beats.at(-1) ?? 0) - (beats[0] ?? 0));
    const fits = [beat?.bpm ?? 0, ...(beat?.others ?? [])].some((bpm) => Math.abs(bpm / played - 1) < 0.02);
    expect(fits).toBe(true);
  });

  it('falls where it was played', () => {
    const near = (beat?.beats ?? []).filter((at) => recording.beats.some((one) => Math.abs(one - at) < 0.07));
    expect(near.length).toBeGreaterThan(0.9 * (beat?.beats.length ?? 1));
  });

  it('begins its bars where the chords change', () => {
    const first = beat?.beats[beat.firsts[0] ?? 0] ?? -1;
    const bars = recording.beats.filter((_, index) => part.clicks[index]?.accent);
    expect(Math.min(...bars.map((at) => Math.abs(at - first)))).toBeLessThan(0.07);
  });

  it('is found near a tempo that was chosen', () => {
    const chosen = hearBeat(samples, { bpm: 48 });
    expect(Math.abs((chosen?.bpm ?? 0) / 48 - 1)).toBeLessThan(0.05);
  });

  it('is not there in silence or in less than four seconds', () => {
    expect(hearBeat(new Float32Array(LISTEN_RATE * 8))).toBeUndefined();
    expect(hearBeat(samples.subarray(0, LISTEN_RATE * 3))).toBeUndefined();
  });
});

describe('whether a tab agrees with a recording', () => {
  const { part, samples } = bandOf(2.4, { backingDb: -3 });
  const moved = (by: number) =>
    part.notes.map((note, index) => (index === 3 && note.midi !== null ? { ...note, midi: note.midi + by } : note));

  it('agrees with what was played, bends and all', () => {
    const weighed = weighTab(samples, part.notes, { atSeconds: 0 });
    expect(weighed.filter(({ says }) => says === 'contradicts')).toEqual([]);
    expect(weighed.filter(({ says }) => says === 'agrees').length).toBeGreaterThan(0.7 * weighed.length);
  });

  it.each([1, -1, 2, 12, -12])('doubts a note %d semitones off and says what it heard', (by) => {
    const weighed = weighTab(samples, moved(by), { atSeconds: 0 });
    const doubts = weighed.filter(({ says }) => says === 'contradicts');
    expect(doubts).toHaveLength(1);
    expect(doubts[0]?.heard).toBe(part.notes[3]?.midi ?? 0);
  });

  it('cannot tell what is too short, or where there is no sound', () => {
    const [first] = part.notes;
    if (!first) throw new Error('the part has notes');
    const short = [{ ...first, durationSeconds: 0.03 }];
    expect(weighTab(samples, short, { atSeconds: 0 })[0]?.says).toBe('cannot tell');
    const far = weighTab(samples, part.notes, { atSeconds: 500 });
    expect(far.every(({ says }) => says === 'cannot tell')).toBe(true);
  });

  it('knows how far the recording stands off', () => {
    const off = bandOf(2.4, { tuningCents: 35, backingDb: -6 });
    const notes = off.part.notes.map((note) => ({ ...note, midi: note.midi === null ? null : note.midi + 0.35 }));
    const weighed = weighTab(off.samples, notes, { atSeconds: 0, offCents: 35 });
    expect(weighed.filter(({ says }) => says === 'agrees').length).toBeGreaterThan(0.6 * weighed.length);
  });
});

describe('a moment that is held', () => {
  it('names the pitches that sound in it', () => {
    const harmonic = (midi: number) => [1, 2, 3, 4].map((n) => n * hzOf(midi));
    expect(pitchesAt(sines(harmonic(57), 1), 0.5)).toEqual([57]);
    expect(pitchesAt(sines([...harmonic(52), ...harmonic(59)], 1), 0.5)).toEqual(expect.arrayContaining([52, 59]));
  });

  it('names none in silence or at the very end', () => {
    expect(pitchesAt(new Float32Array(LISTEN_RATE), 0.5)).toEqual([]);
    expect(pitchesAt(sines([220], 1), 1.2)).toEqual([]);
  });
});

describe('a first draft', () => {
  const { phrase, bpm, meter } = LINE;
  const played = perform(phrase, { tuning: TUNINGS.standard, capo: 0, bpm });
  const alone = { notes: played, backing: [], clicks: [], seconds: 3.2 };
  const samples = mono(playAsBand(alone, BASIC));
  const draft = draftLine(samples);

  it('has the notes of one line where they begin', () => {
    const hits = played.filter((note) =>
      draft.notes.some(({ seconds, midi }) => Math.abs(seconds - note.startSeconds) < 0.05 && midi === note.midi),
    );
    expect(hits.length).toBeGreaterThanOrEqual(played.length - 1);
    expect(draft.notes.length).toBeLessThanOrEqual(played.length + 1);
  });

  it('has its bends, with their size and their return', () => {
    expect(draft.notes[0]?.bend).toEqual({ cents: 200, isReleased: false });
    expect(draft.notes.some(({ bend }) => bend?.cents === 200 && bend.isReleased)).toBe(true);
  });

  it('is written as a guess, in time and on the neck, and sounds as it was drafted', () => {
    const guitar = usualGuitar(TUNINGS.standard);
    const text = draftText(draft.notes, { guitar, meter, bpm, barSeconds: 0 });
    expect(text).toMatch(/^\{guess: .*\}$/);
    const read = readShorthand(text, { tuning: TUNINGS.standard, meter });
    expect(read.problems.filter(({ severity }) => severity === 'error')).toEqual([]);
    const again = perform(read.phrase, { tuning: TUNINGS.standard, capo: 0, bpm });
    expect(again.map(({ midi }) => midi)).toEqual(draft.notes.map(({ midi }) => midi));
    expect(again.every((note, index) => Math.abs(note.startSeconds - (draft.notes[index]?.seconds ?? 0)) < 0.06)).toBe(
      true,
    );
  });

  it('is empty for no notes, and needs a tempo', () => {
    const setting = { guitar: usualGuitar(TUNINGS.standard), meter, bpm, barSeconds: 0 };
    expect(draftText([], setting)).toBe('');
    expect(() => draftText(draft.notes, { ...setting, bpm: 0 })).toThrow(RangeError);
  });

  it('is none of a band that is louder than the line, of noise and of silence', () => {
    expect(draftLine(bandOf(4, { backingDb: 9 }).samples).notes).toEqual([]);
    expect(draftLine(new Float32Array(LISTEN_RATE)).notes).toEqual([]);
  });
});
