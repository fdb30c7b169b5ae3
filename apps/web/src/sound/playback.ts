import {
  accompany,
  perform,
  type Accompaniment,
  type EventTime,
  type Feel,
  type Phrase,
  type PlayedNote,
} from '@jam-ledger/core/notation';
import type { Tuning } from '@jam-ledger/core/pitch';
import { backingOf } from '@jam-ledger/core/sound';
import { sharedContext } from './context.ts';
import type { SoundRenderer } from './sound.worker.ts';
import { lazyWorker } from './worker.ts';

/** What to play and how. */
export interface PlayPlan {
  readonly phrase: Phrase;
  readonly tuning: Tuning;
  readonly capo: number;
  readonly offsetCents: number;
  readonly feel: Feel;
  readonly bpm: number;
  readonly loop: boolean;
  readonly countIn: boolean;
  /** Ticks; the whole phrase when left out. */
  readonly from?: number;
  readonly to?: number;
}

/** Length of the pieces in which sound is rendered, seconds. Our choice. */
const PIECE_SECONDS = 0.75;
/** How far ahead of the sound pieces are scheduled, seconds. Our choice. */
const AHEAD_SECONDS = 1.6;
/** From pressing play to the first sound, once it is rendered, seconds. Our choice. */
const START_SECONDS = 0.05;

const sound = lazyWorker<SoundRenderer>(
  'The sound',
  () => new Worker(new URL('./sound.worker.ts', import.meta.url), { type: 'module' }),
);

/** Sounds that are mixed, each at a level of its own. */
const TRACKS = ['strings', 'click', 'backing'] as const;
type Track = (typeof TRACKS)[number];

/** The level of each track, 0 to 1. */
export type Levels = Readonly<Record<Track, number>>;

/** What a take tells of itself: the event that sounds, or what else is going on. */
export type Moment = EventTime | 'count-in' | 'between' | 'over';

/** One playing of a phrase, from start to stop. */
export class Playback {
  readonly #plan: PlayPlan;
  readonly #along: Accompaniment;
  readonly #countInSeconds: number;
  readonly #tell: (moment: Moment) => void;
  readonly #gains: Readonly<Record<Track, GainNode>>;
  readonly #pieces: Readonly<Record<Track, AudioBuffer>>[] = [];
  readonly #sources = new Set<AudioBufferSourceNode>();
  #startAt = 0;
  #scheduled = 0;
  #stopped = false;
  #busy = false;
  #timer: ReturnType<typeof setInterval> | undefined;

  constructor(plan: PlayPlan, levels: Levels, tell: (moment: Moment) => void) {
    this.#plan = plan;
    this.#tell = tell;
    this.#along = accompany(plan.phrase, plan);
    const { beats, beatSeconds } = this.#along.countIn;
    this.#countInSeconds = plan.countIn ? beats * beatSeconds : 0;
    const context = sharedContext();
    const gain = (value: number) => {
      const node = context.createGain();
      node.gain.value = value;
      node.connect(context.destination);
      return node;
    };
    this.#gains = each((track) => gain(levels[track]));
  }

  /** Seconds of one round, count-in left out. */
  get #round(): number {
    return Math.max(0.2, this.#along.seconds);
  }

  get #length(): number {
    return this.#countInSeconds + this.#round + (this.#plan.loop ? 0 : 0.6);
  }

  /** Pieces that the sound is rendered in, count-in included. */
  get #count(): number {
    return Math.ceil(this.#length / PIECE_SECONDS);
  }

  async start(): Promise<void> {
    const context = sharedContext();
    await context.resume();
    const shift = this.#countInSeconds;
    const { beats, beatSeconds } = this.#along.countIn;
    const counted = Array.from({ length: shift > 0 ? beats : 0 }, (_, beat) => ({
      seconds: beat * beatSeconds,
      accent: beat === 0,
    }));
    const later = (note: PlayedNote): PlayedNote => ({ ...note, startSeconds: note.startSeconds + shift });
    const notes = perform(this.#plan.phrase, this.#plan).map(later);
    const backing = backingOf(this.#along).map(later);
    const clicks = [...counted, ...this.#along.clicks.map((click) => ({ ...click, seconds: click.seconds + shift }))];
    const { sampleRate } = context;
    await sound.ask((renderer) => renderer.begin({ notes, backing, clicks, sampleRate }));
    // Another take may have begun in the meantime; its rendering must not be eaten into.
    if (this.isStopped()) return;
    await this.#renderNext();
    if (this.isStopped()) return;
    this.#startAt = context.currentTime + START_SECONDS;
    this.#timer = setInterval(() => void this.#advance().catch(() => this.stop()), 25);
    await this.#advance();
  }

  async #renderNext(): Promise<void> {
    const context = sharedContext();
    const done = this.#pieces.length * PIECE_SECONDS;
    const seconds = Math.min(PIECE_SECONDS, this.#length - done);
    if (seconds <= 0) return;
    const frames = Math.round(seconds * context.sampleRate);
    const piece = await sound.ask((renderer) => renderer.next(frames));
    const last = done + seconds >= this.#length;
    if (last && this.#plan.loop) for (const track of TRACKS) fadeOut(piece[track]);
    const buffer = (samples: Float32Array<ArrayBuffer>) => {
      const made = context.createBuffer(1, Math.max(1, samples.length), context.sampleRate);
      made.copyToChannel(samples, 0);
      return made;
    };
    this.#pieces.push(each((track) => buffer(piece[track])));
  }

  async #advance(): Promise<void> {
    if (this.#stopped) return;
    const context = sharedContext();
    this.#tellMoment(context.currentTime - this.#startAt);
    if (this.#busy) return;
    this.#busy = true;
    while (this.#nextAt() < context.currentTime + AHEAD_SECONDS) {
      const index = this.#pieceIndex();
      if (index === undefined) break;
      if (index >= this.#pieces.length) await this.#renderNext();
      // #stopped may have changed while the piece was rendered; then nothing more is scheduled.
      if (!this.#schedule(index)) break;
    }
    this.#busy = false;
  }

  /** Pieces of one round after the count-in repeat when looping; the count-in is heard once. */
  #pieceIndex(): number | undefined {
    if (this.#scheduled < this.#count) return this.#scheduled;
    return this.#plan.loop ? this.#scheduled % this.#count : undefined;
  }

  #nextAt(): number {
    const rounds = Math.floor(this.#scheduled / this.#count);
    const within = (this.#scheduled % this.#count) * PIECE_SECONDS;
    return this.#startAt + rounds * this.#round + within;
  }

  #schedule(index: number): boolean {
    const piece = this.#pieces[index];
    if (!piece || this.#stopped) return false;
    const context = sharedContext();
    const again = this.#scheduled >= this.#count;
    const at = this.#nextAt();
    this.#scheduled += 1;
    // In a later round the count-in at the head of the first pieces is left out.
    const skip = again ? Math.max(0, this.#countInSeconds - index * PIECE_SECONDS) : 0;
    if (skip >= piece.strings.duration) return true;
    for (const track of TRACKS) {
      const source = context.createBufferSource();
      source.buffer = piece[track];
      source.connect(this.#gains[track]);
      source.onended = () => this.#sources.delete(source);
      this.#sources.add(source);
      source.start(Math.max(context.currentTime, at + skip), skip);
    }
    return true;
  }

  #tellMoment(seconds: number): void {
    const into = seconds - this.#countInSeconds;
    if (into < 0) return this.#tell(this.#plan.countIn ? 'count-in' : 'between');
    if (!this.#plan.loop && seconds > this.#length) return this.#tell('over');
    const place = this.#plan.loop ? into % this.#round : into;
    const event = this.#along.events.find(
      ({ startSeconds, endSeconds }) => place >= startSeconds && place < endSeconds,
    );
    this.#tell(event ?? 'between');
  }

  setLevels(levels: Levels): void {
    const context = sharedContext();
    for (const track of TRACKS)
      this.#gains[track].gain.setTargetAtTime(levels[track], context.currentTime, LEVEL_GLIDE_SECONDS);
  }

  isStopped(): boolean {
    return this.#stopped;
  }

  stop(): void {
    this.#stopped = true;
    clearInterval(this.#timer);
    for (const source of this.#sources) source.stop();
    for (const track of TRACKS) this.#gains[track].disconnect();
  }
}

/** Samples over which a round dies away before the next begins, so that the cut is not heard. */
const FADE_SAMPLES = 256;

function fadeOut(samples: Float32Array): void {
  const length = Math.min(FADE_SAMPLES, samples.length);
  for (let n = 0; n < length; n += 1) {
    const at = samples.length - 1 - n;
    samples[at] = ((samples[at] ?? 0) * n) / length;
  }
}

/** A level that is moved arrives in this time constant, without a step that is heard. Our choice. */
const LEVEL_GLIDE_SECONDS = 0.02;

function each<Value>(make: (track: Track) => Value): Record<Track, Value> {
  return { strings: make('strings'), click: make('click'), backing: make('backing') };
}
