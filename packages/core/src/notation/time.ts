import { TICKS_PER_QUARTER } from './values.ts';
import type { EventItem, Feel, Phrase } from './model.ts';
import { unroll, type Timeline } from './unroll.ts';

/** Where the off-beat eighth falls in swing, as a share of the beat: the last third. Source: common practice. */
export const SWING_SHARE = 2 / 3;

/** Turns ticks of one phrase into seconds. */
export interface Clock {
  /** Seconds from the start of the phrase to a tick; monotone. */
  secondsAt(tick: number): number;
  /** Seconds that so many ticks last from a tick on, swing left out. */
  secondsIn(ticks: number, at: number): number;
}

/**
 * A clock for a phrase played from `bpm` quarter notes a minute. Tempo changes written in the phrase keep
 * their proportion to the tempo written at its start (or to the first one written, when none stands there).
 *
 * The feel of the song holds until the phrase says another.
 *
 * @throws RangeError when `bpm` is not above 0.
 */
export function clockOf(phrase: Timeline, { bpm, feel = 'straight' }: { bpm: number; feel?: Feel | undefined }): Clock {
  const timeline = { ...phrase, feels: [{ at: 0, feel }, ...phrase.feels] };
  if (!(bpm > 0)) throw new RangeError(`a tempo is above 0 quarter notes a minute, not ${bpm}`);
  const segments = tempoSegments(timeline, bpm);
  const straight = (tick: number): number => {
    const segment = segments.findLast(({ at }) => at <= tick) ?? segments[0];
    return segment ? segment.seconds + (tick - segment.at) * segment.secondsPerTick : 0;
  };
  const swings = timeline.feels.some(({ feel }) => feel === 'swing');
  const tupletBeats = swings ? beatsWithTuplets(timeline) : new Set<number>();
  return {
    secondsAt: (tick) => straight(swings ? swung(tick, timeline, tupletBeats) : tick),
    secondsIn: (ticks, at) => straight(at + ticks) - straight(at),
  };
}

/** A stretch of one tempo: the tick and the second where it begins. */
export interface TempoSegment {
  readonly at: number;
  readonly seconds: number;
  readonly secondsPerTick: number;
}

/** The stretches of one tempo of a phrase that begins at `bpm` quarter notes a minute; those written in it keep their proportion. */
export function tempoSegments({ tempos }: Pick<Timeline, 'tempos'>, bpm: number): readonly TempoSegment[] {
  const base = tempos.findLast(({ at }) => at === 0)?.tempo ?? tempos[0]?.tempo ?? bpm;
  const segments = [{ at: 0, seconds: 0, secondsPerTick: 60 / bpm / TICKS_PER_QUARTER }];
  for (const { at, tempo } of tempos) {
    const last = segments.at(-1);
    if (!last || at === 0) continue;
    const seconds = last.seconds + (at - last.at) * last.secondsPerTick;
    segments.push({ at, seconds, secondsPerTick: 60 / (bpm * (tempo / base)) / TICKS_PER_QUARTER });
  }
  return segments;
}

/**
 * Stretches the first half of a beat to two thirds and squeezes the second, where the feel at the beat's
 * start is swing; beats with tuplets and beats cut by a bar line stay as they are.
 */
function swung(tick: number, timeline: Timeline, tupletBeats: ReadonlySet<number>): number {
  const beat = beatAt(tick, timeline);
  if (beat === undefined || tupletBeats.has(beat)) return tick;
  if (timeline.feels.findLast(({ at }) => at <= beat)?.feel !== 'swing') return tick;
  const share = (tick - beat) / TICKS_PER_QUARTER;
  const moved = share < 0.5 ? share * 2 * SWING_SHARE : SWING_SHARE + (share - 0.5) * 2 * (1 - SWING_SHARE);
  return beat + moved * TICKS_PER_QUARTER;
}

/** The tick at which the whole beat around a tick begins; undefined where a bar line cuts it. */
function beatAt(tick: number, { bars, pickup }: Timeline): number | undefined {
  const index = bars.findLastIndex(({ at }) => at <= tick);
  const bar = bars[index];
  if (!bar) return undefined;
  const origin = index === 0 && pickup ? bar.at + bar.length : bar.at;
  const beat = origin + Math.floor((tick - origin) / TICKS_PER_QUARTER) * TICKS_PER_QUARTER;
  return beat >= bar.at && beat + TICKS_PER_QUARTER <= bar.at + bar.length ? beat : undefined;
}

/** Starts of the beats in which something begins off the grid of 32nds. */
function beatsWithTuplets(timeline: Timeline): ReadonlySet<number> {
  const found = new Set<number>();
  for (const { at } of timeline.events) {
    const beat = beatAt(at, timeline);
    if (beat !== undefined && (at - beat) % (TICKS_PER_QUARTER / 8) !== 0) found.add(beat);
  }
  return found;
}

/** Seconds that each written event lasts at a tempo, the first time it is heard; grace notes as short as they are played. */
export function secondsOfEvents(phrase: Phrase, bpm: number): ReadonlyMap<EventItem, number> {
  const timeline = unroll(phrase);
  const clock = clockOf(timeline, { bpm });
  const seconds = new Map<EventItem, number>();
  for (const { item, at, length } of timeline.events)
    if (item && !seconds.has(item)) seconds.set(item, clock.secondsIn(length, at));
  return seconds;
}
