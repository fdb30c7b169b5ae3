import type { SignRecord } from './signs.ts';

/** A mark of a whole event. */
export interface MarkRecord extends SignRecord {
  /** What is typed behind the stack or before the colon of a brace; null for what is written by brackets. */
  readonly code: string | null;
  /** What may not follow the code, since it would be read as something else; a pattern. */
  readonly unless: string | null;
  /** Whether it is usual over several events, `{m: … }`. */
  readonly spans: boolean;
  /** How loud it is, 1 for the loudest; null where it is as loud as any. */
  readonly level: number | null;
}

const plucked = (code: string, finger: string, unless: string | null = null) =>
  ({
    code,
    unless,
    spans: false,
    level: null,
    example: `7G${code}`,
    means: `plucked by the ${finger}`,
    sign: code.slice(1),
    legend: `plucked by the ${finger}`,
    technique: { name: 'plucked with fingers', rank: 33 },
    drill: null,
    hearing: null,
  }) as const;

/** Every mark a whole event can bear, in the order they are written. A mark is added here, and drawn. Names: common practice. */
export const MARK_RECORDS = {
  quiet: {
    code: null,
    unless: null,
    spans: false,
    level: 0.4,
    example: '(7G)',
    means: 'quiet',
    sign: '( )',
    legend: 'quiet',
    technique: { name: 'quiet note', rank: 10 },
    drill: null,
    hearing: null,
  },
  'palm-mute': {
    code: 'm',
    unless: null,
    spans: true,
    level: null,
    example: '7Gm',
    means: 'palm mute',
    sign: 'p.m.',
    legend: 'palm mute',
    technique: { name: 'palm mute', rank: 7 },
    drill: 'The side of the hand just at the bridge; pitch still to be heard.',
    hearing: { kind: 'palm mute', says: 'damped by the palm, the pitch still clear' },
  },
  'let-ring': {
    code: 'l',
    unless: null,
    spans: true,
    level: null,
    example: '7Gl',
    means: 'let ring',
    sign: 'ring',
    legend: 'let ring',
    technique: { name: 'let ring', rank: 8 },
    drill: null,
    hearing: { kind: 'ringing', says: 'rings on under what follows' },
  },
  down: {
    code: 'd',
    unless: null,
    spans: false,
    level: null,
    example: '7Gd',
    means: 'down-stroke',
    sign: '⊓',
    legend: 'down-stroke',
    technique: null,
    drill: null,
    hearing: null,
  },
  up: {
    code: 'u',
    unless: null,
    spans: false,
    level: null,
    example: '7Gu',
    means: 'up-stroke',
    sign: 'V',
    legend: 'up-stroke',
    technique: null,
    drill: null,
    hearing: null,
  },
  cut: {
    code: ',',
    unless: null,
    spans: false,
    level: null,
    example: '7G,',
    means: 'cut short',
    sign: '•',
    legend: 'cut short',
    technique: { name: 'cut-off', rank: 11 },
    drill: null,
    hearing: { kind: 'cut-off', says: 'cut off, silent at once' },
  },
  accent: {
    code: '!',
    unless: null,
    spans: false,
    level: 1,
    example: '7G!',
    means: 'accent',
    sign: '>',
    legend: 'accent',
    technique: { name: 'accent', rank: 12 },
    drill: null,
    hearing: null,
  },
  rake: {
    code: 'k',
    unless: null,
    spans: false,
    level: null,
    example: '7Gk',
    means: 'raked into, over muted strings',
    sign: 'rake',
    legend: 'the pick brushes muted strings on its way to the note',
    technique: { name: 'rake', rank: 29 },
    drill: 'The muted strings first, the note last and loudest.',
    hearing: null,
  },
  rolled: {
    code: 'o',
    unless: null,
    spans: false,
    level: null,
    example: '0e1B0Go',
    means: 'rolled, one string after the other',
    sign: 'roll',
    legend: 'rolled: the strings one after the other',
    technique: { name: 'rolled chord', rank: 25 },
    drill: null,
    hearing: null,
  },
  plucked: {
    code: 'q',
    unless: null,
    spans: false,
    level: null,
    example: '7Gq',
    means: 'plucked, by any finger',
    sign: 'f',
    legend: 'plucked with a finger',
    technique: { name: 'plucked with fingers', rank: 33 },
    drill: null,
    hearing: null,
  },
  'plucked-thumb': plucked('qp', 'thumb', '[\\dxb]'),
  'plucked-index': plucked('qi', 'index finger'),
  'plucked-middle': plucked('qm', 'middle finger'),
  'plucked-ring': plucked('qa', 'ring finger'),
  'plucked-little': plucked('qc', 'little finger'),
  tremolo: {
    code: 'z',
    unless: null,
    spans: false,
    level: null,
    example: '7Gz/2',
    means: 'tremolo picking',
    sign: '≡',
    legend: 'tremolo picking, as fast as it goes',
    technique: { name: 'tremolo picking', rank: 40 },
    drill: null,
    hearing: null,
  },
} as const satisfies Readonly<Record<string, MarkRecord>>;
/** A mark a whole event can bear. */
export type EventMark = keyof typeof MARK_RECORDS;
/** All of them, in the order they are written. */
export const EVENT_MARKS = Object.keys(MARK_RECORDS) as readonly EventMark[];

/** How a string can be plucked. */
export type PluckingMark = Extract<EventMark, `plucked${string}`>;

/** Whether a mark says how strings are plucked. */
export function isPlucking(mark: string): mark is PluckingMark {
  return mark.startsWith('plucked');
}

/** The marks by the code that is typed, the longer codes first. */
const CODED: readonly (readonly [code: string, mark: EventMark, unless: string | null])[] = EVENT_MARKS.flatMap(
  (mark) => {
    const { code, unless }: MarkRecord = MARK_RECORDS[mark];
    return code === null ? [] : [[code, mark, unless] as const];
  },
).sort(([a], [b]) => b.length - a.length);
const MARK_OF_CODE = new Map(CODED.map(([code, mark]) => [code, mark]));

/** What is typed for any mark of an event, as a pattern. */
export const MARK_PATTERN = CODED.map(([code, , unless]) => escaped(code) + (unless ? `(?!${unless})` : '')).join('|');
/** Marks that may be said before their note, at the start of a word: one letter or sign each, but for plucking. */
export const SAID_FIRST_PATTERN = `[${CODED.flatMap(([code, mark]) => (code.length > 1 || mark.startsWith('plucked') ? [] : [escaped(code)])).join('')}]`;
/** What may stand before a fret in an event: marks said first, brackets, slides from nowhere. */
export const FRONT_PATTERN = `${SAID_FIRST_PATTERN}*[(<>]?`;
/** What that can begin with. */
export const MARK_BEGINS = [...new Set(CODED.map(([code]) => code.charAt(0)))].join('');

function escaped(text: string): string {
  return text.replace(/[^\w\s]/g, '\\$&');
}

/** The mark a code stands for in a brace head or behind a stack; undefined for any other text. */
export function markOfCode(code: string): EventMark | undefined {
  return MARK_OF_CODE.get(code);
}

/** The code of a mark; the bracketed quiet note has none. */
export function codeOfMark(mark: EventMark): string | undefined {
  return MARK_RECORDS[mark].code ?? undefined;
}

/** How loud an event with some marks is, where they say so: what is louder than usual stands before what is quieter. */
export function levelOfMarks(marks: readonly string[]): number | undefined {
  const levels = EVENT_MARKS.filter((mark) => marks.includes(mark)).flatMap((mark) => MARK_RECORDS[mark].level ?? []);
  return levels.length === 0 ? undefined : Math.max(...levels);
}
