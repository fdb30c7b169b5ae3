import { describe, expect, test } from '@jest/globals';
import { UNMOVED } from '@jam-ledger/core/notation';
import { proposeScope, type Phrase, type Section, type Transcription } from '@jam-ledger/contract';
import { effectScope, shallowRef } from 'vue';
import { foldRounds, rulerMarks, sayPlace } from '../src/songs/form/formStrip.ts';
import { listenAgain } from '../src/songs/listenAgain.ts';
import { retuneSong, strungOf } from '../src/songs/setup/retuning.ts';
import { soundOf } from '../src/sound/useListening.ts';
import { useSongForm, type SongForm } from '../src/songs/form/useSongForm.ts';

const phrase = (id: string, text: string, more: Partial<Phrase> = {}): Phrase => ({
  id,
  version: 1,
  sectionId: 'A',
  name: `Phrase ${id}`,
  text,
  layer: 'lead',
  certainty: 'heard',
  reason: '',
  struck: false,
  status: 'draft',
  checkedBy: '',
  checkedAgainst: '',
  checkedAt: null,
  alternateOf: null,
  chosen: true,
  refersTo: null,
  move: UNMOVED,
  ...more,
});
const section = (id: string, more: Partial<Section> = {}): Section => ({
  id,
  version: 1,
  struck: false,
  label: `1${id}`,
  role: 'riff',
  startSeconds: 0,
  startKnown: true,
  bars: 1,
  barsKnown: true,
  tuning: null,
  capo: null,
  times: 1,
  open: false,
  passes: [],
  jump: null,
  phrases: [],
  ...more,
});
/** A song at 120 in 4/4, so that a bar lasts two seconds. */
const song = (sections: readonly Section[], more: Partial<Transcription> = {}): Transcription => ({
  id: 'song',
  version: 1,
  student: {
    id: 's',
    name: 'Ines',
    isStudent: true,
    guitar: { frets: 22, strings: 6, scaleLengthMm: 648, tremoloArm: false, leftHanded: false, spanFrets: null },
    schools: {
      picking: 'the player’s choice',
      position: 'as recorded',
      learning: 'front to back',
      raising: 'small even steps',
      hearing: 'full speed first',
      first: 'where first',
      naming: 'letters',
      fidelity: 'note for note',
      clean: 'nine in ten',
    },
    shown: [],
    played: [],
  },
  title: 'T',
  whose: '',
  tuning: 'standard',
  capo: 0,
  key: '',
  secondKey: '',
  tempo: 120,
  tempoKnown: true,
  rhythm: 'counted',
  meter: '4/4',
  feel: 'straight',
  changes: [],
  rig: [],
  frets: 22,
  scaleLengthMm: 648,
  songSeconds: null,
  offsetCents: 0,
  pitchWay: 'tune the guitar',
  studentLayer: 'lead',
  sections,
  ...more,
});
const BAR = '/4 5G 7G 5G 7G';

/** The form of a song, and the song itself to change it. */
function formOf(first: Transcription | null) {
  const current = shallowRef(first);
  const form = effectScope(true).run(() => useSongForm(() => current.value));
  if (!form) throw new Error('a scope that ran gives its value');
  return { form, current };
}

const says = ({ problems }: SongForm) => problems.value.map(({ message }) => message);

describe('the form of a song on the desk', () => {
  test('no song is an empty form', () => {
    const { form } = formOf(null);
    expect([form.rounds.value, form.problems.value, form.tuning.value.name]).toEqual([[], [], 'standard']);
  });

  test('only the chosen phrases of the student’s layer fill the bars', () => {
    const phrases = [
      phrase('1', BAR),
      phrase('2', BAR, { alternateOf: '1', chosen: false }),
      phrase('3', `${BAR} | ${BAR}`, { layer: 'rhythm' }),
    ];
    const { form, current } = formOf(song([section('A', { phrases })]));
    expect(says(form)).toEqual([]);
    current.value = song([section('A', { phrases })], { studentLayer: 'rhythm' });
    expect(says(form)).toEqual(['The phrases of 1A fill 2 of its 1 bars.']);
    current.value = song([section('A', { phrases })], { studentLayer: 'overdub' });
    expect(says(form)).toEqual([]);
  });

  test('a section after a change of meter is read and counted in its own', () => {
    const waltz = phrase('9', '/4 5G 7G 5G', { sectionId: 'B' });
    const { form } = formOf(
      song([section('A', { phrases: [phrase('1', BAR)] }), section('B', { startSeconds: 2, phrases: [waltz] })], {
        changes: [{ atSeconds: 2, tempo: 90, meter: '3/4', key: '' }],
      }),
    );
    expect(says(form)).toEqual([]);
    expect(form.tempoOf('B')).toMatchObject({ bpm: 90, meter: { beats: 3, unit: 4 } });
    expect(form.tempoOf('A').bpm).toBe(120);
  });

  test('what did not change is not read again', () => {
    const still = phrase('1', BAR);
    const { form, current } = formOf(song([section('A', { phrases: [still] })]));
    const before = form.readingOf(still);
    current.value = song([section('A', { bars: 2, phrases: [{ ...still, name: 'Renamed', version: 2 }] })]);
    expect(form.readingOf({ ...still, version: 2 })).toBe(before);
    expect(form.readingOf({ ...still, text: '5G' })).not.toBe(before);
  });
});

describe('the strip', () => {
  const sections = [
    section('A', {
      times: 3,
      passes: [
        { pass: 2, change: 'rings' },
        { pass: 'last', change: 'stops' },
      ],
    }),
    section('B', { startSeconds: 6, jump: { to: 'A', times: 1 } }),
  ];
  const { form } = formOf(song(sections));

  test('folds what follows one another, and only that', () => {
    const blocks = foldRounds(form.rounds.value, sections);
    expect(
      blocks.map(({ label, times, visit, fromSeconds, toSeconds }) => [label, times, visit, fromSeconds, toSeconds]),
    ).toEqual([
      ['1A', 3, 1, 0, 6],
      ['1B', 1, 1, 6, 8],
      ['1A', 3, 4, 8, 14],
      ['1B', 1, 2, 14, 16],
    ]);
    expect(blocks[0]?.notes).toEqual(['time 2 rings', 'last time stops']);
    expect(new Set(blocks.map(({ key }) => key)).size).toBe(4);
  });

  test('the ruler names no seconds closer than they can be read', () => {
    expect(rulerMarks(20, 60)).toHaveLength(21);
    expect(rulerMarks(20, 12)).toEqual([0, 5, 10, 15, 20]);
    expect(rulerMarks(300, 0.5)).toEqual([0, 120, 240]);
  });

  test('a place in words: stamp, section, bar, beat, and the rig that holds there', () => {
    const rig = [
      { fromSeconds: 0, toSeconds: 10, note: 'clean' },
      { fromSeconds: 10, toSeconds: null, note: 'driven' },
    ];
    const place = { id: 'A', label: '1A', pass: 2, bar: 1, songBar: 2, beat: 3.49 };
    expect(sayPlace(9.94, place, rig)).toBe('0:09.9 · 1A, time 2, bar 1, beat 3.4 · bar 2 of the song · clean');
    expect(sayPlace(75, undefined, rig)).toBe('1:15 · driven');
    expect(sayPlace(75, { ...place, pass: 1 }, [])).toBe('1:15 · 1A, bar 1, beat 3.4 · bar 2 of the song');
  });
});

describe('evidence', () => {
  test('the second listen: whole phrases and doubtful events in playing order, alternates not chosen left out', () => {
    const phrases = [
      phrase('1', '/4 5G {guess: "low?" 7G} 5G 7G', { name: 'Riff' }),
      phrase('2', BAR, { name: 'Fill', certainty: 'seen', reason: 'at the harbour' }),
      phrase('3', '{guess: 5G}', { chosen: false, alternateOf: '1' }),
    ];
    const sections = [section('A', { phrases })];
    const list = listenAgain(sections, formOf(song(sections)).form.readingOf);
    expect(list.map(({ where, what, certainty, reason }) => [where, what, certainty, reason])).toEqual([
      ['1A Riff, bar 1, beat 2', '7G', 'guess', 'low?'],
      ['1A Fill', '', 'seen', 'at the harbour'],
    ]);
  });

  test('another capo: every phrase that is written out, with what cannot be moved', () => {
    const phrases = [phrase('1', '/4 5G 1G'), phrase('2', '7G', { refersTo: '1' }), phrase('3', '- -')];
    const before = song([section('A', { phrases })]);
    const after = { ...before, capo: 2 };
    const guitars = { before: strungOf(before), after: strungOf(after) };
    const found = retuneSong(after, guitars, formOf(after).form.readingOf);
    expect(found.map(({ phrase: { id }, notes, stuck, text }) => [id, notes.length, stuck, text])).toEqual([
      ['1', 2, 1, '/4 3G 1G'],
    ]);
  });
});

describe('how a song sounds', () => {
  const set = { capo: 0, offsetCents: -20, pitchWay: 'tune the guitar', feel: 'straight' } as const;
  test('at the recording’s pitch where the guitar is tuned to it, at concert pitch where the playback is shifted', () => {
    expect(soundOf(set).offsetCents).toBe(-20);
    expect(soundOf({ ...set, pitchWay: 'shift the playback' }).offsetCents).toBe(0);
  });
  test.each([
    ['straight', 'straight'],
    ['swing', 'swing'],
    ['shuffle', 'swing'],
    ['counted in threes', 'straight'],
  ] as const)('%s is heard %s', (feel, heard) => expect(soundOf({ ...set, feel }).feel).toBe(heard));
});

describe('the scope in one sentence', () => {
  test.each([
    [['riff'], [], 'recorded', 'the only guitar', 'Riff, as recorded.'],
    [
      ['riff', 'solo'],
      ['rhythm'],
      'live',
      'the first of two',
      'Riff and solo, as played live, the first of two guitars; without rhythm.',
    ],
    [
      ['intro', 'solo', 'outro'],
      ['rhythm', 'keys'],
      'either',
      'blended into one',
      'Intro, solo and outro, both guitars blended into one; without rhythm and keys.',
    ],
  ] as const)('%j without %j', (wanted, notWanted, rendition, guitarMeant, sentence) =>
    expect(proposeScope({ wanted, notWanted, rendition, guitarMeant })).toBe(sentence),
  );
});

describe('a form that is not all known', () => {
  const starts = ({ rounds }: SongForm) =>
    rounds.value.map(({ label, fromSeconds, bars }) => [label, fromSeconds, bars]);

  test('a length that nobody said is that of the phrases, a start that nobody knows follows what is before it', () => {
    const { form } = formOf(
      song([
        section('A', { startSeconds: 4, barsKnown: false, bars: 9, phrases: [phrase('1', `${BAR} | ${BAR}`)] }),
        section('B', { startSeconds: 99, startKnown: false, phrases: [phrase('2', BAR)] }),
      ]),
    );
    expect(starts(form)).toEqual([
      ['1A', 4, 2],
      ['1B', 8, 1],
    ]);
    expect(says(form)).toEqual([]);
  });

  test('a stamp in a phrase says when its section starts', () => {
    const stamped = [phrase('1', BAR), phrase('2', '/4 5G @0:23 7G 5G 7G')];
    const { form } = formOf(song([section('A', { startKnown: false, bars: 2, phrases: stamped })]));
    // Five quarters at 120 before it.
    expect(starts(form)).toEqual([['1A', 20.5, 2]]);
  });

  test('a round with a stamp of its own is heard there', () => {
    const text = `{1: @0:10 } {3: @0:30 } ${BAR}`;
    const { form } = formOf(song([section('A', { startSeconds: 10, times: 3, phrases: [phrase('1', text)] })]));
    expect(form.rounds.value.map(({ fromSeconds }) => fromSeconds)).toEqual([10, 12, 30]);
  });

  test('rounds that are written out in the phrases are as long as they are', () => {
    const text = `${BAR} {last: | ${BAR} }`;
    const { form } = formOf(song([section('A', { times: 3, phrases: [phrase('1', text)] })]));
    expect(starts(form).map(([, , bars]) => bars)).toEqual([1, 1, 2]);
  });

  test('on another guitar from a section on, its phrases are read on that', () => {
    const low = phrase('1', '7@7');
    const { form } = formOf(song([section('A', { phrases: [low] })]));
    expect(form.readingOf(low).phrase.items).toEqual([]);
    const other = formOf(song([section('A', { tuning: 'B1 E2 A2 D3 G3 B3 E4', phrases: [low] })]));
    expect(other.form.readingOf(low).phrase.items).toHaveLength(1);
  });

  test('by feel, phrases begin with their order alone', () => {
    const open = phrase('1', '5G 7G');
    const { form } = formOf(song([section('A', { phrases: [open] })], { rhythm: 'by feel' }));
    expect(form.readingOf(open).ticks).toBeNull();
    expect(formOf(song([section('A', { phrases: [open] })])).form.readingOf(open).ticks).not.toBeNull();
  });
});
