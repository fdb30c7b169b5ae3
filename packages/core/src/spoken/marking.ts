import type { EventMark, Sureness } from '../notation/index.ts';
import type { Draft } from './drafts.ts';
import { isFretAhead, skip, type ActReader } from './hands.ts';
import { fretAt, stringsAt } from './places.ts';
import { SpokenState } from './state.ts';
import type { Act } from './vocabulary.ts';
import type { Word } from './words.ts';

/** A mark of the event that was said, or of the one that is about to be. */
const mark =
  (name: EventMark): ActReader =>
  (state, words, at, next) => {
    const target = targetOf(state, words, next);
    const many = manyBefore(state, words, at);
    if (many) many.forEach((draft) => draft.marks.add(name));
    else if (target) target.marks.add(name);
    else state.ahead.marks.push(name);
    return next;
  };

/** The events of which “all” or “both” was said; undefined where it was not. */
function manyBefore(state: SpokenState, words: readonly Word[], at: number): readonly Draft[] | undefined {
  const before = words[at - 1]?.text;
  if (before === 'all') return state.drafts.slice(state.sentence);
  return before === 'both' ? state.drafts.slice(-2) : undefined;
}

/** The event that something after it is said of; undefined where it is said of the next. */
function targetOf(state: SpokenState, words: readonly Word[], next: number): Draft | undefined {
  if (state.drafts.length > state.clause) return state.last;
  return isFretAhead(words, next) || stringsAt(words, skip(words, next, ['on', 'the', 'note', 'notes']), state.strings)
    ? undefined
    : state.last;
}

/** What is said of the notes themselves. */
const ofNotes =
  (change: (state: SpokenState, draft: Draft | undefined) => void): ActReader =>
  (state, words, _at, next) => {
    change(state, targetOf(state, words, next));
    return next;
  };

const vibrato = (how: 'narrow' | 'wide') =>
  ofNotes((state, draft) => {
    if (!draft) state.ahead.vibrato = how;
    for (const note of draft ? state.notes : []) note.vibrato = how;
  });
const harmonic = (how: 'natural' | 'pinch') =>
  ofNotes((state, draft) => {
    if (!draft || !state.last) state.ahead.harmonic = how;
    for (const note of draft ? state.notes : []) note.harmonic = how;
  });

/** Strokes one after the other: the first is of the event that was said, each more strikes it once more. */
const strokes =
  (name: 'down' | 'up'): ActReader =>
  (state, words, at, next) => {
    const { last } = state;
    const many = manyBefore(state, words, at);
    if (many) {
      many.forEach((draft) => draft.marks.add(name));
      return next;
    }
    // “bend the 7 up a half step” is no stroke.
    if (state.openBend.length > 0) return next;
    const isAhead =
      ['on', 'at'].includes(words[next]?.text ?? '') &&
      state.drafts.length === state.clause &&
      isFretAhead(words, next);
    if (isAhead) state.ahead.marks.push(name);
    if (isAhead || !last) return next;
    if (!last.marks.has('down') && !last.marks.has('up')) {
      last.marks.add(name);
      return next;
    }
    const more: Draft = { ...last, notes: last.notes.map((note) => ({ ...note })), marks: new Set([name]), before: [] };
    delete more.link;
    state.drafts.push(more);
    if (state.pending.includes(last)) state.pending.push(more);
    return next;
  };

const dead: ActReader = (state, words, at, next) => {
  const from = skip(words, next, ['on', 'at', 'of']);
  const said = stringsAt(words, from, state.strings);
  if (said) {
    state.forward = undefined;
    const draft = state.addFret(null, SpokenState.span(words, at, said.next));
    state.pending = state.pending.filter((one) => one !== draft);
    draft.notes = said.strings.map((string) => ({ string, fret: null }));
    return said.next;
  }
  // “with the D muted”: its string was said before.
  return next;
};

const trill: ActReader = (state, words, at, next) => {
  const from = skip(words, next, ['with', 'to', 'the', 'and', 'between']);
  const isOfNext =
    words[next]?.text !== 'with' &&
    words[next]?.text !== 'to' &&
    isFretAhead(words, from) &&
    state.drafts.length === state.clause;
  if (isOfNext) {
    state.isTrilling = true;
    return from;
  }
  const said = fretAt(words, from);
  if (!state.last) return next;
  if (said) {
    for (const note of state.notes) note.trill = said.fret;
    return said.next;
  }
  state.doubt('how far', SpokenState.span(words, at, next), 'Which fret it trills with was not said.');
  return next;
};

/** How sure the last is. */
const sure =
  (sureness: Sureness): ActReader =>
  (state, _words, _at, next) => {
    if (state.last) state.last.sureness = sureness;
    return next;
  };

/** Two or more notes that were said one after the other sound at once. */
const together: ActReader = (state, _words, _at, next) => {
  state.carryTogether();
  return next;
};

export const MARK_READERS = {
  'palm mute': mark('palm-mute'),
  'let ring': mark('let-ring'),
  rake: mark('rake'),
  tremolo: mark('tremolo'),
  accent: mark('accent'),
  cut: mark('cut'),
  quiet: mark('quiet'),
  rolled: mark('rolled'),
  plucked: mark('plucked'),
  thumb: mark('plucked-thumb'),
  pluckIndex: mark('plucked-index'),
  pluckMiddle: mark('plucked-middle'),
  pluckRing: mark('plucked-ring'),
  pluckLittle: mark('plucked-little'),
  vibrato: vibrato('narrow'),
  'wide vibrato': vibrato('wide'),
  harmonic: harmonic('natural'),
  pinch: harmonic('pinch'),
  down: strokes('down'),
  up: strokes('up'),
  ...{ dead, trill, together },
  likely: sure('likely'),
  guess: sure('guess'),
  seen: sure('seen'),
  arranged: sure('arranged'),
  optional: sure('optional'),
  grace: (state, _words, _at, next) => {
    if (state.last) state.last.isGrace = true;
    return next;
  },
  'under barre': (state, words, _at, next) => {
    const said = Number(words[next]?.text);
    if (state.last && Number.isInteger(said)) state.last.barre = said;
    return Number.isInteger(said) ? next + 1 : next;
  },
  let: (state, words, _at, next) => {
    if (isFretAhead(words, next)) state.ahead.marks.push('let-ring');
    return next;
  },
  ring: (state, _words, _at, next) => {
    if (state.last && !state.last.marks.has('let-ring')) state.last.marks.add('let-ring');
    return next;
  },
  barre: (state, _words, _at, next) => {
    state.ahead.barre = true;
    return next;
  },
  octave: (state, _words, _at, next) => {
    state.isOctaves = true;
    state.clause = state.drafts.length;
    return next;
  },
  'together with': (state, words, _at, next) => {
    const strings = stringsAt(words, next, state.strings);
    if (strings && words[strings.next]?.text === 'muted') return next;
    state.carry();
    state.joinsNext = true;
    return next;
  },
} as const satisfies Partial<Record<Act, ActReader>>;
