import type {
  Phrase,
  PhraseBody,
  Piece,
  Section,
  SectionChange,
  SetUpChange,
  Transcription,
} from '@jam-ledger/contract';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { UNMOVED } from '@jam-ledger/core/notation';
import { sectionBody, setUpOf, useSong } from '../src/songs/song.ts';
import { phraseBody, useSongPhrases } from '../src/songs/songPhrases.ts';
import { useNotices } from '../src/session/index.ts';
import { openStudio, partOf, Refusing, settle } from './studio.ts';

const UP = { ...UNMOVED, semitones: 2 };
const DOWN = { semitones: -5, strings: -1, openStays: true };
const phrase = (id: string, more: Partial<Phrase> = {}): Phrase => ({
  ...{ id, version: 1, sectionId: 'a', name: `Phrase ${id}`, text: '5G', layer: 'lead', certainty: 'heard' },
  ...{ status: 'draft', checkedBy: '', checkedAgainst: '', checkedAt: null, struck: false, reason: '' },
  ...{ alternateOf: null, chosen: true, refersTo: null, move: UNMOVED },
  ...more,
});
const section = (id: string, startSeconds: number, more: Partial<Section> = {}): Section => ({
  ...{
    id,
    version: 1,
    struck: false,
    label: `${id}1`,
    role: 'solo',
    startSeconds,
    startKnown: true,
    barsKnown: true,
    tuning: null,
    capo: null,
    bars: 4,
    times: 1,
    open: false,
  },
  ...{ passes: [], jump: null, phrases: [] },
  ...more,
});

/** A studio with one song that it keeps. */
function openSong(sections: readonly Section[], changes: Transcription['changes'] = []) {
  let song = partOf<Transcription>({ id: 'song', version: 1, studentLayer: 'rhythm', sections, changes });
  const put = (id: string, change: Partial<Section>) => {
    const before = song.sections.find((one) => one.id === id) ?? section(id, 0);
    const after = { ...before, ...change, version: before.version + 1 };
    const others = song.sections.filter((one) => one.id !== id);
    song = { ...song, sections: after.struck ? others : [...others, after] };
    return after;
  };
  const studio = openStudio({
    song: () => song,
    changeSetUp: ({ body }) => (song = { ...song, ...(body as SetUpChange), version: song.version + 1 }),
    changeSection: ({ path, body }) => {
      const id = path.split('/').at(-1) ?? '';
      const { version, ...change } = body as SectionChange;
      const now = song.sections.find((one) => one.id === id)?.version ?? version;
      return version === now ? put(id, change) : new Refusing(409, 'stale', { current: {} });
    },
    addPhrase: ({ body }) => phrase('new', body as PhraseBody),
    changePhrase: ({ body }) => phrase('one', { ...(body as PhraseBody), version: 2 }),
    markPhrase: ({ body }) => phrase('one', { ...(body as object), version: 2 }),
    referPhrase: ({ body }) => phrase('one', { refersTo: (body as { to: string }).to, version: 2 }),
    choosePhrase: () => phrase('one'),
    addAlternate: () => phrase('other'),
    assignPiece: () => partOf<Piece>({ id: 'p', version: 4, startBpm: 60, targetBpm: 120 }),
    changePiece: () => partOf<Piece>({}),
  });
  return Object.assign(studio, { put });
}
const labels = () => useSong().song?.sections.map(({ id, startSeconds }) => `${id} ${startSeconds}`);

describe('the song on the desk', () => {
  test('without one nothing is saved', async () => {
    const { asked } = openSong([]);
    await useSong().changeSetUp({ ...partOf<SetUpChange>({ title: 'Slow Tide' }), version: 1 });
    expect(await useSong().addSection(sectionBody(section('a', 10)))).toBeUndefined();
    expect(asked).toEqual([]);
  });

  test('another song shows nothing of the one before', async () => {
    openSong([]);
    const store = useSong();
    await store.load('song');
    const loading = store.load('another');
    expect(store.song).toBeNull();
    await loading;
    await store.load('song');
    const again = store.load('song');
    expect(store.song?.id).toBe('song');
    await again;
  });

  test('what of things a person can change', () => {
    expect(Object.keys(phraseBody(phrase('one')))).toEqual(['name', 'text', 'layer', 'certainty', 'reason']);
    expect(Object.keys(sectionBody(section('a', 0)))).toEqual([
      ...[
        'label',
        'role',
        'startSeconds',
        'startKnown',
        'bars',
        'barsKnown',
        'tuning',
        'capo',
        'times',
        'open',
        'passes',
        'jump',
      ],
    ]);
    expect(setUpOf(partOf<Transcription>({ id: 'song', title: 'T', capo: 2 }))).toMatchObject({ title: 'T', capo: 2 });
    expect(setUpOf(partOf<Transcription>({ id: 'song' }))).not.toHaveProperty('id');
  });
});

describe('sections', () => {
  beforeEach(() => void openSong([]));

  test('take the change of tempo, meter or key at their start along, and back', async () => {
    const change = { tempo: 90, meter: '3/4', key: 'Em' };
    openSong(
      [section('a', 10), section('b', 20)],
      [
        { ...change, atSeconds: 20 },
        { ...change, atSeconds: 15 },
      ],
    );
    const store = useSong();
    await store.load('song');
    const changes = () => store.song?.changes.map(({ atSeconds }) => atSeconds);
    await store.amendSections([{ id: 'b', change: { startSeconds: 23 } }], 'Moved.');
    expect(changes()).toEqual([23, 15]);
    await useNotices().takeBack();
    expect(changes()).toEqual([20, 15]);
  });

  test('stand by the clock, those at one time by their labels', async () => {
    openSong([section('a', 10), section('b', 20), section('c', 30)]);
    const store = useSong();
    await store.load('song');
    await store.amendSections([{ id: 'a', change: { startSeconds: 25 } }], 'Moved.');
    expect(labels()).toEqual(['b 20', 'a 25', 'c 30']);
    await store.amendSections([{ id: 'c', change: { startSeconds: 25, label: 'A0' } }], 'Moved.');
    expect(labels()).toEqual(['b 20', 'c 25', 'a 25']);
  });

  test('several that are changed at once are taken back at once', async () => {
    const { asked } = openSong([section('a', 10), section('b', 20)]);
    const store = useSong();
    await store.load('song');
    const changes = ['a', 'b'].map((id) => ({ id, change: { bars: 8 } }));
    await store.amendSections(changes, 'Both are longer.');
    expect(store.song?.sections.map(({ bars }) => bars)).toEqual([8, 8]);
    expect(useNotices().notice?.text).toBe('Both are longer.');
    await useNotices().takeBack();
    expect(store.song?.sections.map(({ bars }) => bars)).toEqual([4, 4]);
    const versions = asked
      .filter(({ name }) => name === 'changeSection')
      .map(({ body }) => (body as SectionChange).version);
    expect(versions).toEqual([1, 1, 2, 2]);
  });

  test('one that somebody else changed first is fetched, and nothing of theirs is overwritten', async () => {
    const { put } = openSong([section('a', 10)]);
    const store = useSong();
    await store.load('song');
    put('a', { bars: 16 });
    await expect(store.amendSections([{ id: 'a', change: { bars: 8 } }], 'Longer.')).rejects.toThrow(
      /^Somebody changed this in the meantime/,
    );
    expect(store.song?.sections[0]?.bars).toBe(16);
  });

  test('other trouble is told as it is', async () => {
    const studio = openSong([section('a', 10)]);
    const store = useSong();
    await store.load('song');
    const first = store.song?.sections[0];
    studio.answers = { ...studio.answers, changeSection: () => new Refusing(422, 'invalid') };
    if (first) await expect(store.changeSection(first, sectionBody(first))).rejects.toThrow('It is refused.');
  });

  test('one that is struck out comes back from the notice', async () => {
    openSong([section('a', 10)]);
    const store = useSong();
    await store.load('song');
    const first = store.song?.sections[0];
    if (first) await store.strikeSection(first, true);
    expect(useNotices().notice?.text).toBe('Section a1 is struck out.');
    expect(store.song?.sections).toEqual([]);
  });
});

describe('phrases', () => {
  const one = phrase('one');
  async function open(more: readonly Phrase[] = []) {
    const studio = openSong([section('a', 10, { phrases: [one, ...more] })]);
    const store = useSong();
    await store.load('song');
    return { ...studio, store, phrases: useSongPhrases() };
  }
  const bodyOf = (asked: readonly { name: string; body: unknown }[], name: string) =>
    asked.find((given) => given.name === name)?.body;

  test('a new one is of the student’s layer; a drill is arranged', async () => {
    const { asked, phrases } = await open();
    await phrases.addPhrase(section('a', 10), 'Phrase 2');
    expect(bodyOf(asked, 'addPhrase')).toEqual({
      ...{ name: 'Phrase 2', text: '', layer: 'rhythm', certainty: 'heard', reason: '' },
    });
    asked.length = 0;
    await phrases.addDrill('a', { name: 'Drill', text: '5G', reason: 'for the bend' });
    expect(bodyOf(asked, 'addPhrase')).toMatchObject({ certainty: 'arranged', reason: 'for the bend' });
  });

  test('one that is kept takes its place, and those that refer to it are fetched anew', async () => {
    const alone = await open();
    alone.asked.length = 0;
    alone.store.keepPhrase({ ...one, text: '7G' });
    await settle();
    expect([alone.store.phrases[0]?.text, alone.asked.length]).toEqual(['7G', 0]);
    const { asked, store } = await open([phrase('two', { refersTo: 'one' })]);
    asked.length = 0;
    store.keepPhrase({ ...one, text: '7G' });
    await settle();
    expect(asked.map(({ name }) => name)).toEqual(['song']);
  });

  test('is changed, marked, and referred to over the version seen', async () => {
    const { asked, store, phrases } = await open();
    await phrases.changePhrase(one, { name: 'Renamed' });
    expect(bodyOf(asked, 'changePhrase')).toMatchObject({ name: 'Renamed', text: '5G', version: 1, struck: false });
    expect(store.phrases[0]?.name).toBe('Renamed');
    await phrases.markPhrase(one, { status: 'checked', against: 'the record' });
    expect(bodyOf(asked, 'markPhrase')).toEqual({ status: 'checked', against: 'the record', version: 1 });
    await phrases.referPhrase(one, 'two', DOWN);
    expect(bodyOf(asked, 'referPhrase')).toEqual({ version: 1, to: 'two', move: DOWN });
    expect(store.phrases[0]?.refersTo).toBe('two');
  });

  test('refers to another, and takes that back: it says what it said before', async () => {
    const { asked, phrases, store } = await open();
    store.keepPhrase({ ...one, text: '7G  # mine' });
    const mine = store.phrases[0];
    if (mine) await phrases.referPhrase(mine, 'two', UP);
    expect(useNotices().notice?.text).toBe('“Phrase one” follows the other phrase now.');
    await useNotices().takeBack();
    const referred = asked.filter(({ name }) => name === 'referPhrase').map(({ body }) => body);
    expect(referred).toMatchObject([
      { to: 'two', move: UP },
      { to: null, move: UNMOVED, version: 2 },
    ]);
    expect(bodyOf(asked, 'changePhrase')).toMatchObject({ text: '7G  # mine', version: 2 });
  });

  test('is struck out, with a way back', async () => {
    const { asked, phrases } = await open();
    await phrases.strikePhrase(one, true);
    expect(useNotices().notice?.text).toBe('“Phrase one” is struck out.');
    await useNotices().takeBack();
    const struck = asked
      .filter(({ name }) => name === 'changePhrase')
      .map(({ body }) => (body as { struck: boolean }).struck);
    expect(struck).toEqual([true, false]);
  });

  test('ways beside it: a copy or what was made, and the one that is played', async () => {
    const { asked, phrases } = await open();
    expect((await phrases.addAlternate(one)).id).toBe('other');
    expect(bodyOf(asked, 'addAlternate')).toEqual({});
    await phrases.choosePhrase(one);
    expect(bodyOf(asked, 'choosePhrase')).toEqual({ version: 1 });
  });

  test('is assigned, and taken back as it was given', async () => {
    const { asked, phrases } = await open();
    const piece = await phrases.assign({ phraseId: 'one', startBpm: 60, targetBpm: 120 });
    await phrases.takeBack(piece);
    expect(bodyOf(asked, 'changePiece')).toEqual({
      startBpm: 60,
      targetBpm: 120,
      version: 4,
      given: false,
      struck: false,
    });
  });
});
