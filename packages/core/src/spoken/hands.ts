import type { Link } from '../notation/index.ts';
import type { Draft } from './drafts.ts';
import { movedDraft } from './drafts.ts';
import { fretAt, type SaidFret } from './places.ts';
import { SpokenState } from './state.ts';
import { SIZES, STEPS, type Act } from './vocabulary.ts';
import { numberAt, sayingAt, sayingsOf, type Word } from './words.ts';

/** What hands do, read at some words: the number of the word to go on at. */
export type ActReader = (state: SpokenState, words: readonly Word[], at: number, next: number) => number;

/** Past some words. */
export const skip = (words: readonly Word[], at: number, said: readonly string[]): number => {
  let next = at;
  while (said.includes(words[next]?.text ?? '')) next += 1;
  return next;
};
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
      [taken, ...ways.filter((one) => one !== taken)].map((one) => ({ label: one, say: one })),
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
  state.doubt('how far', state.openSpan, `How far it is bent was not said; ${taken.label} is taken.`, [
    taken,
    ...usual.filter((one) => one !== taken),
  ]);
}

/** Writes a bend of so many steps to a note; undefined for a size that is still to be said. */
function bendNotes(state: SpokenState, steps: number | undefined): void {
  askSize(state);
  for (const note of state.notes) note.moves = [...(note.moves ?? []), { kind: 'bend', steps: steps ?? 0 }];
  state.openBend = steps === undefined ? state.notes : [];
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

const bend: ActReader = (state, words, at, next) => {
  // “the last note is a bend: 15 …”.
  if (words[next]?.text === ':') {
    state.ahead.bend = { steps: undefined, isPre: false };
    return next + 1;
  }
  let from = skip(words, next, IT);
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
  if (isOfNext || !note) {
    state.ahead.bend = { steps: size?.steps, isPre: false };
    return skip(words, after, ['at', 'on', 'of', 'from']);
  }
  if (target && note.fret !== null) {
    bendNotes(state, Math.max(0, target.fret - note.fret) / 2);
    return target.next;
  }
  bendNotes(state, size?.steps);
  return after;
};

const preBend: ActReader = (state, words, at, next) => {
  const from = skip(words, next, IT);
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

const release: ActReader = (state, words, at, next) => {
  const bent = state.notes.filter(({ preBend: pre, moves, held, again: more }) => pre ?? moves ?? held ?? more);
  const from = skip(words, next, ['halfway', 'only', 'partly', 'just']);
  const to = words[from]?.text === 'to' ? saidSizeAt(state, words, from + 1) : undefined;
  for (const note of bent) note.moves = [...(note.moves ?? []), { kind: 'release', steps: to?.steps ?? 0 }];
  if (to && bent.length > 0) return to.next;
  // “then back down to the low E” lets nothing down.
  if (bent.length === 0 && words[at]?.text !== 'back')
    state.doubt('nothing before', SpokenState.span(words, at, next), 'Nothing is bent here that could be let down.');
  return next;
};

/** Hammer-ons, pull-offs and taps: to the fret that follows, between two that follow, or among those before. */
const slur =
  (link: Link): ActReader =>
  (state, words, at, next) => {
    const from = skip(words, next, [
      'it',
      'from',
      'on',
      'off',
      'back',
      'down',
      'up',
      'again',
      'the',
      ...(link === 'tap' ? [':'] : []),
    ]);
    const isTo = ['to', 'into', 'onto', 'at'].includes(words[from]?.text ?? '');
    const said = fretAt(words, isTo ? skip(words, from + 1, ['the']) : from);
    if (!said) {
      state.slurs.push(link);
      return next;
    }
    const second = !isTo && words[said.next]?.text === 'to' ? fretAt(words, said.next + 1) : undefined;
    state.flushSlurs();
    if (second) {
      state.addFret(said.fret, SpokenState.span(words, at, said.next));
      let next = said.next;
      // “from seven to five to open”.
      for (
        let to: SaidFret | undefined = second;
        to;
        to = words[next]?.text === 'to' ? fretAt(words, next + 1) : undefined
      ) {
        state.addFret(to.fret, SpokenState.span(words, next, to.next), link);
        next = to.next;
      }
      return next;
    }
    const begins = link === 'tap';
    if (!state.last && !begins)
      state.doubt(
        'nothing before',
        SpokenState.span(words, at, said.next),
        'There is no note before this to go on from.',
      );
    state.addFret(said.fret, SpokenState.span(words, at, said.next), state.last || begins ? link : undefined);
    return said.next;
  };

const slide: ActReader = (state, words, at, next) => {
  let [from, isDown, isUp] = [next, false, false];
  const direction = () => {
    while (
      ['it', 'them', 'that', 'back', 'both', 'the', 'whole', 'thing', ...DOWN, ...UP].includes(words[from]?.text ?? '')
    ) {
      isDown ||= DOWN.includes(words[from]?.text ?? '');
      isUp ||= UP.includes(words[from]?.text ?? '');
      from += 1;
    }
  };
  direction();
  const word = words[from]?.text ?? '';
  if (word === 'into' || (word === 'in' && words[from + 1]?.text === 'to')) {
    const habit = state.habits.slide;
    state.ahead.slideIn = isDown || (!isUp && habit === 'from above') ? 'above' : 'below';
    if (habit === undefined && !isDown && !isUp && words[from + 1]?.text !== 'from')
      state.doubt(
        'slide',
        SpokenState.span(words, at, from + 1),
        'From below or from above was not said; below is taken.',
        ['below', 'above'].map((from) => ({
          label: `from ${from}`,
          say: `slide ${from === 'below' ? 'up' : 'down'} into`,
        })),
      );
    return from + 1;
  }
  if (['away', 'off', 'out'].includes(word)) {
    from += 1;
    direction();
    const out = isUp ? 'up' : 'down';
    const isOf = words[from]?.text === 'from' || words[from]?.text === 'of';
    if (isOf || fretAt(words, from)) {
      state.ahead.slideOut = out;
      return isOf ? from + 1 : from;
    }
    if (state.last) state.last.slideOut = out;
    return from;
  }
  const by = numberAt(words, from);
  if (by && words[by.next]?.text.startsWith('fret') && !by.isOrdinal && state.last) {
    const after = words[by.next + 1]?.text;
    const isBack = isDown || after === 'down' || after === 'lower';
    const moved = movedDraft(state.last, 0, isBack ? -by.value : by.value);
    state.drafts.push({ ...plainOf(moved), link: 'slide', span: SpokenState.span(words, at, by.next + 1) });
    return skip(words, by.next + 1, ['up', 'down', 'higher', 'lower']);
  }
  if (word === 'from') {
    from += 1;
    const one = fretAt(words, from);
    if (!one) return from;
    state.addFret(one.fret, SpokenState.span(words, at, one.next));
    return words[one.next]?.text === 'to' || words[one.next]?.text === 'up' || words[one.next]?.text === 'down'
      ? slideTo(state, words, skip(words, one.next, ['up', 'down']))
      : one.next;
  }
  const one = word === 'to' ? undefined : fretAt(words, from);
  if (one && words[one.next]?.text === 'to' && fretAt(words, one.next + 1)) {
    state.addFret(one.fret, SpokenState.span(words, at, one.next));
    return slideTo(state, words, one.next);
  }
  return slideTo(state, words, from);
};

const DOWN = ['down', 'downward', 'downwards'];
const UP = ['up', 'upward', 'upwards'];

/** The target of a slide, as many frets as the stack before it has. */
function slideTo(state: SpokenState, words: readonly Word[], at: number): number {
  const from = skip(words, at, ['to', 'the']);
  const frets: number[] = [];
  let next = from;
  const before = state.last;
  const many = new Set(before?.notes.map(({ fret }) => fret)).size;
  for (let said = fretAt(words, next); said && frets.length < Math.max(1, many); said = fretAt(words, next)) {
    frets.push(said.fret);
    next = said.next;
    if (words[next]?.text === 'and' && frets.length < many) next += 1;
  }
  const [first] = frets;
  if (first === undefined) {
    state.slurs.push('slide');
    return Math.max(at, from);
  }
  if (!before) state.ahead.slideIn = 'below';
  const draft = state.addFret(first, SpokenState.span(words, at, next), before ? 'slide' : undefined);
  if (before && frets.length === before.notes.length && frets.length > 1)
    draft.notes = before.notes.map(({ string }, index) => ({ string, fret: frets[index] ?? first }));
  return next;
}

/** An event of which only the places are kept. */
function plainOf(draft: Draft): Draft {
  return {
    span: draft.span,
    notes: draft.notes.map(({ string, fret }) => ({ string, fret })),
    marks: new Set(),
    times: 1,
    before: [],
  };
}

const again: ActReader = (state, words, at, next) => {
  const { last } = state;
  const [note] = state.notes;
  const height = note?.moves?.at(-1)?.steps ?? note?.preBend;
  if (!last || !note) return next;
  const once = plainOf(last);
  const [struck] = once.notes;
  if (struck && height !== undefined && height > 0) struck.again = height;
  state.drafts.push({ ...once, span: SpokenState.span(words, at, next) });
  return next;
};

/** How high a string stands bent that is not struck, or that is struck again. */
const standing =
  (how: 'held' | 'again'): ActReader =>
  (state, words, _at, next) => {
    const size = saidSizeAt(state, words, next);
    if (!size) return next;
    for (const note of state.notes) note[how] = size.steps;
    return size.next;
  };

/** “fall off the 12”: its last word is where a slide goes. */
const away: ActReader = (state, words, at, next) => slide(state, words, at, next - 1);

/** The readers of what changes notes and their links. */
export const HAND_READERS = {
  hammer: slur('hammer'),
  pull: slur('pull'),
  tap: slur('tap'),
  'held bent': standing('held'),
  'struck bent': standing('again'),
  ...{ slide, away, bend, release, again, 'pre-bend': preBend },
  'from nowhere': (state, _words, _at, next) => {
    const { last } = state;
    if (!last) return next;
    if (last.link === 'slide') delete last.link;
    last.slideIn = 'below';
    return next;
  },
  shift: (state, _words, _at, next) => {
    if (state.last?.link === 'slide') state.last.link = 'shift';
    return next;
  },
} as const satisfies Partial<Record<Act, ActReader>>;
