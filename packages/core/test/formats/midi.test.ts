import { createRequire } from 'node:module';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bendValue, playSong, readMidiFile, writeMidiFile, writeWav } from '../../src/formats/index.ts';
import { centsAt, playOut, TICKS_PER_QUARTER } from '../../src/notation/index.ts';
import { renderNotes } from '../../src/sound/index.ts';
import { readCorpus } from '../corpus.ts';
import { typedText } from '../typing.ts';
import { demoTexts, GUITAR, readOf, songOf, textsOf } from './songs.ts';
import { printed, withFiles } from './outside.ts';

const { Midi } = createRequire(import.meta.url)('@tonejs/midi') as typeof import('@tonejs/midi');

/** Rows that midicsv prints of a file: track, time, type and values. */
function rowsOf(file: Uint8Array): readonly (readonly string[])[] {
  return withFiles({ 'a.mid': file }, (folder) => printed('midicsv', [`${folder}/a.mid`]))
    .trim()
    .split('\n')
    .map((line) => line.split(', '));
}

function notesIn(rows: readonly (readonly string[])[]): readonly string[] {
  return rows
    .filter(([, , type, , , velocity]) => type === 'Note_on_c' && velocity !== '0')
    .map(([, time, , , pitch]) => `${time} ${pitch}`);
}

describe('MIDI by other readers', () => {
  // Source: midicsv of Debian; Standard MIDI Files 1.0.
  test('midicsv finds each note of the corpus at its tick and pitch', () => {
    const right = readCorpus().filter(({ text }) => !/swing|\/g|k\b|z|\*/.test(text));
    expect(right.length).toBeGreaterThan(100);
    // All of them in one song: a phrase after the other.
    const song = songOf(right.slice(0, 60).map(({ phrase }) => phrase));
    const found = notesIn(rowsOf(writeMidiFile(song)));
    let from = 0;
    const wanted = (song.sections[0]?.phrases ?? []).flatMap(({ phrase }) => {
      const events = playOut(phrase, GUITAR);
      const start = from;
      const last = events.at(-1);
      from += last ? last.at + last.length : 0;
      return events.flatMap(({ at, notes }) =>
        notes
          .filter(({ held, guess }) => held === undefined && !guess)
          .map(({ midi, string }) => `${start + at} ${midi ?? GUITAR.tuning.openMidis[string - 1]}`),
      );
    });
    expect([...found].sort()).toEqual([...wanted].sort());
  });

  test('a whole-step bend goes a sixth of the range up, and is taken back behind its note', () => {
    const rows = rowsOf(writeMidiFile(songOf(['/4 7Gb1 5G'])));
    const bends = rows
      .filter(([, , type]) => type === 'Pitch_bend_c')
      .map(([, time, , , value]) => [Number(time), Number(value)]);
    // Source: MIDI 1.0: 14 bits, 8192 in the middle; twelve semitones to each side.
    expect(Math.max(...bends.map(([, value = 0]) => value))).toBe(8192 + Math.round((2 / 12) * 8192));
    expect(bends.at(-1)).toEqual([TICKS_PER_QUARTER, 8192]);
    const controls = rows.filter(([, , type]) => type === 'Control_c').map((row) => row.slice(4).join(' '));
    expect(controls).toEqual(['101 0', '100 0', '6 12', '38 0', '101 127', '100 127']);
    expect([bendValue(-1200), bendValue(1200), bendValue(2400), bendValue(0)]).toEqual([-8192, 8191, 8191, 0]);
  });

  test('sections, tempos, meters and names', () => {
    const song = songOf(['pickup meter=3/4 /4 5G | 7G 8G 9G', 'tempo=120 /4 5G'], {
      times: 2,
      title: 'Möwe über dem Steg',
    });
    const rows = rowsOf(writeMidiFile(song));
    const of = (type: string) =>
      rows.filter((row) => row[2] === type).map((row) => row.slice(1).filter((one) => one !== type));
    expect(of('Time_signature')[0]).toEqual(['0', '3', '2', '24', '8']);
    expect(of('Tempo')[0]).toEqual(['0', String(Math.round(60_000_000 / 96))]);
    expect(of('Marker_t').map(([, label]) => label)).toEqual(['"A riff"', '"A riff"']);
    expect(new Midi(writeMidiFile(song)).header.ppq).toBe(TICKS_PER_QUARTER);
  });

  // Source: the package @tonejs/midi, which reads bends.
  test('another package reads pitches and bends as they are performed', () => {
    const song = songOf(['/4 13Bb1r 10e 7Gpb.5 9Gb1.5', '/8 5D h7 p5 s9 12Bb1 12B^']);
    const { notes, ticks } = playSong(song);
    const midi = new Midi(writeMidiFile(song));
    const read = midi.tracks.flatMap((track) => track.notes.map(({ ticks: at, midi: pitch }) => [at, pitch] as const));
    expect(read).toHaveLength(notes.length);
    expect(midi.durationTicks).toBe(ticks);
    for (const note of notes) {
      const track = midi.tracks.find((one) =>
        one.notes.some(({ midi: pitch, time }) => pitch === note.midi && Math.abs(time - note.startSeconds) < 0.001),
      );
      const middle = note.startSeconds + note.durationSeconds * 0.45;
      const bend = track?.pitchBends.findLast(({ time }) => time <= middle)?.value ?? 0;
      // Within the step of a glide, 10 ms, which a whole step in a sixteenth passes in 13 cents.
      expect(Math.abs(bend * 1200 - centsAt(note.contour, middle - note.startSeconds))).toBeLessThan(15);
    }
  });
});

describe('MIDI that comes in', () => {
  test('what went out comes back at its times and pitches', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('5G', '7G', '5A7D', '8B', '-', '/16', '/8t', '/4', '12e', '3E', '|'), {
          minLength: 1,
          maxLength: 12,
        }),
        (items) => {
          const text = items.join(' ');
          const back = textsOf(readMidiFile(writeMidiFile(songOf([text])))).join(' ');
          const heard = (one: string) =>
            playOut(readOf(one), GUITAR)
              .filter(({ notes }) => notes.length > 0)
              .map(({ at, notes }) => [at, notes.map(({ midi }) => midi).sort()]);
          // A bar longer than its meter is barred anew.
          expect(heard(back)).toEqual(heard(text));
        },
      ),
      { numRuns: 80, seed: 5 },
    );
  });

  // What a phrase of the demo sounds like, struck once and without bends, which other tests compare.
  test.each(demoTexts())('of the demo studio: $text', ({ text, meter }) => {
    const song = songOf([text], { tempoChanges: [{ fromSeconds: 0, bpm: 96, meter }], meter });
    const back = textsOf(readMidiFile(writeMidiFile(song)), 'sections', GUITAR, meter).join(' ');
    const struck = (one: string) =>
      playOut(readOf(one, { ...GUITAR, meter }), GUITAR).flatMap(({ at, notes }) =>
        notes.flatMap(({ midi, held }) => (midi === null || held !== undefined ? [] : [`${at} ${midi}`])),
      );
    const missing = struck(text).filter((one) => !struck(back).includes(one));
    expect(missing).toEqual([]);
  });

  test('bends, pre-bends, vibrato; a human hand is put on the grid', () => {
    expect(textsOf(readMidiFile(writeMidiFile(songOf(['/2 13Bb1r 20e~ 7Gpb1r'])))).join()).toMatch(/b1r .*~ .*pb1r/);
    const loose = new Midi();
    loose.header.setTempo(100);
    const track = loose.addTrack();
    [0.01, 0.29, 0.62, 0.9, 1.19].forEach((time, index) =>
      track.addNote({ midi: 64 + index, time, duration: 0.25, velocity: 0.7 }),
    );
    const events = readMidiFile(loose.toArray()).parts[0]?.events ?? [];
    expect(events.map(({ at }) => at / TICKS_PER_QUARTER)).toEqual([0, 0.5, 1, 1.5, 2]);
  });

  test('any text goes out, and its file is read again', () => {
    fc.assert(
      fc.property(typedText, (text) => {
        const file = writeMidiFile(songOf([text]));
        expect(readMidiFile(file).problems.filter(({ message }) => !/No track/.test(message))).toEqual([]);
      }),
      { numRuns: 100, seed: 3 },
    );
  });
});

describe('WAV', () => {
  // Source: SoX of Debian.
  test('sox finds its rate, length and level; an odd count of bytes does not come about', () => {
    const { notes, seconds } = playSong(songOf(['/4 5G 7G 9G 12Bb1r']));
    const samples = renderNotes(notes, { sampleRate: 44_100 });
    withFiles({ 'a.wav': writeWav([samples.subarray(0, 1001), samples.subarray(1001)], 44_100) }, (folder) => {
      const soxi = (flag: string) => printed('soxi', [flag, `${folder}/a.wav`]).trim();
      expect([soxi('-r'), soxi('-c'), soxi('-b'), soxi('-s')]).toEqual(['44100', '1', '16', String(samples.length)]);
      expect(Number(soxi('-D'))).toBeGreaterThan(seconds);
      const level = Number(
        printed('sh', ['-c', `sox ${folder}/a.wav -n stat 2>&1 | sed -n 's/^Maximum amplitude: *//p'`]),
      );
      expect(level).toBeCloseTo(
        samples.reduce((most, sample) => Math.max(most, sample), 0),
        3,
      );
    });
  });
});
