/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import 'fake-indexeddb/auto';
import type { Entry, EntryBody, Ledger, LedgerRow, Piece } from '@jam-ledger/contract';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { readShorthand } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';
import { keptAnswers } from '../src/api/index.ts';
import { usePracticeClock } from '../src/practice/usePracticeClock.ts';
import { usePracticeRun } from '../src/practice/usePracticeRun.ts';
import { useLedger } from '../src/ledger/index.ts';
import { useSession } from '../src/session/index.ts';
import { renderer, type SoundJob } from '../src/sound/renderer.ts';
import { useListening, type Listening } from '../src/sound/useListening.ts';
import { inScope } from './mounting.ts';
import { meAs, openStudio, partOf, settle } from './studio.ts';

describe('a piece that is practised', () => {
  beforeEach(() => keptAnswers.forget());
  const entry = (id: string, more: Partial<Entry> = {}): Entry => ({
    ...{ id, version: 1, bpm: 60, outcome: 'clean', medium: 'pencil', percent: 100, loop: null, counts: true },
    ...{ remark: '', postedAt: '2026-03-14T10:00:00Z', day: '2026-03-14', struck: false },
    postedBy: { id: 'ines', name: 'Ines' },
    ...more,
  });
  const PIECE = partOf<Piece>({
    ...{
      id: 'p',
      version: 1,
      startBpm: 60,
      targetBpm: 120,
      raising: 'small even steps',
      entries: [],
      before: [],
      pins: [],
    },
    ...{ hearing: 'full speed first', around: { canSplit: false, join: null }, due: null, expected: null },
    student: { id: 'ines', name: 'Ines' },
    rules: { cleanNeeded: 1, fallsAfter: 3, restMinutes: 5 },
    standing: { inkBpm: null, pencilBpm: null, share: 0, by: null },
    next: { move: 'begin', reason: '', bpm: 60, percent: 100 },
    mastery: { state: 'not begun', reason: '', heldSince: null },
  });

  async function open(more: Partial<Piece> = {}, minutes = 0) {
    let stored: Piece = { ...PIECE, ...more };
    const studio = openStudio({
      me: () => meAs('student', 'ines'),
      ledger: () =>
        partOf<Ledger>({
          student: { id: 'ines', name: 'Ines' },
          pieces: [partOf<LedgerRow>({ id: 'p', version: 0, lastDay: null })],
        }),
      piece: () => stored,
      postEntry: ({ body }) => {
        const { id, bpm, outcome } = body as EntryBody;
        const next = { ...stored.next, bpm: bpm + 6, percent: 50 };
        const line = entry(id, { bpm, outcome });
        stored = { ...stored, version: 2, next, entries: [...stored.entries, line] };
        const { standing, around, mastery, due, expected } = stored;
        return { ...{ id: 'p', version: 2, standing, next, around, mastery, due, expected }, entry: line };
      },
    });
    await useSession().load();
    const shares: boolean[] = [];
    const run = inScope(() =>
      usePracticeRun('p', { minutes: () => minutes, chosen: (other) => void shares.push(other) }),
    );
    await settle();
    return { ...studio, run, shares };
  }

  test('opens at the step its ladder asks for', async () => {
    const { run, shares } = await open({ next: { ...PIECE.next, bpm: 72, percent: 50 } });
    expect([run.tempo.value, run.percent.value, shares]).toEqual([72, 50, [true]]);
  });

  test('a tempo chosen by hand holds until a result is posted, then the ladder is followed', async () => {
    const { run, asked } = await open();
    run.choose({ bpm: 90, percent: 100 });
    await run.post(90, 'clean', { percent: 100 });
    await settle();
    const posted = asked.find(({ name }) => name === 'postEntry')?.body as EntryBody;
    expect([posted.bpm, posted.outcome]).toEqual([90, 'clean']);
    expect([run.rung.value, run.piece.value?.entries.length]).toEqual([{ bpm: 96, percent: 50 }, 1]);
  });

  test('whoever loops a spot goes on looping it', async () => {
    const { run, shares } = await open();
    await run.post(60, 'clean', { percent: 100, loop: { from: 0, to: 100 } });
    await settle();
    expect([run.rung.value, shares]).toEqual([{ bpm: 60, percent: 100 }, [false]]);
  });

  test.each([
    ['full speed first', [120, 60]],
    ['slow first', [60, 120]],
  ] as const)('%s: both tempos in that order', async (hearing, both) =>
    expect((await open({ hearing })).run.both.value).toEqual(both),
  );

  test('at the target there is one tempo to hear', async () => {
    const { run } = await open();
    run.choose({ bpm: 120, percent: 100 });
    expect(run.both.value).toBeUndefined();
  });

  test('after too long without a break a rest is next', async () => {
    const fresh = [entry('a', { outcome: 'not-yet' })];
    expect((await open({ entries: fresh }, 2)).run.next.value?.move).not.toBe('rest');
    expect((await open({ entries: fresh }, 6)).run.next.value?.move).toBe('rest');
  });

  test('what is taken back from the notice is taken back here', async () => {
    const { run } = await open();
    await run.post(90, 'clean', { percent: 100 });
    useLedger().changed = { ...PIECE, entries: [] };
    await settle();
    expect(run.piece.value?.entries).toEqual([]);
    useLedger().changed = { ...PIECE, id: 'another', entries: [entry('x')] };
    await settle();
    expect(run.piece.value?.id).toBe('p');
  });
});

describe('the practice clock', () => {
  beforeEach(() => sessionStorage.clear());
  const MINUTE = 60_000;

  test('counts from mark to mark, until a break of more than two minutes', () => {
    let now = 100 * MINUTE;
    const clock = inScope(() => usePracticeClock(() => now));
    const after = (minutes: number) => {
      now += minutes * MINUTE;
      clock.mark();
      return clock.minutes.value;
    };
    expect([after(0), after(1), after(2), after(2.5), after(1)]).toEqual([0, 1, 3, 0, 1]);
  });

  test('a rest, and a clock that is set back, begin anew', () => {
    let now = 100 * MINUTE;
    const clock = inScope(() => usePracticeClock(() => now));
    clock.mark();
    now += MINUTE;
    clock.mark();
    clock.rest();
    expect(clock.minutes.value).toBe(0);
    clock.mark();
    now += MINUTE;
    clock.mark();
    now -= 30 * MINUTE;
    clock.mark();
    expect(clock.minutes.value).toBe(0);
  });

  test('goes on over a page that is opened again', async () => {
    let now = 100 * MINUTE;
    const first = inScope(() => usePracticeClock(() => now));
    first.mark();
    await settle();
    now += MINUTE;
    const again = inScope(() => usePracticeClock(() => now));
    again.mark();
    expect(again.minutes.value).toBe(1);
  });
});

/** A sound card whose clock a test turns; it notes when which stretch of sound is to begin, and from where in it. */
class Card {
  currentTime = 0;
  readonly sampleRate = 8000;
  readonly destination = {};
  static begun: { readonly at: number; readonly from: number; readonly seconds: number }[] = [];
  static gains: { value: number; readonly moved: number[]; isOn: boolean }[] = [];
  /** All that was to sound, piece by piece, track by track. */
  static sounds: Float32Array[] = [];
  static newest: Card | undefined;

  constructor() {
    Card.newest = this;
  }
  readonly resume = () => Promise.resolve();
  createGain() {
    const kept = { value: 0, moved: [] as number[], isOn: true };
    Card.gains.push(kept);
    const setTargetAtTime = (to: number) => void kept.moved.push(to);
    const gain = Object.assign(kept, { setTargetAtTime });
    return { gain, connect: () => undefined, disconnect: () => void (kept.isOn = false) };
  }
  createBuffer(_channels: number, length: number, rate: number) {
    return { duration: length / rate, copyToChannel: (samples: Float32Array) => void Card.sounds.push(samples) };
  }
  createBufferSource() {
    const source = {
      ...{ buffer: { duration: 0 }, onended: undefined, connect: () => undefined, stop: () => undefined },
      start: (at: number, from: number) => void Card.begun.push({ at, from, seconds: source.buffer.duration }),
    };
    return source;
  }
}

/** A worker for the sound that renders at once. */
class AtOnce extends EventTarget {
  static asked: string[] = [];
  postMessage(message: { id: string; path: readonly string[]; argumentList: readonly { value: unknown }[] }): void {
    const [method = ''] = message.path;
    AtOnce.asked.push(method);
    const [first, second] = message.argumentList.map(({ value: argument }) => argument);
    const value =
      method === 'begin' ? renderer.begin(first as SoundJob) : renderer.next(Number(first), second === true);
    queueMicrotask(() =>
      this.dispatchEvent(new MessageEvent('message', { data: { id: message.id, type: 'RAW', value } })),
    );
  }
  terminate(): void {
    // There is nothing to end.
  }
}

describe('playing', () => {
  const page = globalThis as unknown as { AudioContext: unknown; Worker: unknown };
  page.AudioContext = Card;
  page.Worker = AtOnce;
  beforeEach(() => {
    jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask'] });
    [Card.begun, Card.gains, Card.sounds, AtOnce.asked] = [[], [], [], []];
    localStorage.clear();
  });
  afterEach(() => void jest.useRealTimers());

  /** Four quarters at 120, two seconds. */
  const what = (text = '/4 5G 7G 9G 12G', bpm = 120): Listening => ({
    ...{ phrase: readShorthand(text).phrase, tuning: TUNINGS.standard, capo: 0, offsetCents: 0, feel: 'straight', bpm },
  });
  const open = (loops = false, heard = what()) => {
    const listening = inScope(() => useListening(() => heard, loops));
    listening.countIn.value = false;
    return listening;
  };
  /** Lets the sound card play on for some seconds. */
  async function hear(seconds: number): Promise<void> {
    for (let step = 0; step < Math.round(seconds * 20); step += 1) {
      if (Card.newest) Card.newest.currentTime += 0.05;
      jest.advanceTimersByTime(50);
      await settle();
    }
  }
  const strings = () => Card.begun.filter((_, index) => index % 3 === 0);

  test('sounds piece after piece without a gap, and ends by itself', async () => {
    const { player, play, playing } = open();
    await play();
    expect([player.playing.value, player.counting.value]).toEqual([true, false]);
    await hear(0.3);
    expect(playing.value).toEqual({ from: 3, to: 5 });
    await hear(3);
    const pieces = strings();
    for (const [index, { at, seconds }] of pieces.slice(0, -1).entries())
      expect(pieces[index + 1]?.at).toBeCloseTo(at + seconds, 6);
    expect(pieces.reduce((sum, { seconds }) => sum + seconds, 0)).toBeCloseTo(2.6, 3);
    expect([player.playing.value, playing.value, Card.gains.every(({ isOn }) => !isOn)]).toEqual([
      false,
      undefined,
      true,
    ]);
  });

  test('round and round, each round begins where the one before ends', async () => {
    const { play, player } = open(true);
    await play();
    const began = Card.newest?.currentTime ?? 0;
    await hear(5);
    const heads = strings().filter(({ seconds }, index) => index === 0 || seconds === 0.75);
    expect(heads.length).toBeGreaterThan(4);
    const rounds = strings().filter((_, index) => index % 3 === 0);
    expect(rounds.slice(0, 3).map(({ at }) => (at - began).toFixed(3))).toEqual(['0.050', '2.050', '4.050']);
    expect(player.playing.value).toBe(true);
    player.stop();
    const count = Card.begun.length;
    await hear(3);
    expect(Card.begun).toHaveLength(count);
  });

  test('a short round is rendered once; a long one with every round, the same each time, so that little of it is kept', async () => {
    const rendered = () => AtOnce.asked.filter((method) => method === 'next').length;
    const short = open(true);
    await short.play();
    await hear(2);
    const once = rendered();
    await hear(6);
    expect(rendered()).toBe(once);
    short.player.stop();
    // Eight bars of whole notes, 32 seconds.
    const long = open(true, what('/1 5G | 7G | 9G | 12G | 5G | 7G | 9G | 12G', 60));
    AtOnce.asked = [];
    Card.sounds = [];
    await long.play();
    await hear(66);
    expect(rendered()).toBeGreaterThan(2 * 43);
    const firsts = Card.sounds.filter((_, index) => index % 3 === 0).map((samples) => samples.slice(0, 400));
    expect(firsts[43]).toEqual(firsts[0]);
    expect(firsts[0]?.some((sample) => sample !== 0)).toBe(true);
    long.player.stop();
  });

  test('a count-in is heard once, and told', async () => {
    const listening = open(true);
    listening.countIn.value = true;
    await listening.play();
    await hear(0.2);
    expect([listening.player.counting.value, listening.playing.value]).toEqual([true, undefined]);
    await hear(2.2);
    expect([listening.player.counting.value, listening.playing.value]).toEqual([false, { from: 3, to: 5 }]);
    await hear(2);
    expect([listening.player.counting.value, listening.playing.value]).toEqual([false, { from: 3, to: 5 }]);
    listening.player.stop();
  });

  test('one that begins stops the one before', async () => {
    const [first, second] = [open(), open()];
    await first.play();
    await second.play();
    expect([first.player.playing.value, second.player.playing.value]).toEqual([false, true]);
    second.player.stop();
  });

  test('both tempos one after the other', async () => {
    const { hearBoth, player } = open();
    await hearBoth([240, 120], {});
    await hear(1.9);
    expect([player.playing.value, AtOnce.asked.filter((method) => method === 'begin').length]).toEqual([true, 2]);
    await hear(3);
    expect(player.playing.value).toBe(false);
  });

  test('from the caret on; pressed again it stops', async () => {
    const { playFrom, player, playing } = open();
    await playFrom({ from: 9, to: 9 });
    await hear(0.2);
    expect(playing.value).toEqual({ from: 9, to: 11 });
    await playFrom({ from: 0, to: 0 });
    expect(player.playing.value).toBe(false);
  });

  test('a selection goes round and round; an empty one is the whole', async () => {
    const { loopOver, playing, player } = open();
    await loopOver({ from: 6, to: 11 });
    await hear(0.2);
    expect(playing.value).toEqual({ from: 6, to: 8 });
    await hear(1);
    expect(playing.value).toEqual({ from: 6, to: 8 });
    await loopOver({ from: 6, to: 6 });
    await hear(0.2);
    expect(playing.value).toEqual({ from: 3, to: 5 });
    player.stop();
  });

  test('levels are those of this browser, and glide while it plays', async () => {
    localStorage.setItem('jam-level', '0.9');
    const { player, play } = open();
    expect(player.level.value).toBe(0.9);
    await play();
    expect(Card.gains.map(({ value }) => value)).toEqual([0.9, 0.6, 0.4]);
    player.clickLevel.value = 0;
    player.setLevels();
    expect(Card.gains.map(({ moved }) => moved)).toEqual([[0.9], [0], [0.4]]);
    player.stop();
  });

  test('chords have something to follow only where there are some', () => {
    expect([open(false, what('/4 :Am 5G')).hasChords.value, open().hasChords.value]).toEqual([true, false]);
  });
});
