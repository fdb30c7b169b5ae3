import 'fake-indexeddb/auto';
import type { EntryBody, Piece, PinBody, Posted } from '@jam-ledger/contract';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { waitingLines, type WaitingEntry } from '../src/api/device.ts';
import { EntryQueue } from '../src/api/entryQueue.ts';
import { api } from '../src/api/studio.ts';
import { Refused, Unreachable } from '../src/api/http.ts';

/** A studio that keeps what reaches it, each id once, as the server does; and a line that can be cut at any point. */
class Studio {
  readonly entries = new Map<string, EntryBody>();
  readonly heard: string[] = [];
  /** What happens to the next requests, in turn: through, cut before it arrives, or cut before the answer does. */
  line: ('through' | 'before' | 'after')[] = [];
  refuse: ((body: EntryBody) => Refused | undefined) | undefined;
  readonly pins: PinBody[] = [];

  readonly pin = (pieceId: string, body: PinBody): Promise<Piece> => {
    if (this.line.shift() === 'before') return Promise.reject(new Unreachable());
    if (!this.pins.some(({ id }) => id === body.id)) this.pins.push(body);
    return Promise.resolve({ id: pieceId, entries: [], pins: this.pins } as unknown as Piece);
  };

  readonly send = (pieceId: string, body: EntryBody): Promise<Posted> => {
    const fate = this.line.shift() ?? 'through';
    if (fate === 'before') return Promise.reject(new Unreachable());
    const refused = this.refuse?.(body);
    if (refused) return Promise.reject(refused);
    this.heard.push(body.id);
    if (!this.entries.has(body.id)) this.entries.set(body.id, body);
    if (fate === 'after') return Promise.reject(new Unreachable());
    // Only the id of the answer is looked at here.
    return Promise.resolve({ id: pieceId, entry: { id: body.id } } as unknown as Posted);
  };
}

const ID = (index: number) => `00000000-0000-4000-8000-${String(index).padStart(12, '0')}`;
const entry = (index: number, more: Partial<WaitingEntry> = {}): Omit<WaitingEntry, 'playedAt'> => ({
  id: ID(index),
  pieceId: 'piece',
  personId: 'ines',
  bpm: 60 + index,
  outcome: 'clean',
  percent: 100,
  remark: '',
  ...more,
});
const refusal = (status: number, message: string) => new Refused(status, { error: { code: 'invalid', message } });

let studio: Studio;
let clock: Date;
let queue: EntryQueue;
const open = () => new EntryQueue({ lines: waitingLines, send: studio.send, pin: studio.pin, now: () => clock });
beforeEach(async () => {
  studio = new Studio();
  clock = new Date('2026-03-14T10:00:00Z');
  queue = open();
  for (const { id } of await waitingLines.all()) await waitingLines.remove(id);
});

describe('results on their way to the studio', () => {
  const COUNT = 4;
  /** Every way in which the line can be cut in the first six requests. */
  const FATES = ['through', 'before', 'after'] as const;
  const ways = Array.from({ length: FATES.length ** 6 }, (_, way) =>
    Array.from(
      { length: 6 },
      (__, place) => FATES[Math.floor(way / FATES.length ** place) % FATES.length] ?? 'through',
    ),
  );

  test('wherever the line is cut, nothing is lost, doubled or out of order, even if the page is closed in between', async () => {
    for (const [way, line] of ways.entries()) {
      studio = new Studio();
      studio.line = [...line];
      queue = open();
      for (let index = 0; index < COUNT; index += 1) {
        await queue.add(entry(index));
        // Every other way the page is closed and opened again after each result.
        if (way % 2 === 0) queue = open();
        await queue.flush('ines');
      }
      for (let tries = 0; tries < 8; tries += 1) await queue.flush('ines');
      expect([...studio.entries.keys()]).toEqual(Array.from({ length: COUNT }, (_, index) => ID(index)));
      expect(await queue.waiting('ines')).toEqual([]);
    }
  }, 120_000);

  test('what is added while others are being sent goes out as well', async () => {
    await queue.add(entry(0));
    const first = queue.flush('ines');
    await queue.add(entry(1));
    await Promise.all([first, queue.flush('ines')]);
    expect([...studio.entries.keys()]).toEqual([ID(0), ID(1)]);
  });

  test('two pages at once send the same lines, and each is posted once', async () => {
    for (let index = 0; index < 3; index += 1) await queue.add(entry(index));
    await Promise.all([queue.flush('ines'), open().flush('ines')]);
    expect(studio.entries.size).toBe(3);
    expect(await queue.waiting('ines')).toEqual([]);
  });

  test('carry when they were played and when they are sent', async () => {
    studio.line = ['before'];
    await queue.add(entry(0));
    await queue.flush('ines');
    clock = new Date('2026-03-15T10:00:00Z');
    await queue.flush('ines');
    expect(studio.entries.get(ID(0))).toMatchObject({
      playedAt: '2026-03-14T10:00:00.000Z',
      sentAt: '2026-03-15T10:00:00.000Z',
    });
  });

  test('a clock that was set back in between counts as played now, never in the future', async () => {
    studio.line = ['before'];
    await queue.add(entry(0));
    await queue.flush('ines');
    clock = new Date('2026-03-13T10:00:00Z');
    await queue.flush('ines');
    expect(studio.entries.get(ID(0))?.playedAt).toBe('2026-03-13T10:00:00.000Z');
  });

  test('one that is refused for good is told and does not hold up the others', async () => {
    studio.refuse = ({ bpm }) => (bpm === 60 ? refusal(422, 'This piece was taken back.') : undefined);
    await queue.add(entry(0));
    await queue.add(entry(1));
    const { refused, posted, left } = await queue.flush('ines');
    expect(refused.map(({ why }) => why)).toEqual(['This piece was taken back.']);
    expect([posted.length, left]).toEqual([1, 0]);
  });

  test.each([401, 429, 500])('an answer of %d is tried again later', async (status) => {
    studio.refuse = () => refusal(status, 'later');
    await queue.add(entry(0));
    expect((await queue.flush('ines')).left).toBe(1);
    studio.refuse = undefined;
    expect((await queue.flush('ines')).left).toBe(0);
  });

  test('somebody else on the same device does not post them', async () => {
    studio.line = ['before'];
    await queue.add(entry(0));
    await queue.flush('ines');
    await queue.flush('tomas');
    expect(studio.entries.size).toBe(0);
    expect(await queue.waiting('ines')).toHaveLength(1);
    expect(await queue.waiting('tomas')).toEqual([]);
  });

  test('one that still waits can be taken back, one that is posted cannot', async () => {
    await queue.add(entry(0));
    expect(await queue.takeBack(ID(0))).toBe(true);
    await queue.flush('ines');
    expect(studio.entries.size).toBe(0);
    await queue.add(entry(1));
    await queue.flush('ines');
    expect(await queue.takeBack(ID(1))).toBe(false);
  });
});

test('a note to the teacher waits and is sent in its turn, once', async () => {
  studio.line = ['before', 'through', 'before'];
  const note = { phraseId: 'f', at: 960, text: 'which finger here?' };
  await queue.add({ ...note, id: ID(1), pieceId: 'piece', personId: 'ines' });
  await queue.add(entry(2));
  expect(await queue.flush('ines')).toEqual({ posted: [], refused: [], left: 2 });
  expect(await queue.flush('ines')).toMatchObject({ left: 1 });
  expect(await queue.flush('ines')).toMatchObject({ left: 0 });
  expect([studio.pins, studio.heard]).toEqual([[{ ...note, id: ID(1) }], [ID(2)]]);
});

describe('an answer that is not the studio’s', () => {
  const plain = globalThis.fetch;
  const page = (status: number, body: string) => () => Promise.resolve(new Response(body, { status }));
  const overTheLine = () =>
    new EntryQueue({
      lines: waitingLines,
      send: (id, body) => api.postEntry({ id, body }),
      pin: (id, body) => api.pinNote({ id, body }),
      now: () => clock,
    });

  test.each([
    ['a page of a proxy', page(404, '<html>Not Found</html>')],
    ['a refusal of a proxy', page(403, '{"message":"blocked"}')],
    ['the sign-in page of a network', page(200, '<html>Welcome to the café</html>')],
    ['something else that is JSON', page(200, '{"ok":true}')],
    ['nothing at all', page(200, '')],
  ])('takes no result from the device: %s', async (_name, answer) => {
    queue = overTheLine();
    await queue.add(entry(1));
    globalThis.fetch = answer;
    const flushed = await queue.flush('ines');
    globalThis.fetch = plain;
    expect(flushed).toEqual({ posted: [], refused: [], left: 1 });
    expect((await queue.waiting('ines')).map(({ id }) => id)).toEqual([ID(1)]);
  });

  test('but a refusal of our own is final, and told', async () => {
    queue = overTheLine();
    await queue.add(entry(1));
    const body = {
      error: { code: 'invalid', message: 'No.', problems: [{ field: 'pieceId', message: 'It was taken back.' }] },
    };
    globalThis.fetch = page(422, JSON.stringify(body));
    const { refused, left } = await queue.flush('ines');
    globalThis.fetch = plain;
    expect([refused.map(({ why }) => why), left]).toEqual([['It was taken back.'], 0]);
  });
});
