import type { EventMark, Sureness } from '../notation/index.ts';
import { struckAgain, type Draft, type Shape } from './drafts.ts';
import type { ActReader } from './acts.ts';
import { arm, bend, isFretAhead, sizeAt } from './bends.ts';
import { fretAt, onStringsAt, stringsAt } from './places.ts';
import { SpokenState } from './state.ts';
import type { Act } from './vocabulary.ts';
import { skip, type Word } from './words.ts';

/** A mark of the event that was said, or of the one that is about to be. */
const mark =
  (name: EventMark): ActReader =>
  (state, words, at, next) => {
    const target = targetOf(state, words, next);
    const many = manyBefore(state, words, at, next);
    const isOfAll = ['these', 'all', 'everything', 'the following'].includes(words[next]?.text ?? '');
    if (many) many.forEach((draft) => draft.marks.add(name));
    // “palm mute these: …”.
    else if (isOfAll && state.drafts.length === state.sentence) {
      state.everyMark = name;
      return skip(words, next, ['all', 'of', 'these', 'everything']);
    } else if (target) target.marks.add(name);
    else state.ahead.marks.push(name);
    return next;
  };

/** The events of which “all” or “both” was said; undefined where it was not. */
function manyBefore(
  state: SpokenState,
  words: readonly Word[],
  at: number,
  next: number,
): readonly Draft[] | undefined {
  let from = at - 1;
  while (
    ['one', 'of', 'them', 'note', 'picked', 'played', 'struck', 'with', 'a', 'are', 'is', 'very'].includes(
      words[from]?.text ?? '',
    )
  )
    from -= 1;
  const before = words[from]?.text;
  const after = words[next]?.text;
  if (
    ['all', 'each', 'every'].includes(before ?? '') ||
    after === 'all' ||
    words.slice(at, next).some(({ text }) => text === 'all')
  )
    return state.drafts.slice(state.sentence);
  return before === 'both' || after === 'both' ? state.drafts.slice(-2) : undefined;
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
    const many = manyBefore(state, words, at, next);
    if (many) {
      many.forEach((draft) => draft.marks.add(name));
      return next;
    }
    // “bend the 7 up a half step” and “go up to the ninth” are no strokes.
    if (state.openBend.length > 0 || ['to', 'there', 'here', 'the', 'from'].includes(words[next]?.text ?? ''))
      return next;
    // “seventeen on the B, up a whole step”.
    const size = sizeAt(words, next);
    if (size && name === 'up' && state.drafts.length > state.sentence) return bend(state, words, at, next);
    if (size) return next;
    const isAhead = state.drafts.length === state.clause && isStrokeAhead(state, words, at, next);
    if (isAhead) state.ahead.strokes = [...(state.ahead.strokes ?? []), name];
    if (isAhead || !last) return next;
    if (!last.marks.has('down') && !last.marks.has('up')) {
      last.marks.add(name);
      return next;
    }
    state.strike(last, name);
    return next;
  };

/** Whether a stroke is of what follows: “up on 7”, “down up down on the A”, “a downstroke on”. */
function isStrokeAhead(state: SpokenState, words: readonly Word[], at: number, next: number): boolean {
  if (state.ahead.strokes) return true;
  const after = skip(words, next, ['down', 'up', 'stroke', 'strokes']);
  const isNamed = words.slice(at, after).some(({ text }) => text.includes('stroke'));
  return words[after]?.text === 'on' || (isNamed && isFretAhead(words, after));
}

const dead: ActReader = (state, words, at, next) => {
  const from = skip(words, next, ['on', 'at', 'of']);
  const said = stringsAt(words, skip(words, from, ['the']), state.strings);
  if (said) {
    state.forward = said.strings;
    state.addFret(null, SpokenState.span(words, at, said.next));
    state.forward = undefined;
    return said.next;
  }
  // “with the D muted”: its string was said before.
  return next;
};

const trill: ActReader = (state, words, at, next) => {
  const from = skip(words, next, ['with', 'to', 'the', 'and', 'between']);
  const first = words[next]?.text === 'between' || words[next]?.text === 'from' ? fretAt(words, next + 1) : undefined;
  const second = first && fretAt(words, skip(words, first.next, ['and', 'to', 'with']));
  if (first && second) {
    state.addFret(first.fret, SpokenState.span(words, at, second.next));
    for (const note of state.notes) note.trill = second.fret;
    return second.next;
  }
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

/** Notes that were said as one stack sound one after the other, in the order they were said. */
const apart: ActReader = (state, _words, _at, next) => {
  const { last } = state;
  if (!last || last.notes.length < 2) return next;
  const at = state.drafts.lastIndexOf(last);
  state.drafts.splice(
    at,
    1,
    ...last.notes.map((note): Draft => ({ ...last, notes: [note], marks: new Set(last.marks), before: [] })),
  );
  return next;
};

/** The last of several strokes of an event is spoken of alone. */
const lastOne: ActReader = (state, _words, _at, next) => {
  const { last } = state;
  if (!last || last.times < 2) return next;
  last.times -= 1;
  state.drafts.push({ ...struckAgain(last), times: 1 });
  return next;
};

/** The next fret is the root of a shape. */
const shaped =
  (shape: Shape, isMany = false): ActReader =>
  (state, _words, _at, next) => {
    state.everyShape = { shape, isMany };
    state.ahead.shape = shape;
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
const together: ActReader = (state, words, at, next) => {
  state.carryTogether(words[at]?.text !== 'both');
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
  'same fret': (state, words, at, next) => {
    const fret = state.last?.notes[0]?.fret;
    if (fret != null) state.addFret(fret, SpokenState.span(words, at, next));
    return next;
  },
  grace: (state, words, _at, next) => {
    const target = targetOf(state, words, next);
    if (target) target.isGrace = true;
    else state.ahead.isGrace = true;
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
  stacked: (state, _words, _at, next) => {
    state.stackFrom = state.drafts.length;
    return next;
  },
  wide: (state, _words, _at, next) => {
    for (const note of state.notes) if (note.vibrato) note.vibrato = 'wide';
    return next;
  },
  barre: (state, words, _at, next) => {
    const across = skip(words, next, ['it', 'that', 'across', 'over', 'on']);
    const said = across > next ? stringsAt(words, across, state.strings) : undefined;
    const [note] = state.last?.notes ?? [];
    // “seven on the B, bar it across the G and B”.
    if (said && note?.fret && state.last && words[next]?.text !== 'on') {
      state.last.notes = said.strings.map((string) => ({ ...note, string }));
      state.last.barre = note.fret;
      return said.next;
    }
    state.ahead.barre = true;
    return next;
  },
  apart,
  arm,
  'the high one': (state, _words, _at, next) => {
    state.nameE(1);
    return next;
  },
  'the low one': (state, _words, _at, next) => {
    state.nameE(6);
    return next;
  },
  'the last one': lastOne,
  'power chord': shaped('power'),
  'power chords': shaped('power', true),
  mute: (state, words, at, next) => {
    const said = stringsAt(words, skip(words, next, ['the']), state.strings);
    if (!said) return next;
    state.forward = said.strings;
    state.unused = SpokenState.span(words, at, said.next);
    state.isMuting = true;
    return said.next;
  },
  strike: (state, _words, _at, next) => {
    state.strikeStrings();
    return next;
  },
  'one pick': (state, _words, _at, next) => {
    const own = state.drafts.slice(state.sentence);
    const isSlid = own.some(({ link }) => link === 'slide');
    own.forEach((draft, index) => {
      const [fret, before] = [draft, own[index - 1]].map((one) => one?.notes[0]?.fret ?? 0);
      if (index > 0 && !draft.link) draft.link = isSlid ? 'slide' : (fret ?? 0) > (before ?? 0) ? 'hammer' : 'pull';
    });
    return next;
  },
  sweep: (state, _words, _at, next) => {
    state.sweepFrom = state.clause;
    return next;
  },
  'power chord with octave': shaped('power with octave'),
  unison: (state, words, _at, next) => {
    state.isInPairs = true;
    state.isUnison = true;
    state.clause = state.drafts.length;
    return skip(words, next, [':', ',']);
  },
  every: (state, words, _at, next) => {
    const said = fretAt(words, skip(words, next, ['the']));
    if (!said) return next;
    state.everyFret = said.fret;
    return said.next;
  },
  chug: (state, words, _at, next) => {
    const isOfOpen = state.unused !== undefined;
    if (isOfOpen || !targetOf(state, words, next)) state.ahead.marks.push('palm-mute');
    state.isMuting = false;
    if (isOfOpen) state.openStrings();
    return next;
  },
  octave: (state, words, at, next) => {
    // “octave of 7 on the A”: one note is said, and both are played.
    if (['of', 'at'].includes(words[next]?.text ?? '') && words[at]?.text.startsWith('octave')) {
      state.ahead.shape = 'octave';
      return next + 1;
    }
    state.isInPairs = true;
    state.clause = state.drafts.length;
    return next;
  },
  with: (state, words, _at, next) => {
    // “seven on the A with nine on the G”.
    const said = fretAt(words, next);
    const isStrung = said && onStringsAt(words, said.next, state.strings);
    if (!isStrung || !state.last || state.isTrilling) return next;
    state.carry();
    state.joinsNext = true;
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
