import { describe, expect, test } from '@jest/globals';
import { OPEN_KEY, TUNINGS } from '../src/pitch/index.ts';
import { readShorthand } from '../src/notation/index.ts';
import fc from 'fast-check';
import {
  barsBetween,
  barSeconds,
  barsFrom,
  checkForm,
  labelSections,
  MAX_ROUNDS,
  nextLabel,
  keyTextAt,
  tempoAt,
  tempoChangesOf,
  placeAt,
  playForm,
  proposeLabels,
  readLabel,
  readTempoChanges,
  secondsAfter,
  tempoFromStamps,
  tempoFromTaps,
  timeForm,
  timeOfBar,
  type FormSection,
} from '../src/form/index.ts';

const FOUR = { beats: 4, unit: 4 };
const section = (label: string, bars: number, more: Partial<FormSection> = {}): FormSection => ({
  id: label,
  label,
  bars,
  times: 1,
  startSeconds: 0,
  passes: [],
  ...more,
});
const order = (sections: readonly FormSection[]) =>
  playForm(sections).rounds.map(({ label, firstBar }) => `${label}@${firstBar}`);

describe('the playing order', () => {
  // Source: MusicXML 4.0, element `repeat`: without `times` a repeated part is played twice.
  test('a part between repeat signs is played twice, its bars counted on', () => {
    expect(order([section('1A', 4, { times: 2 }), section('1B', 8)])).toEqual(['1A@1', '1A@5', '1B@9']);
  });

  // Source: MusicXML 4.0, element `ending`: an ending is played on the passes that its number names.
  test('an ending of its own for the last pass, shorter by two bars', () => {
    const { rounds } = playForm([
      section('1A', 4, { times: 3, passes: [{ pass: 'last', change: 'stops on the power chord', bars: 2 }] }),
      section('1B', 4),
    ]);
    expect(rounds.map(({ bars, changes }) => [bars, ...changes])).toEqual([
      [4],
      [4],
      [2, 'stops on the power chord'],
      [4],
    ]);
    expect(rounds.at(-1)?.firstBar).toBe(11);
  });

  // Source: “from the beginning” and “from the sign”, common practice: the part is played once more, then the music goes on.
  test('a jump back is taken once and then passed', () => {
    expect(order([section('1A', 4), section('1B', 4, { jump: { to: '1A', times: 1 } }), section('2A', 2)])).toEqual([
      '1A@1',
      '1B@5',
      '1A@9',
      '1B@13',
      '2A@17',
    ]);
  });

  test('visits are counted over the whole song, passes within one repeat', () => {
    const { rounds } = playForm([section('1A', 2, { times: 2, jump: { to: '1A', times: 1 } })]);
    expect(rounds.map(({ visit, pass }) => [visit, pass])).toEqual([
      [1, 1],
      [2, 2],
      [3, 1],
      [4, 2],
    ]);
  });

  test('jumps in a circle and endless repeats stop, and say so', () => {
    const circle = [section('1A', 1, { jump: { to: '1A', times: 1e9 } })];
    expect(playForm(circle)).toMatchObject({ truncated: true });
    expect(playForm([section('1A', 1, { times: 1e12 })]).rounds).toHaveLength(MAX_ROUNDS);
  });

  test('bars are never skipped nor played twice, for any form', () => {
    const any = fc.array(
      fc.record({
        bars: fc.integer({ min: 1, max: 16 }),
        times: fc.integer({ min: 1, max: 4 }),
        back: fc.option(fc.nat(5)),
      }),
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(any, (parts) => {
        const sections = parts.map(({ bars, times, back }, index) =>
          section(`S${index}`, bars, { times, ...(back !== null && { jump: { to: `S${back}`, times: 1 } }) }),
        );
        let bar = 1;
        for (const round of playForm(sections).rounds) {
          expect(round.firstBar).toBe(bar);
          bar += round.bars;
        }
      }),
    );
  });
});

describe('clock, tempo and bars', () => {
  // Source: common practice: a bar of four quarters at 120 lasts two seconds, of three at 90 as well.
  test.each([
    [FOUR, 120, 2],
    [{ beats: 3, unit: 4 }, 90, 2],
    [{ beats: 6, unit: 8 }, 60, 3],
    [{ beats: 12, unit: 8 }, 72, 5],
  ])('a bar of %j at %i lasts %i s', (meter, bpm, seconds) => expect(barSeconds(meter, bpm)).toBeCloseTo(seconds, 9));

  test('a change of tempo and of meter counts from its bar on', () => {
    const clock = {
      tempos: [
        { bar: 0, bpm: 120 },
        { bar: 4, bpm: 60 },
      ],
      meters: [
        { bar: 0, meter: FOUR },
        { bar: 6, meter: { beats: 3, unit: 4 } },
      ],
      startSeconds: 10,
    };
    expect([0, 2.5, 4, 6, 8, -1].map((bar) => timeOfBar(bar, clock))).toEqual([10, 15, 18, 26, 32, 8]);
    expect(() => timeOfBar(1, { ...clock, tempos: [] })).toThrow(RangeError);
  });

  test('later bars come later, for any clock', () => {
    const tempos = fc.array(
      fc.record({ bar: fc.integer({ min: 1, max: 60 }), bpm: fc.integer({ min: 30, max: 250 }) }),
      { maxLength: 4 },
    );
    fc.assert(
      fc.property(
        tempos,
        fc.double({ min: 0, max: 80, noNaN: true }),
        fc.double({ min: 0.01, max: 10, noNaN: true }),
        (marks, bar, more) => {
          const sorted = [{ bar: 0, bpm: 100 }, ...[...marks].sort((a, b) => a.bar - b.bar)];
          const clock = { tempos: sorted, meters: [{ bar: 0, meter: FOUR }], startSeconds: 0 };
          expect(timeOfBar(bar + more, clock)).toBeGreaterThan(timeOfBar(bar, clock));
        },
      ),
    );
  });

  test('whole seconds leave a range of tempos that holds the true one', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 60, max: 200, noNaN: true }),
        fc.integer({ min: 4, max: 32 }),
        fc.double({ min: 0, max: 9, noNaN: true }),
        (bpm, bars, start) => {
          const end = start + bars * barSeconds(FOUR, bpm);
          const stamps = { fromSeconds: Math.round(start), toSeconds: Math.round(end) };
          const tempo = tempoFromStamps(stamps, { bars, meter: FOUR });
          expect(tempo && tempo.min <= bpm + 1e-9 && tempo.max >= bpm - 1e-9).toBe(true);
          const counted = barsBetween(stamps, { meter: FOUR, bpm });
          expect(counted.min <= bars + 1e-9 && counted.max >= bars - 1e-9).toBe(true);
        },
      ),
    );
    expect(tempoFromStamps({ fromSeconds: 5, toSeconds: 5 }, { bars: 4, meter: FOUR })).toBeUndefined();
  });
});

describe('tapping a tempo', () => {
  /** Taps with a spread of their own. Source: the spread of tapping to a beat is 2-4 % of the beat (B. H. Repp, Sensorimotor synchronization: A review of the tapping literature, Psychonomic Bulletin & Review 12, 2005; from memory). */
  const taps = (bpm: number, count: number, noise: () => number) =>
    Array.from({ length: count }, (_, index) => (index * 60) / bpm + (noise() * 0.04 * 60) / bpm);
  const noiseOf = (seed: number) => {
    let state = seed;
    const uniform = () => {
      state = (state * 1_103_515_245 + 12_345) % 2 ** 31;
      return state / 2 ** 31;
    };
    return () => Math.sqrt(-2 * Math.log(uniform() + 1e-9)) * Math.cos(2 * Math.PI * uniform());
  };

  test('even taps give the tempo exactly, a missed one is counted', () => {
    const even = [0, 0.5, 1, 1.5, 2.5, 3];
    expect(tempoFromTaps(even)).toMatchObject({ missed: 1 });
    expect(tempoFromTaps(even)?.bpm).toBeCloseTo(120, 6);
  });

  test('the range holds the tempo about 19 times of 20', () => {
    const held = Array.from({ length: 400 }, (_, trial) => {
      const bpm = 60 + (trial % 100);
      const tempo = tempoFromTaps(taps(bpm, 12, noiseOf(trial + 1)));
      return tempo !== undefined && tempo.min <= bpm && tempo.max >= bpm;
    }).filter(Boolean).length;
    expect(held / 400).toBeGreaterThan(0.9);
    expect(held / 400).toBeLessThan(0.99);
  });

  // Source: NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.7.2, critical values of Student’s t, 0.975.
  test.each([
    [4, 4.303],
    [5, 3.182],
    [6, 2.776],
    [7, 2.571],
    [8, 2.447],
    [9, 2.365],
    [10, 2.306],
    [11, 2.262],
    [12, 2.228],
  ])('of %i taps the range is as wide as the table of t says', (count, t) => {
    const times = Array.from({ length: count }, (_, index) => index / 2 + (index % 2 === 0 ? 0 : 0.02));
    const tempo = tempoFromTaps(times);
    const x = times.map((_, index) => index - (count - 1) / 2);
    const xx = x.reduce((sum, one) => sum + one ** 2, 0);
    const slope = x.reduce((sum, one, index) => sum + one * (times[index] ?? 0), 0) / xx;
    const mean = times.reduce((sum, time) => sum + time, 0) / count;
    const rest = times.reduce((sum, time, index) => sum + (time - mean - slope * (x[index] ?? 0)) ** 2, 0);
    const error = Math.sqrt(rest / (count - 2) / xx);
    expect((60 / (tempo?.min ?? 1) - slope) / error).toBeCloseTo(t, 1);
  });

  test.each([[[0, 0.5, 1]], [[0, 1, 0.5, 2]], [[0, 0.5, 1, 9]]])('%j tells nothing', (times) => {
    expect(tempoFromTaps(times)).toBeUndefined();
  });
});

describe('what does not agree', () => {
  const form = (
    sections: readonly FormSection[],
    phraseBars: readonly (readonly [string, number])[] = sections.map(({ id, bars }) => [id, bars]),
  ) => ({
    sections,
    tempoChanges: tempoChangesOf({ bpm: 120, meter: FOUR }, []),
    phraseBars: new Map(phraseBars),
  });
  const codes = (...of: Parameters<typeof form>) => checkForm(form(...of)).map(({ code }) => code);

  test('a sound form has nothing to remark', () => {
    expect(codes([section('1A', 8), section('1B', 4, { startSeconds: 16 })])).toEqual([]);
  });

  test('bars against the clock, with the numbers and the bars that would fit', () => {
    const [found] = checkForm(form([section('1A', 8), section('1B', 4, { startSeconds: 24 })]));
    expect(found?.code).toBe('gap');
    expect(found?.message).toBe(
      'From 1A to 1B are 24 s (± 1 s), but 8 bars at 120 bpm take 16 s; 8 bars in this time would be 76.8 to 83.5 bpm.',
    );
    expect(found?.fix).toEqual({ title: 'Make it 12 bars', sectionId: '1A', change: { bars: 12 } });
  });

  test('stamps out of order or alike, passes and jumps that are not there, phrases short or long or none', () => {
    expect(codes([section('1A', 8, { startSeconds: 20 }), section('1B', 4, { startSeconds: 5 })])).toEqual([
      'out-of-order',
    ]);
    expect(codes([section('1A', 8), section('1B', 4)])).toEqual(['same-start']);
    expect(codes([section('1A', 4, { times: 2, passes: [{ pass: 5, change: 'x' }] })])).toEqual(['no-such-pass']);
    expect(codes([section('1A', 4, { jump: { to: '9Z', times: 1 } })])).toEqual(['jump-nowhere']);
    expect(codes([section('1A', 4)], [['1A', 3]])).toEqual(['phrases-short']);
    expect(codes([section('1A', 4)], [['1A', 5.5]])).toEqual(['phrases-long']);
    expect(codes([section('1A', 4)], [])).toEqual(['no-phrases']);
    expect(codes([section('1A', 4, { jump: { to: '1A', times: 1e9 } })])).toEqual(['circle']);
  });

  test('a section to the fade may last as long as it likes, but nothing comes after it', () => {
    expect(codes([section('1A', 4, { open: true, times: 9 })])).toEqual([]);
    const [found] = checkForm(
      form([section('1A', 4, { open: true, times: 4 }), section('1B', 4, { startSeconds: 90 })]),
    );
    expect(found?.message).toContain('its last pass has no way out');
    expect(found?.fix?.change).toEqual({ open: false });
  });

  test('repeats, a shorter last pass and a jump back are counted between two stamps', () => {
    const twice = section('1A', 4, { times: 2, passes: [{ pass: 'last', change: 'stops', bars: 3 }] });
    const back = section('1B', 2, { startSeconds: 14, jump: { to: '1A', times: 1 } });
    // 7 bars from 1A to 1B; then 1B, 1A twice and 1B again are 11 bars to 2A; a bar lasts 2 s.
    expect(codes([twice, back, section('2A', 1, { startSeconds: 36 })])).toEqual([]);
    expect(codes([twice, back, section('2A', 1, { startSeconds: 44 })])).toEqual(['gap']);
  });

  test('a section beyond the end of the recording', () => {
    const late = { ...form([section('1A', 4), section('1B', 4, { startSeconds: 8 })]), songSeconds: 12 };
    expect(checkForm(late).map(({ message }) => message)).toEqual([
      '1B would end at 16 s, but the recording ends at 12 s.',
    ]);
    expect(checkForm({ ...late, songSeconds: 7 }).at(-1)?.message).toBe(
      '1B starts at 8 s, but the recording ends at 7 s.',
    );
  });
});

describe('labels in families', () => {
  test('returning material keeps its family, new material takes the next letter, a new part the next number', () => {
    expect(
      labelSections([
        {},
        {},
        { returns: 0 },
        { returns: 0, same: true },
        { newPart: true },
        { returns: 1 },
        { returns: 0 },
      ]),
    ).toEqual(['1A', '1B', '1A′', '1A', '2A', '1B′', '1A″'.replace('″', '′′')]);
  });

  test('after Z comes the next number; other labels are left alone', () => {
    expect(nextLabel({ number: 1, letter: 'Z', strokes: 0 })).toEqual({ number: 2, letter: 'A', strokes: 0 });
    expect(readLabel("2C'")).toEqual({ number: 2, letter: 'C', strokes: 1 });
    expect(readLabel('the loud bit')).toBeUndefined();
  });
});

describe('stamp, bar and beat', () => {
  // 2 s a bar, from 0:20 on 3/4 at 90, which is 2 s a bar too, from 0:40 on 60 in 4/4, 4 s a bar.
  const tempoChanges = tempoChangesOf({ bpm: 120, meter: FOUR }, [
    { fromSeconds: 40, bpm: 60, meter: FOUR },
    { fromSeconds: 20, bpm: 90, meter: { beats: 3, unit: 4 } },
  ]);

  test.each([
    [0, 10, 5],
    [10, 30, 10],
    [38, 48, 3],
    [48, 38, -3],
  ])('from %d s to %d s are %d bars', (from, to, bars) =>
    expect(barsFrom(from, to, tempoChanges)).toBeCloseTo(bars, 9),
  );

  test('changes as they are typed, in any order; a meter that cannot be read is common time', () => {
    const typed = {
      tempo: 120,
      meter: '4/4',
      changes: [
        { atSeconds: 9, tempo: 80, meter: '6/8' },
        { atSeconds: 5, tempo: 60, meter: 'odd' },
      ],
    };
    expect([0, 5, 8.9, 9].map((seconds) => tempoAt(seconds, readTempoChanges(typed)))).toMatchObject([
      { bpm: 120, meter: FOUR },
      { bpm: 60, meter: FOUR },
      { bpm: 60, meter: FOUR },
      { bpm: 80, meter: { beats: 6, unit: 8 } },
    ]);
  });

  test('a key holds from its stamp on, until another is said', () => {
    const song = {
      key: 'A minor',
      changes: [
        { atSeconds: 30, key: 'C lydian' },
        { atSeconds: 10, key: 'E' },
        { atSeconds: 20, key: ' ' },
      ],
    };
    expect([0, 9.9, 10, 25, 30, 99].map((seconds) => keyTextAt(seconds, song))).toEqual([
      ...['A minor', 'A minor', 'E', 'E', 'C lydian', 'C lydian'],
    ]);
  });

  test('counting bars and going so many bars on undo each other', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 90, noNaN: true }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        (from, bars) => {
          expect(barsFrom(from, secondsAfter(from, bars, tempoChanges), tempoChanges)).toBeCloseTo(bars, 6);
        },
      ),
    );
  });

  test('the form against the clock: stamps where a section is first heard, bars for the rounds after it', () => {
    const rounds = timeForm(
      [
        section('1A', 2, { startSeconds: 3, times: 2 }),
        section('1B', 1, { startSeconds: 12, jump: { to: '1A', times: 1 } }),
      ],
      tempoChanges,
    );
    expect(rounds.map(({ label, fromSeconds, toSeconds }) => [label, fromSeconds, toSeconds])).toEqual([
      ['1A', 3, 7],
      ['1A', 7, 11],
      ['1B', 12, 14],
      ['1A', 14, 18],
      ['1A', 18, 22],
      ['1B', 22, 24],
    ]);
    expect(placeAt(2, rounds, tempoChanges)).toBeUndefined();
    expect(placeAt(25, rounds, tempoChanges)).toBeUndefined();
    expect(placeAt(9.5, rounds, tempoChanges)).toMatchObject({ label: '1A', pass: 2, bar: 2, songBar: 4, beat: 2 });
    expect(placeAt(22.5, rounds, tempoChanges)).toMatchObject({ label: '1B', bar: 1, songBar: 10 });
  });
});

describe('labels told from what was written', () => {
  const phrase = (text: string) => readShorthand(text).phrase;
  const options = { tuning: TUNINGS.standard, capo: 0, key: OPEN_KEY };
  const riff = '/8 0E 3E 5E 0E 3E 6E 5E 3E';
  const solo = '/8 12e 15e 12B 15B 14G 12G 14D 12D';

  test('material that returns keeps its family, with a stroke where it is changed', () => {
    const sections = [riff, solo, riff, `${riff.slice(0, -2)}7A`, ''].map((text) => ({
      phrases: text === '' ? [] : [phrase(text)],
    }));
    expect(proposeLabels(sections, options)).toEqual(['1A', '1B', '1A', '1A′', '1C']);
  });

  test('the same moved up is a change of it', () => {
    const higher = riff.replaceAll(/\d+(?=E)/g, (fret) => String(Number(fret) + 5));
    const sections = [riff, higher].map((text) => ({ phrases: [phrase(text)] }));
    expect(proposeLabels(sections, options)).toEqual(['1A', '1A′']);
  });
});
