import { LINK_BEGINS } from './linkRecords.ts';
import { MARK_BEGINS, MARK_PATTERN } from './marks.ts';
import { NOTE_MARK_RECORDS, type NoteMark } from './noteMarks.ts';
import { STRING_SIGNS } from './strings.ts';
import { SURENESSES } from './surenesses.ts';

/** Octaves up or down; a plus before a note joins that instead. */
const OCTAVES = `((?:-|\\+(?![\\dx'^?({]|[br][\\d.>¼½¾]*[${STRING_SIGNS}@]))*)`;

const note = (name: NoteMark) => new RegExp(NOTE_MARK_RECORDS[name].pattern, 'y');

/** What an event is made of. The records of marks and links say how those are typed. */
export const PATTERNS = {
  link: new RegExp(`[${LINK_BEGINS}](?=\\d|x|[+-]\\d|'|\\^[b#\\d]|\\?[@${STRING_SIGNS}])`, 'y'),
  /** How many frets a link moves every string of its event. */
  far: /[+-]\d+/y,
  fret: /\d+|x/y,
  letters: new RegExp(`[${STRING_SIGNS}]+`, 'y'),
  numbers: /@(\d+)/y,
  name: new RegExp(`'([A-G][#bn]?)${OCTAVES}`, 'y'),
  degree: new RegExp(`\\^([b#]?(?:1[0-3]|[1-9]))${OCTAVES}`, 'y'),
  /** A string that was not said, and a fret, before its string. */
  unsaid: /@?\?/y,
  unsaidFret: new RegExp(`\\?(?=[@${STRING_SIGNS}])`, 'y'),
  surely: new RegExp(`\\{(${SURENESSES.join('|')}):[ ]*`, 'y'),
  space: / +/y,
  preBend: note('preBend'),
  bend: note('bend'),
  release: note('release'),
  vibrato: note('vibrato'),
  harmonic: note('harmonic'),
  trill: note('trill'),
  again: note('again'),
  arm: note('arm'),
  finger: note('finger'),
  claim: note('claim'),
  mark: new RegExp(MARK_PATTERN, 'y'),
  slideOut: /[<>]/y,
  value: /\/(\d+|[?g])(\.{0,2})(t(?:1[02]|[35679])?)?/y,
  times: /%(\d+)/y,
} as const satisfies Readonly<Record<NoteMark | 'link' | 'mark', RegExp>> & Readonly<Record<string, RegExp>>;
/** A part of an event. */
export type EventPart = keyof typeof PATTERNS;

/** What a match of each pattern can begin with; most places of a word need no pattern tried at all. */
export const FIRST: Readonly<Record<EventPart, string>> = {
  link: LINK_BEGINS,
  far: '+-',
  fret: '0123456789x',
  letters: STRING_SIGNS,
  numbers: '@',
  name: "'",
  degree: '^',
  unsaid: '@?',
  unsaidFret: '?',
  surely: '{',
  space: ' ',
  preBend: NOTE_MARK_RECORDS.preBend.begins,
  bend: NOTE_MARK_RECORDS.bend.begins,
  release: NOTE_MARK_RECORDS.release.begins,
  vibrato: NOTE_MARK_RECORDS.vibrato.begins,
  harmonic: NOTE_MARK_RECORDS.harmonic.begins,
  trill: NOTE_MARK_RECORDS.trill.begins,
  again: NOTE_MARK_RECORDS.again.begins,
  arm: NOTE_MARK_RECORDS.arm.begins,
  finger: NOTE_MARK_RECORDS.finger.begins,
  claim: NOTE_MARK_RECORDS.claim.begins,
  mark: MARK_BEGINS,
  slideOut: '<>',
  value: '/',
  times: '%',
};

/** The parts of an event in the order in which the reader tries them, each as a pattern: what else shows them reads them alike. */
export const EVENT_PARTS: readonly (readonly [part: EventPart, pattern: string])[] = (
  [
    'name',
    'degree',
    'preBend',
    'bend',
    'trill',
    'link',
    'release',
    'vibrato',
    'harmonic',
    'again',
    'arm',
    'finger',
    'claim',
    'mark',
    'value',
    'times',
    'numbers',
    'letters',
    'fret',
    'unsaid',
    'slideOut',
  ] as const
).map((part) => [part, part === 'link' ? `${PATTERNS.link.source}(?:${PATTERNS.far.source})?` : PATTERNS[part].source]);

const FRACTIONS: Readonly<Record<string, number>> = { '¼': 0.25, '½': 0.5, '¾': 0.75 };

/** Heights may not be written above this, whole steps; it only keeps slips from sounding absurd. Our choice. */
export const HIGHEST_STEPS = 12;

/** A height in whole steps as typed, `1`, `.5`, `1½`; undefined when nothing stands there. */
export function readSteps(text: string | undefined): number | undefined {
  if (!text) return undefined;
  const fraction = FRACTIONS[text.slice(-1)];
  const whole = Number((fraction === undefined ? text : text.slice(0, -1)) || 0);
  return Math.min(HIGHEST_STEPS, whole + (fraction ?? 0));
}
