import { describe, expect, test } from '@jest/globals';
import { lazyWorker } from '../src/sound/worker.ts';

/** A worker that never answers, and can fail. */
class Silent extends EventTarget {
  isEnded = false;
  postMessage(): void {
    // Whatever is asked stays unanswered.
  }
  terminate(): void {
    this.isEnded = true;
  }
}

function opened() {
  const begun: Silent[] = [];
  const worker = lazyWorker<{ sum(a: number, b: number): number }>('The sound', () => {
    const one = new Silent();
    begun.push(one);
    // What a worker does for the page is all here.
    return one as unknown as Worker;
  });
  return { begun, ask: () => worker.ask((remote) => remote.sum(1, 2)), end: worker.end };
}

describe('a worker', () => {
  test('is begun when it is first asked, and once', () => {
    const { begun, ask } = opened();
    expect(begun).toHaveLength(0);
    void ask().catch(() => undefined);
    void ask().catch(() => undefined);
    expect(begun).toHaveLength(1);
  });

  test('that could not be loaded says so to whoever asked, and is begun anew for the next', async () => {
    const { begun, ask } = opened();
    const [one, other] = [ask(), ask()];
    begun[0]?.dispatchEvent(new Event('error'));
    for (const asked of [one, other])
      await expect(asked).rejects.toThrow('The sound could not be loaded, since the studio cannot be reached.');
    expect(begun[0]?.isEnded).toBe(true);
    void ask().catch(() => undefined);
    expect(begun).toHaveLength(2);
  });

  test('that is ended leaves nobody waiting', async () => {
    const { begun, ask, end } = opened();
    const asked = ask();
    end();
    await expect(asked).rejects.toThrow('The sound was stopped.');
    expect(begun[0]?.isEnded).toBe(true);
    // There is nothing to end any more.
    end();
    expect(begun).toHaveLength(1);
  });
});
