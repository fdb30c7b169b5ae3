import { transfer } from 'comlink';
import { lazyWorker, sharedContext } from '../sound/index.ts';
import type { StretchWorker } from './stretch.worker.ts';

/** What is taken out of the sound. */
export const SIDES = ['everything', 'without the left', 'without the right', 'without the middle'] as const;
/** One of the `SIDES`. */
export type Side = (typeof SIDES)[number];
/** What of the sound is heard alone. */
export const BANDS = ['all of it', 'low', 'middle', 'high'] as const;
/** One of the `BANDS`. */
export type Band = (typeof BANDS)[number];

/** How a recording is heard. */
export interface Hearing {
  /** Share of its speed. */
  readonly speed: number;
  /** Semitones up, with a fraction. */
  readonly semitones: number;
  readonly side: Side;
  readonly band: Band;
  /** Loudness, 0 to 1. */
  readonly level: number;
}

/** A stretch of sound to be played. Seconds of the recording. */
export interface Playing {
  readonly channels: readonly Float32Array<ArrayBuffer>[];
  readonly sampleRate: number;
  /** When in the recording the first sample sounds. */
  readonly from: number;
  readonly loop: boolean;
  /** Clicks before it, seconds before it begins; none for no count-in. */
  readonly countIn: readonly number[];
}

/** Length of the pieces that are scheduled one after the other, and how far ahead, seconds. Our choice. */
const PIECE_SECONDS = 0.5;
const AHEAD_SECONDS = 1.2;
const START_SECONDS = 0.06;
/** Where the low band ends and the high one begins, hertz. Our choice: below the open low string’s second harmonic, above the frets. */
const CROSSINGS = { low: 200, high: 1600 } as const;

const stretching = lazyWorker<StretchWorker>(
  'What slows the recording down',
  () => new Worker(new URL('./stretch.worker.ts', import.meta.url), { type: 'module' }),
);

/** One playing of a stretch of sound, from start to stop; where it is, is told by the clock of the sound card. */
export class RecordingPlayback {
  readonly #playing: Playing;
  readonly #hearing: Hearing;
  readonly #ended: () => void;
  readonly #way: Way;
  readonly #sources = new Set<AudioScheduledSourceNode>();
  #timer: ReturnType<typeof setInterval> | undefined;
  /** When it begins, by the clock of the sound card, seconds; not known before its first sound is asked for. */
  #startAt = Infinity;
  #made = 0;
  #busy = false;
  #stopped = false;

  constructor(playing: Playing, hearing: Hearing, ended: () => void) {
    this.#playing = playing;
    this.#hearing = hearing;
    this.#ended = ended;
    this.#way = new Way(hearing);
  }

  get #frames(): number {
    return this.#playing.channels[0]?.length ?? 0;
  }

  /** Whether the package has to make the sound; as it is it needs nobody. */
  get #isStretched(): boolean {
    return this.#hearing.speed !== 1 || this.#hearing.semitones !== 0;
  }

  async start(): Promise<void> {
    const context = sharedContext();
    await context.resume();
    const { channels, sampleRate, loop, countIn } = this.#playing;
    const { speed, semitones } = this.#hearing;
    if (this.#isStretched) {
      const copies = [0, 1].map((channel) => (channels[channel] ?? channels[0] ?? new Float32Array(0)).slice());
      const plan = { sampleRate, speed, semitones, loop };
      await stretching.ask((worker) =>
        worker.begin(
          transfer(
            copies,
            copies.map(({ buffer }) => buffer),
          ),
          plan,
        ),
      );
    }
    if (this.#stopped) return;
    const before = Math.max(0, ...countIn);
    this.#startAt = context.currentTime + START_SECONDS + before;
    for (const seconds of countIn) this.#click(this.#startAt - seconds, seconds === before);
    await this.#advance();
    this.#timer = setInterval(() => void this.#advance().catch(() => this.stop()), 30);
  }

  /** Where it is, seconds of the recording; before it begins, where it will. */
  seconds(): number {
    const { from, sampleRate, loop } = this.#playing;
    const into = Math.max(0, sharedContext().currentTime - this.#startAt) * this.#hearing.speed;
    const whole = this.#frames / sampleRate;
    return from + (loop && whole > 0 ? into % whole : Math.min(into, whole));
  }

  /** Changes loudness without beginning anew. */
  setLevel(level: number): void {
    this.#way.setLevel(level);
  }

  stop(): void {
    this.#stopped = true;
    clearInterval(this.#timer);
    for (const source of this.#sources) source.stop();
    this.#way.close();
  }

  /** How long all of it lasts as it is heard, seconds. */
  get #lasts(): number {
    const { sampleRate, loop } = this.#playing;
    return loop || this.#hearing.speed === 0 ? Infinity : this.#frames / sampleRate / this.#hearing.speed;
  }

  async #advance(): Promise<void> {
    if (this.#busy || this.#stopped) return;
    const context = sharedContext();
    if (context.currentTime > this.#startAt + this.#lasts + 0.05) {
      this.stop();
      this.#ended();
      return;
    }
    this.#busy = true;
    while (this.#made < this.#lasts && this.#startAt + this.#made < context.currentTime + AHEAD_SECONDS) {
      const seconds = Math.min(PIECE_SECONDS, this.#lasts - this.#made);
      const frames = Math.max(1, Math.round(seconds * this.#playing.sampleRate));
      const piece = this.#isStretched ? await stretching.ask((worker) => worker.next(frames)) : this.#piece(frames);
      // It may have been stopped while the piece was made.
      if (this.isStopped()) break;
      this.#schedule(piece, this.#startAt + this.#made);
      this.#made += frames / this.#playing.sampleRate;
    }
    this.#busy = false;
  }

  isStopped(): boolean {
    return this.#stopped;
  }

  /** The next samples as they are, from the beginning again where it goes round. */
  #piece(frames: number): readonly Float32Array<ArrayBuffer>[] {
    const { channels, sampleRate } = this.#playing;
    const first = Math.round(this.#made * sampleRate);
    return channels.map((channel) => {
      const out = new Float32Array(frames);
      for (let n = 0; n < frames; n += 1) out[n] = channel[(first + n) % channel.length] ?? 0;
      return out;
    });
  }

  #schedule(piece: readonly Float32Array<ArrayBuffer>[], at: number): void {
    const context = sharedContext();
    const [left, right = left] = piece;
    if (!left || !right) return;
    const buffer = context.createBuffer(2, left.length, this.#playing.sampleRate);
    buffer.copyToChannel(left, 0);
    buffer.copyToChannel(right, 1);
    const source = context.createBufferSource();
    source.buffer = buffer;
    source.connect(this.#way.entrance);
    this.#keep(source);
    source.start(Math.max(context.currentTime, at));
  }

  #click(at: number, accent: boolean): void {
    const context = sharedContext();
    const source = context.createOscillator();
    const gain = context.createGain();
    source.frequency.value = accent ? 1500 : 1000;
    gain.gain.setValueAtTime(0.25 * this.#hearing.level, at);
    gain.gain.exponentialRampToValueAtTime(0.001, at + 0.04);
    source.connect(gain).connect(context.destination);
    this.#keep(source);
    source.start(Math.max(context.currentTime, at));
    source.stop(Math.max(context.currentTime, at) + 0.05);
  }

  #keep(source: AudioScheduledSourceNode): void {
    this.#sources.add(source);
    source.onended = () => this.#sources.delete(source);
  }
}

/** The way of the sound to the loudspeaker: sides and bands taken out, then as loud as it is wanted. */
class Way {
  readonly entrance: GainNode;
  readonly #level: GainNode;

  constructor({ side, band, level }: Hearing) {
    const context = sharedContext();
    this.entrance = context.createGain();
    this.#level = context.createGain();
    this.#level.gain.value = level;
    const split = context.createChannelSplitter(2);
    const merge = context.createChannelMerger(2);
    this.entrance.connect(split);
    for (const [from, to, amount] of SHARES[side]) {
      const gain = context.createGain();
      gain.gain.value = amount;
      split.connect(gain, from);
      gain.connect(merge, 0, to);
    }
    let last: AudioNode = merge;
    for (const { type, frequency } of filtersOf(band)) {
      const filter = context.createBiquadFilter();
      filter.type = type;
      filter.frequency.value = frequency;
      last = last.connect(filter);
    }
    last.connect(this.#level).connect(context.destination);
  }

  setLevel(level: number): void {
    this.#level.gain.setTargetAtTime(level, sharedContext().currentTime, 0.02);
  }

  close(): void {
    this.#level.disconnect();
  }
}

/** How much of which channel goes to which ear. What lies in the middle is the same in both channels, and goes with their difference. */
export const SHARES: Readonly<Record<Side, readonly (readonly [from: number, to: number, amount: number])[]>> = {
  everything: [
    [0, 0, 1],
    [1, 1, 1],
  ],
  'without the left': [
    [1, 0, 1],
    [1, 1, 1],
  ],
  'without the right': [
    [0, 0, 1],
    [0, 1, 1],
  ],
  'without the middle': [
    [0, 0, 0.7],
    [1, 0, -0.7],
    [0, 1, 0.7],
    [1, 1, -0.7],
  ],
};

interface Filter {
  readonly type: 'lowpass' | 'highpass';
  readonly frequency: number;
}

/** The filters of a band, each twice, so that what lies beyond falls by 24 dB an octave. */
export function filtersOf(band: Band): readonly Filter[] {
  const below = (frequency: number): Filter[] => [1, 2].map(() => ({ type: 'lowpass', frequency }));
  const above = (frequency: number): Filter[] => [1, 2].map(() => ({ type: 'highpass', frequency }));
  if (band === 'low') return below(CROSSINGS.low);
  if (band === 'high') return above(CROSSINGS.high);
  return band === 'middle' ? [...above(CROSSINGS.low), ...below(CROSSINGS.high)] : [];
}
