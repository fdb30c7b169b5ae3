import { accompany, perform, type Accompaniment, type EventTime, type Phrase } from '@jam-ledger/core/notation';
import type { Tuning } from '@jam-ledger/core/pitch';
import { useLocalStorage } from '@vueuse/core';
import { wrap } from 'comlink';
import { onScopeDispose, ref, shallowRef } from 'vue';
import type { SoundRenderer } from '../workers/sound.worker.ts';

/** What to play and how. */
export interface PlayPlan {
  readonly phrase: Phrase;
  readonly tuning: Tuning;
  readonly capo: number;
  readonly offsetCents: number;
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
/** A quiet level to begin with, as a share of full. Our choice, for the care of ears. */
const SAFE_LEVEL = 0.5;

/** The one player that sounds; starting another stops it. */
let sounding: (() => void) | undefined;
let shared: { context: AudioContext; renderer: ReturnType<typeof wrap<SoundRenderer>> } | undefined;

function audio() {
  shared ??= {
    context: new AudioContext({ latencyHint: 'interactive' }),
    renderer: wrap<SoundRenderer>(
      new Worker(new URL('../workers/sound.worker.ts', import.meta.url), { type: 'module' }),
    ),
  };
  return shared;
}

/** Plays phrases on the audio clock, piece by piece, with click, count-in and a cursor. */
export function usePlayer() {
  const playing = ref(false);
  const counting = ref(false);
  const cursor = shallowRef<EventTime>();
  const level = useLocalStorage('jam-level', SAFE_LEVEL);
  const clickLevel = useLocalStorage('jam-click-level', 0.6);
  let take: Take | undefined;

  function stop(): void {
    take?.stop();
    take = undefined;
    playing.value = false;
    counting.value = false;
    cursor.value = undefined;
  }

  async function play(plan: PlayPlan): Promise<void> {
    sounding?.();
    sounding = stop;
    playing.value = true;
    counting.value = plan.countIn;
    const levels = { strings: level.value, click: clickLevel.value };
    const started = new Take(plan, levels, (moment) => {
      if (take !== started) return;
      if (moment === 'over') stop();
      else {
        counting.value = moment === 'count-in';
        cursor.value = typeof moment === 'object' ? moment : undefined;
      }
    });
    take = started;
    await started.start();
  }

  function setLevels(): void {
    take?.setLevels({ strings: level.value, click: clickLevel.value });
  }

  onScopeDispose(() => {
    if (sounding === stop) sounding = undefined;
    stop();
  });
  return { playing, counting, cursor, level, clickLevel, play, stop, setLevels };
}

interface Levels {
  readonly strings: number;
  readonly click: number;
}

type Moment = EventTime | 'count-in' | 'between' | 'over';

/** One playing of a phrase, from start to stop. */
class Take {
  readonly #plan: PlayPlan;
  readonly #along: Accompaniment;
  readonly #countInSeconds: number;
  readonly #tell: (moment: Moment) => void;
  readonly #gains: { strings: GainNode; click: GainNode };
  readonly #pieces: { strings: AudioBuffer; click: AudioBuffer }[] = [];
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
    const { context } = audio();
    const gain = (value: number) => {
      const node = context.createGain();
      node.gain.value = value;
      node.connect(context.destination);
      return node;
    };
    this.#gains = { strings: gain(levels.strings), click: gain(levels.click) };
  }

  /** Seconds of one round, count-in left out. */
  get #round(): number {
    return Math.max(0.2, this.#along.seconds);
  }

  get #length(): number {
    return this.#countInSeconds + this.#round + (this.#plan.loop ? 0 : 0.6);
  }

  async start(): Promise<void> {
    const { context, renderer } = audio();
    await context.resume();
    const shift = this.#countInSeconds;
    const { beats, beatSeconds } = this.#along.countIn;
    const counted = Array.from({ length: shift > 0 ? beats : 0 }, (_, beat) => ({
      seconds: beat * beatSeconds,
      accent: beat === 0,
    }));
    const notes = perform(this.#plan.phrase, this.#plan).map((note) => ({
      ...note,
      startSeconds: note.startSeconds + shift,
    }));
    const clicks = [...counted, ...this.#along.clicks.map((click) => ({ ...click, seconds: click.seconds + shift }))];
    await renderer.begin({ notes, clicks, seconds: this.#length, sampleRate: context.sampleRate });
    await this.#renderNext();
    if (this.#stopped) return;
    this.#startAt = context.currentTime + START_SECONDS;
    this.#timer = setInterval(() => void this.#advance(), 25);
    await this.#advance();
  }

  async #renderNext(): Promise<void> {
    const { context, renderer } = audio();
    const done = this.#pieces.length * PIECE_SECONDS;
    const seconds = Math.min(PIECE_SECONDS, this.#length - done);
    if (seconds <= 0) return;
    const piece = await renderer.next(Math.round(seconds * context.sampleRate));
    const last = done + seconds >= this.#length;
    if (last && this.#plan.loop) fadeOut(piece.strings);
    const buffer = (samples: Float32Array<ArrayBuffer>) => {
      const made = context.createBuffer(1, Math.max(1, samples.length), context.sampleRate);
      made.copyToChannel(samples, 0);
      return made;
    };
    this.#pieces.push({ strings: buffer(piece.strings), click: buffer(piece.click) });
  }

  async #advance(): Promise<void> {
    if (this.#stopped) return;
    const { context } = audio();
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
    const count = Math.ceil(this.#length / PIECE_SECONDS);
    if (this.#scheduled < count) return this.#scheduled;
    return this.#plan.loop ? this.#scheduled % count : undefined;
  }

  #nextAt(): number {
    const count = Math.ceil(this.#length / PIECE_SECONDS);
    const rounds = Math.floor(this.#scheduled / count);
    const within = (this.#scheduled % count) * PIECE_SECONDS;
    return this.#startAt + rounds * this.#round + within;
  }

  #schedule(index: number): boolean {
    const piece = this.#pieces[index];
    if (!piece || this.#stopped) return false;
    const { context } = audio();
    const count = Math.ceil(this.#length / PIECE_SECONDS);
    const again = this.#scheduled >= count;
    const at = this.#nextAt();
    this.#scheduled += 1;
    // In a later round the count-in at the head of the first pieces is left out.
    const skip = again ? Math.max(0, this.#countInSeconds - index * PIECE_SECONDS) : 0;
    if (skip >= piece.strings.duration) return true;
    for (const track of ['strings', 'click'] as const) {
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
    if (into < 0) return this.#tell('count-in');
    if (!this.#plan.loop && seconds > this.#length) return this.#tell('over');
    const place = this.#plan.loop ? into % this.#round : into;
    const event = this.#along.events.find(
      ({ startSeconds, endSeconds }) => place >= startSeconds && place < endSeconds,
    );
    this.#tell(event ?? 'between');
  }

  setLevels(levels: Levels): void {
    const { context } = audio();
    this.#gains.strings.gain.setTargetAtTime(levels.strings, context.currentTime, 0.02);
    this.#gains.click.gain.setTargetAtTime(levels.click, context.currentTime, 0.02);
  }

  stop(): void {
    this.#stopped = true;
    clearInterval(this.#timer);
    for (const source of this.#sources) source.stop();
    this.#gains.strings.disconnect();
    this.#gains.click.disconnect();
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
