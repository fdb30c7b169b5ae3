import type { ProblemCode } from '@jam-ledger/core/notation';

/** The rule behind a remark, a line that breaks it, and one that keeps it. */
export interface ShorthandRule {
  readonly says: string;
  readonly wrong: string;
  readonly right: string;
}

/** The rule behind every remark of the shorthand. The lines are read by the tests. */
export const SHORTHAND_RULES: Readonly<Record<ProblemCode, ShorthandRule>> = {
  'unknown-item': {
    says: 'Everything typed is a note, a link, a mark, a length, a bar or something in braces. Words stand in quotes.',
    wrong: '/8 5G slowly 7G',
    right: '/8 5G "slowly" 7G',
  },
  'string-missing': {
    says: 'The first note says its string; from there the string stays.',
    wrong: '/8 5 7',
    right: '/8 5G 7',
  },
  'string-or-mark': {
    says: 'A small b behind a fret is a bend, a capital B the string. Where both could be meant it is asked.',
    wrong: '/8 5G 9b',
    right: '/8 5G 9B',
  },
  'shape-changes': {
    says: 'A link moves every string of a stack by as much; “s+2” says how far.',
    wrong: '/8 7A9D s5',
    right: '/8 7A9D s+2',
  },
  'fret-range': { says: 'Frets go from 0 to 36.', wrong: '/8 37G', right: '/8 17G' },
  'same-string-twice': { says: 'A string sounds one note at a time.', wrong: '/8 5G+7G', right: '/8 5D+7G' },
  'link-without-note': { says: 'A link goes on from a note before it.', wrong: '/8 h7', right: '/8 5G h7' },
  'hammer-not-up': { says: 'A hammer-on goes to a higher fret.', wrong: '/8 7G h5', right: '/8 5G h7' },
  'pull-not-down': { says: 'A pull-off goes to a lower fret.', wrong: '/8 5G p7', right: '/8 7G p5' },
  'slide-nowhere': { says: 'A slide goes to another fret.', wrong: '/8 7G s7', right: '/8 7G s9' },
  'release-without-bend': { says: 'Only what is bent can be let down.', wrong: '/8 7Gr', right: '/8 7Gb1r' },
  'bend-on-open-string': {
    says: 'An open string has no finger that could bend it.',
    wrong: '/8 0Gb1',
    right: '/8 2Gb1',
  },
  'bend-too-wide': { says: 'Bends go up to two and a half whole steps.', wrong: '/8 7Gb3', right: '/8 7Gb2' },
  'bend-target': {
    says: 'A bend that names the fret it sounds like names a higher one.',
    wrong: '/8 14eb>12',
    right: '/8 14eb>16',
  },
  'bend-unsized': { says: 'How far a bend goes is said, in whole steps.', wrong: '/8 9Gb?', right: '/8 9Gb1' },
  'bend-whose': {
    says: 'Where several strings are bent, a later move says which.',
    wrong: '/8 12Bb1+12eb1 r',
    right: '/8 12Bb1+12eb1 rB',
  },
  'nothing-bent': {
    says: 'A later move needs a string that still stands bent.',
    wrong: '/8 12B r',
    right: '/8 12Bb1 r',
  },
  'struck-unbent': {
    says: 'Struck again where it stands bent, a string is on the same fret.',
    wrong: '/4 15Bb1 12B^',
    right: '/4 15Bb1 15B^',
  },
  'hammer-from-nowhere': {
    says: 'A hammer-on on another string comes from nowhere: say that it is tapped or struck, where it is.',
    wrong: '/8 5G h14D',
    right: '/8 5G 14D',
  },
  'degree-without-chord': {
    says: 'A degree is one of a chord: say the chord first.',
    wrong: '/8 ^5',
    right: '/8 :Am ^5',
  },
  'not-a-harmonic': {
    says: 'Natural harmonics sound over certain frets, such as 12, 7 and 5.',
    wrong: '/8 6D*',
    right: '/8 7D*',
  },
  'bar-length': {
    says: 'Between bar lines the lengths add up to the meter; the first bar may be a pickup, the last may be short.',
    wrong: '/4 5G 7G 9G 5G 7G | 5G 7G 9G 5G',
    right: '/4 5G 7G 9G 5G | 5G 7G 9G 5G',
  },
  'value-unknown': { says: 'Lengths are 1, 2, 4, 8, 16 and so on.', wrong: '/13 5G', right: '/16 5G' },
  'repeat-unclosed': { says: 'What opens is closed.', wrong: '[/8 5G 7G', right: '[/8 5G 7G]2' },
  'pass-outside-repeat': {
    says: 'A pass is one that the repeat around it has.',
    wrong: '[/8 5G {4: 7G}]3',
    right: '[/8 5G {3: 7G}]3',
  },
  'no-place': { says: 'A note by its name lies within the reach of the guitar.', wrong: "/8 'C--", right: "/8 'C" },
  'ways-differ': {
    says: 'Two ways of one place last equally long.',
    wrong: '/8 {either: 12G 7G // 7B}',
    right: '/8 {either: 12G // 7B}',
  },
  'stamp-backwards': {
    says: 'Stamps of the recording go forward.',
    wrong: '/8 @1:10 5G @1:09 7G',
    right: '/8 @1:09 5G @1:10 7G',
  },
  'too-long': { says: 'A phrase plays at most 10,000 events.', wrong: '/8 5G%5000', right: '/8 5G%50' },
  'chord-unknown': { says: 'Chords are written as in a song book.', wrong: ':Zz /8 5G', right: ':Am /8 5G' },
};

/** A rule by the name of its remark; undefined where there is none. */
export function ruleOf(code: unknown): ShorthandRule | undefined {
  return typeof code === 'string' && Object.hasOwn(SHORTHAND_RULES, code)
    ? SHORTHAND_RULES[code as ProblemCode]
    : undefined;
}
