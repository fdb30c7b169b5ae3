import { likeliestFret } from '../checks/index.ts';
import {
  bestPath,
  fretPositionsOf,
  fretPositionsOnPath,
  spread,
  topFret,
  USUAL_REACH_MM,
  USUAL_SCALE_MM,
  type FretPositions,
  type Guitar,
} from '../fretboard/index.ts';
import {
  eventsOf,
  mapEvents,
  readShorthand,
  rewriteEvents,
  type EventItem,
  type Phrase,
  type Problem,
  type Reading,
  type ReadOptions,
  type WrittenNote,
} from '../notation/index.ts';
import { TUNINGS, type Tuning } from '../pitch/index.ts';
import { wantedOf, type Wanted } from './pitches.ts';

/** The guitar and the hand that places are looked for on. */
export interface PlaceOptions {
  readonly tuning: Tuning;
  /** Fret of the capo; 0 for none. */
  readonly capo: number;
  /** Frets of the guitar from the nut. */
  readonly frets?: number;
  /** Reach of the hand, millimetres; the usual one when left out. */
  readonly hand?: number;
  /** The fret where the first finger stays, where the text names no box of its own. */
  readonly box?: number;
}

/** Frets of a guitar that nobody counted. Source: common practice. */
const USUAL_FRETS = 22;

/** Frets that a hand reaches from its box: one to each side of the four under it. Source: common practice. */
const BOX_REACH = { down: 1, up: 4 } as const;

/** So far along the neck a fret that was not said is looked for, from the frets around it. Our choice. */
const NEAR_FRETS = 5;

/**
 * Gives notes a place that were said without one: by name or degree, by their fret or their string alone. The hand goes the cheapest
 * way through all of them; nothing else moves. The same phrase where nothing is to be found; a note that this guitar has no place
 * for keeps none (no fret). The same question has the same answer always. Linear.
 */
export function placePhrase(phrase: Phrase, options: PlaceOptions): Phrase {
  if (!eventsOf(phrase).some(({ item }) => isSought(item))) return phrase;
  const guitar = guitarOf(options);
  const wanted = wantedOf(phrase, guitar, options.box);
  const around = { guitar, mayBeOpen: liesLow(phrase) };
  const choices = new Map([...wanted].map(([item, want]) => [item, choicesFor(item, want, around)]));
  const path = bestPath(phrase, guitar, {
    asWritten: true,
    choices: (item) => {
      const found = choices.get(item);
      return found && found.length > 0 ? found : undefined;
    },
  });
  const places = fretPositionsOnPath(path);
  const placed = mapEvents(phrase, (item) => {
    const found = (choices.get(item) ?? []).length > 0 ? places.get(item) : undefined;
    return found ? { ...item, notes: item.notes.map((note, at) => ({ ...note, ...found[at] })) } : item;
  });
  return settleFrets(placed, guitar);
}

/** Reads a text and places what it leaves open; what has no place is told. */
export function readPlaced(text: string, options: ReadOptions & Omit<PlaceOptions, 'tuning' | 'capo'> = {}): Reading {
  const reading = readShorthand(text, options);
  const { tuning = TUNINGS.standard, capo = 0, frets, hand, box } = options;
  const phrase = placePhrase(reading.phrase, {
    ...{ tuning, capo },
    ...(frets !== undefined && { frets }),
    ...(hand !== undefined && { hand }),
    ...(box !== undefined && { box }),
  });
  if (phrase === reading.phrase) return reading;
  const lost = eventsOf(phrase).filter(({ item }) => !isPlaced(item));
  const problems = lost.map(({ item: { span } }): Problem => {
    const message = `No place of this guitar sounds ${text.slice(span.from, span.to).slice(0, 24)}; it is silent.`;
    return { code: 'no-place', severity: 'warning', message, span };
  });
  return { phrase, problems: [...reading.problems, ...problems].sort((a, b) => a.span.from - b.span.from) };
}

/** The text with every place written in that was found for it; the same text where all of it was said. */
export function settledText(text: string, phrase: Phrase, read: (text: string) => Phrase): string {
  const changes = new Map<EventItem, EventItem>();
  for (const { item } of eventsOf(phrase))
    if (isSought(item) && isPlaced(item))
      changes.set(item, { ...item, notes: item.notes.map(({ sought: _, ...note }) => note) });
  return changes.size === 0 ? text : rewriteEvents(text, changes, read);
}

/** Whether every note of an event has its place. */
export function isPlaced({ notes }: Pick<EventItem, 'notes'>): boolean {
  return notes.every(({ sought, fret }) => !sought || fret !== null);
}

function isSought({ notes }: EventItem): boolean {
  return notes.some(({ sought }) => sought);
}

function guitarOf({ tuning, capo, frets = USUAL_FRETS, hand = USUAL_REACH_MM }: PlaceOptions): Guitar {
  return { tuning, capo, frets, scaleLengthMm: USUAL_SCALE_MM, reachMm: hand };
}

/** Where the notes of an event may lie together; those that were said where they were. Empty where they have nowhere to go. */
function choicesFor(item: EventItem, { midis, box }: Wanted, around: Around): readonly FretPositions[] {
  return spread(item.notes.map((note, at) => optionsFor(note, midis.get(at), { ...around, box })));
}

function optionsFor(
  note: WrittenNote,
  midi: number | undefined,
  { box, guitar, mayBeOpen }: Around & { readonly box: number | undefined },
): FretPositions {
  const { string, fret, sought } = note;
  if (!sought || sought.by === 'fret') return [{ string, fret }];
  if (sought.by === 'string') return guitar.tuning.openMidis.map((_, index) => ({ string: index + 1, fret }));
  const pressed = note.moves !== undefined || note.preBend !== undefined || note.vibrato !== undefined;
  const all = midi === undefined ? [] : fretPositionsOf(midi, guitar);
  const found = all.filter((place) => !(pressed && place.fret === 0));
  const inside = found.filter(({ fret: there }) => (box === undefined ? mayBeOpen || there > 0 : isInBox(there, box)));
  return inside.length > 0 ? inside : found;
}

/** The guitar, and whether open strings are near the hand. */
interface Around {
  readonly guitar: Guitar;
  readonly mayBeOpen: boolean;
}

/** Whether the hand is where open strings lie by: something that was said is low on the neck, or nothing was. */
function liesLow(phrase: Phrase): boolean {
  const said = eventsOf(phrase).flatMap(({ item }) =>
    item.notes.filter(({ sought, fret }) => !sought && fret !== null),
  );
  return said.length === 0 || said.some(({ fret }) => fret !== null && fret <= LOW_FRETS);
}

/** Frets that open strings are usually played beside. Source: common practice. */
const LOW_FRETS = 3;

function isInBox(fret: number, box: number): boolean {
  return fret >= box - BOX_REACH.down && fret <= box + BOX_REACH.up;
}

/** Notes of which only the string was said get the fret that is likeliest there, one after the other. */
function settleFrets(phrase: Phrase, guitar: Guitar): Phrase {
  const events = eventsOf(phrase).map(({ item }) => item);
  return events.reduce((whole, item, index) => {
    const at = item.notes.findIndex(({ sought }) => sought?.by === 'fret');
    const note = item.notes[at];
    if (!note) return whole;
    const near = [...events.slice(0, index).toReversed(), ...events.slice(index + 1)]
      .flatMap(({ notes }) => notes)
      .find(({ fret, sought }) => fret !== null && fret > 0 && sought?.by !== 'fret');
    const middle = near?.fret ?? 0;
    const frets = Array.from({ length: topFret(guitar) + 1 }, (_, fret) => fret).filter(
      (fret) => Math.abs(fret - middle) <= NEAR_FRETS,
    );
    const { sought, ...known } = note;
    const tried = { ...item, notes: item.notes.with(at, { ...known, fret: middle }) };
    const asked = mapEvents(whole, (one) => (one === item ? tried : one));
    const fret = likeliestFret(asked, { item: tried, at }, frets, guitar) ?? middle;
    const settled = { ...item, notes: item.notes.with(at, { ...known, fret, ...(sought && { sought }) }) };
    return mapEvents(whole, (one) => (one === item ? settled : one));
  }, phrase);
}
