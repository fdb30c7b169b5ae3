import { eventsOf, type Move, type Phrase } from '../notation/index.ts';
import { ALIKE, compareHeard, comparePart, hear, type CompareOptions, type Heard, type Likeness } from './compare.ts';

/** A phrase that others are compared with. */
export interface KnownPhrase {
  readonly id: string;
  /** What it is called when it is spoken of, `1A Opening bend`. */
  readonly name: string;
  readonly phrase: Phrase;
}

/** The same, as it was heard. */
export interface HeardPhrase extends Omit<KnownPhrase, 'phrase'> {
  readonly heard: Heard;
}

/** A phrase found alike, and how. */
export interface Alike extends Likeness {
  readonly id: string;
  readonly name: string;
}

/** Fewest events of a phrase that are worth comparing; three notes are like three others by chance. Our choice. */
const FEWEST_EVENTS = 4;

/** The phrases of an index that are alike, the most alike first. Linear in the index. */
export function findAlike(phrase: Phrase, index: readonly KnownPhrase[], options: CompareOptions): readonly Alike[] {
  const heard = hear(phrase, options);
  const setup = options.first ?? options;
  const found = index.flatMap(
    ({ id, name, phrase: known }) => alikeTo(phrase, heard, { id, name, heard: hear(known, setup) }) ?? [],
  );
  return mostAlikeFirst(found);
}

/** Whether a phrase is like one that was heard, and how; undefined where it is not. */
export function alikeTo(phrase: Phrase, heard: Heard, { id, name, heard: known }: HeardPhrase): Alike | undefined {
  const alike = { ...compareHeard(known, heard, ALIKE), id, name };
  const { likeness, kinship, differences } = alike;
  const isLong = phrase.items.length - differences.length >= FEWEST_EVENTS;
  if (likeness >= ALIKE && kinship !== 'none' && isLong) return alike;
  const part = comparePart(known, heard);
  return part && { ...part, id, name };
}

/** A phrase that is exactly another one, moved; undefined where it is too short to be worth a word. */
export function movedAlike({ id, name }: Omit<KnownPhrase, 'phrase'>, phrase: Phrase, move: Move): Alike | undefined {
  if (eventsOf(phrase).length < FEWEST_EVENTS) return undefined;
  const { semitones, strings } = move;
  const kinship = strings !== 0 ? 'transposed' : semitones === 0 ? 'same' : 'moved';
  return { id, name, kinship, semitones, frets: semitones, steps: 0, likeness: 1, differences: [], hands: null };
}

/** Phrases found alike in the order they are told. */
export function mostAlikeFirst<One extends Alike>(found: readonly One[]): readonly One[] {
  return found.toSorted((a, b) => b.likeness - a.likeness);
}

/** Says what a phrase is of another: “1A, moved up 2 frets”, “the same as 1A but for bar 3, beat 4”. */
export function sayLikeness({ name, kinship, frets, semitones, steps, differences, hands }: Alike): string {
  const moved = (count: number, unit: string) =>
    `${count > 0 ? 'up' : 'down'} ${Math.abs(count)} ${unit}${Math.abs(count) === 1 ? '' : 's'}`;
  const how = {
    same: `The same as ${name}`,
    moved: `${name}, moved ${moved(frets, 'fret')}`,
    elsewhere: `The notes of ${name} at another place of the neck`,
    octave: `${name}, ${Math.abs(semitones) === 12 ? 'an octave' : `${Math.abs(semitones) / 12} octaves`} ${semitones > 0 ? 'higher' : 'lower'}`,
    transposed: `${name}, ${moved(semitones, 'semitone')}, on other strings`,
    sequence: `${name}, ${Math.abs(steps)} scale ${Math.abs(steps) === 1 ? 'step' : 'steps'} ${steps > 0 ? 'higher' : 'lower'}`,
    part: `A part of ${name}${far(semitones)}`,
    grown: `${name}${far(semitones)}, with more to it`,
    tail: `Ends like ${name}${far(semitones)}`,
    none: `Not like ${name}`,
  }[kinship];
  const made = sayHands(hands);
  if (kinship === 'part' || kinship === 'grown' || kinship === 'tail') {
    const from = differences[0] ? `, from ${differences[0].place}` : '';
    return `${how}${from}${made}.`;
  }
  const [first] = differences;
  if (!first) return `${how}${made}.`;
  const more = differences.length > 1 ? ` and ${differences.length - 1} more` : '';
  return `${how}, but for ${first.place}${more}${made}.`;
}

/** How far a part lies from where it was: “, an octave lower”. */
function far(semitones: number): string {
  if (semitones === 0) return '';
  const way = semitones > 0 ? 'higher' : 'lower';
  if (Math.abs(semitones) === 12) return `, an octave ${way}`;
  return `, ${Math.abs(semitones)} semitone${Math.abs(semitones) === 1 ? '' : 's'} ${way}`;
}

/** How hands make otherwise what sounds alike: “, bent instead of slid”. */
function sayHands(hands: Alike['hands']): string {
  if (!hands) return '';
  const [first, second] = hands;
  return first === second ? `, ${second} in another way` : `, ${second} instead of ${first}`;
}
