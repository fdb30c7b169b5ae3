import type { ActReader } from './acts.ts';
import { takenFirst } from './doubts.ts';
import { fretAt } from './places.ts';
import { SpokenState } from './state.ts';
import { SIZES, STEPS } from './vocabulary.ts';
import { numberAt, sayingAt, sayingsOf, skip, type Word } from './words.ts';

const IT = [
  'it',
  'that',
  'this',
  'them',
  'those',
  'one',
  'note',
  'up',
  'the',
  'again',
  'slowly',
  'by',
  'both',
  'already',
  'last',
];

/** Past what is bent, up to where a size begins: “one and a half steps” is one. */
function skipIt(words: readonly Word[], at: number): number {
  let next = at;
  while (IT.includes(words[next]?.text ?? '') && !sizeAt(words, next)) next += 1;
  return next;
}

const SAID_SIZES = sayingsOf<number | 'a step'>([...SIZES, ...STEPS.map((said) => [said, 'a step'] as const)]);

/** How far a bend goes, as it was said. */
export interface SaidSize {
  readonly steps: number;
  readonly next: number;
  /** Whether it was a step, and nobody said whether whole or half. */
  readonly isAnyStep?: true;
}

/** A size of a bend in words. */
export function sizeAt(words: readonly Word[], at: number): SaidSize | undefined {
  const found = sayingAt(words, at, SAID_SIZES);
  if (!found) return undefined;
  const { meaning: steps, next } = found;
  if (steps === 'a step') return { steps: 1, next, isAnyStep: true };
  return { steps, next: words[next]?.text === 'step' ? next + 1 : next };
}

/** A size, and “a step” as it is likeliest meant; that is asked. */
export function saidSizeAt(state: SpokenState, words: readonly Word[], at: number): SaidSize | undefined {
  const size = sizeAt(words, at);
  if (!size?.isAnyStep) return size;
  const ways = ['a whole step', 'a half step'] as const;
  const habit = state.habits['a step'];
  const taken = habit ?? ways[state.pick([0, 1.5])] ?? ways[0];
  if (habit === undefined)
    state.doubt(
      'a step',
      SpokenState.span(words, at, size.next),
      `“A step” can be a whole or a half one; ${taken} is taken.`,
      takenFirst(taken, ways).map((one) => ({ label: one, say: one })),
    );
  return { steps: taken === 'a half step' ? 0.5 : 1, next: size.next };
}

/** What “one” can follow where it is a number: “then one on the A”, “zero, one, three”. */
const BEFORE_ONE = new Set([
  'then',
  'and',
  'to',
  'fret',
  'from',
  'at',
  'on',
  'off',
  'hammer',
  'of',
  'string',
  'with',
  'play',
  'hit',
]);

/** Whether “one” speaks of something, and is no number: “a nice one”, “the last one”. */
export function isPronoun(words: readonly Word[], at: number): boolean {
  const before = words[at - 1];
  if (words[at]?.text !== 'one' || !before || before.isStop) return false;
  return !BEFORE_ONE.has(before.text) && !numberAt(words, at - 1) && words[at + 1]?.text !== 'on';
}

/** Whether a fret comes before the clause ends. */
export function isFretAhead(words: readonly Word[], at: number): boolean {
  for (let next = at; next < words.length && !words[next]?.isStop; next += 1) {
    if (words[next]?.text === 'then') return false;
    if (fretAt(words, next) && !sizeAt(words, next) && !isPronoun(words, next)) return true;
  }
  return false;
}

/** “to the pitch of the 16th fret”, “up to the sixteenth”: how high that is above a fret, whole steps. */
export function targetAt(
  words: readonly Word[],
  at: number,
): { readonly fret: number; readonly next: number } | undefined {
  let next = skip(words, at, ['up']);
  if (words[next]?.text !== 'to') return undefined;
  next = skip(words, next + 1, ['the', 'pitch', 'of', 'sound']);
  const said = fretAt(words, next);
  return said && { fret: said.fret, next: said.next };
}

const WHOLE = { label: 'a whole step', say: '… a whole step' };
const HALF = { label: 'a half step', say: '… a half step' };

/** A bend whose size nobody said gets the likelier one; that is asked. */
export function askSize(state: SpokenState): void {
  if (state.openBend.length === 0) return;
  const habit = state.habits['how far'];
  const usual = [WHOLE, HALF];
  const taken = habit === undefined ? (usual[state.pick([0, 2])] ?? WHOLE) : habit === HALF.label ? HALF : WHOLE;
  sizeBend(state, taken === HALF ? 0.5 : 1);
  if (habit !== undefined || !state.openSpan) return;
  state.doubt(
    'how far',
    state.openSpan,
    `How far it is bent was not said; ${taken.label} is taken.`,
    takenFirst(taken, usual),
  );
}

/** Writes a bend of so many steps to a note; undefined for a size that is still to be said. */
function bendNotes(state: SpokenState, steps: number | undefined, how: { readonly slow?: true } = {}): void {
  askSize(state);
  for (const note of state.notes) note.moves = [...(note.moves ?? []), { kind: 'bend', steps: steps ?? 0, ...how }];
  state.openBend = steps === undefined ? state.notes : [];
}

/** “…, both a half step”: the two notes of a stack, or the last two events. */
export function bendBoth(state: SpokenState, steps: number): void {
  const { last } = state;
  const both = last && last.notes.length > 1 ? [last] : state.drafts.slice(-2);
  for (const { notes } of both) for (const note of notes) note.moves = [{ kind: 'bend', steps }];
}

/** The size of the bend that waits for one. */
export function sizeBend(state: SpokenState, steps: number): boolean {
  const notes = state.openBend;
  state.openBend = [];
  for (const note of notes) {
    if (note.preBend === 0) note.preBend = steps;
    else
      note.moves =
        note.moves?.map((move) => (move.kind === 'bend' && move.steps === 0 ? { ...move, steps } : move)) ?? [];
  }
  return notes.length > 0;
}

/** Whether “slowly” stands before what is done. */
const slowly = (words: readonly Word[], at: number) =>
  words[at - 1]?.text === 'slowly' ? ({ slow: true } as const) : {};

/** How far the tremolo arm takes the last event, one way after the other; “down” where only a size is said. */
export const arm: ActReader = (state, words, at, next) => {
  const heights: number[] = [];
  let from = next;
  for (;;) {
    const way = skip(words, from, ['and', ',', 'it', 'then', 'that', 'by']);
    const isWay = ['up', 'down'].includes(words[way]?.text ?? '');
    const size = sizeAt(words, isWay ? way + 1 : way);
    if (!size) break;
    heights.push(words[way]?.text === 'up' ? size.steps : -size.steps);
    from = size.next;
  }
  if (heights.length === 0)
    state.doubt(
      'how far',
      SpokenState.span(words, at, next),
      'How far the arm goes was not said; a whole step down is taken.',
      [
        { label: 'a whole step', say: '… down a whole step' },
        { label: 'a half step', say: '… down a half step' },
      ],
    );
  if (state.last) state.last.arm = heights.length === 0 ? [-1] : heights;
  return skip(words, from, ['and', 'back']);
};

export const bend: ActReader = (state, words, at, next) => {
  // “the last note is a bend: 15 …”.
  if (words[next]?.text === ':') {
    state.ahead.bend = { steps: undefined, isPre: false };
    return next + 1;
  }
  let from = skipIt(words, next);
  // “bend that seven”.
  const isPointed = ['that', 'this', 'last'].includes(words[from - 1]?.text ?? '');
  const named = isPointed ? fretAt(words, from) : undefined;
  if (named && state.notes[0]?.fret === named.fret) from = named.next;
  const size = saidSizeAt(state, words, from);
  const isObject = from > next && ['it', 'that', 'them', 'this'].includes(words[next]?.text ?? '');
  const after = size ? size.next : from;
  const target = targetAt(words, after);
  const [note] = state.notes;
  const isOfNext =
    !isObject &&
    words[at]?.text !== 'bent' &&
    !target &&
    isFretAhead(words, after) &&
    !(size && state.drafts.length > state.clause);
  if (!note && isObject) {
    state.doubt(
      'nothing before',
      SpokenState.span(words, at, after),
      'There is no note before this that could be bent.',
    );
    return after;
  }
  // “5 on the G, 5 on the B, both bent a half step”.
  if (words[at - 1]?.text === 'both' && size && state.last?.notes.length === 1) {
    bendBoth(state, size.steps);
    return size.next;
  }
  if (isOfNext || !note) {
    state.ahead.bend = { steps: size?.steps, isPre: false };
    return skip(words, after, ['at', 'on', 'of', 'from']);
  }
  if (target && note.fret !== null) {
    bendNotes(state, Math.max(0, target.fret - note.fret) / 2);
    return target.next;
  }
  bendNotes(state, size?.steps, slowly(words, at));
  return after;
};

export const preBend: ActReader = (state, words, at, next) => {
  const from = skipIt(words, next);
  const size = saidSizeAt(state, words, from);
  const after = size ? size.next : from;
  const isOfLast =
    state.drafts.length > state.clause ||
    (size !== undefined && words[at]?.text === 'pre' && words[at + 1]?.text === 'bent');
  if (state.last && isOfLast && !isFretAhead(words, after)) {
    for (const note of state.notes) note.preBend = size?.steps ?? 0;
    if (!size) state.openBend = state.notes;
    return after;
  }
  state.ahead.bend = { steps: size?.steps, isPre: true };
  return after;
};

export const release: ActReader = (state, words, at, next) => {
  const bent = state.notes.filter(({ preBend: pre, moves, held, again: more }) => pre ?? moves ?? held ?? more);
  const from = skip(words, next, ['halfway', 'only', 'partly', 'just']);
  const to = words[from]?.text === 'to' ? saidSizeAt(state, words, from + 1) : undefined;
  for (const note of bent)
    note.moves = [...(note.moves ?? []), { kind: 'release', steps: to?.steps ?? 0, ...slowly(words, at) }];
  if (to && bent.length > 0) return to.next;
  // “then back down to the low E” lets nothing down.
  if (bent.length === 0 && words[at]?.text !== 'back')
    state.doubt('nothing before', SpokenState.span(words, at, next), 'Nothing is bent here that could be let down.');
  return next;
};
