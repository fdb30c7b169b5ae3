import { costOf } from '../checks/index.ts';
import { usualGuitar } from '../fretboard/index.ts';
import { eventsOf, readShorthand } from '../notation/index.ts';
import type { Key, Tuning } from '../pitch/index.ts';
import { writeDrafts } from './drafts.ts';
import type { DoubtKind } from './doubts.ts';
import type { SpokenState } from './state.ts';

/** So many readings of a sentence are kept side by side. Our choice. */
const BEAM = 3;
/** So many places of a sentence are weighed; at others the way that is likelier in itself is taken. Our choice. */
const MAX_POINTS = 4;
/** What a doubt of a kind speaks against a reading, log-odds: words that it leaves without a use. Our choice. */
const LEFT_OVER: Readonly<Partial<Record<DoubtKind, number>>> = { 'not understood': 3, 'nothing before': 3, string: 2 };

/**
 * The likeliest reading of a sentence, of all its ways as far as the beam is wide.
 * @param read reads it in the ways of a script, one number for each point at which there are several
 * @param weigh what speaks against a reading, log-odds
 */
export function likeliest(
  read: (script: readonly number[]) => SpokenState,
  weigh: (state: SpokenState) => number,
): SpokenState {
  const first = read([]);
  if (first.points.length === 0) return first;
  let beam = [{ state: first, cost: weigh(first) }];
  for (let at = 0; at < MAX_POINTS && beam.some(({ state }) => state.points.length > at); at += 1)
    beam = beam
      .flatMap((one) => {
        const { points } = one.state;
        const taken = points.slice(0, at).map((point) => point.taken);
        const others = points[at]?.costs.flatMap((_, way) =>
          way === points[at]?.taken ? [] : [read([...taken, way])],
        );
        return [one, ...(others ?? []).map((state) => ({ state, cost: weigh(state) }))];
      })
      .toSorted((a, b) => a.cost - b.cost)
      .slice(0, BEAM);
  return beam[0]?.state ?? first;
}

/** So many of the last events are weighed. Our choice. */
const NEAR = 16;

/** What is known around the words. */
export interface Around {
  readonly tuning: Tuning;
  readonly key?: Key;
  /** Shorthand that stands before, with its chord. */
  readonly before: string;
}

/** What speaks against a reading: its ways in themselves, the words it leaves, and the line it makes. */
export function weigher({ tuning, key, before }: Around): (state: SpokenState) => number {
  const guitar = usualGuitar(tuning);
  const strings = tuning.openMidis.length === 6 ? 'letters' : 'numbers';
  return ({ points, doubts, drafts }) => {
    const near = writeDrafts(drafts.slice(-NEAR), strings);
    const text = (drafts.length < NEAR ? [before, ...near] : near).join(' ');
    const ways = points.reduce((sum, { costs, taken }) => sum + (costs[taken] ?? 0), 0);
    const left = doubts.reduce((sum, { kind }) => sum + (LEFT_OVER[kind] ?? 0), 0);
    return ways + left + costOf(readShorthand(text, { tuning }).phrase, guitar, key);
  };
}

/** The string of the last note of a piece of shorthand; undefined for none. */
export function lastStringOf(text: string, tuning: Tuning): number | undefined {
  return eventsOf(readShorthand(text, { tuning }).phrase).at(-1)?.item.notes.at(-1)?.string;
}
