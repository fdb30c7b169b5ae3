import type { SignRecord } from './signs.ts';

/** A mark of one note of a stack. */
export interface NoteMarkRecord extends SignRecord {
  /** What is typed behind the note; groups hold what it says. */
  readonly pattern: string;
  /** What that can begin with. */
  readonly begins: string;
}

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
    pattern: String.raw`(bb?)(?:(\?)|>(\d{1,2})|(${HEIGHT_PATTERN})(?:-(?=[\d.¼½¾])(${HEIGHT_PATTERN}))?)`,
    begins: 'b',
    example: '7Gb1',
    means: 'bend up by so many whole steps; `bb` slowly, `b>9` to the pitch of a fret, `b?` not known yet',
    sign: '↑ 1',
    legend: 'bend up by so many whole steps; ½ is one fret',
    technique: null,
    drill: null,
    hearing: null,
  },
  release: {
    pattern: `(rr?)(${HEIGHT_PATTERN})`,
    begins: 'r',
    example: '7Gb1r',
    means: 'let down again, to the fret or to a height; `rr` slowly',
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
  dip: {
    pattern: `w-(${HEIGHT_PATTERN})`,
    begins: 'w',
    example: '7Gw-1',
    means: 'dip of the tremolo arm by so many whole steps',
    sign: 'v with -1',
    legend: 'the tremolo arm dips by so many whole steps',
    technique: { name: 'tremolo-arm dip', rank: 42 },
    drill: null,
    hearing: null,
  },
  finger: {
    pattern: 'f([1-4T])',
    begins: 'f',
    example: '7Gf1',
    means: 'fretting finger, 1 index to 4 little, T thumb',
    sign: '1 2 3 4 T',
    legend: 'fretting fingers, 1 index to 4 little; T alone is the thumb or a tap',
    technique: null,
    drill: null,
    hearing: null,
  },
} as const satisfies Readonly<Record<string, NoteMarkRecord>>;
/** A mark of one note. */
export type NoteMark = keyof typeof NOTE_MARK_RECORDS;
