import { accompany, type Click } from '@jam-ledger/core/notation';
import { renderClick } from '@jam-ledger/core/sound';
import type { PlayPlan } from '../sound/index.ts';

/** The click that a take is played to. */
export interface ClickTrack {
  /** The beat of the bar that is counted in just now, from 1; 0 once the piece has begun. */
  readonly counted: () => number;
  /** When the piece begins, after its count-in, by the clock of the page (`performance.now`). */
  readonly beginsAt: number;
  readonly stop: () => void;
}

/** Clicks at their seconds, and what is counted in before them. */
export interface ToClick {
  readonly clicks: readonly Click[];
  readonly countIn: { readonly beats: number; readonly beatSeconds: number };
  readonly seconds: number;
}

/** A gentle level, for headphones. Our choice, for the care of ears. */
const LEVEL = 0.4;
const SOON_SECONDS = 0.15;

/** How long a piece takes with its count-in, seconds. */
export function lengthWithCountIn(plan: PlayPlan): number {
  const { seconds, countIn } = accompany(plan.phrase, plan);
  return countIn.beats * countIn.beatSeconds + seconds;
}

/** Starts the click of a piece, counted in; `audible` for headphones, or it is only shown. */
export function startClicks(plan: PlayPlan, audible: boolean): Promise<ClickTrack> {
  const { clicks, countIn, seconds } = accompany(plan.phrase, plan);
  return startTrack({ clicks, countIn, seconds }, audible);
}

/** Starts clicks after a count-in. */
export async function startTrack({ clicks, countIn, seconds }: ToClick, audible: boolean): Promise<ClickTrack> {
  const { beats, beatSeconds } = countIn;
  const context = new AudioContext();
  await context.resume();
  const shift = beats * beatSeconds;
  const all: readonly Click[] = [
    ...Array.from({ length: beats }, (_, beat) => ({ seconds: beat * beatSeconds, accent: beat === 0 })),
    ...clicks.map((click) => ({ ...click, seconds: click.seconds + shift })),
  ];
  const frames = Math.ceil((shift + seconds) * context.sampleRate);
  const buffer = context.createBuffer(1, frames, context.sampleRate);
  buffer.copyToChannel(renderClick(all, { sampleRate: context.sampleRate, from: 0, frames }), 0);
  const source = context.createBufferSource();
  const gain = context.createGain();
  gain.gain.value = audible ? LEVEL : 0;
  source.buffer = buffer;
  source.connect(gain).connect(context.destination);
  const from = context.currentTime + SOON_SECONDS;
  source.start(from);
  return {
    beginsAt: performance.now() + 1000 * (from - context.currentTime + shift),
    counted: () => {
      const into = context.currentTime - from;
      return into < shift ? Math.max(1, Math.floor(into / beatSeconds) + 1) : 0;
    },
    stop: () => void context.close(),
  };
}
