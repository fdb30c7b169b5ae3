import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import { openStore } from '../src/store/index.ts';
import { NO_KEEPING, type RequestContext } from '../src/studio/context/context.ts';
import { sharedRuns } from '../src/studio/context/sharedRuns.ts';

// Nothing is asked of either, so that nothing is connected.
const [store, other] = ['postgres://127.0.0.1/one', 'postgres://127.0.0.1/other'].map(openStore);
afterAll(async () => {
  await Promise.all([store?.close(), other?.close()]);
});

/** Somebody asks at a minute past ten; something is written every minute, unless `written` says when it last was. */
function asking(id: string, minute: number, { where = store, written = minute, ms = 0 } = {}): RequestContext {
  if (!where) throw new Error('both stores are there');
  return {
    store: where,
    person: { id, name: id, signInName: id, role: 'teacher' },
    studio: { id: 'studio', name: 'Studio', demo: false, zone: 'UTC', holidays: [] },
    ...{ wards: [], book: NO_KEEPING, sessionId: '', now: new Date(Date.UTC(2026, 2, 14, 10, minute, 0, ms)) },
    snapshot: `${written}:${written}:`,
  };
}

/** Runs that began and wait for their end: who they were begun for, and when. */
let begun: { readonly who: string; readonly end: (fails?: boolean) => void }[] = [];
const run = (context: RequestContext) =>
  new Promise<string>((done, fail) => {
    const who = `${context.person.id} ${context.now.getUTCMinutes()}`;
    begun.push({ who, end: (fails) => (fails ? fail(new Error(who)) : done(who)) });
  });
beforeEach(() => void (begun = []));

/** Ends a run, and lets whoever waited for it go on. */
async function end(index: number, fails?: boolean): Promise<void> {
  begun[index]?.end(fails);
  await new Promise(setImmediate);
}

describe('runs that requests share', () => {
  test('whoever asks while one is under way shares the next, begun for the newest, and none that began before', async () => {
    const shared = sharedRuns(run);
    const first = shared(asking('mara', 0));
    const waiting = [1, 2, 3].map((minute) => shared(asking('mara', minute)));
    expect(begun.map(({ who }) => who)).toEqual(['mara 0']);
    await end(0);
    expect(begun.map(({ who }) => who)).toEqual(['mara 0', 'mara 3']);
    const late = shared(asking('mara', 4));
    await end(1);
    await end(2);
    expect(await Promise.all([first, ...waiting, late])).toEqual(['mara 0', 'mara 3', 'mara 3', 'mara 3', 'mara 4']);
    void shared(asking('mara', 5));
    expect(begun.at(-1)?.who).toBe('mara 5');
  });

  test('nobody shares another’s run, nor one of another database', () => {
    const shared = sharedRuns(run);
    for (const context of [asking('mara', 0), asking('odile', 1), asking('mara', 2, { where: other })])
      void shared(context);
    expect(begun.map(({ who }) => who)).toEqual(['mara 0', 'odile 1', 'mara 2']);
  });

  test('while nothing is written a run holds for five seconds, whether it is under way or over', async () => {
    const shared = sharedRuns(run);
    const first = shared(asking('mara', 0));
    const meanwhile = shared(asking('mara', 0, { ms: 400 }));
    await end(0);
    const after = shared(asking('mara', 0, { ms: 4999 }));
    expect(begun).toHaveLength(1);
    expect(await Promise.all([first, meanwhile, after])).toEqual(['mara 0', 'mara 0', 'mara 0']);
    void shared(asking('mara', 0, { ms: 5000 }));
    await end(1);
    void shared(asking('mara', 0, { ms: 5001, written: 1 }));
    await end(2);
    // A clock that was set back is no reason to be answered what another time was told.
    void shared(asking('mara', 0, { ms: 4900, written: 1 }));
    expect(begun).toHaveLength(4);
  });

  test('what failed is not kept', async () => {
    const shared = sharedRuns(run);
    const failed = shared(asking('mara', 0)).catch((error: unknown) => String(error));
    await end(0, true);
    const again = shared(asking('mara', 0));
    await end(1);
    expect(await Promise.all([failed, again])).toEqual(['Error: mara 0', 'mara 0']);
  });

  test('a run that fails fails for those who share it, and the next is begun all the same', async () => {
    const shared = sharedRuns(run);
    const answers = [0, 1].map((minute) => shared(asking('mara', minute)).catch((error: unknown) => String(error)));
    await end(0, true);
    const last = shared(asking('mara', 2));
    await end(1, true);
    await end(2);
    expect(await Promise.all([...answers, last])).toEqual(['Error: mara 0', 'Error: mara 1', 'mara 2']);
  });
});
