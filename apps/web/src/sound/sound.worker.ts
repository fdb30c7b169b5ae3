import type { Click, PlayedNote } from '@jam-ledger/core/notation';
import { renderClick, startRendering, type Rendering } from '@jam-ledger/core/sound';
import { expose, transfer } from 'comlink';

/** What is to be rendered. Seconds; the count-in is among the clicks, and every start counts it in. */
export interface SoundJob {
  readonly notes: readonly PlayedNote[];
  readonly backing: readonly PlayedNote[];
  readonly clicks: readonly Click[];
  readonly sampleRate: number;
}

/** A piece of sound, one track each. */
export interface SoundPiece {
  readonly strings: Float32Array<ArrayBuffer>;
  readonly click: Float32Array<ArrayBuffer>;
  readonly backing: Float32Array<ArrayBuffer>;
}

interface Work {
  readonly job: SoundJob;
  readonly strings: Rendering;
  readonly backing: Rendering;
  at: number;
}

let work: Work | undefined;

/** Renders ahead in pieces, so that the first sound need not wait for the last. */
const renderer = {
  begin(job: SoundJob): void {
    const { sampleRate } = job;
    const strings = startRendering(job.notes, { sampleRate });
    work = { job, strings, backing: startRendering(job.backing, { sampleRate, seed: 2 }), at: 0 };
  },
  next(frames: number): SoundPiece {
    if (!work) throw new Error('nothing was begun');
    const { job, at } = work;
    const strings = work.strings.next(frames);
    const backing = work.backing.next(frames);
    const click = renderClick(job.clicks, { sampleRate: job.sampleRate, from: at, frames });
    work.at += frames;
    return transfer({ strings, click, backing }, [strings.buffer, click.buffer, backing.buffer]);
  },
};

/** What the page can ask of this worker. */
export type SoundRenderer = typeof renderer;

expose(renderer);
