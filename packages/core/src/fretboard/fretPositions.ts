import { eventsOf, heldFrom, mapEvents, type EventItem, type Phrase, type Span } from '../notation/index.ts';
import { fretsFor } from '../pitch/index.ts';
import { pitchAt, topFret, type Guitar } from './guitar.ts';
import { gripsFor, type FretPositions } from './grips.ts';

/** Where notes may be looked for. */
export interface PositionRules {
  /** Strings to stay away from where there is another way; 1 is the thinnest. */
  readonly avoid?: readonly number[];
  /** Open strings stay open. */
  readonly keepOpen?: boolean;
  /** Events that stay where they are written, by their span in the text. */
  readonly keep?: (span: Span) => boolean;
  /** Everything stays where it is written; only fingers and places of the hand are looked for. */
  readonly asWritten?: boolean;
  /** Where an event may be played, where that is known otherwise. */
  readonly choices?: (item: EventItem) => readonly FretPositions[] | undefined;
  /** The fret at which the first finger stays for the whole phrase. */
  readonly position?: number;
}

/** An event, where it may be played, and what it hangs on. */
export interface Placed {
  readonly item: EventItem;
  readonly barre: number | null;
  /** The places to try, as written first. */
  readonly choices: readonly FretPositions[];
  /** For each note the place in the event before of the note on whose string it must stay; undefined for free ones. */
  readonly from: readonly (number | undefined)[];
}

/** Most ways to spread one stack over the strings that are tried; wider stacks lose the furthest. Our choice. */
const MAX_CHOICES = 60;

/**
 * Every way to play a set of pitches together: one string each, none beyond the neck. Pitches are whole MIDI numbers; the
 * order of the answer's notes is theirs. Thinnest strings first; empty where they do not go together.
 */
export function positionsFor(midis: readonly number[], guitar: Guitar): readonly FretPositions[] {
  const fretPositions = midis.map((midi) => fretPositionsOf(midi, guitar));
  return spread(fretPositions);
}

/** Every place of a pitch within reach of the neck, from the capo. */
export function fretPositionsOf(midi: number, guitar: Guitar): readonly { string: number; fret: number }[] {
  return Number.isInteger(midi) ? fretsFor(midi - guitar.capo, guitar.tuning, topFret(guitar)) : [];
}

/** Ways to play notes together, each at one of its places, no two on a string. */
export function spread(fretPositions: readonly FretPositions[]): readonly FretPositions[] {
  let found: FretPositions[] = [[]];
  for (const options of fretPositions) {
    const longer = found.flatMap((taken) =>
      options.filter(({ string }) => taken.every((one) => one.string !== string)).map((place) => [...taken, place]),
    );
    found = longer.slice(0, MAX_CHOICES * options.length);
  }
  return found.slice(0, MAX_CHOICES);
}

/** The events of a phrase in the order of the text with the places to try for each. */
export function placedEvents(phrase: Phrase, guitar: Guitar, rules: PositionRules): readonly Placed[] {
  const events = eventsOf(phrase);
  const pinned = pinnedEvents(
    events.map(({ item }) => item),
    rules,
  );
  return events.map(({ item, around }, index) => {
    const nest = around.findLast(({ kind }) => kind === 'barre');
    const barre = nest?.kind === 'barre' ? nest.fret : null;
    const from = item.notes.map((note) => sourceOf(note.string, item, events[index - 1]?.item));
    return { item, barre, from, choices: choicesFor(item, barre, { guitar, rules, pinned: pinned.has(item) }) };
  });
}

/** The note of the event before that a linked note grows from. */
function sourceOf(string: number, { link }: EventItem, before: EventItem | undefined): number | undefined {
  if (link === undefined) return undefined;
  const index = before?.notes.findIndex((note) => note.string === string) ?? -1;
  return index < 0 ? undefined : index;
}

/** Events that cannot move: kept ones, harmonics, dead notes alone, and what is linked over a gap. */
function pinnedEvents(events: readonly EventItem[], rules: PositionRules): ReadonlySet<EventItem> {
  const pinned = new Set<EventItem>();
  events.forEach((item, index) => {
    const linkedOverGap =
      item.link !== undefined &&
      item.notes.some(({ string }) => sourceOf(string, item, events[index - 1]) === undefined);
    const stays =
      rules.asWritten === true ||
      rules.keep?.(item.span) === true ||
      item.notes.some(({ harmonic }) => harmonic === 'natural') ||
      item.notes.every(({ fret }) => fret === null) ||
      linkedOverGap;
    if (stays) pinned.add(item);
    // A bend that goes on is where it began.
    const begins = heldFrom(events, index);
    if (begins < index) for (const one of [item, events[begins]]) if (one) pinned.add(one);
  });
  // What is linked to a pinned event is on its string, and the other way about.
  for (let index = 1; index < events.length; index += 1) {
    const [before, item] = [events[index - 1], events[index]];
    if (before && item?.link && pinned.has(before)) pinned.add(item);
  }
  for (let index = events.length - 1; index > 0; index -= 1) {
    const [before, item] = [events[index - 1], events[index]];
    if (before && item?.link && pinned.has(item)) pinned.add(before);
  }
  return pinned;
}

interface ChoiceContext {
  readonly guitar: Guitar;
  readonly rules: PositionRules;
  readonly pinned: boolean;
}

function choicesFor(
  item: EventItem,
  barre: number | null,
  { guitar, rules, pinned }: ChoiceContext,
): readonly FretPositions[] {
  const given = rules.choices?.(item);
  if (given) return given;
  const written: FretPositions = item.notes.map(({ string, fret }) => ({ string, fret }));
  if (pinned || barre !== null) return [written];
  const options = item.notes.map((note): FretPositions => {
    const { string, fret, moves, preBend, vibrato, trill } = note;
    if (fret === null || (fret === 0 && rules.keepOpen)) return [{ string, fret }];
    const needsFinger = moves !== undefined || preBend !== undefined || vibrato !== undefined;
    const found = fretPositionsOf(pitchAt(guitar, string, fret), guitar).filter(
      (place) =>
        !(place.fret === 0 && needsFinger) &&
        place.fret + Math.max(0, (trill ?? fret) - fret) <= topFret(guitar) &&
        inBox(place.fret, rules.position),
    );
    const wanted = found.filter((place) => !rules.avoid?.includes(place.string));
    return wanted.length > 0 ? wanted : found;
  });
  const found = spread(options).filter((fretPositions) =>
    gripsFor(item, fretPositions, { barre: null }).some((grip) => !grip.impossible),
  );
  return found.length > 0 ? found : [written];
}

/** Frets that a hand reaches without leaving its place: one back, four on, and the open string. */
export function inBox(fret: number, position: number | undefined): boolean {
  return position === undefined || fret === 0 || (fret >= position - 1 && fret <= position + 5);
}

/** The phrase with every event at new places (undefined: as it stands); marks, links and order stay. */
export function withFretPositions(
  phrase: Phrase,
  positionsOfEvent: (item: EventItem) => FretPositions | undefined,
): Phrase {
  return mapEvents(phrase, (item) => movedEvent(item, positionsOfEvent(item)));
}

/** An event at new places, which stand now as if they had been written; a trill moves along with its note. */
export function movedEvent(item: EventItem, fretPositions: FretPositions | undefined): EventItem {
  if (!fretPositions || fretPositions.every((place, at) => sameFretPosition(place, item.notes[at]))) return item;
  const notes = item.notes.map(({ sought: _, ...note }, at) => {
    const { string, fret } = fretPositions[at] ?? note;
    const trill =
      note.trill === undefined || fret === null || note.fret === null ? undefined : note.trill + fret - note.fret;
    return { ...note, string, fret, ...(trill !== undefined && { trill }) };
  });
  return { ...item, notes };
}

function sameFretPosition(a: FretPositions[number], b: FretPositions[number] | undefined): boolean {
  return a.string === b?.string && a.fret === b.fret;
}
