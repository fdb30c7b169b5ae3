/** @jest-environment jsdom */
import type {
  Hearing,
  LessonDay,
  LessonNote,
  LessonNoteBody,
  LedgerPiece,
  Piece,
  Pin,
  Strike,
} from '@jam-ledger/contract';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { readShorthand } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';
import { computed, ref } from 'vue';
import { useLedger } from '../src/ledger/index.ts';
import { useHearing } from '../src/lessons/useHearing.ts';
import { useLessonAgenda } from '../src/lessons/useLessonAgenda.ts';
import { useLessonNote } from '../src/lessons/useLessonNote.ts';
import { usePinning, useStepping } from '../src/playing/index.ts';
import { useNotices } from '../src/session/index.ts';
import { openStudio, partOf, Refusing, settle } from './studio.ts';
import { inScope } from './mounting.ts';

const said = () => useNotices().notice?.text;

describe('the hearing list of a lesson', () => {
  const phrase = readShorthand('/4 :Em 7Gb1 5G | /8 7G h9 7G p5', { tuning: TUNINGS.standard }).phrase;
  const piece = partOf<Piece>({
    id: 'p',
    naming: 'letters',
    fidelity: 'note for note',
    song: partOf<Piece['song']>({ capo: 0 }),
  });
  const open = (heard: readonly Hearing[] = []) => {
    const studio = openStudio({
      hear: ({ body }) => ({ ...(body as Hearing), version: 3, pieceId: 'p' }),
      strikeHearing: () => null,
    });
    const [shown, hearings] = [ref<Piece>(), ref<readonly Hearing[]>(heard)];
    const list = inScope(() =>
      useHearing({ piece: shown, phrase: ref(phrase), tuning: ref(TUNINGS.standard), hearings }),
    );
    shown.value = piece;
    return { ...studio, list, hearings, shown };
  };

  test('begins at the first point that nobody has heard', async () => {
    const first = open().list.points.value[0]?.point;
    const heard = partOf<Hearing>({ pieceId: 'p', at: first?.at ?? 0, kind: first?.kind ?? 'bend' });
    const { list } = open([heard]);
    await settle();
    expect([list.points.value[0]?.heard, list.chosen.value]).toEqual([heard, 1]);
    list.move(-1);
    list.move(-1);
    expect(list.chosen.value).toBe(0);
  });

  test('what was heard stands at its point; the next one is chosen; it can be taken back', async () => {
    const { list, asked, hearings } = open();
    await settle();
    await list.hear(false, 'flat');
    expect(asked[0]?.body).toMatchObject({ isRight: false, remark: 'flat', kind: list.points.value[0]?.point.kind });
    expect([list.points.value[0]?.heard?.remark, list.chosen.value]).toEqual(['flat', 1]);
    expect(said()).toMatch(/^Not right yet/);
    await useNotices().takeBack();
    expect([hearings.value, asked[1]?.body]).toEqual([[], { version: 3, struck: true }]);
  });

  test('said again, it keeps the id it had', async () => {
    const { list, asked } = open();
    await settle();
    await list.hear(false);
    list.move(-1);
    await list.hear(true);
    const ids = asked.map(({ body }) => (body as Hearing).id);
    expect(ids[0]).toBe(ids[1]);
    expect(said()).toBe('Heard, and right.');
  });

  test('hearings of another piece are not its own', async () => {
    const { list, hearings } = open();
    await settle();
    hearings.value = [partOf<Hearing>({ pieceId: 'q', at: 0, kind: 'bend' })];
    expect(list.points.value.every(({ heard }) => heard === undefined)).toBe(true);
  });
});

describe('the agenda of a lesson', () => {
  const line = (id: string, order: number): LedgerPiece =>
    partOf<LedgerPiece>({
      ...{ id, kind: 'phrase', startBpm: 60, targetBpm: 120, assignedOn: `2026-03-0${order}`, due: null, since: null },
      ...{
        phrase: { id, name: `Phrase ${id}` },
        song: { id: 's', title: 'Slow Tide' },
        lastDay: null,
        last: null,
        expected: null,
      },
      standing: { inkBpm: null, pencilBpm: null, share: 0, by: null },
      next: { move: 'begin', reason: '', bpm: 60, percent: 100 },
      mastery: { state: 'not begun', reason: '', heldSince: null },
    });
  function open() {
    const pieces = [line('a', 1), line('b', 2), line('c', 3)];
    openStudio({});
    useLedger().show({ pieces, planned: [] });
    return inScope(() =>
      useLessonAgenda(
        computed(() => 45),
        computed(() => '2026-03-14'),
      ),
    );
  }

  test('goes from piece to piece and stops at both ends', () => {
    const { line: shown, step } = open();
    const first = shown.value?.id;
    step(-1);
    expect(shown.value?.id).toBe(first);
    step(1);
    expect(shown.value?.id).not.toBe(first);
    for (let turn = 0; turn < 5; turn += 1) step(1);
    const last = shown.value?.id;
    step(1);
    expect(shown.value?.id).toBe(last);
  });

  test('a piece left out is left out of the agenda, until that is taken back', async () => {
    const { agenda, line: shown, leaveOut } = open();
    const first = shown.value?.id ?? '';
    const planned = () => agenda.value.items.map(({ pieceId }) => pieceId);
    expect(planned()).toContain(first);
    leaveOut();
    expect(planned()).not.toContain(first);
    expect(shown.value?.id).not.toBe(first);
    expect(said()).toBe(`“Phrase ${first}” is left out of this lesson.`);
    await useNotices().takeBack();
    expect(planned()).toContain(first);
  });

  test('another student begins with nothing left out', () => {
    const { agenda, leaveOut, reset } = open();
    const before = agenda.value.items.length;
    leaveOut();
    reset();
    expect(agenda.value.items).toHaveLength(before);
  });
});

describe('the summary of a lesson', () => {
  beforeEach(() => void jest.useFakeTimers());
  afterEach(() => void jest.useRealTimers());
  const note = (more: Partial<LessonNote> = {}): LessonNote => ({
    ...{ version: 1, day: '2026-03-14', isOpen: true, before: [], words: 'Bends.', home: '', assigned: [] },
    ...{ writtenBy: 'Mara', writtenAt: '2026-03-14T10:00:00Z' },
    ...more,
  });
  const dayOf = (kept: LessonNote | null): LessonDay =>
    partOf<LessonDay>({
      day: '2026-03-14',
      note: kept,
      student: { id: 'ines', name: 'Ines' },
    });
  function open(kept: LessonNote | null, refuse?: Refusing) {
    const studio = openStudio({
      keepLessonNote: ({ body }) => {
        const { version, send: _, ...typed } = body as LessonNoteBody;
        return refuse ?? note({ ...typed, version: version + 1 });
      },
      lessonDay: () => dayOf(note({ version: 7, words: 'Theirs.' })),
    });
    const summary = inScope(() => useLessonNote());
    summary.take(dayOf(kept));
    return { ...studio, summary };
  }
  const pause = async () => {
    jest.advanceTimersByTime(800);
    await settle();
  };

  test('is kept by itself, once, after a pause in typing', async () => {
    const { summary, asked } = open(null);
    summary.change({ words: 'B' });
    summary.change({ words: 'Bends' });
    expect(summary.saving.value).toBe('keeping');
    await pause();
    expect(asked.map(({ body }) => body)).toEqual([
      { version: 0, words: 'Bends', home: '', assigned: [], send: false },
    ]);
    expect([summary.saving.value, summary.note.value?.version]).toEqual(['kept', 1]);
  });

  test('goes on over the version that was kept', async () => {
    const { summary, asked } = open(note({ version: 4 }));
    summary.change({ home: 'Ten minutes.' });
    await pause();
    expect(asked[0]?.body).toMatchObject({ version: 4, words: 'Bends.', home: 'Ten minutes.' });
  });

  test('a piece is assigned once, at its last tempo, and taken out', () => {
    const { summary } = open(null);
    summary.assign({ pieceId: 'p', name: 'Opening', bpm: 60 });
    summary.assign({ pieceId: 'q', name: 'Answer', bpm: 70 });
    summary.assign({ pieceId: 'p', name: 'Opening', bpm: 66 });
    expect(summary.draft.value.assigned.map(({ pieceId, bpm }) => `${pieceId} ${bpm}`)).toEqual(['q 70', 'p 66']);
    summary.unassign('q');
    expect(summary.draft.value.assigned.map(({ pieceId }) => pieceId)).toEqual(['p']);
  });

  test('why it cannot be kept stands at its place, and nothing typed is lost', async () => {
    const refusal = new Refusing(422, 'invalid', { problems: [{ field: 'words', message: 'This is too long.' }] });
    const { summary } = open(null, refusal);
    summary.change({ words: 'Long' });
    await pause();
    expect([summary.problem.value, summary.saving.value]).toEqual(['This is too long.', 'waiting']);
    expect(summary.draft.value.words).toBe('Long');
  });

  test('where somebody else wrote meanwhile, what is typed stays, and theirs can be taken', async () => {
    const { summary } = open(note(), new Refusing(409, 'stale', { current: {} }));
    summary.change({ words: 'Mine.' });
    await pause();
    expect([summary.draft.value.words, summary.note.value?.version]).toEqual(['Mine.', 7]);
    await useNotices().takeBack();
    expect(summary.draft.value.words).toBe('Theirs.');
  });

  test('written home, it says so; refused, it does not', async () => {
    const { summary, asked } = open(note());
    await summary.send();
    expect([said(), asked[0]?.body]).toEqual([
      'It is written home; the message lies in the outbox.',
      expect.objectContaining({ send: true }),
    ]);
    const refused = open(note(), new Refusing(422, 'invalid'));
    await refused.summary.send();
    expect(said()).toBeUndefined();
  });

  test('an earlier one is gone on with only after what was typed is kept', async () => {
    const { summary, asked } = open(null);
    summary.change({ words: 'Today.' });
    await summary.reopen(note({ day: '2026-03-07', words: 'Last week.' }));
    expect(asked[0]).toMatchObject({ path: '/lessons/of/ines/2026-03-14', body: { words: 'Today.' } });
    expect([summary.day.value, summary.draft.value.words]).toEqual(['2026-03-07', 'Last week.']);
  });
});

describe('notes pinned to a piece', () => {
  const phrase = readShorthand('/4 5G 7G 5G 7G', { tuning: TUNINGS.standard }).phrase;
  const QUARTER = 20_160;
  const pin = (at: number, more: Partial<Pin> = {}): Pin => ({
    ...{ id: `pin ${at}`, version: 1, phraseId: 'f', at, text: 'mind this', pinnedAt: '2026-03-14T10:00:00Z' },
    ...{ by: { id: 'mara', name: 'Mara', teaches: true }, ...more },
  });
  // The second half of a phrase: what stands at its third beat is the first thing played.
  const parts = [{ name: 'Opening', phraseId: 'f', from: 2 * QUARTER, to: null, at: 0, length: 4 * QUARTER }];
  function open(pins: readonly Pin[]) {
    const studio = openStudio({
      strikePin: () => null,
    });
    const piece = ref<Piece>();
    piece.value = partOf<Piece>({ id: 'p', parts, pins });
    const refreshed = { times: 0 };
    const kept: object[] = [];
    const made = inScope(() => {
      const stepping = useStepping(phrase, TUNINGS.standard);
      const { step, steps } = stepping;
      const keep = (one: Piece, note: Pick<Pin, 'at' | 'phraseId' | 'text'>) => {
        kept.push(note);
        return Promise.resolve({ ...one, pins: [...pins, pin(note.at)] });
      };
      const refresh = () => Promise.resolve(void (refreshed.times += 1));
      return { stepping, ...usePinning(piece, { step, steps, playing: ref(undefined), refresh, keep }) };
    });
    return { ...studio, ...made, piece, refreshed, kept };
  }

  test('stand at the event of the piece in which their place of the phrase sounds', () => {
    const { placed, stepping } = open([pin(2 * QUARTER), pin(3 * QUARTER + 5), pin(QUARTER)]);
    expect(placed.value.map(({ pin: { at }, place }) => `${at / QUARTER} ${place}`)).toEqual([
      '2 bar 1, beat 1',
      `${3 + 5 / QUARTER} bar 1, beat 2`,
    ]);
    stepping.move(1);
    expect(placed.value.map(({ isHere }) => isHere)).toEqual([true, false]);
  });

  test('are pinned at the place of the phrase, not of the piece; nowhere before a step is chosen', async () => {
    const { pin: add, stepping, kept, here } = open([]);
    expect(await add('mind this')).toBe(false);
    stepping.move(1);
    stepping.move(1);
    expect(here.value).toBe('bar 1, beat 2');
    expect(await add('mind this')).toBe(true);
    expect(kept).toEqual([{ phraseId: 'f', at: 3 * QUARTER, text: 'mind this' }]);
  });

  test('are taken out, and put back over the next version', async () => {
    const { strike, asked, refreshed } = open([]);
    await strike(pin(0, { version: 4 }));
    await useNotices().takeBack();
    expect(asked.map(({ body }) => body as Strike)).toEqual([
      { version: 4, struck: true },
      { version: 5, struck: false },
    ]);
    expect(refreshed.times).toBe(2);
  });
});
