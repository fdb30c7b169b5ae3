import type { Link } from '../notation/index.ts';
import type { ActReader } from './acts.ts';
import { bend, preBend, release, saidSizeAt } from './bends.ts';
import type { Draft } from './drafts.ts';
import { movedDraft } from './drafts.ts';
import { fretAt, type SaidFret } from './places.ts';
import { SpokenState } from './state.ts';
import type { Act } from './vocabulary.ts';
import { numberAt, skip, type Word } from './words.ts';

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
    // “pull the 7 on the G off to 5”: the first is what it goes from.
    if (link === 'pull' && isOffAhead(words, from)) return next;
    const isTo = ['to', 'into', 'onto', 'at'].includes(words[from]?.text ?? '');
    const said = fretAt(words, isTo ? skip(words, from + 1, ['the']) : from);
    if (!said) {
      state.slurs.push(link);
      return next;
    }
    const isRun = !isTo && !state.last?.link && fretAt(words, said.next) !== undefined;
    const second =
      !isTo && (isRun || words[said.next]?.text === 'to')
        ? fretAt(words, isRun ? said.next : said.next + 1)
        : undefined;
    state.flushSlurs();
    if (second) {
      state.addFret(said.fret, SpokenState.span(words, at, said.next));
      let next = said.next;
      // “from seven to five to open”.
      for (
        let to: SaidFret | undefined = second;
        to;
        to = isRun || words[next]?.text === 'to' ? fretAt(words, isRun ? next : next + 1) : undefined
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

/** Whether a fret is followed by its string and “off to”. */
function isOffAhead(words: readonly Word[], at: number): boolean {
  let next = fretAt(words, at)?.next ?? words.length;
  while (next < words.length && !words[next]?.isStop && words[next]?.text !== 'off') next += 1;
  return words[next]?.text === 'off' && words[next + 1]?.text === 'to';
}

/** “… off to 5”: from the note that was said last, said once more or not. */
const offTo: ActReader = (state, words, at, next) => {
  const said = fretAt(words, skip(words, next, ['the']));
  const { last } = state;
  const before = state.drafts[state.drafts.length - 2];
  if (!said || !last) return next;
  const isSame = before && before.notes[0]?.fret === last.notes[0]?.fret && !last.link && before.link !== undefined;
  if (isSame) {
    state.drafts.pop();
    state.pending = state.pending.filter((one) => one !== last);
  }
  state.addFret(said.fret, SpokenState.span(words, at, said.next), 'pull');
  return words[said.next]?.text === 'string' ? said.next + 1 : said.next;
};

const slide: ActReader = (state, words, at, next) => {
  let [from, isDown, isUp] = [next, false, false];
  const direction = () => {
    while (
      ['it', 'them', 'that', 'back', 'both', 'the', 'whole', 'thing', 'all', 'way', ...DOWN, ...UP].includes(
        words[from]?.text ?? '',
      )
    ) {
      isDown ||= DOWN.includes(words[from]?.text ?? '');
      isUp ||= UP.includes(words[from]?.text ?? '');
      from += 1;
    }
  };
  direction();
  const word = words[from]?.text ?? '';
  const isFrom = word === 'in' && words[from + 1]?.text === 'from';
  const side = isFrom ? words[from + 2]?.text : words[at - 2]?.text === 'from' ? words[at - 1]?.text : undefined;
  if ((isFrom || word === 'into') && (side === 'above' || side === 'below')) {
    state.ahead.slideIn = side;
    return skip(words, isFrom ? from + 3 : from + 1, ['to', 'into', 'the']);
  }
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
  if (one && goesOn(state, words, one)) return slideTo(state, words, one.next);
  if (one && (fretAt(words, one.next) ?? (words[one.next]?.text === 'to' && fretAt(words, one.next + 1)))) {
    state.addFret(one.fret, SpokenState.span(words, at, one.next));
    return slideTo(state, words, one.next);
  }
  return slideTo(state, words, from);
};

const DOWN = ['down', 'downward', 'downwards'];
const UP = ['up', 'upward', 'upwards'];

/** “hammer seven to nine on the D, slide nine to eleven”: the first fret is the note that sounds already. */
function goesOn(state: SpokenState, words: readonly Word[], { fret, next }: SaidFret): boolean {
  const notes = state.last?.notes ?? [];
  const second = words[next]?.text === 'to' ? fretAt(words, next + 1) : undefined;
  const isSame = notes.length === 1 && notes[0]?.fret === fret && state.drafts.length > state.sentence;
  return second !== undefined && isSame && state.pending.length === 0 && words[second.next]?.text !== 'on';
}

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
  // “slide it to 11 and pick it again there”.
  if (last?.link === 'slide' && words[next]?.text === 'there') {
    last.link = 'shift';
    return next + 1;
  }
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
  'off to': offTo,
  'from above': (state, _words, _at, next) => {
    const at = state.doubts.findLastIndex(({ kind }) => kind === 'slide');
    if (at >= 0) state.doubts.splice(at, 1);
    if (state.last?.slideIn) state.last.slideIn = 'above';
    return next;
  },
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
