import { test } from '@jest/globals';
import type { Page } from 'playwright-core';

/** A test that goes on from the one before it. */
export type Step = (name: string, work: () => Promise<void>) => void;

/**
 * Makes the steps of one story: where one fails, pictures of the windows are left in `test-results/`, and the
 * steps after it fail at once, saying why.
 */
export function stepsOf(story: string, windows: () => readonly Page[]): Step {
  let failed: string | undefined;
  return (name, work) => {
    test(name, async () => {
      if (failed !== undefined) throw new Error(`not reached, since “${failed}” failed before it`);
      try {
        await work();
      } catch (error) {
        failed = name;
        for (const [index, page] of windows().entries())
          await page.screenshot({ path: `test-results/${story}-${index + 1}.png` });
        throw error;
      }
    });
  };
}
