import 'fake-indexeddb/auto';
import type { Entry, EntryBody, Ledger, LedgerRow, Piece, Strike } from '@jam-ledger/contract';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { keptAnswers, waitingLines } from '../src/api/index.ts';
import { useLedger } from '../src/ledger/ledger.ts';
import { useNotices, useSession } from '../src/session/index.ts';
import { CUT, meAs, openStudio, partOf, Refusing } from './studio.ts';

const entry = (id: string, more: Partial<Entry> = {}): Entry => ({
  ...{ id, version: 1, bpm: 60, outcome: 'clean', medium: 'pencil', percent: 100, loop: null, counts: true },
  ...{ remark: '', postedAt: '2026-03-14T10:00:00Z', day: '2026-03-14', struck: false },
  postedBy: { id: 'ines', name: 'Ines' },
  ...more,
});
const piece = (entries: readonly Entry[] = [], more: Partial<Piece> = {}): Piece =>
  partOf<Piece>({
    ...{
      id: 'p',
      version: 1,
      startBpm: 60,
      targetBpm: 120,
      raising: 'small even steps',
      entries,
      before: [],
      pins: [],
    },
    ...{ student: { id: 'ines', name: 'Ines' }, around: { canSplit: false, join: null }, due: null, expected: null },
    rules: { cleanNeeded: 1, fallsAfter: 3, restMinutes: 5 },
    standing: { inkBpm: null, pencilBpm: null, share: 0, by: null },
    next: { move: 'begin', reason: '', bpm: 60, percent: 100 },
    mastery: { state: 'not begun', reason: '', heldSince: null },
    ...more,
  });
const line = (id: string): LedgerRow => partOf<LedgerRow>({ id, lastDay: null, last: null, version: 0 });
const ledgerOf = (student: string, pieces: readonly LedgerRow[] = []): Ledger =>
  partOf<Ledger>({ student: { id: student, name: student }, pieces });

/** The lines that what was changed last came with. */
function changedOf({ changed }: ReturnType<typeof useLedger>): readonly Entry[] {
  if (!changed) return [];
  return 'entry' in changed ? [changed.entry] : changed.entries;
}

/** A studio that keeps what is posted to one piece. */
async function openLedger(role: 'student' | 'teacher' = 'student') {
  let stored = piece();
  const studio = openStudio({
    me: () => meAs(role, role === 'student' ? 'ines' : 'mara'),
    ledger: ({ query }) => ledgerOf(query['studentId'] ?? 'ines', [line('p'), line('q')]),
    piece: () => stored,
    postEntry: ({ body }) => {
      const { id, bpm, outcome } = body as EntryBody;
      stored = { ...stored, version: stored.version + 1, entries: [...stored.entries, entry(id, { bpm, outcome })] };
      const line = entry(id, { bpm, outcome });
      const { standing, next, around, mastery, due, expected } = stored;
      return { ...{ id: 'p', version: stored.version, standing, next, around, mastery, due, expected }, entry: line };
    },
    strikeEntry: ({ path, body }) => {
      const { struck, version } = body as Strike;
      const entries = stored.entries.map((one) =>
        path.endsWith(one.id) ? { ...one, struck, version: version + 1 } : one,
      );
      return (stored = { ...stored, entries });
    },
  });
  await useSession().load();
  return studio;
}

beforeEach(async () => {
  await keptAnswers.forget();
  for (const { id } of await waitingLines.all()) await waitingLines.remove(id);
});

describe('the ledger', () => {
  test('of another student shows nothing of the one before', async () => {
    await openLedger('teacher');
    const store = useLedger();
    await store.load('ines');
    expect(store.ledger?.student.id).toBe('ines');
    const loading = store.load('pia');
    expect(store.ledger).toBeNull();
    await loading;
    const again = store.load('pia', '2026-03-01');
    expect(store.ledger?.student.id).toBe('pia');
    await again;
  });

  test('is asked for a student and a day where those are said', async () => {
    const { asked } = await openLedger();
    await useLedger().load();
    await useLedger().load('ines', '2026-03-01');
    expect(asked.filter(({ name }) => name === 'ledger').map(({ query }) => query)).toEqual([
      {},
      { studentId: 'ines', until: '2026-03-01' },
    ]);
  });

  test('while the line is cut is the one seen last, and says so', async () => {
    const studio = await openLedger();
    const store = useLedger();
    await store.load();
    const { answers } = studio;
    studio.answers = { ledger: () => CUT };
    await store.load();
    expect([useSession().isCut, store.pieces.length]).toEqual([true, 2]);
    studio.answers = answers;
    await store.load();
    expect(useSession().isCut).toBe(false);
    studio.answers = { ledger: () => CUT };
    await expect(store.load('nobody')).rejects.toThrow('cannot be reached');
  });

  test('a refusal is told, whatever was seen last', async () => {
    const studio = await openLedger();
    await useLedger().load();
    studio.answers = { ledger: () => new Refusing(403, 'not-yours') };
    await expect(useLedger().load()).rejects.toThrow('It is refused.');
  });
});

describe('a result', () => {
  test('is posted, moves its row alone, and can be struck out from the notice and put back', async () => {
    await openLedger();
    const store = useLedger();
    await store.load();
    const posted = await store.post(piece(), { bpm: 64, outcome: 'clean', percent: 100 });
    expect(posted.entries.map(({ bpm }) => bpm)).toEqual([64]);
    expect(useNotices().notice?.text).toBe('64, clean is posted in pencil.');
    expect(store.pieces.map(({ id, version, lastDay }) => [id, version, lastDay])).toEqual([
      ['p', 2, '2026-03-14'],
      ['q', 0, null],
    ]);
    await useNotices().takeBack();
    expect([changedOf(store)[0]?.struck, useNotices().notice?.text]).toEqual([true, 'The entry is struck out.']);
    await useNotices().takeBack();
    expect([changedOf(store)[0]?.struck, changedOf(store)[0]?.version]).toEqual([false, 3]);
  });

  test('in a lesson moves what the lesson shows, until a ledger is opened', async () => {
    await openLedger('teacher');
    const store = useLedger();
    await store.load('ines');
    store.show({ pieces: [line('p')], planned: [line('r')] });
    await store.post(piece(), { bpm: 64, outcome: 'clean', percent: 100 });
    expect(store.pieces.map(({ id, last }) => [id, last])).toEqual([
      ['p', { bpm: 64, outcome: 'clean', medium: 'pencil' }],
      ['r', null],
    ]);
    expect(store.ledger?.pieces.map(({ lastDay }) => lastDay)).toEqual(['2026-03-14', null]);
    await store.load('ines');
    expect(store.pieces.map(({ id }) => id)).toEqual(['p', 'q']);
  });

  test('that was not clean, and a loop, are told so', async () => {
    await openLedger();
    const store = useLedger();
    await store.post(piece(), { bpm: 64, outcome: 'not-yet', percent: 100, loop: { from: 0, to: 960 } });
    expect(useNotices().notice?.text).toBe('64, not yet is posted in pencil, as a loop: the ladder stays where it is.');
  });

  test('waits on the device while the line is cut, moves the ladder meanwhile, and is sent when it is back', async () => {
    const studio = await openLedger();
    const store = useLedger();
    const { answers } = studio;
    studio.answers = { ...answers, postEntry: () => CUT, piece: () => CUT };
    const kept = await store.post(piece(), { bpm: 60, outcome: 'clean', percent: 100 });
    expect(kept.entries).toMatchObject([{ bpm: 60, medium: 'pencil', version: 0, counts: true }]);
    expect(kept.next.bpm).toBeGreaterThan(60);
    expect([store.waiting.length, useNotices().notice?.text]).toEqual([
      1,
      '60, clean is kept on this device until the studio can be reached.',
    ]);
    await expect(store.piece('p')).rejects.toThrow('cannot be reached');
    studio.answers = answers;
    await store.flush();
    expect([store.waiting.length, changedOf(store).length]).toEqual([0, 1]);
    expect((await store.piece('p')).entries).toHaveLength(1);
  });

  test('moves the ladder of a piece that an edition before kept on the device, with all its lines', async () => {
    const studio = await openLedger();
    const { before: _, hasEarlier: __, ...old } = piece([entry('a')]);
    studio.answers = { ...studio.answers, piece: () => partOf<Piece>(old), postEntry: () => CUT };
    const store = useLedger();
    const kept = await store.post(await store.piece('p'), { bpm: 60, outcome: 'clean', percent: 100 });
    expect([kept.entries.length, kept.before, kept.hasEarlier]).toEqual([2, [], false]);
  });

  test('shows earlier lines before those it shows, and what counts of them once', async () => {
    const studio = await openLedger();
    const counted = { day: '2026-03-01', bpm: 58, outcome: 'clean', medium: 'ink', percent: 100 } as const;
    const shown = piece([entry('c')], { hasEarlier: true, before: [counted, counted] });
    const asked: string[] = [];
    studio.answers = {
      ...studio.answers,
      earlierEntries: ({ query }) => {
        asked.push(query['before'] ?? '');
        return { entries: [entry('a', { struck: true }), entry('b')], hasEarlier: false };
      },
    };
    const all = await useLedger().earlier(shown);
    expect([asked, all.entries.map(({ id }) => id), all.before, all.hasEarlier]).toEqual([
      ['c'],
      ['a', 'b', 'c'],
      [counted],
      false,
    ]);
  });

  test('that waits can be taken back', async () => {
    const studio = await openLedger();
    const store = useLedger();
    studio.answers = { ...studio.answers, postEntry: () => CUT };
    await store.post(piece(), { bpm: 60, outcome: 'clean', percent: 100 });
    await useNotices().takeBack();
    expect([store.waiting.length, changedOf(store).length]).toEqual([0, 0]);
  });

  test('that is refused for good is told, and waits no longer', async () => {
    const studio = await openLedger();
    const problems = [{ field: 'pieceId', message: 'This piece was taken back.' }];
    studio.answers = { ...studio.answers, postEntry: () => new Refusing(422, 'invalid', { problems }) };
    await useLedger().post(piece(), { bpm: 60, outcome: 'clean', percent: 100 });
    expect([useLedger().waiting.length, useNotices().notice?.text]).toEqual([
      0,
      '60 was not posted: This piece was taken back.',
    ]);
  });

  test('of a teacher waits in ink', async () => {
    const studio = await openLedger('teacher');
    studio.answers = { ...studio.answers, postEntry: () => CUT };
    const kept = await useLedger().post(piece(), { bpm: 60, outcome: 'clean', percent: 100 });
    expect(kept.entries[0]?.medium).toBe('ink');
  });

  test('of somebody else on this device is not sent', async () => {
    const studio = await openLedger();
    studio.answers = { ...studio.answers, postEntry: () => CUT };
    await useLedger().post(piece(), { bpm: 60, outcome: 'clean', percent: 100 });
    const { asked } = await openLedger('teacher');
    await useLedger().flush();
    expect(asked.filter(({ name }) => name === 'postEntry')).toEqual([]);
    expect(await waitingLines.all()).toHaveLength(1);
  });
});
