import type { SignRecord } from './signs.ts';

/** A mark of one note of a stack. */
export interface NoteMarkRecord extends SignRecord {
  /** What is typed behind the note; groups hold what it says. */
  readonly pattern: string;
  /** What that can begin with. */
  readonly begins: string;
}

/** A fret, or the name of a pitch. */
const TARGET_PATTERN = String.raw`\d{1,2}|[A-G](?:#|b|n)?`;

/** A height in whole steps as typed: `1`, `.5`, `1½`. */
export const HEIGHT_PATTERN = String.raw`(?:\d{1,2}(?:\.\d{1,2})?|\.\d{1,2})?[¼½¾]?`;

/** What a single note of a stack can bear. Bends are techniques by their height, so that none stands here. */
export const NOTE_MARK_RECORDS = {
  preBend: {
    pattern: `pb(${HEIGHT_PATTERN})`,
    begins: 'p',
    example: '7Gpb1',
    means: 'bent before it is picked',
    sign: '↑ upright',
    legend: 'bent before it is picked',
    technique: { name: 'pre-bend', rank: 31 },
    drill: null,
    hearing: null,
  },
  bend: {
    pattern: String.raw`(full|half)|(bb?)(?:(\?)|(${HEIGHT_PATTERN})>(${TARGET_PATTERN})|(${HEIGHT_PATTERN})(?:-(?=[\d.¼½¾])(${HEIGHT_PATTERN}))?)`,
    begins: 'bfh',
    example: '7Gb1',
    means:
      'bend up by so many whole steps, also `full`, `half`; `bb` slowly, `b>9` to a fret, `b>E` to a name, `b?` not known yet',
    sign: '↑ 1',
    legend: 'bend up by so many whole steps; ½ is one fret',
    technique: null,
    drill: null,
    hearing: null,
  },
  release: {
    pattern: String.raw`(rr?)(?:>(${TARGET_PATTERN})|(${HEIGHT_PATTERN}))`,
    begins: 'r',
    example: '7Gb1r',
    means: 'let down again, to the fret, a height or, `r>16`, the pitch of a fret; `rr` slowly',
    sign: '↓',
    legend: 'the bend is let down',
    technique: { name: 'release', rank: 20 },
    drill: null,
    hearing: null,
  },
  vibrato: {
    pattern: '~~?',
    begins: '~',
    example: '7G~',
    means: 'vibrato; `~~` wide',
    sign: '~',
    legend: 'vibrato; taller waves are wider',
    technique: { name: 'vibrato', rank: 16 },
    drill: 'Straight first, then slow and even turns back to the pitch.',
    hearing: null,
  },
  harmonic: {
    pattern: String.raw`\*p(?![\dxb])|\*`,
    begins: '*',
    example: '12G*',
    means: 'natural harmonic; `*p` a pinched one',
    sign: '‹ ›',
    legend: 'harmonic; P.H. is a pinched one',
    technique: { name: 'natural harmonic', rank: 27 },
    drill: 'Touch right over the fret, and let go at once.',
    hearing: null,
  },
  trill: {
    pattern: String.raw`tr(\d{1,2})`,
    begins: 't',
    example: '7Gtr9',
    means: 'trill with a fret',
    sign: 'tr',
    legend: 'trill with the fret in brackets',
    technique: { name: 'trill', rank: 28 },
    drill: 'Even first, fast later.',
    hearing: null,
  },
  again: {
    pattern: String.raw`\^`,
    begins: '^',
    example: '7Gb1 7G^',
    means: 'struck again while the string stands bent',
    sign: '↑ upright',
    legend: 'struck again while the string stands bent',
    technique: { name: 'picked again while bent', rank: 39 },
    drill: null,
    hearing: null,
  },
  arm: {
    pattern: `w([+-])(${HEIGHT_PATTERN})`,
    begins: 'w',
    example: '7Gw-1',
    means: 'the tremolo arm takes every string down by so many whole steps and back; `w+1` up; several in a row',
    sign: 'v with -1',
    legend: 'the tremolo arm goes down, or up, by so many whole steps and back',
    technique: { name: 'tremolo-arm dip', rank: 42 },
    drill: null,
    hearing: null,
  },
  finger: {
    pattern: 'f([1-4T])(?:&([1-4])|([1-4T]))?',
    begins: 'f',
    example: '7Gf1',
    means: 'fretting finger, 1 index to 4 little, T thumb; `f3&2` with the second behind it, `f34` either of them',
    sign: '1 2 3 4 T',
    legend: 'fretting fingers, 1 index to 4 little; T alone is the thumb or a tap',
    technique: null,
    drill: null,
    hearing: null,
  },
  claim: {
    pattern: '=([A-G](?:#|b|n)?|[b#]?(?:1[0-3]|[1-9]))',
    begins: '=',
    example: '7G=D',
    means: 'said to rest on that note or, `=b7`, that degree of the chord; told where it does not',
    sign: 'nothing',
    legend: 'said to rest on that note',
    technique: null,
    drill: null,
    hearing: null,
  },
} as const satisfies Readonly<Record<string, NoteMarkRecord>>;
/** A mark of one note. */
export type NoteMark = keyof typeof NOTE_MARK_RECORDS;
