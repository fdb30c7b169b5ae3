import { eventsOf, readShorthand, type Span } from '../notation/index.ts';
import { HIGHEST_FRET, TUNINGS, type Key, type Tuning } from '../pitch/index.ts';
import { actAt, type ActReader } from './acts.ts';
import { readGroup, readOften, readSame, readSameNote } from './again.ts';
import { readCorrection } from './correcting.ts';
import { endSentence } from './endings.ts';
import { draftOf, writeDrafts, type Draft } from './drafts.ts';
import { askSize, bendBoth, isFretAhead, isPronoun, saidSizeAt, sizeAt, sizeBend, targetAt } from './bends.ts';
import { HAND_READERS } from './hands.ts';
import { readChord } from './naming.ts';
import { lastStringOf, likeliest, weigher } from './likely.ts';
import { MARK_READERS } from './marking.ts';
import { fingerAt, fretAt, onStringsAt, stringsAt } from './places.ts';
import type { Habits, SpokenDoubt } from './doubts.ts';
import { SpokenState, type SpokenSetup } from './state.ts';
import { readStrings } from './stringing.ts';
import { readTime } from './timing.ts';
import { FINGERS, IN_A_ROW, NUMBERED, NUMBERS, ORDINALS, TALK, UNREAD, type Act } from './vocabulary.ts';
import { numberAt, skip, wordsOf, type Word } from './words.ts';

/** What is known besides the words. */
export interface SpokenContext {
  /** Names the strings; standard when left out. */
  readonly tuning?: Tuning;
  /** What the line is in, and over which chord: of two readings the likelier is taken. */
  readonly key?: Key;
  readonly chord?: string;
  /** Shorthand that stands before the words. */
  readonly before?: string;
  readonly habits?: Habits;
}

/** A piece of shorthand and the words it comes from. */
export interface SpokenPart {
  readonly words: Span;
  readonly text: string;
}

/** Words read as notes. */
export interface SpokenReading {
  /** The shorthand of all that was understood; empty for none. */
  readonly shorthand: string;
  readonly parts: readonly SpokenPart[];
  readonly doubts: readonly SpokenDoubt[];
  /** Stamps that were said, and the number of the part that follows each. Seconds. */
  readonly stamps: readonly { readonly seconds: number; readonly before: number }[];
}

/** More words and stops are not read at once; they are left, and told. Our choice. */
const MAX_WORDS = 250_000;

/**
 * Reads what a teacher says of a phrase as shorthand. Any text at all is read; what might say something and was not understood is a
 * doubt at its place.
 */
export function readSpoken(text: string, context: SpokenContext = {}): SpokenReading {
  const tuning = context.tuning ?? TUNINGS.standard;
  const all = wordsOf(text);
  const words = all.slice(0, MAX_WORDS);
  const before = lastOf(context.before ?? '');
  const { openMidis } = tuning;
  const setup = { openMidis, habits: context.habits ?? {}, before: lastStringOf(before, tuning) };
  if (isShorthand(text, tuning)) return asShorthand(text);
  const chord = context.chord === undefined ? [] : [`:${context.chord}`];
  const around = { tuning, ...(context.key && { key: context.key }), before: [before, ...chord].join(' ') };
  const state = readWords(words, setup, weigher(around));
  const strings = tuning.openMidis.length === 6 ? 'letters' : 'numbers';
  if (all.length > MAX_WORDS)
    state.doubts.push({
      ...{ kind: 'not understood', span: SpokenState.span(all, MAX_WORDS, all.length), choices: [] },
      says: 'This is too long to be read at once.',
    });
  // A value that was said holds from the next event on.
  for (const { value, before } of state.values) state.drafts[before]?.before.push(`/${value}`);
  const texts = writeDrafts(state.drafts, strings);
  const parts = state.drafts.map(({ span }, index) => ({ words: span, text: texts[index] ?? '' }));
  const shorthand = texts.join(' ');
  const doubts = [...state.doubts, ...offNeck(shorthand, parts, tuning)].map((doubt) => inWords(doubt, text));
  return { shorthand, parts, doubts, stamps: state.stamps };
}

/** Whether a text is shorthand already: it reads as such, has signs that nobody says, and no words. */
function isShorthand(text: string, tuning: Tuning): boolean {
  const bare = text.replaceAll(/"[^"]*"|\{\w+:|#.*|:\S+|\w+=\S+/g, ' ');
  if (!/(?:^|\s)(?:\/\d|\||[hpsSt]\d|\(?\d+[EADGBe]+[^\sEADGBe])/.test(bare) || /[a-z]{4}/i.test(bare)) return false;
  const { problems, phrase } = readShorthand(text, { tuning });
  return (
    eventsOf(phrase).length > 0 && !problems.some(({ severity, code }) => severity === 'error' && code !== 'bar-length')
  );
}

function asShorthand(text: string): SpokenReading {
  const shorthand = text.trim();
  const span = { from: 0, to: text.length };
  const says = 'This is shorthand already; it stands as it is.';
  return {
    shorthand,
    parts: [{ words: span, text: shorthand }],
    doubts: [{ kind: 'not understood', span, says, choices: [] }],
    stamps: [],
  };
}

/** The last items of a piece of shorthand, as many as can matter. */
const lastOf = (text: string): string => text.trim().split(/\s+/).slice(-TAIL).join(' ');

/** So many of the last events stand around what is said next. Our choice. */
const TAIL = 12;

/** A doubt whose choices say what would stand in the place of its words. */
function inWords(doubt: SpokenDoubt, text: string): SpokenDoubt {
  const words = text.slice(doubt.span.from, doubt.span.to);
  return { ...doubt, choices: doubt.choices.map(({ label, say }) => ({ label, say: say.replace('…', words) })) };
}

/** What the shorthand itself cannot be: frets beyond every neck. */
function offNeck(shorthand: string, parts: readonly SpokenPart[], tuning: Tuning): readonly SpokenDoubt[] {
  if (shorthand === '') return [];
  const { problems } = readShorthand(shorthand, { tuning });
  return problems.flatMap(({ severity, message, span, code }): SpokenDoubt[] => {
    if (severity !== 'error' || code === 'bar-length') return [];
    let at = 0;
    const part = parts.find(({ text }) => {
      at += text.length + 1;
      return span.from < at;
    });
    return [{ kind: 'fret', span: part?.words ?? { from: 0, to: 0 }, says: message, choices: [] }];
  });
}

const READERS: Readonly<Partial<Record<Act, ActReader>>> = {
  ...HAND_READERS,
  ...MARK_READERS,
  'same note': readSameNote,
};

/** Of fewer words nobody can tell which language they are. Our choice. */
const FEWEST = 6;

/** What was read of the sentences before; nothing that is said later changes it. */
interface Settled {
  readonly drafts: Draft[];
  readonly doubts: SpokenDoubt[];
  readonly stamps: SpokenReading['stamps'][number][];
  readonly values: SpokenState['values'];
}

/** Reads sentence by sentence, each in its likeliest way. */
function readWords(words: readonly Word[], setup: SpokenSetup, weigh: (state: SpokenState) => number): Settled {
  const settled: Settled = { drafts: [], doubts: [], stamps: [], values: [] };
  let state = new SpokenState(setup);
  for (let from = 0; from < words.length;) {
    const to = endOfStretch(words, from);
    const start = state;
    state = likeliest((script) => readStretch(start.fork(script), words, from, to), weigh);
    settle(state, settled);
    from = state.at;
  }
  askSize(state);
  settle(state, settled, 0);
  if (settled.drafts.length === 0 && words.length >= FEWEST && state.unknown > words.length / 2)
    settled.doubts.push({
      ...{ kind: 'not understood', span: SpokenState.span(words, 0, words.length), choices: [] },
      says: 'Hardly a word of this is known; words are read in English.',
    });
  return settled;
}

/** The number of the word after the stop that ends a sentence; of a long one, after a comma or “then”. */
function endOfStretch(words: readonly Word[], from: number): number {
  let at = from;
  const isEnd = (word: Word | undefined) => at - from > LONG && (word?.raw === ',' || word?.text === 'then');
  while (at < words.length && at - from < LONGEST && !ENDS.includes(words[at]?.raw ?? '') && !isEnd(words[at])) at += 1;
  return Math.min(words.length, at + 1);
}
const ENDS = '.;!?…';

/** A sentence of more words is read in stretches, and of so many events only the last are gone back to. Our choice. */
const LONG = 60;
const LONGEST = 90;
const MAX_TAIL = 60;

function readStretch(state: SpokenState, words: readonly Word[], from: number, to: number): SpokenState {
  let at = from;
  while (at < to) {
    const next = Math.max(readAt(state, words, at), at + 1);
    if (state.openBend.length === 0) state.openSpan = undefined;
    else state.openSpan ??= SpokenState.span(words, at, next);
    at = next;
  }
  state.at = at;
  if (to === words.length) endSentence(state);
  // “Bend it. A whole step.”
  const isEnd = to === words.length || ENDS.includes(words[to - 1]?.raw ?? '');
  if (isEnd && !sizeAt(words, to)) askSize(state);
  return state;
}

/** What no later word changes is put aside, so that each sentence is read among a few events only. */
function settle(state: SpokenState, settled: Settled, tail = TAIL): void {
  const { drafts, doubts, stamps, values } = state;
  const whole = drafts.findLastIndex(({ isRest, notes }) => !isRest && notes.every(({ string }) => string > 0));
  const kept = Math.max(drafts.length - MAX_TAIL, Math.min(drafts.length - tail, state.before, whole));
  const count = tail === 0 ? drafts.length : Math.max(0, kept);
  const earlier = settled.drafts.length;
  const later = <T extends { readonly before: number }>(one: T): T => ({ ...one, before: one.before + earlier });
  settled.doubts.push(...doubts.splice(0));
  settled.stamps.push(...stamps.splice(0).map(later));
  settled.values.push(...values.splice(0).map(later));
  settled.drafts.push(...drafts.splice(0, count));
  state.earlier += count;
  state.before = Math.max(0, state.before - count);
  state.sentence = Math.max(0, state.sentence - count);
  state.clause = Math.max(0, state.clause - count);
}

/** Reads what begins at a word. */
function readAt(state: SpokenState, words: readonly Word[], at: number): number {
  const word = words[at];
  if (!word) return at + 1;
  return (
    readStop(state, word, at) ??
    readStamp(state, word, at) ??
    readLabel(words, at) ??
    readCorrection(state, words, at) ??
    readGroup(state, words, at) ??
    readFinger(state, words, at) ??
    readOften(state, words, at) ??
    readSize(state, words, at) ??
    readTime(state, words, at) ??
    readChord(state, words, at) ??
    readStrings(state, words, at) ??
    readAct(state, words, at) ??
    readFret(state, words, at) ??
    passOver(state, word, at)
  );
}

function readStop(state: SpokenState, word: Word, at: number): number | undefined {
  if (!word.isStop) return undefined;
  if (ENDS.includes(word.raw)) endSentence(state);
  else state.endClause();
  return at + 1;
}

function readStamp(state: SpokenState, word: Word, at: number): number | undefined {
  const [, minutes = '', seconds = ''] = /^\[(\d+):(\d+(?:[.:]\d+)?)\]$/.exec(word.raw) ?? [];
  if (minutes === '') return undefined;
  endSentence(state);
  state.stamps.push({ seconds: Number(minutes) * 60 + Number(seconds.replace(':', '.')), before: state.drafts.length });
  return at + 1;
}

/** “Part two”, “bar 3:” and “the fifth position” are no frets. */
function readLabel(words: readonly Word[], at: number): number | undefined {
  const place = words[at + 1]?.text ?? '';
  if (ORDINALS[words[at]?.text ?? ''] !== undefined && place !== 'finger' && IN_A_ROW.includes(place)) return at + 2;
  const said = numberAt(words, at + 1);
  if (!said || said.isOrdinal) return undefined;
  const word = words[at]?.text ?? '';
  if (word === 'bar') return words[said.next]?.raw === ':' ? said.next + 1 : undefined;
  return NUMBERED.includes(word) && words[said.next]?.text !== 'on' ? said.next : undefined;
}

function readFinger(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const ordinal = fingerAt(words, at);
  const from = skip(words, at, ['with', 'the', 'your', 'my']);
  const isWith = words[at]?.text === 'with';
  const named = FINGERS[words[from]?.text ?? ''];
  const isNamed =
    named !== undefined &&
    (words[from + 1]?.text === 'finger' ||
      (isWith && (words[from + 1] === undefined || words[from + 1]?.isStop)) ||
      ['pinky', 'pinkie'].includes(words[from]?.text ?? '') ||
      (['on', 'over'].includes(words[from + 1]?.text ?? '') && fretAt(words, from + 2) !== undefined));
  const finger = ordinal?.finger ?? (isNamed ? named : undefined);
  if (finger === undefined) return undefined;
  const next = ordinal ? ordinal.next : words[from + 1]?.text === 'finger' ? from + 2 : from + 1;
  // “ring finger on 7”, “with your first finger 5 on the B”: the fret comes after it.
  const isFirst = state.drafts.length === state.clause && isFretAhead(words, next);
  if (isFirst || (words[next]?.text === 'on' && fretAt(words, next + 1))) state.ahead.finger = finger;
  else if (words[words[at - 1]?.text === 'the' ? at - 2 : at - 1]?.text === 'or')
    for (const note of state.notes) note.fingerOr = finger;
  else if (words[next]?.text === 'behind') {
    for (const note of state.notes) note.fingerBehind = finger;
    return skip(words, next, ['behind', 'it']);
  } else for (const note of state.notes) note.finger = finger;
  return next;
}

/** Whether a size is one of a bend that is said, or about to be. */
function isSizeHere(state: SpokenState, words: readonly Word[], at: number): boolean {
  const size = sizeAt(words, at);
  const act = size && actAt(words, size.next)?.act;
  return (
    size !== undefined &&
    (state.openBend.length > 0 || words[at - 1]?.text === 'both' || act === 'bend' || act === 'pre-bend')
  );
}

function readSize(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const size = isSizeHere(state, words, at) ? saidSizeAt(state, words, at) : undefined;
  const [bent] = state.openBend;
  const target = bent ? targetAt(words, at) : undefined;
  if (target && bent?.fret !== undefined && bent.fret !== null) {
    sizeBend(state, Math.max(0, target.fret - bent.fret) / 2);
    return target.next;
  }
  if (!size) return undefined;
  // “…, both a half step”.
  const isStack = (state.last?.notes.length ?? 0) > 1;
  if (words[at - 1]?.text === 'both' && (isStack || state.openBend.length === 0)) {
    bendBoth(state, size.steps);
    state.openBend = [];
    return size.next;
  }
  const after = actAt(words, size.next);
  if (after?.act === 'bend' || after?.act === 'pre-bend') {
    if (sizeBend(state, size.steps)) return after.next;
    const isOfLast = !isFretAhead(words, after.next);
    if (isOfLast && state.last) {
      for (const note of state.notes) {
        if (after.act === 'bend') note.moves = [...(note.moves ?? []), { kind: 'bend', steps: size.steps }];
        else note.preBend = size.steps;
      }
    } else state.ahead.bend = { steps: size.steps, isPre: after.act === 'pre-bend' };
    return skip(words, after.next, ['at', 'on', 'of', 'from']);
  }
  return sizeBend(state, size.steps) ? size.next : undefined;
}

function readAct(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const found = actAt(words, at);
  if (!found) return undefined;
  const { act } = found;
  let { next } = found;
  if (act === 'then') {
    state.endClause();
    state.isThen = true;
    state.isBreak = words[at - 1]?.text === ',';
    return next;
  }
  if (act === 'without') {
    while (next < words.length && !words[next]?.isStop) next += 1;
    return next;
  }
  if (act === 'the same') return readSame(state, words, at, next);
  if (act === 'rest') {
    state.carry();
    state.drafts.push({ ...draftOf([], SpokenState.span(words, at, next)), isRest: true });
    return next;
  }
  const reader = READERS[act];
  return reader ? reader(state, words, at, next) : next;
}

function readFret(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const count = numberAt(words, at);
  const dead = count && !count.isOrdinal ? actAt(words, count.next) : undefined;
  // “three dead notes on the D”: how many.
  if (count && dead?.act === 'dead') {
    state.ahead.times = count.value;
    return count.next;
  }
  // “one downstroke on 5”: how many.
  const isStroke = dead && (dead.act === 'down' || dead.act === 'up') && words[dead.next - 1]?.text.includes('stroke');
  if (count && isStroke) {
    state.ahead.strokes = Array.from({ length: Math.min(count.value, 99) }, () => dead.act as 'down' | 'up');
    return dead.next;
  }
  // “four open low Es”: how many, of an open string.
  if (count && !count.isOrdinal && words[count.next]?.text === 'open') {
    const strings = stringsAt(words, count.next + 1, state.strings);
    if (strings?.isPlural) {
      state.ahead.times = count.value;
      return count.next;
    }
  }
  const said = isPronoun(words, at) ? undefined : fretAt(words, at);
  if (!said) return undefined;
  if (said.fret > HIGHEST_FRET) {
    const span = SpokenState.span(words, at, said.next);
    state.doubt('fret', span, `No neck has a fret ${said.fret}; nothing is written for it.`);
    // Its string goes with it.
    return onStringsAt(words, said.next, state.strings)?.next ?? said.next;
  }
  // “not the 5, the 7”.
  const from = words[at - 1]?.text === 'the' ? at - 2 : at - 1;
  if (words[from]?.text === 'not') {
    const span = SpokenState.span(words, from, said.next);
    state.doubt('correction', span, `${said.fret} was said not to be played; it is not written.`);
    return said.next;
  }
  const { last } = state;
  if (state.isTrilling && last && ['with', 'and', 'to'].includes(words[at - 1]?.text ?? '')) {
    state.isTrilling = false;
    for (const note of state.notes) note.trill = said.fret;
    return said.next;
  }
  const { link } = last ?? {};
  const to =
    words[at - 1]?.text === 'from' && words[said.next]?.text === 'to' ? fretAt(words, said.next + 1) : undefined;
  // “slide from 3 to 5, then from 5 to 7”.
  if (to && link) {
    state.addFret(said.fret, SpokenState.span(words, at, said.next));
    state.addFret(to.fret, SpokenState.span(words, said.next, to.next), link);
    return to.next;
  }
  // “a harmonic at 12 on the E, then at 12 on the A”.
  const { harmonic } = last?.notes[0] ?? {};
  if (harmonic && words[at - 1]?.text === 'at' && state.drafts.length > state.sentence) state.ahead.harmonic = harmonic;
  // “11, bent up, back to 11”.
  const [bent] = last?.notes ?? [];
  const isBack = words[at - 1]?.text === 'to' && words[at - 2]?.text === 'back' && bent?.fret === said.fret;
  if (isBack && bent.moves?.at(-1)?.kind === 'bend' && last?.notes.length === 1) {
    bent.moves = [...bent.moves, { kind: 'release', steps: 0 }];
    return said.next;
  }
  // “on the D five, seven, then five and seven on the G”: a run that its string follows.
  if (state.forward && isRunAhead(state, words, said.next)) state.forward = undefined;
  // “power chords at 5 and 7”, “a power chord at 5, then at 7”.
  const { everyShape } = state;
  if (everyShape && (everyShape.isMany || words[at - 1]?.text === 'at')) state.ahead.shape ??= everyShape.shape;
  const draft = state.addFret(said.fret, SpokenState.span(words, at, said.next));
  if (said.next === at + 1) draft.isBare = true;
  if (words[at - 1]?.text === 'to') draft.isTo = true;
  if (state.isThen) draft.isAfterThen = true;
  if (state.isBreak) draft.isAfterBreak = true;
  state.isThen = false;
  state.isBreak = false;
  return said.next;
}

/** Whether more frets follow, joined by nothing or “and”, and then the string of all of them. */
function isRunAhead(state: SpokenState, words: readonly Word[], at: number): boolean {
  let next = at;
  let more = fretAt(words, skip(words, next, ['and']));
  if (!more) return false;
  for (; more; more = fretAt(words, skip(words, next, ['and']))) next = more.next;
  const strings = onStringsAt(words, next, state.strings);
  return strings !== undefined && !fretAt(words, strings.next);
}

/** A word that is none of these: talk, or something that should be asked. */
function passOver(state: SpokenState, word: Word, at: number): number {
  const isNumber = /^\d/.test(word.raw) || (NUMBERS[word.text] !== undefined && word.text !== 'one');
  const known = state.habits['not understood']?.split(' ') ?? [];
  if (!TALK.has(word.text) && !known.includes(word.text) && /[\p{L}\d]/u.test(word.raw))
    state.strange.push({ word, isTrade: isNumber || UNREAD.has(word.text) });
  return at + 1;
}
