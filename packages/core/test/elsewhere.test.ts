import { describe, expect, test } from '@jest/globals';
import {
  clapDelay,
  draftLine,
  finePitch,
  hearBeat,
  judgeTake,
  LISTEN_RATE,
  loudnessOver,
  offPitchOf,
  proposeEntry,
  weighTab,
} from '../src/listen/index.ts';
import { perform, readShorthand, type PlayedNote } from '../src/notation/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';
import { PROGRAMS, sampled, sox, soxed, type ElsewherePart } from './elsewhere.ts';

// The guitars here were recorded by others: the samples of Debian’s `timgm6mb-soundfont`, played by its `fluidsynth`.
const BPM = 90;
const START = 0.4;
const LICK = '/8 5B 8B 5e 8e 8Bb1 5e | /4 7G 5G /2 7G';
const RUN = '/8 5D 7D 5G 7G 5B 8B 5e 8e | 8e 5e 8B 5B 7G 5G 7D 5D';
const LOW = '/8 0E 3E 0A 2A 0D 2D 0G 2G | /4 0B 3B /2 0e';
const GUITARS = ['nylon', 'steel', 'clean', 'driven'] as const satisfies readonly (keyof typeof PROGRAMS)[];

function play(text: string): readonly PlayedNote[] {
  const { phrase } = readShorthand(text, { tuning: TUNINGS.standard });
  return perform(phrase, { tuning: TUNINGS.standard, capo: 0, bpm: BPM });
}
const later = (notes: readonly PlayedNote[]) =>
  notes.map((note) => ({ ...note, startSeconds: note.startSeconds + START }));
function recorded(program: (typeof GUITARS)[number], notes: readonly PlayedNote[]): Float32Array {
  const end = Math.max(...notes.map((note) => note.startSeconds + note.durationSeconds));
  return sampled([{ program, notes: later(notes) }], START + end + 0.6);
}
const fret = (notes: readonly PlayedNote[], index: number, by: number) =>
  notes.map((note, at) => (at === index && note.midi !== null ? { ...note, midi: note.midi + by } : note));

describe('a guitar that somebody else recorded', () => {
  test.each(GUITARS)('%s is heard within 5 cents on every string', (program) => {
    for (const midi of [40, 45, 50, 55, 59, 64, 72]) {
      const note = { startSeconds: 0.2, durationSeconds: 1.2, midi, contour: [], string: 1 };
      const heard = finePitch(sampled([{ program, notes: [note] }], 2), 0.3, 0.9, midi);
      expect([midi, Math.abs(heard - midi) * 100 < 5]).toEqual([midi, true]);
    }
  });

  test.each(GUITARS)('takes of %s are judged note by note, and clean', (program) => {
    for (const text of [LICK, RUN, LOW]) {
      const notes = play(text);
      const judged = judgeTake({ samples: recorded(program, notes), sampleRate: LISTEN_RATE }, notes, { bpm: BPM });
      expect(judged.events.map(({ verdict }) => verdict)).toEqual(judged.events.map(() => 'right'));
      expect(proposeEntry(judged)).toMatchObject({ outcome: 'clean', bpm: BPM });
      expect(judged.startSeconds).toBeCloseTo(START, 1);
    }
  });

  test.each(GUITARS)('%s: a fret beside it, and a note left out, are told where they are', (program) => {
    const notes = play(RUN);
    const judge = (played: readonly PlayedNote[]) =>
      judgeTake({ samples: recorded(program, played), sampleRate: LISTEN_RATE }, notes, { bpm: BPM }).events;
    const wrong = judge(fret(notes, 4, 1));
    expect(wrong.flatMap(({ verdict }, index) => (verdict === 'right' ? [] : [[index, verdict]]))).toEqual([
      [4, 'wrong'],
    ]);
    expect(wrong[4]?.heardMidi).toBe((notes[4]?.midi ?? 0) + 1);
    const missing = judge(notes.filter((_, index) => index !== 6));
    expect(missing.flatMap(({ verdict }, index) => (verdict === 'right' ? [] : [[index, verdict]]))).toEqual([
      [6, 'missing'],
    ]);
  });

  test('a bend is heard as far as the wheel was turned', () => {
    const notes = play(LICK);
    const short = notes.map((note) => ({
      ...note,
      contour: note.contour.map(({ seconds, cents }) => ({ seconds, cents: 0.75 * cents })),
    }));
    const { events } = judgeTake({ samples: recorded('steel', short), sampleRate: LISTEN_RATE }, notes, { bpm: BPM });
    const bends = events.flatMap(({ bend }) => bend ?? []);
    expect(bends).toHaveLength(1);
    expect(Math.abs((bends[0]?.reachedCents ?? 0) - 150)).toBeLessThan(10);
  });

  test('a line of it is drafted', () => {
    const notes = later(play(RUN));
    const draft = draftLine(recorded('clean', play(RUN)));
    const found = notes.filter((note) =>
      draft.notes.some((one) => Math.abs(one.seconds - note.startSeconds) < 0.05 && one.midi === note.midi),
    );
    expect([found.length, draft.notes.length]).toEqual([notes.length, notes.length]);
  });
});

describe('a band of sampled instruments', () => {
  const notes = play(RUN);
  const bar = (4 * 60) / BPM;
  const bars = [0, 1];
  const held = (string: number, midi: number, at: number, length: number) => ({
    ...{ startSeconds: START + at, durationSeconds: length, midi, contour: [], string },
  });
  const band: readonly ElsewherePart[] = [
    { program: 'steel', notes: later(notes) },
    {
      ...{ program: 'piano', velocity: 70 },
      notes: bars.flatMap((at) => [57, 60, 64].map((midi, string) => held(string, midi, at * bar, bar))),
    },
    { program: 'bass', velocity: 80, notes: bars.map((at) => held(0, 33, at * bar, bar)) },
    {
      ...{ program: 'drums', velocity: 70 },
      notes: Array.from({ length: 8 }, (_, beat) => held(0, beat % 2 ? 38 : 36, (beat * bar) / 4, 0.1)),
    },
  ];
  const samples = sampled(band, START + 2 * bar + 0.3);

  test('plays the tab as it is written: most notes agree, few are doubted', () => {
    const says = weighTab(samples, notes, { atSeconds: START }).map((one) => one.says);
    expect(says.filter((one) => one === 'agrees').length).toBeGreaterThanOrEqual(12);
    expect(says.filter((one) => one === 'contradicts').length).toBeLessThanOrEqual(1);
  });

  test.each([1, -1, 2, -2])('a fret %d off is doubted in most places', (by) => {
    const places = [1, 4, 7, 10, 13];
    const found = places.filter((place) => {
      const one = weighTab(samples, fret(notes, place, by), { atSeconds: START })[place];
      return one?.says === 'contradicts' && one.heard === notes[place]?.midi;
    });
    expect(found.length).toBeGreaterThanOrEqual(4);
  });

  test.each([-35, 20])('brought %d cents out of tune by sox stands that far off', (cents) => {
    const [before, after] = [offPitchOf(samples), offPitchOf(soxed(samples, 'pitch', String(cents)))];
    expect(Math.abs((after?.cents ?? 99) - (before?.cents ?? 99) - cents)).toBeLessThan(2.5);
  });

  test.each([0.85, 1, 1.12])('brought to %d of its speed by sox beats that fast', (speed) => {
    const long = sampled(
      [
        ...[band[2], band[3]].flatMap((part) => (part ? [part] : [])),
        { ...{ program: 'drums', velocity: 90 }, notes: beats(16) },
      ],
      16 * (60 / BPM) + START,
    );
    const beat = hearBeat(speed === 1 ? long : soxed(long, 'speed', String(speed)));
    const heard = [beat?.bpm ?? 0, ...(beat?.others ?? [])];
    expect(Math.min(...heard.map((bpm) => Math.abs(bpm / (BPM * speed) - 1)))).toBeLessThan(0.01);
  });

  function beats(count: number) {
    return Array.from({ length: count }, (_, beat) => held(0, beat % 2 ? 38 : 36, (beat * 60) / BPM, 0.1));
  }
});

describe('loudness over time', () => {
  // Source: ITU-R BS.1770-4: a sine of 997 Hz, as loud as can be, on one channel is −3.01 LKFS.
  test('of a sine of 997 Hz is −3.01', () => {
    const { values } = loudnessOver(sox('synth', '2', 'sine', '997', 'gain', '-n', '0'));
    for (const value of values) expect(Math.abs(value + 3.01)).toBeLessThan(0.05);
  });
  // Source: EBU Tech 3341, its first two test signals, of which two channels are 3 dB more than one: −23 and −33 LUFS.
  test.each([-23, -33])('of 1 kHz at %d dBFS on one channel is 3 below that', (level) => {
    const { values } = loudnessOver(sox('synth', '2', 'sine', '1000', 'gain', '-n', String(level)));
    expect(Math.abs((values[8] ?? 0) - (level - 3))).toBeLessThan(0.1);
  });
  test('weighs what is low less, and what is high more', () => {
    const at = (hz: number) => loudnessOver(sox('synth', '1', 'sine', String(hz))).values[4] ?? 0;
    expect(at(997) - at(30)).toBeGreaterThan(3);
    expect(at(6000) - at(997)).toBeCloseTo(3.3, 0);
  });
  test('is −70 in silence, a value every tenth of a second, and none of too little', () => {
    const { values, hopSeconds } = loudnessOver(new Float32Array(LISTEN_RATE));
    expect([...values]).toEqual([-70, -70, -70, -70, -70, -70, -70]);
    expect(hopSeconds).toBeCloseTo(0.1, 3);
    expect(loudnessOver(new Float32Array(10)).values).toHaveLength(0);
  });
});

describe('claps along with a click', () => {
  const CLICKS = Array.from({ length: 8 }, (_, index) => 1 + 0.8 * index);
  const clap = sox('synth', '0.06', 'whitenoise', 'fade', 'l', '0.001', '0.06', '0.05');
  function claps(offs: readonly (number | undefined)[], noise = 0.002) {
    const samples = Float32Array.from({ length: 9 * LISTEN_RATE }, (_, n) => noise * Math.sin(n * n));
    offs.forEach((off, index) => {
      if (off === undefined) return;
      const at = Math.round(((CLICKS[index] ?? 0) + off) * LISTEN_RATE);
      clap.forEach((one, n) => (samples[at + n] = (samples[at + n] ?? 0) + 0.6 * one));
    });
    return { samples, sampleRate: LISTEN_RATE };
  }
  test.each([-0.04, 0, 0.09, 0.31])('%d s late are found to 4 ms, though each is a little off', (late) => {
    const offs = CLICKS.map((_, index) => late + (index % 2 === 0 ? 0.011 : -0.01));
    const found = clapDelay(claps(offs), CLICKS);
    expect(found?.claps).toBe(8);
    expect(Math.abs((found?.seconds ?? 9) - late)).toBeLessThan(0.008);
  });
  test('do not need every clap', () => {
    const offs = CLICKS.map((_, index) => (index === 2 || index === 6 ? undefined : 0.12));
    expect(clapDelay(claps(offs), CLICKS)?.seconds).toBeCloseTo(0.12, 2);
  });
  test('tell nothing where they are too few, uneven, or not there', () => {
    expect(clapDelay(claps(CLICKS.map((_, index) => (index < 3 ? 0.1 : undefined))), CLICKS)).toBeUndefined();
    expect(clapDelay(claps([0, 0.3, 0.1, 0.45, 0.02, 0.4, 0.2, 0.5]), CLICKS)).toBeUndefined();
    expect(clapDelay(claps([]), CLICKS)).toBeUndefined();
  });
});
