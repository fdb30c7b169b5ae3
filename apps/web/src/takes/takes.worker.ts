import { writeWav } from '@jam-ledger/core/formats';
import {
  clapDelay,
  judgeTake,
  playAsLearner,
  type Audio,
  type ClapDelay,
  type JudgedTake,
  type Learner,
} from '@jam-ledger/core/listen';
import type { PlayedNote } from '@jam-ledger/core/notation';
import { expose, transfer } from 'comlink';

/** Listens to takes, and plays them as a simulated learner, away from the page. */
const listener = {
  judge(audio: Audio, played: readonly PlayedNote[], bpm: number): JudgedTake {
    return judgeTake(audio, played, { bpm });
  },
  clap(audio: Audio, clicks: readonly number[]): ClapDelay | null {
    return clapDelay(audio, clicks) ?? null;
  },
  /** A take of the practice room as a WAV file, as if it had been recorded. */
  practise(played: readonly PlayedNote[], learner: Learner): Uint8Array<ArrayBuffer> {
    const { audio } = playAsLearner(played, learner);
    const file = writeWav([audio.samples], audio.sampleRate);
    return transfer(file, [file.buffer]);
  },
};

/** What the page can ask of this worker. */
export type TakeListener = typeof listener;

expose(listener);
