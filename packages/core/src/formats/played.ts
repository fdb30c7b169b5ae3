import {
  accompany,
  barTicks,
  perform,
  sameMeter,
  tempoSegments,
  TICKS_PER_QUARTER,
  unroll,
  type Click,
  type Meter,
  type PlayedNote,
  type TempoSegment,
} from '../notation/index.ts';
import { headingOf, stretchesOf, type SongToWrite, type Stretch } from './song.ts';

/** A note of a song as it is played, by its layer. Seconds count from the beginning of the song. */
export interface SongNote extends PlayedNote {
  readonly layer: string;
}

/** A song played from its first bar to its last: what sounds, and the map from seconds to ticks of the song written out. */
export interface PlayedSong {
  readonly notes: readonly SongNote[];
  readonly clicks: readonly Click[];
  readonly chords: readonly { readonly seconds: number; readonly chord: string | null }[];
  /** Stretches of one tempo, in ticks and seconds of the whole song. */
  readonly segments: readonly (TempoSegment & { readonly bpm: number })[];
  readonly meters: readonly { readonly at: number; readonly meter: Meter }[];
  readonly markers: readonly { readonly at: number; readonly label: string }[];
  readonly layers: readonly string[];
  readonly seconds: number;
  readonly ticks: number;
  readonly truncated: boolean;
}

/** How a song is played. */
export interface PlayOptions {
  /** Share of its tempo, 1 for as written. */
  readonly speed?: number;
}

/**
 * Plays a song out by its form: each section as often as it goes round, each phrase at the tempo of its section, to the length of the
 * longest layer. Linear in what is played.
 */
export function playSong(song: SongToWrite, { speed = 1 }: PlayOptions = {}): PlayedSong {
  const { stretches, truncated } = stretchesOf(song, { fold: false });
  const player = new SongPlayer(song, speed);
  for (const stretch of stretches) player.play(stretch);
  const layers = [...new Set(song.sections.flatMap(({ phrases }) => phrases.map((phrase) => phrase.layer)))];
  return { ...player.played, layers, truncated };
}

class SongPlayer {
  readonly #song: SongToWrite;
  readonly #speed: number;
  readonly #notes: SongNote[] = [];
  readonly #clicks: Click[] = [];
  readonly #chords: { seconds: number; chord: string | null }[] = [];
  readonly #segments: (TempoSegment & { bpm: number })[] = [];
  readonly #meters: { at: number; meter: Meter }[] = [];
  readonly #markers: { at: number; label: string }[] = [];
  #seconds = 0;
  #ticks = 0;

  constructor(song: SongToWrite, speed: number) {
    if (!(speed > 0)) throw new RangeError(`a song is played at a share above 0 of its tempo, not ${speed}`);
    this.#song = song;
    this.#speed = speed;
  }

  get played(): Omit<PlayedSong, 'layers' | 'truncated'> {
    return {
      ...{ clicks: this.#clicks, chords: this.#chords, segments: this.#segments, meters: this.#meters },
      ...{ markers: this.#markers, seconds: this.#seconds, ticks: this.#ticks },
      notes: this.#notes.toSorted((a, b) => a.startSeconds - b.startSeconds),
    };
  }

  play(stretch: Stretch): void {
    const { section, meter, ticks } = stretch;
    const bpm = stretch.bpm * this.#speed;
    const label = headingOf(section);
    this.#markers.push({ at: this.#ticks, label });
    this.#setMeter(this.#ticks, meter);
    const [lead] = stretch.voices;
    const options = { bpm, offsetCents: this.#song.offsetCents, feel: this.#song.feel };
    for (const voice of stretch.voices) {
      let seconds = this.#seconds;
      let at = this.#ticks;
      for (const { phrase } of voice.phrases) {
        const { tempos, bars, length } = unroll(phrase);
        const along = accompany(phrase, options);
        if (voice === lead) {
          this.#addSegments(tempoSegments({ tempos }, bpm), at, seconds);
          for (const bar of bars) this.#setMeter(at + bar.at, bar.meter);
          this.#clicks.push(...along.clicks.map((click) => ({ ...click, seconds: seconds + click.seconds })));
          this.#chords.push(...along.chords.map((chord) => ({ ...chord, seconds: seconds + chord.seconds })));
        }
        for (const note of perform(phrase, { ...section.guitar, ...options }))
          this.#notes.push({ ...note, startSeconds: seconds + note.startSeconds, layer: voice.layer });
        seconds += along.seconds;
        at += length;
      }
    }
    this.#close(stretch, bpm, ticks);
  }

  /** What is silent to the end of a stretch goes at the tempo of the stretch. */
  #close({ voices: [lead], meter }: Stretch, bpm: number, ticks: number): void {
    const written = (lead?.phrases ?? []).reduce((sum, { phrase }) => sum + unroll(phrase).length, 0);
    const from = this.#secondsAt(this.#ticks + written);
    const secondsPerTick = 60 / bpm / TICKS_PER_QUARTER;
    if (written < ticks) {
      this.#addSegments([{ at: 0, seconds: 0, secondsPerTick }], this.#ticks + written, from);
      this.#setMeter(this.#ticks + written, meter);
      const beat = (4 * TICKS_PER_QUARTER) / meter.unit;
      for (let at = 0; at < ticks - written; at += beat)
        this.#clicks.push({ seconds: from + at * secondsPerTick, accent: at % barTicks(meter) === 0 });
    }
    this.#ticks += ticks;
    this.#seconds = this.#secondsAt(this.#ticks);
  }

  #secondsAt(at: number): number {
    const segment = this.#segments.findLast((one) => one.at <= at);
    return segment ? segment.seconds + (at - segment.at) * segment.secondsPerTick : 0;
  }

  #addSegments(segments: readonly TempoSegment[], at: number, seconds: number): void {
    for (const one of segments) {
      const last = this.#segments.at(-1);
      if (last && Math.abs(last.secondsPerTick - one.secondsPerTick) < 1e-12) continue;
      const bpm = 60 / one.secondsPerTick / TICKS_PER_QUARTER;
      this.#segments.push({ at: at + one.at, seconds: seconds + one.seconds, secondsPerTick: one.secondsPerTick, bpm });
    }
  }

  #setMeter(at: number, meter: Meter): void {
    const last = this.#meters.at(-1);
    if (last && sameMeter(last.meter, meter)) return;
    if (last?.at === at) this.#meters.pop();
    this.#meters.push({ at, meter });
  }
}

/** The tick of a song at a second of it, a fraction where it falls between two. */
export function tickAt(seconds: number, segments: PlayedSong['segments']): number {
  const segment = segments.findLast((one) => one.seconds <= seconds + 1e-9) ?? segments[0];
  return segment ? segment.at + (seconds - segment.seconds) / segment.secondsPerTick : 0;
}
