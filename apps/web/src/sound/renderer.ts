import {
  accompany,
  perform,
  type Accompaniment,
  type Click,
  type Feel,
  type Phrase,
  type PlayedNote,
} from '@jam-ledger/core/notation';
import type { Tuning } from '@jam-ledger/core/pitch';
import { backingOf, renderClick, startRendering, type Rendering } from '@jam-ledger/core/sound';
import { transfer } from 'comlink';

/** What is to be rendered. */
export interface SoundJob {
  readonly phrase: Phrase;
  readonly tuning: Tuning;
  readonly capo: number;
  readonly offsetCents: number;
  readonly feel: Feel;
  readonly bpm: number;
  readonly countIn: boolean;
  /** Ticks; the whole phrase when left out. */
  readonly from?: number;
  readonly to?: number;
  /** Samples a second. */
  readonly sampleRate: number;
}

/** When a rendering does what: its events, and how long it is. */
export interface SoundTimes extends Pick<Accompaniment, 'events' | 'seconds'> {
  /** Seconds of the count-in, before everything else. */
  readonly countInSeconds: number;
}

/** A piece of sound, one track each. */
export interface SoundPiece {
  readonly strings: Float32Array<ArrayBuffer>;
  readonly click: Float32Array<ArrayBuffer>;
  readonly backing: Float32Array<ArrayBuffer>;
}

/** What sounds when, the count-in among the clicks. */
interface Sounds {
  readonly notes: readonly PlayedNote[];
  readonly backing: readonly PlayedNote[];
  readonly clicks: readonly Click[];
  readonly sampleRate: number;
}

interface Work {
  readonly sounds: Sounds;
  readonly strings: Rendering;
  readonly backing: Rendering;
  at: number;
}

let work: Work | undefined;

function workOf(sounds: Sounds): Work {
  const { notes, backing, sampleRate } = sounds;
  const strings = startRendering(notes, { sampleRate });
  return { sounds, strings, backing: startRendering(backing, { sampleRate, seed: 2 }), at: 0 };
}

/** Renders ahead in pieces, so that the first sound need not wait for the last; one rendering at a time. */
export const renderer = {
  /** Works out what sounds when, off the page: a long solo would hold it up. */
  begin(job: SoundJob): SoundTimes {
    const along = accompany(job.phrase, job);
    const { beats, beatSeconds } = along.countIn;
    const counted = Array.from({ length: job.countIn ? beats : 0 }, (_, beat) => ({
      seconds: beat * beatSeconds,
      accent: beat === 0,
    }));
    const shift = counted.length * beatSeconds;
    const later = (note: PlayedNote): PlayedNote => ({ ...note, startSeconds: note.startSeconds + shift });
    work = workOf({
      notes: perform(job.phrase, job).map(later),
      backing: backingOf(along).map(later),
      clicks: [...counted, ...along.clicks.map((click) => ({ ...click, seconds: click.seconds + shift }))],
      sampleRate: job.sampleRate,
    });
    return { events: along.events, seconds: along.seconds, countInSeconds: shift };
  },
  /** The next piece; from the beginning again where it is the first one. */
  next(frames: number, isFirst: boolean): SoundPiece {
    if (!work) throw new Error('nothing was begun');
    if (isFirst && work.at > 0) work = workOf(work.sounds);
    const { sounds, at } = work;
    const strings = work.strings.next(frames);
    const backing = work.backing.next(frames);
    const click = renderClick(sounds.clicks, { sampleRate: sounds.sampleRate, from: at, frames });
    work.at += frames;
    return transfer({ strings, click, backing }, [strings.buffer, click.buffer, backing.buffer]);
  },
};
