import { CLEAN_RULES, type CleanRule } from '../pieces/index.ts';
import { sayPlace, unroll, type Phrase, type Span } from '../notation/index.ts';
import type { JudgedEvent, JudgedTake, NoteVerdict } from './judgeTake.ts';

const USUAL = CLEAN_RULES['nine in ten'];

/** Where more notes than this share cannot be told, nothing is proposed. Our choice. */
const MOST_UNTOLD = 0.25;

/** What a take would be entered as. */
export interface Proposal {
  /** null where the recording does not say enough. */
  readonly outcome: 'clean' | 'not-yet' | null;
  /** The tempo really played, whole beats a minute. */
  readonly bpm: number;
  /** Why it is not clean, or cannot be told, in sentences; empty where it is clean. */
  readonly why: readonly string[];
}

const ONES: Readonly<Record<Exclude<NoteVerdict, 'right' | 'cannot tell'>, readonly [string, string]>> = {
  missing: ['note was not heard', 'notes were not heard'],
  wrong: ['note was another one', 'notes were others'],
  early: ['note came early', 'notes came early'],
  late: ['note came late', 'notes came late'],
};

/** What a take is proposed to be entered as, by a rule of what is clean. */
export function proposeEntry(take: JudgedTake, rule: CleanRule = USUAL): Proposal {
  const bpm = Math.round(take.bpm);
  if (take.trouble === 'silent') return { outcome: null, bpm, why: ['Nothing can be heard in this take.'] };
  if (take.trouble === 'another piece')
    return { outcome: null, bpm, why: ['This does not sound like the piece: too few of its notes were found.'] };
  const untold = countOf(take, 'cannot tell');
  if (untold > MOST_UNTOLD * take.events.length)
    return {
      outcome: null,
      bpm,
      why: [`Of ${untold} of ${take.events.length} notes the recording does not say whether they are right.`],
    };
  const off = countOf(take, 'early') + countOf(take, 'late');
  const inTime = 1 - off / Math.max(1, take.events.length);
  const bends = take.events.filter((event) => isBendOff(event, rule)).length;
  const why = [
    ...(['missing', 'wrong'] as const).flatMap((verdict) => said(countOf(take, verdict), ONES[verdict])),
    ...(inTime * 100 < rule.inTimePercent
      ? [...said(countOf(take, 'early'), ONES.early), ...said(countOf(take, 'late'), ONES.late)]
      : []),
    ...said(bends, ['bend did not reach its pitch', 'bends did not reach their pitch']),
    ...said(take.extras.length, ['note is too many', 'notes are too many']),
  ];
  return { outcome: why.length === 0 ? 'clean' : 'not-yet', bpm, why };
}

function countOf({ events }: JudgedTake, verdict: NoteVerdict): number {
  return events.filter((event) => event.verdict === verdict).length;
}

function said(count: number, [one, more]: readonly [string, string]): readonly string[] {
  return count === 0 ? [] : [`${count} ${count === 1 ? one : more}.`];
}

/** Cents by which a bend misses its pitch, negative where it falls short of it; null where none is written or heard. */
export function bendOff({ bend }: JudgedEvent): number | null {
  if (!bend) return null;
  return Math.sign(bend.targetCents) * (bend.reachedCents - bend.targetCents);
}

function isBendOff(event: JudgedEvent, { bendCents }: CleanRule): boolean {
  return Math.abs(bendOff(event) ?? 0) > bendCents;
}

/** A place of a take that goes wrong, the worst first. */
export interface WeakSpot {
  /** Where it stands in the text. */
  readonly span: Span;
  /** Ticks as played: from the first note that goes wrong to the end of the last, to be looped. */
  readonly from: number;
  readonly to: number;
  /** What is wrong there, and what to try. */
  readonly says: string;
}

/** How much each trouble weighs in looking for the worst place. Our choice. */
const WEIGHTS: Readonly<Record<NoteVerdict, number>> = {
  right: 0,
  'cannot tell': 0,
  early: 1,
  late: 1,
  missing: 2,
  wrong: 2,
};
/** Troubles no further apart than so many notes are one place. */
const ONE_PLACE = 2;

/** The places where a take goes wrong, the worst first, each with what to try. `events` of the take are those of the phrase played out. */
export function weakSpots(take: JudgedTake, phrase: Phrase, rule: CleanRule = USUAL): readonly WeakSpot[] {
  const { events: timed, bars } = unroll(phrase);
  const places = timed.filter(({ item }) => item);
  const weighed = take.events.map((event, index) => ({
    event,
    index,
    weight: WEIGHTS[event.verdict] + (isBendOff(event, rule) ? 2 : 0),
  }));
  const groups: (typeof weighed)[] = [];
  for (const one of weighed.filter(({ weight }) => weight > 0)) {
    const last = groups.at(-1);
    if (last && one.index - (last.at(-1)?.index ?? 0) <= ONE_PLACE) last.push(one);
    else groups.push([one]);
  }
  const sum = (group: typeof weighed) => group.reduce((all, { weight }) => all + weight, 0);
  return groups
    .sort((a, b) => sum(b) - sum(a))
    .flatMap((group): readonly WeakSpot[] => {
      const [first, last] = [group[0], group.at(-1)];
      const from = first && places.find(({ span }) => span.from === first.event.span.from);
      const to = last && places.find(({ span }) => span.from === last.event.span.from);
      const bar = from && bars[from.bar];
      if (!from || !to || !bar) return [];
      const note = places.indexOf(from) + 1;
      const place = sayPlace({ timed: from.timed, bar: from.bar + 1, at: from.at - bar.at, meter: bar.meter, note });
      const says = `${place[0]?.toUpperCase() ?? ''}${place.slice(1)}: ${troubleOf(
        group.map(({ event }) => event),
        rule,
      )}`;
      return [{ span: from.span, from: from.at, to: to.at + to.length, says }];
    });
}

function troubleOf(events: readonly JudgedEvent[], rule: CleanRule): string {
  const bend = events.find((event) => isBendOff(event, rule));
  if (bend) {
    const off = Math.round(bendOff(bend) ?? 0);
    return `the bend stops ${Math.abs(off)} cents ${off < 0 ? 'short' : 'too high'}. Try the bend drill, then these notes alone.`;
  }
  const kinds = new Set(events.map(({ verdict }) => verdict));
  if (kinds.has('wrong')) return 'another note sounded here. Loop these beats, slowly enough to see each fret.';
  if (kinds.has('missing'))
    return `${events.length === 1 ? 'a note was' : 'notes were'} not heard. Loop these beats slower, until each one rings.`;
  const offs = events.flatMap(({ offSeconds }) =>
    offSeconds === null ? [] : [Math.round(1000 * Math.abs(offSeconds))],
  );
  return `${kinds.has('late') ? 'late' : 'early'} by up to ${Math.max(0, ...offs)} ms. Loop these beats with the click.`;
}
