import type { EventTime } from '@jam-ledger/core/notation';
import { toRaw } from 'vue';
import { sharedContext } from './context.ts';
import type { SoundJob, SoundTimes } from './renderer.ts';
import type { SoundRenderer } from './sound.worker.ts';
import { lazyWorker } from './worker.ts';

/** What to play and how. */
export interface PlayPlan extends Omit<SoundJob, 'sampleRate'> {
  readonly loop: boolean;
}

/** Length of the pieces in which sound is rendered, seconds. Our choice. */
const PIECE_SECONDS = 0.75;
/** How far ahead of the sound pieces are scheduled, seconds. Our choice. */
const AHEAD_SECONDS = 1.6;
/** A round no longer than this is kept while it is looped; a longer one is rendered anew, so that a song needs no more memory than a bar. Seconds; our choice. */
const KEPT_SECONDS = 30;
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

/** A piece of sound, one track each. */
type Piece = Readonly<Record<Track, AudioBuffer>>;

/** What a take tells of itself: the event that sounds, or what else is going on. */
export type Moment = EventTime | 'count-in' | 'between' | 'over';

/** One playing of a phrase, from start to stop. */
export class Playback {
  readonly #plan: PlayPlan;
  readonly #tell: (moment: Moment) => void;
  readonly #gains: Readonly<Record<Track, GainNode>>;
  /** The pieces of a round that is kept, by their number. */
  readonly #pieces: Piece[] = [];
  readonly #sources = new Set<AudioBufferSourceNode>();
  #times: SoundTimes = { events: [], seconds: 0, countInSeconds: 0 };
  #startAt = 0;
  #scheduled = 0;
  #stopped = false;
  #busy = false;
  #timer: ReturnType<typeof setInterval> | undefined;

  constructor(plan: PlayPlan, levels: Levels, tell: (moment: Moment) => void) {
    this.#plan = plan;
    this.#tell = tell;
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
    return Math.max(0.2, this.#times.seconds);
  }

  get #length(): number {
    return this.#times.countInSeconds + this.#round + (this.#plan.loop ? 0 : 0.6);
  }

  get #isKept(): boolean {
    return this.#plan.loop && this.#length <= KEPT_SECONDS;
  }

  /** Pieces that the sound is rendered in, count-in included. */
  get #count(): number {
    return Math.ceil(this.#length / PIECE_SECONDS);
  }

  async start(): Promise<void> {
    const context = sharedContext();
    await context.resume();
    const { loop: _, phrase, tuning, ...rest } = this.#plan;
    const job = { ...rest, phrase: toRaw(phrase), tuning: toRaw(tuning), sampleRate: context.sampleRate };
    this.#times = await sound.ask((renderer) => renderer.begin(job));
    // Another take may have begun in the meantime; its rendering must not be eaten into.
    if (this.isStopped()) return;
    const first = await this.#render(0);
    if (this.isStopped()) return;
    this.#startAt = context.currentTime + START_SECONDS;
    this.#timer = setInterval(() => void this.#advance().catch(() => this.stop()), 25);
    this.#schedule(0, first);
    await this.#advance();
  }

  /** Renders the next piece of a round, which has this number. */
  async #render(index: number): Promise<Piece> {
    const context = sharedContext();
    const done = index * PIECE_SECONDS;
    const seconds = Math.min(PIECE_SECONDS, this.#length - done);
    const frames = Math.round(seconds * context.sampleRate);
    const piece = await sound.ask((renderer) => renderer.next(frames, index === 0));
    const last = done + seconds >= this.#length;
    if (last && this.#plan.loop) for (const track of TRACKS) fadeOut(piece[track]);
    const buffer = (samples: Float32Array<ArrayBuffer>) => {
      const made = context.createBuffer(1, Math.max(1, samples.length), context.sampleRate);
      made.copyToChannel(samples, 0);
      return made;
    };
    const made = each((track) => buffer(piece[track]));
    if (this.#isKept) this.#pieces[index] = made;
    return made;
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
      const piece = this.#pieces[index] ?? (await this.#render(index));
      // It may have been stopped while the piece was rendered; then nothing more is scheduled.
      if (this.isStopped()) break;
      this.#schedule(index, piece);
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

  #schedule(index: number, piece: Piece): void {
    const context = sharedContext();
    const again = this.#scheduled >= this.#count;
    const at = this.#nextAt();
    this.#scheduled += 1;
    // In a later round the count-in at the head of the first pieces is left out.
    const skip = again ? Math.max(0, this.#times.countInSeconds - index * PIECE_SECONDS) : 0;
    if (skip >= piece.strings.duration) return;
    for (const track of TRACKS) {
      const source = context.createBufferSource();
      source.buffer = piece[track];
      source.connect(this.#gains[track]);
      source.onended = () => this.#sources.delete(source);
      this.#sources.add(source);
      source.start(Math.max(context.currentTime, at + skip), skip);
    }
  }

  #tellMoment(seconds: number): void {
    const into = seconds - this.#times.countInSeconds;
    if (into < 0) return this.#tell(this.#plan.countIn ? 'count-in' : 'between');
    if (!this.#plan.loop && seconds > this.#length) return this.#tell('over');
    const place = this.#plan.loop ? into % this.#round : into;
    const event = this.#times.events.find(
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
