import type { Link } from './linkRecords.ts';
import type { EventMark, PluckingMark } from './marks.ts';
import type { Sureness } from './surenesses.ts';
import type { Meter, NoteValue } from './values.ts';

export type { EventMark, Link, PluckingMark, Sureness };

/** A stretch of the typed text, UTF-16 offsets, `to` just past the end. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/**
 * One move of a bend: to `steps` whole steps above the fret. `slow` glides over the whole of its part.
 * `unsized`: the size is not known (sounds as half a step); `upTo`: anything from `steps` to here will do.
 */
export interface BendMove {
  readonly kind: 'bend' | 'release';
  readonly steps: number;
  readonly slow?: true;
  readonly unsized?: true;
  readonly upTo?: number;
}

/**
 * What is known of a note whose place was not said: its name or its degree of the chord in force, so many octaves up; that its
 * string, or its fret, is to be found.
 */
export type Sought =
  | { readonly by: 'name'; readonly name: string; readonly octaves: number }
  | { readonly by: 'degree'; readonly degree: string; readonly octaves: number }
  | { readonly by: 'string' }
  | { readonly by: 'fret' };

/** A fretting finger: 1 index … 4 little, T thumb. */
export type Finger = '1' | '2' | '3' | '4' | 'T';

/** One note of a stack. `string` 1 is the thinnest; `fret` null is a dead note. Heights in whole steps. */
export interface WrittenNote {
  readonly string: number;
  readonly fret: number | null;
  readonly preBend?: number;
  readonly moves?: readonly BendMove[];
  readonly vibrato?: 'narrow' | 'wide';
  readonly harmonic?: 'natural' | 'pinch';
  readonly trill?: number;
  readonly finger?: Finger;
  /** A second finger that helps to bend, behind the first. */
  readonly fingerBehind?: Finger;
  /** Another finger that will do as well. */
  readonly fingerOr?: Finger;
  /** Plucked so, where the strings of a stack are plucked each by its own finger. */
  readonly plucked?: PluckingMark;
  /** Quiet beside louder notes of its stack. */
  readonly quiet?: true;
  /** How surely it is heard, where that is not said of its whole stack. */
  readonly sureness?: Sureness;
  /** Not struck: its string sounds on from an earlier event, bent so high, and goes on with these moves. Whole steps. */
  readonly held?: number;
  /** Struck again while its string stands bent so high, whole steps. */
  readonly again?: number;
  /** What is to be found of its place; until it is, the place is none that was meant. */
  readonly sought?: Sought;
  /** The note it is said to rest on, or the degree of the chord, as typed. */
  readonly claim?: string;
}

/** A value while it is put together; read-only once it is handed out. */
export type Writable<Value> = { -readonly [Key in keyof Value]: Value[Key] };

/** Notes struck together, perhaps several times in a row (`times`). */
export interface EventItem {
  readonly kind: 'event';
  readonly span: Span;
  readonly value: NoteValue;
  readonly notes: readonly WrittenNote[];
  readonly marks: readonly EventMark[];
  readonly times: number;
  readonly link?: Link;
  readonly slideIn?: 'below' | 'above';
  readonly slideOut?: 'up' | 'down';
  /** How far the tremolo arm takes every string that sounds, once after the other, whole steps; negative is down. */
  readonly arm?: readonly number[];
}

/** A silence of one value. */
export interface RestItem {
  readonly kind: 'rest';
  readonly span: Span;
  readonly value: NoteValue;
}

/** The event or rest before lasts one value longer. */
export interface HoldItem {
  readonly kind: 'hold';
  readonly span: Span;
  readonly value: NoteValue;
}

/** A bar line. */
export interface BarItem {
  readonly kind: 'bar';
  readonly span: Span;
}

/** Items played `times` times; `open`: about so often, to a fade or to taste. */
export interface RepeatItem {
  readonly kind: 'repeat';
  readonly span: Span;
  readonly items: readonly Item[];
  readonly times: number;
  readonly open: boolean;
}

/** From-to of passes, counted from 1, both included. */
export type PassRange = readonly [from: number, to: number] | 'last';

/** Items heard on some passes of the repeat they stand in. */
export interface PassesItem {
  readonly kind: 'passes';
  readonly span: Span;
  readonly items: readonly Item[];
  readonly passes: readonly PassRange[];
}

/** Items heard on some rounds of the section that the phrase stands in. */
export interface RoundsItem {
  readonly kind: 'rounds';
  readonly span: Span;
  readonly items: readonly Item[];
  readonly rounds: readonly PassRange[];
}

/** Items that grow softer or louder from the first to the last. */
export interface SwellItem {
  readonly kind: 'swell';
  readonly span: Span;
  readonly items: readonly Item[];
  readonly to: 'softer' | 'louder';
}

/** Two or more ways to play the same: the first is played, all are shown. */
export interface EitherItem {
  readonly kind: 'either';
  readonly span: Span;
  readonly items: readonly WayItem[];
}

/** One of several ways. */
export interface WayItem {
  readonly kind: 'way';
  readonly span: Span;
  readonly items: readonly Item[];
}

/** Items that all bear some event marks. */
export interface MarkedItem {
  readonly kind: 'marked';
  readonly span: Span;
  readonly items: readonly Item[];
  readonly marks: readonly EventMark[];
}

/** Items played under a barre held at a fret. */
export interface BarreItem {
  readonly kind: 'barre';
  readonly span: Span;
  readonly items: readonly Item[];
  readonly fret: number;
}

/** Items whose picked events are struck down and up in turn. */
export interface AlternateItem {
  readonly kind: 'alternate';
  readonly span: Span;
  readonly items: readonly Item[];
  /** The stroke of the first. */
  readonly first: 'down' | 'up';
}

/** Items heard less than surely. */
export interface SureItem {
  readonly kind: 'sure';
  readonly span: Span;
  readonly items: readonly Item[];
  readonly sureness: Sureness;
}

/** The chord from here on; null for none. */
export interface HarmonyItem {
  readonly kind: 'harmony';
  readonly span: Span;
  readonly chord: string | null;
}

/** A word of advice shown at the next event. */
export interface WordsItem {
  readonly kind: 'words';
  readonly span: Span;
  readonly text: string;
}

/** What follows sounds at this second of the recording, where it is first heard. */
export interface StampItem {
  readonly kind: 'stamp';
  readonly span: Span;
  readonly seconds: number;
}

/** What a setting sets. Tempo in quarter notes a minute; `box`: the fret where the first finger stays while places are looked for. */
export type Setting =
  | { readonly name: 'meter'; readonly meter: Meter }
  | { readonly name: 'tempo'; readonly tempo: number }
  | { readonly name: 'feel'; readonly feel: Feel }
  | { readonly name: 'box'; readonly fret: number }
  | { readonly name: 'pickup' };

/** Even eighths, or eighths long-short as the outer two of a triplet. */
export type Feel = 'straight' | 'swing';

/** A change of meter, tempo or feel from here on, or the word that the first bar is a pick-up. */
export interface SettingItem {
  readonly kind: 'setting';
  readonly span: Span;
  readonly setting: Setting;
}

/** Items that hold other items. */
export type NestItem =
  | RepeatItem
  | PassesItem
  | RoundsItem
  | MarkedItem
  | BarreItem
  | AlternateItem
  | SwellItem
  | EitherItem
  | WayItem
  | SureItem;

/** Anything that can stand in a phrase. */
export type Item =
  EventItem | RestItem | HoldItem | BarItem | NestItem | HarmonyItem | WordsItem | StampItem | SettingItem;

/** A phrase as written: the meter it starts in (the song's) and its items in the order of the text. */
export interface Phrase {
  readonly meter: Meter;
  readonly items: readonly Item[];
}

/** How high a note is bent at most, whole steps; 0 for not. */
export function bendHeight({ preBend = 0, again = 0, moves = NO_MOVES }: Omit<WrittenNote, 'string' | 'fret'>): number {
  return moves.reduce((highest, { steps }) => Math.max(highest, steps), Math.max(preBend, again));
}

const NO_MOVES: readonly BendMove[] = [];

/** Whether a note is struck and bent, before or after. */
export function isBent({ held, moves, preBend }: WrittenNote): boolean {
  return held === undefined && (moves !== undefined || preBend !== undefined);
}

/** Whether an event is set going by the picking hand: neither slurred or slid to, nor only a bend that goes on. */
export function isPicked({ link, notes }: Pick<EventItem, 'link' | 'notes'>): boolean {
  return (link === undefined || link === 'shift') && !isHeld({ notes });
}

/** Whether nothing is struck: strings that stand bent go on. */
export function isHeld({ notes }: Pick<EventItem, 'notes'>): boolean {
  return notes.length > 0 && notes.every(({ held }) => held !== undefined);
}

/** Whether an event hangs on what sounds before it: it is slurred or slid to, or a bend goes on in it. */
export function growsFromBefore({ link, notes }: Pick<EventItem, 'link' | 'notes'>): boolean {
  return link !== undefined || notes.some(({ held, again }) => held !== undefined || again !== undefined);
}

/** Whether an item holds other items. */
export function isNest(item: Item): item is NestItem {
  return 'items' in item;
}

/** Whether two phrases say the same; where in the text it stood does not count. */
export function samePhrase(a: Phrase, b: Phrase): boolean {
  return canonical(a) === canonical(b);
}

function canonical(phrase: Phrase): string {
  return JSON.stringify(phrase, (key, value: unknown) => {
    if (key === 'span') return undefined;
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
    return Object.fromEntries(Object.entries(value).sort(([x], [y]) => (x < y ? -1 : 1)));
  });
}
