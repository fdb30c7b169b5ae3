import type { Page } from 'playwright-core';

/** What a page has sent to the loudspeaker so far. */
export interface Heard {
  /** The loudest sample of all buffers started. */
  readonly loudest: number;
  /** How many buffers were started. */
  readonly buffers: number;
  /** How many were due before they were started, so that a gap was heard. */
  readonly late: number;
}

/** Counts from now on what the page plays. */
export async function listen(page: Page): Promise<void> {
  await page.evaluate(() => {
    const sound = { loudest: 0, buffers: 0, late: 0 };
    Reflect.set(window, 'heardSound', sound);
    const plain = Object.getOwnPropertyDescriptor(AudioBufferSourceNode.prototype, 'start');
    AudioBufferSourceNode.prototype.start = function (when = 0, ...rest) {
      const samples = this.buffer?.getChannelData(0) ?? new Float32Array();
      sound.buffers += 1;
      if (when <= this.context.currentTime) sound.late += 1;
      for (const sample of samples) sound.loudest = Math.max(sound.loudest, Math.abs(sample));
      Reflect.apply(plain?.value, this, [when, ...rest]);
    };
  });
}

/** What was heard since `listen`. */
export function heard(page: Page): Promise<Heard> {
  return page.evaluate(() => Reflect.get(window, 'heardSound') as Heard);
}
