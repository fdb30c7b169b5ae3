import type { Click, PlayedNote } from '@jam-ledger/core/notation';
import { renderClick, startRendering, type Rendering } from '@jam-ledger/core/sound';
import { expose, transfer } from 'comlink';

/** What is to be rendered. Seconds; count-in included in `clicks` and in every start. */
export interface SoundJob {
  readonly notes: readonly PlayedNote[];
  readonly clicks: readonly Click[];
  readonly seconds: number;
  readonly sampleRate: number;
}

/** A piece of sound, one track each. */
export interface SoundPiece {
  readonly strings: Float32Array<ArrayBuffer>;
  readonly click: Float32Array<ArrayBuffer>;
}

let rendering: Rendering | undefined;
let clicks: Float32Array<ArrayBuffer> = new Float32Array(0);
let at = 0;

/** Renders ahead in pieces, so that the first sound need not wait for the last. */
const renderer = {
  begin(job: SoundJob): void {
    rendering = startRendering(job.notes, { sampleRate: job.sampleRate });
    clicks = renderClick(job.clicks, { sampleRate: job.sampleRate, seconds: job.seconds });
    at = 0;
  },
  next(frames: number): SoundPiece {
    const strings = rendering?.next(frames) ?? new Float32Array(frames);
    const click = new Float32Array(frames);
    click.set(clicks.subarray(at, at + frames));
    at += frames;
    return transfer({ strings, click }, [strings.buffer, click.buffer]);
  },
};

/** What the page can ask of this worker. */
export type SoundRenderer = typeof renderer;

expose(renderer);
