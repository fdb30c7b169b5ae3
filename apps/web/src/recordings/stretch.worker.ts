import { expose, transfer } from 'comlink';
import { openStretcher, type Stretcher, type StretchPlan } from './stretcher.ts';

let stretcher: Stretcher | undefined;

/** Slows sound down and shifts its pitch, away from the page, some of it at a time. */
const worker = {
  async begin(channels: readonly Float32Array[], plan: StretchPlan): Promise<void> {
    stretcher ??= await openStretcher(plan.sampleRate);
    stretcher.begin(channels, plan);
  },
  next(frames: number): readonly Float32Array<ArrayBuffer>[] {
    if (!stretcher) throw new Error('nothing was begun');
    const out = stretcher.next(frames);
    return transfer(
      out,
      out.map(({ buffer }) => buffer),
    );
  },
};

/** What the page can ask of this worker. */
export type StretchWorker = typeof worker;

expose(worker);
