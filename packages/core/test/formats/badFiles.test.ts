import { describe, expect, test } from '@jest/globals';
import { zipSync, strToU8 } from 'fflate';
import { chanceOf } from '../../../../apps/server/test/chance.ts';
import { mutated } from './mutating.ts';
import { decode, readMidiFile, readMusicXml, readMxl, readTextTab, writeMidiFile } from '../../src/formats/index.ts';
import { bytes, READERS, SONG, XML } from './readers.ts';

describe('files that were damaged on their way', () => {
  test.each(Object.keys(READERS))('%s: 200 of them, each read to an end, none thrown', (format) => {
    const { file, read } = READERS[format] ?? { file: new Uint8Array(), read: () => undefined };
    const random = chanceOf(20_260_314);
    for (let count = 0; count < 200; count += 1) {
      const broken = mutated(file, random);
      expect(() => read(broken)).not.toThrow();
    }
  });
});

describe('files that mean harm, or something else', () => {
  test('entities are not resolved, and a document with definitions of its own is refused', () => {
    const doctype = '<!DOCTYPE score-partwise [<!ENTITY x SYSTEM "file:///etc/hostname">]>';
    expect(readMusicXml(`<?xml version="1.0"?>${doctype}<score-partwise>&x;</score-partwise>`).problems).toEqual([
      { place: 'line 1', message: 'The file defines entities of its own; it is not read.' },
    ]);
    const laughs = `<!DOCTYPE a SYSTEM "x"><!DOCTYPE b [<!ENTITY l "ha">]><score-partwise>&l;</score-partwise>`;
    expect(readMusicXml(laughs).problems[0]?.message).toMatch(/entities of its own/);
    expect(
      JSON.stringify(
        readMusicXml('<score-partwise><work><work-title>&lol; &amp; co</work-title></work></score-partwise>'),
      ),
    ).not.toContain('ENTITY');
  });

  test('an archive that unpacks to more than is read', () => {
    const bomb = zipSync({ 'score.xml': new Uint8Array(60_000_000) }, { level: 9 });
    expect(bomb.length).toBeLessThan(200_000);
    expect(readMxl(bomb).problems[0]?.message).toMatch(/too long|no score|no element/);
  });

  test('cut off, empty, another format, another encoding', () => {
    expect(readMusicXml(XML.slice(0, 2000)).problems[0]?.message).toMatch(/ends before .* is closed/);
    expect(readMusicXml('').problems[0]?.message).toBe('There is no element in this file.');
    expect(readMusicXml('<html></html>').problems[0]?.message).toBe(
      'This is no MusicXML score; it begins with “html”.',
    );
    expect(readMusicXml('<a>'.repeat(100)).problems[0]?.message).toBe('Elements are nested too deep.');
    expect(readMidiFile(writeMidiFile(SONG).slice(0, 60)).problems[0]).toEqual({
      place: 'byte 15',
      message: 'The file ends in the middle of something; it may have been cut off.',
    });
    // A name of 127 bytes in a track of four: read on and on, it would fill all memory.
    const endless = [...bytes('MThd'), 0, 0, 0, 6, 0, 1, 0, 1, 0, 96, ...bytes('MTrk'), 0, 0, 0, 4, 0, 0xff, 3, 0x7f];
    expect(readMidiFile(Uint8Array.from(endless)).problems[0]?.message).toMatch(/ends in the middle/);
    expect(readMidiFile(bytes('RIFF')).problems[0]?.place).toBe('byte 1');
    expect(readMxl(bytes('PK')).problems[0]?.message).toMatch(/no compressed score/);
    const wide = new Uint8Array(
      [0xff, 0xfe, ...strToU8('<score-partwise/>')].flatMap((one, index) => (index < 2 ? one : [one, 0])),
    );
    expect(readMusicXml(decode(wide)).problems[0]?.message).toBe('There is no part in this score.');
  });

  test('a million notes, and fifty megabytes of text, are refused in a sentence', () => {
    const note = '<note><pitch><step>C</step><octave>4</octave></pitch><duration>1</duration></note>';
    const long = `<score-partwise><part id="P"><measure>${note.repeat(700_000)}</measure></part></score-partwise>`;
    expect(readMusicXml(long).problems[0]?.message).toBe('The file is too long to be read.');
    expect(readTextTab('e|--\n'.repeat(1_200_000)).problems[0]?.message).toBe('The text is too long to be read.');
  });
});

describe('files whose bars and frets do not agree', () => {
  const score = (notes: string, more = '') =>
    `<score-partwise><part-list><score-part id="P"><part-name>Guitar</part-name></score-part></part-list><part id="P"><measure number="1"><attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time>${more}</attributes>${notes}</measure><measure number="2">${notes}</measure></part></score-partwise>`;
  const note = (step: string, octave: number, duration: number, technical = '') =>
    `<note><pitch><step>${step}</step><octave>${octave}</octave></pitch><duration>${duration}</duration><notations><technical>${technical}</technical></notations></note>`;
  const TUNING = `<staff-details>${['E2', 'A2', 'D3', 'G3', 'B3', 'E4']
    .map(
      (open, index) =>
        `<staff-tuning line="${index + 1}"><tuning-step>${open[0]}</tuning-step><tuning-octave>${open[1]}</tuning-octave></staff-tuning>`,
    )
    .join('')}</staff-details>`;

  test('a bar too long or too short is told where it is', () => {
    expect(readMusicXml(score(note('C', 4, 5))).problems).toEqual([
      { place: 'bar 1 of Guitar', message: 'The bar is longer than 4/4.' },
      { place: 'bar 2 of Guitar', message: 'The bar is longer than 4/4.' },
    ]);
    expect(readMusicXml(score(note('C', 4, 3))).problems).toEqual([
      { place: 'bar 2 of Guitar', message: 'The bar is shorter than 4/4.' },
    ]);
  });

  test('a fret that is not its pitch is told, and kept; an octave, as guitars are written, is not', () => {
    const place = '<string>3</string><fret>7</fret>';
    const wrong = readMusicXml(score(note('C', 4, 4, place), TUNING));
    expect(wrong.problems[0]).toEqual({
      place: 'bar 1 of Guitar',
      message: 'String 3, fret 7 does not sound as the note that is written (MIDI 62 and 60); the fret is kept.',
    });
    expect(wrong.parts[0]?.events[0]?.notes[0]).toMatchObject({ place: { string: 3, fret: 7 } });
    expect(readMusicXml(score(note('D', 5, 4, place), TUNING)).problems).toEqual([]);
  });
});
