import { eventsOf, heldFrom, mapItems, type EventItem, type Item, type Phrase, type Span } from '../notation/index.ts';
import { transposeSymbol, type Key } from '../pitch/index.ts';
import { pitchAt, topFret, type Guitar } from './guitar.ts';
import type { FretPositions } from './grips.ts';
import { movedEvent, fretPositionsOf } from './fretPositions.ts';

/** Where a phrase is to go. What is left out stays. */
export interface MoveOptions {
  /** Up, or down where negative. */
  readonly semitones?: number;
  /** Octaves up, or down where negative. */
  readonly octave?: number;
  /** Strings toward the thinnest, or toward the thickest where negative; 0 moves along the strings, left out chooses. */
  readonly strings?: number;
  /** The guitar it goes to: other frets, tuning or capo. */
  readonly guitar?: Partial<Guitar>;
  /** How the moved chord symbols are spelt. */
  readonly key?: Key;
  /** Notes that the new guitar has not are played an octave lower instead of being given up. */
  readonly octaveBelow?: boolean;
}

/** An event that could not be kept, or only changed, and why in words. */
export interface Lost {
  readonly span: Span;
  readonly why: string;
}

/** A phrase moved, and what became of it. */
export interface Moved {
  readonly phrase: Phrase;
  /** Strings it moved toward the thinnest as a whole. */
  readonly strings: number;
  /** Events that are another octave, on strings of their own, or stand as before because they cannot be moved. */
  readonly lost: readonly Lost[];
}

/** Events that hang together by their links, and so share their strings. */
type Chain = readonly EventItem[];

interface Plan {
  readonly strings: number;
  readonly fretPositions: ReadonlyMap<EventItem, FretPositions>;
  readonly lost: readonly Lost[];
  /** How far frets move in all; of equal plans the nearest is taken. */
  readonly moved: number;
}

/**
 * Moves a phrase by frets, to another key, string group or octave, or to another guitar. The whole keeps its shape where it
 * can, with the step between G and B computed in; what falls off the neck is looked for on other strings, and what cannot be
 * kept is listed.
 */
export function moveTo(phrase: Phrase, guitar: Guitar, options: MoveOptions): Moved {
  const to: Guitar = { ...guitar, ...options.guitar };
  const semitones = (options.semitones ?? 0) + 12 * (options.octave ?? 0);
  const chains = chainsOf(eventsOf(phrase).map(({ item }) => item));
  const count = to.tuning.openMidis.length;
  const shifts =
    options.strings === undefined
      ? Array.from({ length: 2 * count - 1 }, (_, index) => index + 1 - count)
      : [options.strings];
  const plans = shifts.map((strings) =>
    planFor(chains, { guitar, to, semitones, strings, octaveBelow: options.octaveBelow ?? false }),
  );
  const best = plans.reduce((a, b) => (isBetter(b, a) ? b : a));
  const moved = mapItems(phrase, (item) => movedItem(item, best.fretPositions));
  const spelt = mapItems(moved, (item) =>
    item.kind === 'harmony' && item.chord !== null && semitones % 12 !== 0
      ? { ...item, chord: transposeSymbol(item.chord, semitones, options.key) }
      : item,
  );
  return { phrase: spelt, strings: best.strings, lost: best.lost };
}

function isBetter(a: Plan, b: Plan): boolean {
  if (a.lost.length !== b.lost.length) return a.lost.length < b.lost.length;
  return a.moved < b.moved || (a.moved === b.moved && Math.abs(a.strings) < Math.abs(b.strings));
}

/** Chains by their links, each event in one. */
function chainsOf(events: readonly EventItem[]): readonly Chain[] {
  const chains: EventItem[][] = [];
  events.forEach((event, index) => {
    // A bend that goes on takes all along that stands since it began.
    const begins = events[heldFrom(events, index)];
    const held = begins === event ? -1 : chains.findIndex((chain) => begins !== undefined && chain.includes(begins));
    if (held >= 0) chains.push([...chains.splice(held).flat(), event]);
    else if (event.link !== undefined && chains.length > 0) chains.at(-1)?.push(event);
    else chains.push([event]);
  });
  return chains;
}

interface Move {
  readonly guitar: Guitar;
  readonly to: Guitar;
  readonly semitones: number;
  readonly strings: number;
  readonly octaveBelow: boolean;
}

function planFor(chains: readonly Chain[], move: Move): Plan {
  const fretPositions = new Map<EventItem, FretPositions>();
  const lost: Lost[] = [];
  let moved = 0;
  for (const chain of chains) {
    const found = placeChain(chain, move);
    if (found.why !== undefined && chain[0]) lost.push({ span: spanOf(chain), why: found.why });
    chain.forEach((event, index) => {
      const at = found.fretPositions?.[index];
      if (!at) return;
      fretPositions.set(event, at);
      at.forEach(({ fret }, note) => (moved += Math.abs((fret ?? 0) - (event.notes[note]?.fret ?? fret ?? 0))));
    });
  }
  return { strings: move.strings, fretPositions, lost, moved };
}

function spanOf(chain: Chain): Span {
  return { from: chain[0]?.span.from ?? 0, to: chain.at(-1)?.span.to ?? 0 };
}

/** Places for a chain: moved as asked, else on strings of its own, else an octave lower; or the reason why not. */
function placeChain(chain: Chain, move: Move): { fretPositions?: readonly FretPositions[]; why?: string } {
  if (chain.some(({ notes }) => notes.some(({ harmonic }) => harmonic === 'natural'))) {
    const stays = move.semitones === 0 && move.strings === 0 && move.to.tuning === move.guitar.tuning;
    return stays ? {} : { why: 'A natural harmonic sounds only at its own fret; it stands as before.' };
  }
  const asked = onStrings(chain, move, move.strings);
  if (asked) return { fretPositions: asked };
  for (const nearer of [1, -1, 2, -2, 3, -3, 4, -4, 5, -5]) {
    const there = onStrings(chain, move, move.strings + nearer);
    if (!there) continue;
    const side = nearer > 0 ? 'thinner' : 'thicker';
    const far = Math.abs(nearer) === 1 ? 'one string' : `${Math.abs(nearer)} strings`;
    return { fretPositions: there, why: `Goes ${far} ${side} than the rest, since its own string has no fret for it.` };
  }
  const below = { ...move, semitones: move.semitones - 12 };
  const lower = move.octaveBelow ? (onStrings(chain, below, move.strings) ?? onAny(chain, below)) : undefined;
  if (lower) return { fretPositions: lower, why: 'Is played an octave lower, since this guitar has no such fret.' };
  return { why: whyNot(chain, move) };
}

function onAny(chain: Chain, move: Move): readonly FretPositions[] | undefined {
  for (const strings of [0, 1, -1, 2, -2, 3, -3]) {
    const there = onStrings(chain, move, strings);
    if (there) return there;
  }
  return undefined;
}

/** The places of a chain so many strings over; undefined where one of its notes has none. */
function onStrings(
  chain: Chain,
  { guitar, to, semitones }: Move,
  strings: number,
): readonly FretPositions[] | undefined {
  const found: FretPositions[] = [];
  for (const { notes, slideIn } of chain) {
    const fretPositions = notes.map((note) => {
      const string = note.string - strings;
      if (string < 1 || string > to.tuning.openMidis.length) return undefined;
      if (note.fret === null) return { string, fret: null };
      const place = fretPositionsOf(pitchAt(guitar, note.string, note.fret) + semitones, to).find(
        (one) => one.string === string,
      );
      if (!place) return undefined;
      const pressed = note.moves !== undefined || note.preBend !== undefined || note.vibrato !== undefined || slideIn;
      if (place.fret === 0 && pressed) return undefined;
      const trill = note.trill === undefined ? 0 : note.trill - note.fret;
      return place.fret + trill < 0 || place.fret + trill > topFret(to) ? undefined : place;
    });
    const whole = fretPositions.filter((place) => place !== undefined);
    if (whole.length < notes.length) return undefined;
    found.push(whole);
  }
  return found;
}

function whyNot(chain: Chain, { guitar, to, semitones }: Move): string {
  const pitches = chain.flatMap(({ notes }) =>
    notes.flatMap(({ string, fret }) => (fret === null ? [] : [pitchAt(guitar, string, fret) + semitones])),
  );
  const lowest = Math.min(...to.tuning.openMidis) + to.capo;
  if (pitches.some((midi) => midi < lowest)) return 'Lies below the lowest open string; it stands as before.';
  const highest = Math.max(...to.tuning.openMidis) + to.frets;
  if (pitches.some((midi) => midi > highest))
    return `Lies above fret ${to.frets} of the thinnest string; it stands as before.`;
  return 'Bends, slides or strings of it cannot go together there; it stands as before.';
}

/** An item after the move; a barre goes along with its notes, and is left out where they part. */
function movedItem(item: Item, fretPositions: ReadonlyMap<EventItem, FretPositions>): Item | readonly Item[] {
  if (item.kind === 'event') return movedEvent(item, fretPositions.get(item));
  if (item.kind !== 'barre') return item;
  const under = [...fretPositions].filter(([{ span }]) => span.from >= item.span.from && span.to <= item.span.to);
  const frets = under.flatMap(([event, at]) =>
    at.flatMap(({ fret }, note) => (event.notes[note]?.fret === item.fret && fret !== null ? [fret] : [])),
  );
  const [fret = 0] = frets;
  return fret > 0 && frets.every((one) => one === fret) ? { ...item, fret } : item.items;
}
