/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import { describe, expect, test } from '@jest/globals';
import { effectScope } from 'vue';
import type { Phrase, SentTake, Section, Transcription } from '@jam-ledger/contract';
import { bandPartOf, phraseTimesOf } from '../src/songs/recording/songBand.ts';
import { filtersOf, RecordingPlayback, SHARES } from '../src/recordings/recordingPlayer.ts';
import { openStretcher } from '../src/recordings/stretcher.ts';
import { saidOfSetUp } from '../src/songs/recording/setUpSaid.ts';
import RecordingMargin from '../src/songs/recording/RecordingMargin.vue';
import SentTakes from '../src/takes/SentTakes.vue';
import { useSentTakes } from '../src/takes/sentTakes.ts';
import { useSongForm, type SongForm } from '../src/songs/form/useSongForm.ts';
import { button, show, words } from './mounting.ts';
import { openStudio, partOf, settle } from './studio.ts';

const PLAIN = {
  startKnown: true,
  barsKnown: true,
  tuning: null,
  capo: null,
  times: 1,
  open: false,
  passes: [],
  jump: null,
};
const phrase = (id: string, text: string, layer: Phrase['layer'] = 'lead', chosen = true) => ({
  id,
  text,
  layer,
  chosen,
  sectionId: 'A',
});
/** A song at 120 in 4/4, so that a bar lasts two seconds. */
const songOf = (phrases: readonly ReturnType<typeof phrase>[], more: Partial<Section> = {}) =>
  partOf<Transcription>({
    ...{
      id: 'song',
      tuning: 'standard',
      capo: 0,
      tempo: 120,
      tempoKnown: true,
      meter: '4/4',
      feel: 'straight',
      rhythm: 'counted',
    },
    ...{ changes: [], songSeconds: null, studentLayer: 'lead', key: 'A', offsetCents: 0 },
    sections: [
      partOf<Section>({
        ...PLAIN,
        id: 'A',
        label: '1A',
        startSeconds: 5,
        bars: 2,
        phrases: phrases.map((one) => partOf<Phrase>(one)),
        ...more,
      }),
    ],
  });
const QUIET = { values: new Float32Array(0), hopSeconds: 0.1 };
function formOf(song: Transcription): SongForm {
  const form = effectScope().run(() => useSongForm(() => song));
  if (!form) throw new Error('the scope was closed');
  return form;
}

describe('where phrases lie on the recording', () => {
  test('one after the other from the start of their section, each layer by itself', () => {
    const song = songOf([
      phrase('a', '/4 5G 7G 5G 7G'),
      phrase('b', '/4 5G 7G 5G 7G'),
      phrase('r', '/4 5A 7A 5A 7A', 'rhythm'),
    ]);
    const times = phraseTimesOf(song, formOf(song));
    expect([...times]).toEqual([
      ['a', { from: 5, to: 7 }],
      ['b', { from: 7, to: 9 }],
      ['r', { from: 5, to: 7 }],
    ]);
  });

  test('from their own stamp, wherever in them it stands; an alternate takes no room', () => {
    const song = songOf([
      phrase('a', '@0:06 /4 5G 7G 5G 7G'),
      phrase('other', '/4 5B 7B 5B 7B', 'lead', false),
      phrase('b', '/4 5G 7G @0:12 5G 7G'),
    ]);
    const times = phraseTimesOf(song, formOf(song));
    expect(times.get('a')).toEqual({ from: 6, to: 8 });
    expect(times.get('other')).toEqual({ from: 8, to: 10 });
    expect(times.get('b')).toEqual({ from: 11, to: 13 });
  });
});

describe('what the simulated band plays', () => {
  const song = songOf([phrase('a', ':Am /4 5G 7G 5G 7G'), phrase('r', '/1 0A', 'rhythm')], { times: 2 });
  const part = bandPartOf(song, formOf(song));

  test('is each round of the form, the student’s layer in front', () => {
    expect(part.notes.map(({ startSeconds }) => startSeconds)).toEqual([5, 5.5, 6, 6.5, 9, 9.5, 10, 10.5]);
    expect(part.backing.length).toBeGreaterThan(2);
    expect(part.seconds).toBe(15);
  });

  test('has its beats from before the first bar to the end, the first of each bar marked', () => {
    expect(part.clicks[0]).toEqual({ seconds: 1, accent: true });
    const accents = part.clicks.filter(({ accent }) => accent).map(({ seconds }) => seconds);
    expect(accents).toEqual([1, 3, 5, 7, 9, 11, 13]);
  });
});

describe('the way of the sound', () => {
  test.each([
    ['everything', [0.3, -0.2]],
    ['without the left', [-0.2, -0.2]],
    ['without the right', [0.3, 0.3]],
  ] as const)('%s of two channels', (side, expected) => {
    const out = [0, 0];
    for (const [from, to, amount] of SHARES[side]) out[to] = (out[to] ?? 0) + amount * ([0.3, -0.2][from] ?? 0);
    expect(out).toEqual(expected);
  });

  test('without the middle is silent where both channels are the same', () => {
    const out = [0, 0];
    for (const [, to, amount] of SHARES['without the middle']) out[to] = (out[to] ?? 0) + amount * 0.5;
    expect(out).toEqual([0, 0]);
  });

  test('goes through two filters a border, none for all of it', () => {
    expect(filtersOf('all of it')).toEqual([]);
    expect(filtersOf('low').map(({ type }) => type)).toEqual(['lowpass', 'lowpass']);
    expect(filtersOf('middle')).toHaveLength(4);
    expect(filtersOf('high')[0]).toMatchObject({ type: 'highpass', frequency: filtersOf('middle')[2]?.frequency });
  });
});

describe('where a playing is', () => {
  /** A sound card that has been on for a while, and what is joined to it. */
  class Card {
    static newest: Card;
    currentTime = 8.4;
    constructor() {
      Card.newest = this;
    }
    readonly resume = () => Promise.resolve();
    readonly #node = () => {
      const gain = { value: 0, setValueAtTime: () => undefined, exponentialRampToValueAtTime: () => undefined };
      const node = { gain, disconnect: () => undefined, start: () => undefined, stop: () => undefined };
      return Object.assign(node, { connect: (to: unknown) => to });
    };
    readonly createGain = this.#node;
    readonly createChannelSplitter = this.#node;
    readonly createChannelMerger = this.#node;
    readonly createBufferSource = this.#node;
    readonly createBuffer = () => ({ copyToChannel: () => undefined });
  }

  test('is where it will begin until it sounds, then goes on at its speed, with the card’s clock', async () => {
    (globalThis as unknown as { AudioContext: unknown }).AudioContext = Card;
    const hearing = { speed: 1, semitones: 0, side: 'everything', band: 'all of it', level: 1 } as const;
    const sound = { channels: [new Float32Array(4000)], sampleRate: 1000, from: 2.5, loop: false, countIn: [] };
    const playback = new RecordingPlayback(sound, hearing, () => undefined);
    const starting = playback.start();
    // What is slowed down is made first, and that lasts.
    expect(playback.seconds()).toBe(2.5);
    await starting;
    expect(playback.seconds()).toBe(2.5);
    Card.newest.currentTime += 1.06;
    expect(playback.seconds()).toBeCloseTo(3.5, 6);
    Card.newest.currentTime += 60;
    expect(playback.seconds()).toBe(6.5);
    playback.stop();
  });
});

describe('sound that is slowed down', () => {
  const rate = 22_050;
  const tone = Float32Array.from({ length: rate }, (_, n) => 0.4 * Math.sin((2 * Math.PI * 441 * n) / rate));
  /** How often a second the sound rises through zero. */
  const hertzOf = (sound: Float32Array) => {
    const part = sound.subarray(rate / 5, (2 * rate) / 5);
    let rises = 0;
    part.forEach((sample, n) => (rises += n > 0 && (part[n - 1] ?? 0) < 0 && sample >= 0 ? 1 : 0));
    return rises * 5;
  };
  const loudAt = (sound: Float32Array, seconds: number) =>
    Math.max(...sound.subarray(Math.round(seconds * rate), Math.round(seconds * rate) + 500));

  test('lasts longer at the same pitch, is shifted at the same length, and is begun anew', async () => {
    const stretcher = await openStretcher(rate);
    const hear = (speed: number, semitones: number) => {
      stretcher.begin([tone, tone], { sampleRate: rate, speed, semitones, loop: false });
      return stretcher.next(3 * rate)[0] ?? new Float32Array(0);
    };
    const slow = hear(0.5, 0);
    expect(Math.abs(hertzOf(slow) - 441)).toBeLessThan(6);
    expect([loudAt(slow, 1.8) > 0.2, loudAt(slow, 2.5) < 0.05]).toEqual([true, true]);
    const higher = hear(1, 12);
    expect(Math.abs(hertzOf(higher) - 882)).toBeLessThan(12);
    expect(loudAt(higher, 1.5)).toBeLessThan(0.05);
    // Held, it goes on.
    expect(loudAt(hear(0, 0), 2.8)).toBeGreaterThan(0.05);
  });
});

describe('what the recording says of the set-up', () => {
  const off = (cents: number, sure = 0.5) => ({ off: { cents, sure }, beat: null, loud: QUIET });
  const beat = (bpm: number, from: number, firsts: readonly number[] = [1, 3, 0, 2]) => ({
    off: null,
    beat: {
      ...{ bpm, sure: 0.5, others: [2 * bpm, bpm / 2], firsts },
      beats: Array.from({ length: 8 }, (_, index) => from + (60 / bpm) * index),
    },
    loud: QUIET,
  });
  const says = (...of: Parameters<typeof saidOfSetUp>) => saidOfSetUp(...of).map((one) => one.says);
  const song = songOf([], { startSeconds: 5 });

  test('is nothing where they agree: in tune, at its tempo or twice of it, some bars into the recording', () => {
    expect(says(song, off(3))).toEqual([]);
    expect(says(song, off(40, 0.02))).toEqual([]);
    expect(says(song, beat(120.4, 0.5))).toEqual([]);
    expect(says(song, beat(60, 4))).toEqual([]);
    expect(says(song, undefined)).toEqual([]);
  });
  test('is how far off pitch it stands, below and above', () => {
    expect(says(song, off(-14))).toEqual([
      'The recording stands surely 14 cents below A4 = 440 Hz; the set-up says 0.',
    ]);
    expect(saidOfSetUp(song, off(22, 0.2))[0]?.choices).toEqual([
      { label: 'Set 22 cents', change: { offsetCents: 22 } },
    ]);
    expect(says({ ...song, offsetCents: -114 }, off(-14))).toEqual([]);
  });
  test('is its tempo, with what else it may be; taps count more', () => {
    const [tempo] = saidOfSetUp({ ...song, tempoKnown: false }, beat(93, 0.5));
    expect(tempo?.says).toBe('The recording is surely at 93 bpm; the set-up says nothing of it.');
    expect(tempo?.choices.map(({ label }) => label)).toEqual(['Set 93 bpm', 'Set 186 bpm', 'Set 46.5 bpm']);
    expect(says(song, beat(93, 0.5), 120)).not.toContainEqual(expect.stringContaining('by your taps'));
    expect(says(song, undefined, 88)).toEqual(['The recording is by your taps at 88 bpm; the set-up says 120.']);
  });
  test('is where its first bar begins, the likeliest first, where the form begins between two of its bars', () => {
    const [first] = saidOfSetUp(song, beat(120, 0.9));
    expect(first?.says).toBe('The first bar of the recording is probably at 0:01.4; the form begins at 0:05.');
    expect(first?.choices).toEqual([
      { label: 'Begin at 0:01.4', beginSeconds: 1.4 },
      { label: 'Begin at 0:02.4', beginSeconds: 2.4 },
      { label: 'Begin at 0:00.9', beginSeconds: 0.9 },
    ]);
    expect(says({ ...song, sections: [] }, beat(120, 0.5))).toEqual([
      'The first bar of the recording is probably at 0:01; no section is laid out yet.',
    ]);
  });
  test('lets the form begin there', async () => {
    const begun: unknown[] = [];
    const wrapper = show(RecordingMargin, {
      disagrees: [{ says: 'There.', choices: [{ label: 'Begin at 0:01.4', beginSeconds: 1.4 }] }],
      onBegin: (seconds: unknown) => begun.push(seconds),
    });
    await button(wrapper, 'Begin at 0:01.4').trigger('click');
    expect(begun).toEqual([1.4]);
  });
  test('is taken over by a press', async () => {
    const taken: unknown[] = [];
    const wrapper = show(RecordingMargin, {
      disagrees: [
        { says: 'It stands 14 cents below.', choices: [{ label: 'Set -14 cents', change: { offsetCents: -14 } }] },
      ],
      onTake: (change: unknown) => taken.push(change),
    });
    expect(words(wrapper)).toContain('It stands 14 cents below.');
    await button(wrapper, 'Set -14 cents').trigger('click');
    expect(taken).toEqual([{ offsetCents: -14 }]);
  });
});

describe('takes that were sent', () => {
  const take: SentTake = {
    ...{
      id: 'take',
      version: 1,
      name: 'take.webm',
      type: 'audio/webm',
      bytes: 9,
      seconds: 3,
      print: '',
      parts: 1,
      isKept: true,
    },
    ...{ pieceId: 'piece', by: 'Ines', playedAt: '2026-03-14T10:00:00.000Z', bpm: 61, isClean: false },
    ...{ came: 'Two notes came late.', answer: '', goesOn: '2026-06-12' },
  };

  test('are answered and inked by the teacher', async () => {
    const studio = openStudio({
      takes: () => [take],
      answerTake: ({ body }) => ({ ...take, version: 2, answer: (body as { answer: string }).answer }),
    });
    await useSentTakes().load('piece');
    const inked: unknown[] = [];
    const wrapper = show(SentTakes, {
      zone: 'utc',
      ink: (...given: unknown[]) => Promise.resolve(void inked.push(given)),
    });
    expect(words(wrapper)).toContain('61 bpm: Two notes came late.');
    await wrapper.get('input').setValue('Wait for the beat.');
    await wrapper.get('form').trigger('submit');
    await settle();
    expect(studio.asked.at(-1)).toMatchObject({
      name: 'answerTake',
      body: { version: 1, answer: 'Wait for the beat.' },
    });
    await button(wrapper, 'Ink it at 61').trigger('click');
    await settle();
    expect(inked).toEqual([[61, 'not-yet']]);
  });

  test('show the student what was answered, and nothing where none was sent', async () => {
    openStudio({ takes: () => [{ ...take, answer: 'Wait for the beat.' }], deleteTake: () => null });
    expect(words(show(SentTakes, { zone: 'utc' }))).toBe('');
    await useSentTakes().load('piece');
    const wrapper = show(SentTakes, { zone: 'utc' });
    expect(words(wrapper)).toContain('Wait for the beat.');
    await button(wrapper, /^Delete the take/).trigger('click');
    await settle();
    expect(words(wrapper)).toBe('');
  });
});
