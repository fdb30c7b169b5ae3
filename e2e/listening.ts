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

/** Notes as `firstSound` of the window, for every play, the milliseconds from the key to the moment the first buffer that is not silent is due. */
export async function watchStarts(page: Page): Promise<void> {
  await page.evaluate(() => {
    let pressed = 0;
    document.addEventListener('keydown', ({ key }) => key === 'Enter' && (pressed = performance.now()), true);
    const plain = Object.getOwnPropertyDescriptor(AudioBufferSourceNode.prototype, 'start');
    AudioBufferSourceNode.prototype.start = function (when = 0, ...rest) {
      const sounds = this.buffer?.getChannelData(0).some((sample) => Math.abs(sample) > 1e-4);
      if (sounds && Reflect.get(window, 'firstSound') === undefined) {
        const wait = Math.max(0, when - this.context.currentTime) * 1000;
        Reflect.set(window, 'firstSound', performance.now() - pressed + wait);
      }
      Reflect.apply(plain?.value, this, [when, ...rest]);
    };
  });
}
