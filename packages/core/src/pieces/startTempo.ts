import { eventsOf, secondsOfEvents, type Feel, type Phrase } from '../notation/index.ts';
import type { Cut, CutPhrase } from './cut.ts';
import { PRACTICE_TEMPO_RANGE } from './ladder.ts';

/** What a student showed on another piece: how hard it is, and the share of its target at which it was first clean. */
export interface Shown {
  readonly difficulty: number;
  readonly share: number;
}

/** A tempo with why. Quarter notes a minute. */
export interface TempoAdvice {
  readonly bpm: number;
  readonly reason: string;
}

/** A piece is about as hard as another within so many points of 100; so many must be. Our choice. */
const LIKE = { points: 15, fewest: 2 } as const;

/** Where nothing was shown: these shares of the target for the easiest and the hardest. Common practice: half to two thirds. */
const RULE = { easiest: 0.7, hardest: 0.5 } as const;

/** The start is at most this share of the target, so that there is a ladder. Our choice. */
const MAX_START_SHARE = 0.95;

/**
 * Where to begin, never under the floor: at the share of its target at which the student was first clean on pieces about as hard,
 * their median. Without such pieces a rule gives half to seven tenths, the harder the slower.
 *
 * @throws RangeError when the target is not above 0.
 */
export function startTempo(
  target: number,
  {
    difficulty,
    shown,
    floor,
  }: { readonly difficulty: number; readonly shown: readonly Shown[]; readonly floor?: number | undefined },
): TempoAdvice {
  if (!(target > 0)) throw new RangeError(`a target tempo is above 0, not ${target}`);
  const like = shown.filter((one) => Math.abs(one.difficulty - difficulty) <= LIKE.points).map(({ share }) => share);
  const known = like.length >= LIKE.fewest;
  const share = known
    ? median(like)
    : RULE.easiest - (RULE.easiest - RULE.hardest) * (Math.min(100, Math.max(0, difficulty)) / 100);
  const wished = Math.round(target * Math.min(MAX_START_SHARE, share));
  const min = Math.min(target, Math.max(PRACTICE_TEMPO_RANGE.min, floor ?? 0));
  const percent = Math.round(share * 100);
  const why = known
    ? `first clean at about ${percent} % of the target on ${like.length} pieces about as hard`
    : `nothing was shown on pieces about as hard; by rule ${percent} % of the target`;
  if (wished < min) return { bpm: min, reason: `The floor of ${min}; ${why} would be ${wished}.` };
  return { bpm: Math.min(target, wished), reason: `${why.charAt(0).toUpperCase()}${why.slice(1)}.` };
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length / 2;
  const [low, high] = [sorted[Math.ceil(middle) - 1] ?? 0, sorted[Math.floor(middle)] ?? 0];
  return (low + high) / 2;
}

/**
 * How long things may last before a phrase loses its sense, seconds: a note with vibrato or a held bend dies away, a slur speaks
 * out of the note before it, a slide is one move. Our choice, from how long a plucked string sounds.
 */
const LONGEST = { vibrato: 4, bend: 3, slur: 1.2, slide: 1.5 } as const;

/** Slower than this nobody hears swing, quarter notes a minute. Our choice. */
const SLOWEST_SWING = 56;

/** A floor is at most this share of the target. Our choice: above it there is nothing left to climb. */
const MAX_FLOOR_SHARE = 0.8;

/**
 * The slowest tempo at which a phrase keeps its sense, with why; undefined where slower is only slower. Slower is not always
 * easier: slurs, slides, bends and vibrato live on the sound of the note, swing on its lilt. Linear.
 */
export function floorTempo(phrase: Phrase, target: number, feel: Feel = 'straight'): TempoAdvice | undefined {
  // At 60 a quarter lasts a second; all times go down in proportion to the tempo.
  const seconds = secondsOfEvents(phrase, 60);
  const wanted: TempoAdvice[] = [];
  const ask = (bpm: number, reason: string) => wanted.push({ bpm: Math.ceil(bpm), reason });
  const events = eventsOf(phrase).map(({ item }) => item);
  events.forEach((item, index) => {
    const long = seconds.get(item) ?? 0;
    const before = events[index - 1];
    const source = before ? (seconds.get(before) ?? 0) : 0;
    if (item.notes.some(({ vibrato }) => vibrato !== undefined))
      ask((60 * long) / LONGEST.vibrato, 'the note with vibrato would die away');
    if (item.notes.some(({ moves }) => moves !== undefined))
      ask((60 * long) / LONGEST.bend, 'the bent note would die away');
    if (item.link === 'hammer' || item.link === 'pull')
      ask((60 * source) / LONGEST.slur, 'the slur would come out of a note that has died away');
    if (item.link === 'slide' || item.link === 'shift')
      ask((60 * source) / LONGEST.slide, 'the slide would come apart');
  });
  if (feel === 'swing') ask(SLOWEST_SWING, 'nobody would hear it swing');
  const [highest] = wanted.toSorted((a, b) => b.bpm - a.bpm);
  if (!highest || highest.bpm <= PRACTICE_TEMPO_RANGE.min) return undefined;
  const bpm = Math.min(highest.bpm, Math.round(target * MAX_FLOOR_SHARE));
  return { bpm, reason: `Slower than ${bpm} ${highest.reason}.` };
}

/** A phrase of a song with the song’s tempo where it stands, and the slowest that makes sense; null where there is none. */
export interface TimedPhrase {
  readonly cut: CutPhrase;
  readonly bpm: number;
  readonly floorBpm: number | null;
}

/** The tempos of a piece and how hard it is. Quarter notes a minute. */
export interface PieceTempos {
  readonly startBpm: number;
  readonly targetBpm: number;
  readonly floorBpm: number | null;
  readonly difficulty: number;
}

/**
 * The tempos of a piece that is cut anew: its target that of its slowest phrase, at a share of the song’s tempo in hundredths; as
 * hard as its hardest phrase; its floor the highest of theirs; its start by what the student showed.
 */
export function temposOf(
  { parts }: Cut,
  phrases: readonly TimedPhrase[],
  { targetPercent = 100, shown }: { readonly targetPercent?: number; readonly shown: readonly Shown[] },
): PieceTempos {
  const ids = new Set(parts.map(({ phraseId }) => phraseId));
  const own = phrases.filter(({ cut }) => ids.has(cut.id));
  const { min, max } = PRACTICE_TEMPO_RANGE;
  const slowest = Math.min(...own.map(({ bpm }) => bpm), max);
  const targetBpm = Math.min(max, Math.max(min, Math.round((slowest * targetPercent) / 100)));
  const difficulty = Math.max(0, ...own.map(({ cut }) => cut.difficulty));
  const floors = own.flatMap(({ floorBpm }) => (floorBpm === null ? [] : [Math.min(floorBpm, targetBpm)]));
  const floorBpm = floors.length === 0 ? null : Math.max(min, ...floors);
  const { bpm } = startTempo(targetBpm, { difficulty, shown, floor: floorBpm ?? undefined });
  return { startBpm: bpm, targetBpm, floorBpm, difficulty };
}
