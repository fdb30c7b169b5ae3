/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import type {
  Phrase,
  Schools,
  Section,
  SectionAgain,
  SectionBody,
  SectionChange,
  SetUpChange,
  Transcription,
} from '@jam-ledger/contract';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { readShorthand, UNMOVED } from '@jam-ledger/core/notation';
import { OPEN_KEY, TUNINGS } from '@jam-ledger/core/pitch';
import { nextTick, ref, type Ref } from 'vue';
import { useNotices } from '../src/session/index.ts';
import { useFormDesk } from '../src/songs/form/useFormDesk.ts';
import { useSongClock } from '../src/songs/form/useSongClock.ts';
import { useSongForm } from '../src/songs/form/useSongForm.ts';
import { useSchools } from '../src/songs/hands/useSchools.ts';
import { usePhraseView } from '../src/songs/phrase/usePhraseView.ts';
import { useSetUp } from '../src/songs/setup/useSetUp.ts';
import { setUpOf, useSong } from '../src/songs/song.ts';
import { inScope } from './mounting.ts';
import { openStudio, partOf, settle } from './studio.ts';

const phrase = (id: string, text: string, more: Partial<Phrase> = {}): Phrase => ({
  ...{ id, version: 1, sectionId: 'a', name: `Phrase ${id}`, text, layer: 'lead', certainty: 'heard' },
  ...{ status: 'draft', checkedBy: '', checkedAgainst: '', checkedAt: null, struck: false, reason: '' },
  ...{ alternateOf: null, chosen: true, refersTo: null, move: UNMOVED },
  ...more,
});
const section = (id: string, startSeconds: number, more: Partial<Section> = {}): Section => ({
  ...{
    id,
    version: 1,
    struck: false,
    label: `1${id.toUpperCase()}`,
    role: 'riff',
    startSeconds,
    startKnown: true,
    barsKnown: true,
    tuning: null,
    capo: null,
    bars: 4,
    times: 1,
  },
  ...{ open: false, passes: [], jump: null, phrases: [] },
  ...more,
});
/** A song at 120 in 4/4, so that a bar lasts two seconds. */
const SONG = partOf<Transcription>({
  ...{ id: 'song', version: 1, title: 'Slow Tide', whose: '', tuning: 'standard', capo: 0, key: 'Am', secondKey: '' },
  ...{ tempo: 120, meter: '4/4', feel: 'straight', changes: [], rig: [], frets: 22, scaleLengthMm: 648 },
  ...{ songSeconds: null, offsetCents: 0, pitchWay: 'tune the guitar', studentLayer: 'lead', sections: [] },
  student: partOf<Transcription['student']>({
    guitar: partOf<Transcription['student']['guitar']>({ leftHanded: false }),
  }),
});
const said = () => useNotices().notice?.text;

/** A studio with one song that it keeps, and that song on the desk. */
async function openSong(sections: readonly Section[], more: Partial<Transcription> = {}) {
  let song: Transcription = { ...SONG, ...more, sections };
  let added = 0;
  const put = (one: Section) => {
    const others = song.sections.filter(({ id }) => id !== one.id);
    song = { ...song, sections: [...others, one].sort((a, b) => a.startSeconds - b.startSeconds) };
    return one;
  };
  const studio = openStudio({
    song: () => song,
    addSection: ({ body }) => put(section(`new${(added += 1)}`, 0, body as SectionBody)),
    sectionAgain: ({ path, body }) => {
      const first = song.sections.find(({ id }) => path.includes(`/${id}/`)) ?? section('lost', 0);
      const phrases = first.phrases.map((one) => ({ ...one, id: `${one.id} again`, refersTo: one.id }));
      return put({ ...first, ...(body as SectionAgain), id: `again${(added += 1)}`, version: 1, phrases });
    },
    changeSection: ({ path, body }) => {
      const before = song.sections.find(({ id }) => path.endsWith(id)) ?? section('lost', 0);
      const { version, ...to } = body as SectionChange;
      const after = put({ ...before, ...to, version: version + 1 });
      song = { ...song, sections: song.sections.filter(({ struck }) => !struck) };
      return after;
    },
    changeSetUp: ({ body }) => (song = { ...song, ...(body as SetUpChange), version: song.version + 1 }),
    changePhrase: ({ path, body }) => {
      const before = song.sections.flatMap(({ phrases }) => phrases).find(({ id }) => path.endsWith(id));
      const kept = { ...(before ?? phrase('lost', '')), ...(body as Partial<Phrase>), version: 2 };
      const sections = song.sections.map((one) => ({
        ...one,
        phrases: one.phrases.map((other) => (other.id === kept.id ? kept : other)),
      }));
      song = { ...song, sections };
      return kept;
    },
  });
  await useSong().load('song');
  const form = inScope(() => useSongForm(() => useSong().song));
  return { ...studio, form };
}
const shown = () => useSong().song?.sections.map(({ label, startSeconds, bars }) => `${label} ${startSeconds} ${bars}`);

describe('the form on the desk', () => {
  async function open(sections: readonly Section[], more: Partial<Transcription> = {}) {
    const song = await openSong(sections, more);
    const chosen: (string | undefined)[] = [];
    const desk = inScope(() => useFormDesk(song.form, (id) => void chosen.push(id)));
    return { ...song, chosen, desk };
  }

  test('the next section begins where the last one ends, with the label that follows', async () => {
    const { desk } = await open([section('a', 10, { role: 'solo' })]);
    expect(desk.nextSection.value).toMatchObject({ label: '1B', role: 'solo', startSeconds: 18, bars: 4 });
    const empty = await open([]);
    expect(empty.desk.nextSection.value).toMatchObject({ label: '1A', role: 'riff', startSeconds: 0 });
  });

  test('dropped on the clock, it gives the empty one before it the bars between', async () => {
    const { desk, chosen } = await open([section('a', 10)]);
    await desk.drop(22);
    expect(shown()).toEqual(['1A 10 6', '1B 22 4']);
    expect(chosen).toEqual(['new1']);
  });

  test.each([
    ['something is written in it', section('a', 10, { phrases: [phrase('p', '/4 5G')] }), 22],
    ['no bar lies between', section('a', 10), 10.4],
    ['more lie between than a section holds', section('a', 10), 5000],
    ['it is behind', section('a', 10), 4],
  ])('which stays as it is where %s', async (_, before, at) => {
    const { desk } = await open([before]);
    await desk.drop(at);
    expect(shown()).toContain('1A 10 4');
  });

  test('a boundary is moved and a count of bars mended; both can be taken back', async () => {
    const { desk } = await open([section('a', 10), section('b', 20)]);
    await desk.move('b', 18.5);
    expect([shown(), said()]).toEqual([['1A 10 4', '1B 18.5 4'], '1B starts at 0:18.5.']);
    await useNotices().takeBack();
    expect(shown()).toEqual(['1A 10 4', '1B 20 4']);
    await desk.fix({ sectionId: 'a', title: '', change: { bars: 5 } });
    expect([shown()?.[0], said()]).toEqual(['1A 10 5', '1A now has 5 bars.']);
    await desk.fix({ sectionId: 'a', title: '', change: { times: 2 } });
    expect(said()).toBe('1A is changed.');
  });

  test('a section comes again at the end, its start supposed, and its first phrase is opened; it can be taken back', async () => {
    const { desk, chosen } = await open([section('a', 10, { phrases: [phrase('p', '/4 5G')] })]);
    const first = useSong().song?.sections[0];
    if (!first) throw new Error('there is a section');
    const opened = await desk.repeat(first);
    expect(opened?.refersTo).toBe('p');
    expect(shown()).toEqual(['1A 10 4', '1A 18 4']);
    expect(useSong().song?.sections[1]?.startKnown).toBe(false);
    expect(chosen).toHaveLength(1);
    expect(said()).toBe('Section 1A comes again; its phrases follow the first.');
    await useNotices().takeBack();
    expect(shown()).toEqual(['1A 10 4']);
  });

  test('labels are proposed where what is written speaks for others, and taken all at once', async () => {
    const same = '/8 5G 7G 5B 8B 5e 8e 5e 8B';
    const { desk } = await open([
      section('a', 10, { phrases: [phrase('p', same)] }),
      section('b', 18, { phrases: [phrase('q', same)] }),
    ]);
    expect(desk.proposed.value).toEqual([{ id: 'b', from: '1B', to: '1A' }]);
    await desk.label();
    expect(shown()?.map((one) => one.slice(0, 2))).toEqual(['1A', '1A']);
    await useNotices().takeBack();
    expect(shown()?.map((one) => one.slice(0, 2))).toEqual(['1A', '1B']);
  });

  test.each([
    ['one is empty', section('b', 18)],
    ['one is named freely', section('b', 18, { label: 'the loud bit', phrases: [phrase('q', '/8 5G')] })],
  ])('none are proposed while %s', async (_, other) => {
    const { desk } = await open([section('a', 10, { phrases: [phrase('p', '/8 5G')] }), other]);
    expect(desk.proposed.value).toEqual([]);
  });
});

describe('the song clock', () => {
  beforeEach(() => void jest.useFakeTimers());
  afterEach(() => void jest.useRealTimers());

  test('runs like the song, goes on where it is put, and stops at the end', () => {
    const clock = inScope(() => useSongClock(() => 5));
    clock.toggle();
    jest.advanceTimersByTime(2000);
    expect(clock.seconds.value).toBeGreaterThan(1.8);
    expect(clock.seconds.value).toBeLessThan(2.1);
    clock.goTo(4);
    expect(clock.seconds.value).toBe(4);
    jest.advanceTimersByTime(3000);
    expect([clock.seconds.value, clock.running.value]).toEqual([5, false]);
  });

  test('at the end it begins anew; stopped it stands; nothing is before its beginning', () => {
    const clock = inScope(() => useSongClock(() => 5));
    clock.goTo(9);
    clock.toggle();
    expect([clock.seconds.value, clock.running.value]).toEqual([0, true]);
    clock.toggle();
    const stood = clock.seconds.value;
    jest.advanceTimersByTime(1000);
    expect([clock.seconds.value, clock.running.value]).toEqual([stood, false]);
    clock.goTo(-3);
    expect(clock.seconds.value).toBe(0);
  });
});

describe('the set-up on the desk', () => {
  const BEFORE = [section('a', 0, { phrases: [phrase('p', '/8 5G 7G'), phrase('q', '/8 5G', { refersTo: 'p' })] })];
  async function open() {
    const song = await openSong(BEFORE);
    const setUp = inScope(() => useSetUp(song.form));
    const change = (to: Partial<Transcription>) =>
      setUp.keepSetUp({ ...setUpOf({ ...SONG, ...to }), version: useSong().song?.version ?? 0 });
    return { ...song, setUp, change };
  }
  const texts = () => useSong().phrases.map(({ text }) => text);

  test('a change of title moves nothing', async () => {
    const { setUp, change } = await open();
    await change({ title: 'Slower Tide' });
    expect([useSong().song?.title, setUp.retuned.value, said()]).toEqual(['Slower Tide', [], 'The set-up is changed.']);
  });

  test('another capo shows every phrase that is written out as it would be, and moves it on request', async () => {
    const { setUp, change } = await open();
    await change({ capo: 2 });
    expect(setUp.retuned.value.map(({ phrase: { id }, text, stuck }) => [id, text, stuck])).toEqual([
      ['p', '/8 3G 5G', 0],
    ]);
    expect(texts()[0]).toBe('/8 5G 7G');
    await setUp.moveNotes();
    expect([texts()[0], setUp.retuned.value, said()]).toEqual([
      '/8 3G 5G',
      [],
      'One phrase is moved; the versions before are kept.',
    ]);
  });

  test('taken back it is as before, over the version that stands', async () => {
    const { setUp, change } = await open();
    await change({ capo: 2 });
    await useNotices().takeBack();
    expect([useSong().song?.capo, useSong().song?.version, setUp.retuned.value]).toEqual([0, 3, []]);
  });
});

describe('how a phrase is shown', () => {
  const schools = (more: Partial<Schools> = {}) =>
    partOf<Schools>({ picking: 'strict alternate', position: 'as recorded', first: 'where first', ...more });
  const key = (code: string, more: KeyboardEventInit = {}) =>
    new KeyboardEvent('keydown', { code, altKey: true, cancelable: true, ...more });

  test('begins by the school that holds, and follows it when another is chosen', async () => {
    const held = ref(schools());
    const shownBy = inScope(() => useSchools(() => held.value));
    const now = () => [shownBy.policy.value, shownBy.inBox.value, shownBy.whyFirst.value];
    expect(now()).toEqual(['alternate from down', false, false]);
    held.value = schools({ picking: 'economy', position: 'one box', first: 'why first' });
    await nextTick();
    expect(now()).toEqual(['economy', true, true]);
  });

  test('is changed by a key for now, and goes round', () => {
    const shownBy = inScope(() => useSchools(() => schools()));
    const first = shownBy.policy.value;
    const seen = new Set<string>();
    do {
      seen.add(shownBy.policy.value);
      shownBy.press(key('KeyP'));
    } while (shownBy.policy.value !== first);
    expect(seen.size).toBeGreaterThan(3);
    shownBy.press(key('KeyO'));
    shownBy.press(key('KeyW'));
    expect([shownBy.inBox.value, shownBy.whyFirst.value]).toEqual([true, true]);
  });

  test.each([
    ['without Alt', key('KeyO', { altKey: false })],
    ['with Ctrl', key('KeyO', { ctrlKey: true })],
    ['another letter', key('KeyX')],
  ])('a key %s is none of these', (_, event) => {
    const shownBy = inScope(() => useSchools(() => schools()));
    shownBy.press(event);
    expect([shownBy.inBox.value, event.defaultPrevented]).toEqual([false, false]);
  });

  test('the neck has the notes at the caret, dead ones left out; none while it is hidden', () => {
    const read = readShorthand('/8 5GxD 7B').phrase;
    const caret: Ref<{ from: number; to: number } | undefined> = ref({ from: 3, to: 7 });
    const music = { phrase: () => read, tuning: ref(TUNINGS.standard), key: ref(OPEN_KEY) };
    const view = inScope(() => usePhraseView(() => SONG, music, caret));
    expect(view.underCaret.value).toEqual([{ string: 3, fret: 5 }]);
    caret.value = undefined;
    expect(view.underCaret.value).toEqual([]);
    caret.value = { from: 8, to: 10 };
    expect(view.underCaret.value).toEqual([{ string: 2, fret: 7 }]);
    view.withNeck.value = false;
    expect(view.underCaret.value).toEqual([]);
  });

  test('notation stands above only where it is wanted', () => {
    const music = { phrase: () => readShorthand('').phrase, tuning: ref(TUNINGS.standard), key: ref(OPEN_KEY) };
    const view = inScope(() => usePhraseView(() => SONG, music, ref()));
    expect(view.staff.value).toBeUndefined();
    view.withStaff.value = true;
    expect(view.staff.value).toMatchObject({ capo: 0 });
  });
});

afterEach(() => settle());
