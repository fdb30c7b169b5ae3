/** What a piece is: a hard spot alone, part of a phrase, a phrase, a seam between two, or phrases played through. */
export const PIECE_KINDS = ['drill', 'half', 'phrase', 'join', 'run'] as const;
/** One of the `PIECE_KINDS`. */
export type PieceKind = (typeof PIECE_KINDS)[number];

/** In which order pieces are learned. */
export const LEARNING_SCHOOLS = ['front to back', 'alone, then joined', 'hardest first'] as const;
/** One of the `LEARNING_SCHOOLS`. */
export type LearningSchool = (typeof LEARNING_SCHOOLS)[number];

/** A stretch of a phrase as it is played, ticks; `to` null is its end. */
export interface Excerpt {
  readonly phraseId: string;
  readonly from: number;
  readonly to: number | null;
}

/** What a piece is cut from: one stretch, or several played on. */
export interface Cut {
  readonly kind: PieceKind;
  readonly parts: readonly Excerpt[];
}

/** A phrase as far as cutting goes. Phrases stand in the order of the song. Lengths in ticks as played. */
export interface CutPhrase {
  readonly id: string;
  readonly sectionId: string;
  readonly length: number;
  readonly bars: number;
  /** Where it falls into two, best by a rest or a bar line; null where it does not. */
  readonly middle: number | null;
  /** The hard spot with the beat around it; null where it is not shorter than half the phrase. */
  readonly hard: { readonly from: number; readonly to: number } | null;
  /** Where its first bars end and its last bars begin, for a seam. */
  readonly headTo: number;
  readonly tailFrom: number;
  /** 0 to 100. */
  readonly difficulty: number;
}

/** From these difficulties and lengths on a phrase is halved, and its hard spot drilled. Our choice. */
const CUT_FROM = { halvesDifficulty: 45, halvesBars: 4, drillDifficulty: 40 } as const;

/** Two phrases no longer than this together are joined whole, else across the seam alone, bars. Our choice. */
const WHOLE_JOIN_BARS = 6;

/** A text that is the same for the same cut, and for no other. */
export function cutKey({ kind, parts }: Cut): string {
  return `${kind} ${parts.map(({ phraseId, from, to }) => `${phraseId}:${from}-${to ?? ''}`).join(' ')}`;
}

/** A cut in words: `Riff`, `Riff, first half`, `Riff into Solo`, `Riff through Outro`. */
export function sayCut({ kind, parts }: Cut, nameOf: (phraseId: string) => string): string {
  const [first, last] = [parts[0], parts.at(-1)];
  if (!first || !last) return '';
  const name = nameOf(first.phraseId);
  if (kind === 'phrase') return name;
  if (kind === 'half') return `${name}, ${first.from === 0 ? 'first' : 'second'} half`;
  if (kind === 'drill') return `${name}, the hard spot`;
  return `${name} ${kind === 'join' ? 'into' : 'through'} ${nameOf(last.phraseId)}`;
}

/** A whole phrase. */
export function wholePhrase(phraseId: string): Excerpt {
  return { phraseId, from: 0, to: null };
}

/** The two halves of a phrase; none where it does not fall into two. */
export function halvesOf({ id, middle }: CutPhrase): readonly Cut[] {
  if (middle === null) return [];
  return [
    { kind: 'half', parts: [{ phraseId: id, from: 0, to: middle }] },
    { kind: 'half', parts: [{ phraseId: id, from: middle, to: null }] },
  ];
}

/** The hard spot of a phrase; none where it has no spot of its own. */
export function drillOf({ id, hard }: CutPhrase): readonly Cut[] {
  return hard === null ? [] : [{ kind: 'drill', parts: [{ phraseId: id, ...hard }] }];
}

/** One phrase into the next: both whole where they are short, else from the last bars of one into the first of the other. */
export function joinOf(a: CutPhrase, b: CutPhrase): Cut {
  if (a.bars + b.bars <= WHOLE_JOIN_BARS) return { kind: 'join', parts: [wholePhrase(a.id), wholePhrase(b.id)] };
  return {
    kind: 'join',
    parts: [
      { phraseId: a.id, from: a.tailFrom, to: null },
      { phraseId: b.id, from: 0, to: b.headTo >= b.length ? null : b.headTo },
    ],
  };
}

/** Phrases played through. */
export function runOf(phrases: readonly CutPhrase[]): Cut {
  return { kind: 'run', parts: phrases.map(({ id }) => wholePhrase(id)) };
}

/**
 * The practice pieces of a song in the order they are learned, by school. Every phrase is there, its halves and its hard spot
 * where it is long or hard, every seam between neighbours, and the whole from the top.
 *
 * Front to back: each phrase is added to all before it in its section, sections are added to all before them. Alone, then
 * joined: all phrases, then pairs, halves and the whole of each section, then of the song. Hardest first: phrases by
 * difficulty, a seam as soon as both sides are there. At most about three pieces a phrase besides halves and hard spots.
 *
 * Source: the schools as common practice, the lengths our choice.
 */
export function cutPieces(phrases: readonly CutPhrase[], school: LearningSchool): readonly Cut[] {
  const made = CUTTERS[school](phrases);
  const seen = new Set<string>();
  return made.filter((cut) => {
    // A run of two that is a whole join already says nothing new.
    const key = cutKey(cut).replace(/^(join|run) /, 'on ');
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

const CUTTERS: Readonly<Record<LearningSchool, (phrases: readonly CutPhrase[]) => readonly Cut[]>> = {
  'front to back': frontToBack,
  'alone, then joined': aloneThenJoined,
  'hardest first': hardestFirst,
};

/** The hard spot, the halves, and the phrase itself. */
function alone(phrase: CutPhrase): readonly Cut[] {
  const { difficulty, bars, hard, middle } = phrase;
  const drill = hard !== null && difficulty >= CUT_FROM.drillDifficulty ? drillOf(phrase) : [];
  const long = bars >= CUT_FROM.halvesBars || difficulty >= CUT_FROM.halvesDifficulty;
  const halves = middle !== null && long ? halvesOf(phrase) : [];
  return [...drill, ...halves, { kind: 'phrase', parts: [wholePhrase(phrase.id)] }];
}

function sectionsOf(phrases: readonly CutPhrase[]): readonly (readonly CutPhrase[])[] {
  const sections: CutPhrase[][] = [];
  for (const phrase of phrases) {
    const last = sections.at(-1);
    if (last?.[0]?.sectionId === phrase.sectionId) last.push(phrase);
    else sections.push([phrase]);
  }
  return sections;
}

function frontToBack(phrases: readonly CutPhrase[]): readonly Cut[] {
  const made: Cut[] = [];
  let done: CutPhrase[] = [];
  for (const section of sectionsOf(phrases)) {
    section.forEach((phrase, index) => {
      made.push(...alone(phrase));
      const before = index > 0 ? section[index - 1] : done.at(-1);
      if (before) made.push(joinOf(before, phrase));
      if (index > 0) made.push(runOf(section.slice(0, index + 1)));
    });
    const first = done.length === 0;
    done = [...done, ...section];
    if (!first) made.push(runOf(done));
  }
  return made;
}

function aloneThenJoined(phrases: readonly CutPhrase[]): readonly Cut[] {
  const sections = sectionsOf(phrases);
  const joined = sections.flatMap((section) => pairUp(section.map((phrase) => [phrase])));
  return [...phrases.flatMap(alone), ...joined, ...pairUp(sections)];
}

/** Pairs, pairs of pairs and so on until all is one: the seam of each, then both played through. */
function pairUp(groups: readonly (readonly CutPhrase[])[]): readonly Cut[] {
  if (groups.length < 2) return [];
  const made: Cut[] = [];
  const next: (readonly CutPhrase[])[] = [];
  for (let index = 0; index < groups.length; index += 2) {
    const [a, b] = [groups[index] ?? [], groups[index + 1] ?? []];
    const [end, begin] = [a.at(-1), b[0]];
    if (end && begin) made.push(joinOf(end, begin), runOf([...a, ...b]));
    next.push([...a, ...b]);
  }
  return [...made, ...pairUp(next)];
}

function hardestFirst(phrases: readonly CutPhrase[]): readonly Cut[] {
  const made: Cut[] = [];
  const there = new Set<string>();
  const byHardness = phrases.toSorted((a, b) => b.difficulty - a.difficulty);
  for (const phrase of byHardness) {
    made.push(...alone(phrase));
    there.add(phrase.id);
    const at = phrases.indexOf(phrase);
    const [before, after] = [phrases[at - 1], phrases[at + 1]];
    if (before && there.has(before.id)) made.push(joinOf(before, phrase));
    if (after && there.has(after.id)) made.push(joinOf(phrase, after));
  }
  let done: CutPhrase[] = [];
  for (const section of sectionsOf(phrases)) {
    if (section.length > 1) made.push(runOf(section));
    const first = done.length === 0;
    done = [...done, ...section];
    if (!first) made.push(runOf(done));
  }
  return made;
}
