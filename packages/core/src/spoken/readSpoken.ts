import { readShorthand, type Span } from '../notation/index.ts';
import { HIGHEST_FRET, TUNINGS, type Tuning } from '../pitch/index.ts';
import { readOften, readSame } from './again.ts';
import { draftOf, writeDrafts } from './drafts.ts';
import { HAND_READERS, isFretAhead, isPronoun, sizeAt, sizeBend, skip, targetAt, type ActReader } from './hands.ts';
import { MARK_READERS } from './marking.ts';
import { fingerAt, fretAt, stringsAt } from './places.ts';
import { SpokenState, type Habits, type SpokenDoubt } from './state.ts';
import { ACTS, FINGERS, NUMBERS, TALK, UNREAD, VALUES, type Act } from './vocabulary.ts';
import { numberAt, sayingAt, sayingsOf, wordsOf, type Word } from './words.ts';

/** What is known besides the words. */
export interface SpokenContext {
  /** Names the strings; standard when left out. */
  readonly tuning?: Tuning;
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
  const state = readWords(words, tuning.openMidis.length, context.habits ?? {});
  const strings = tuning.openMidis.length === 6 ? 'letters' : 'numbers';
  if (all.length > MAX_WORDS)
    state.doubt('not understood', SpokenState.span(all, MAX_WORDS, all.length), 'This is too long to be read at once.');
  // A value that was said holds from the next event on.
  for (const { value, before } of state.values) state.drafts[before]?.before.push(`/${value}`);
  const texts = writeDrafts(state.drafts, strings);
  const parts = state.drafts.map(({ span }, index) => ({ words: span, text: texts[index] ?? '' }));
  const shorthand = texts.join(' ');
  const doubts = [...state.doubts, ...offNeck(shorthand, parts, tuning)].map((doubt) => inWords(doubt, text));
  return { shorthand, parts, doubts, stamps: state.stamps };
}

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

const SAID_ACTS = sayingsOf(
  (Object.keys(ACTS) as Act[]).flatMap((act) => ACTS[act].map((said) => [said, act] as const)),
);
const SAID_VALUES = sayingsOf(VALUES);

/** What a few words do, the longest that are found. */
function actAt(words: readonly Word[], at: number): { readonly act: Act; readonly next: number } | undefined {
  const found = sayingAt(words, at, SAID_ACTS);
  return found && { act: found.meaning, next: found.next };
}

const READERS: Readonly<Partial<Record<Act, ActReader>>> = { ...HAND_READERS, ...MARK_READERS };

function readWords(words: readonly Word[], strings: number, habits: Habits): SpokenState {
  const state = new SpokenState(strings, habits);
  let at = 0;
  while (at < words.length) {
    const next = Math.max(readAt(state, words, at), at + 1);
    if (state.openBend.length === 0) state.openSpan = undefined;
    else state.openSpan ??= SpokenState.span(words, at, next);
    at = next;
  }
  state.endSentence();
  if (state.openBend.length > 0) askSize(state);
  return state;
}

/** A bend whose size nobody said. */
function askSize(state: SpokenState): void {
  const isHalf = state.habits['how far'] === HALF.label;
  sizeBend(state, isHalf ? 0.5 : 1);
  if (state.habits['how far'] !== undefined || !state.openSpan) return;
  state.doubt('how far', state.openSpan, 'How far it is bent was not said; a whole step is taken.', [WHOLE, HALF]);
}
const WHOLE = { label: 'a whole step', say: '… a whole step' };
const HALF = { label: 'a half step', say: '… a half step' };

/** Reads what begins at a word. */
function readAt(state: SpokenState, words: readonly Word[], at: number): number {
  const word = words[at];
  if (!word) return at + 1;
  return (
    readStop(state, word, at) ??
    readStamp(state, word, at) ??
    readLabel(words, at) ??
    readCorrection(state, words, at) ??
    readFinger(state, words, at) ??
    readOften(state, words, at) ??
    readSize(state, words, at) ??
    readValue(state, words, at) ??
    readStrings(state, words, at) ??
    readAct(state, words, at) ??
    readFret(state, words, at) ??
    passOver(state, word, at)
  );
}

function readStop(state: SpokenState, word: Word, at: number): number | undefined {
  if (!word.isStop) return undefined;
  if ('.;!?…'.includes(word.raw)) state.endSentence();
  else state.endClause();
  return at + 1;
}

function readStamp(state: SpokenState, word: Word, at: number): number | undefined {
  const [, minutes = '', seconds = ''] = /^\[(\d+):(\d+(?:[.:]\d+)?)\]$/.exec(word.raw) ?? [];
  if (minutes === '') return undefined;
  state.endSentence();
  state.stamps.push({ seconds: Number(minutes) * 60 + Number(seconds.replace(':', '.')), before: state.drafts.length });
  return at + 1;
}

/** What is numbered, and its number no fret: “part two”, “verse one”. */
const NUMBERED = new Set(['part', 'verse', 'chorus', 'section', 'lick', 'phrase', 'solo', 'take', 'number']);

/** “Part two” and “bar 3:” are no frets. */
function readLabel(words: readonly Word[], at: number): number | undefined {
  const said = numberAt(words, at + 1);
  if (!said || said.isOrdinal) return undefined;
  const word = words[at]?.text ?? '';
  if (word === 'bar') return words[said.next]?.raw === ':' ? said.next + 1 : undefined;
  return NUMBERED.has(word) && words[said.next]?.text !== 'on' ? said.next : undefined;
}

/** “eight, sorry, nine”: the later word stands, the first is kept as a doubt. */
function readCorrection(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const found = actAt(words, at);
  if (found?.act !== 'correction') return undefined;
  const from = skip(words, found.next, [',', 'the', 'that', 'is', "that's", 'it', "it's"]);
  const [said, last] = [fretAt(words, from), state.last];
  const strings = said ? undefined : stringsAt(words, from, state.strings);
  if (last && said) {
    const was = last.notes.map(({ fret }) => fret ?? 'x').join(' and ');
    last.notes = last.notes.map((note) => ({ ...note, fret: said.fret }));
    last.span = SpokenState.span(words, at, said.next);
    state.doubt('correction', last.span, `${said.fret} stands; first ${was} was said.`, [
      { label: String(said.fret), say: '…' },
      { label: was, say: '' },
    ]);
    return said.next;
  }
  if (last && strings) {
    const was = last.notes.map(({ string }) => string).join(' and ');
    last.notes = strings.strings.map((string) => ({ ...(last.notes[0] ?? { fret: 0 }), string }));
    state.doubt(
      'correction',
      SpokenState.span(words, at, strings.next),
      `That string stands; first it was ${was}.`,
      [],
    );
    return strings.next;
  }
  return found.next;
}

function readFinger(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const ordinal = fingerAt(words, at);
  const from = skip(words, at, ['with', 'the']);
  const named = FINGERS[words[from]?.text ?? ''];
  const isNamed =
    named !== undefined &&
    (words[from + 1]?.text === 'finger' ||
      ['pinky', 'pinkie'].includes(words[from]?.text ?? '') ||
      (words[from + 1]?.text === 'on' && fretAt(words, from + 2) !== undefined));
  const finger = ordinal?.finger ?? (isNamed ? named : undefined);
  if (finger === undefined) return undefined;
  const next = ordinal ? ordinal.next : words[from + 1]?.text === 'finger' ? from + 2 : from + 1;
  // “ring finger on 7”: the fret comes after it.
  if (words[next]?.text === 'on' && fretAt(words, next + 1)) state.ahead.finger = finger;
  else for (const note of state.notes) note.finger = finger;
  return next;
}

function readSize(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const size = sizeAt(words, at);
  const [bent] = state.openBend;
  const target = bent ? targetAt(words, at) : undefined;
  if (target && bent?.fret !== undefined && bent.fret !== null) {
    sizeBend(state, Math.max(0, target.fret - bent.fret) / 2);
    return target.next;
  }
  if (!size) return undefined;
  const after = actAt(words, size.next);
  if (after?.act === 'bend' || after?.act === 'pre-bend') {
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

function readValue(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const found = sayingAt(words, at, SAID_VALUES);
  if (!found) return undefined;
  state.values.push({ value: found.meaning, before: state.drafts.length });
  return found.next;
}

function readStrings(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const that = words[at]?.text;
  if ((that === 'that' || that === 'same') && words[at + 1]?.text === 'string') {
    const strings = state.drafts
      .findLast(({ notes }) => notes.every(({ string }) => string > 0))
      ?.notes.map(({ string }) => string);
    if (strings) sayStrings(state, strings, words, at, at + 2);
    return at + 2;
  }
  const said = stringsAt(words, at, state.strings);
  if (!said) return undefined;
  const after = words[said.next];
  const isMuted = after && ['muted', 'dead', 'damped'].includes(after.text);
  if (isMuted && state.last && state.pending.length === 0) {
    state.last.notes.push(...said.strings.map((string) => ({ string, fret: null })));
    return said.next + 1;
  }
  if (!said.isEither) sayStrings(state, said.strings, words, at, said.next);
  else {
    // The nearer one is the likelier: to the strings it is named with, or else to the last.
    const others = said.strings.filter((string) => string !== 6);
    const near = others[0] ?? state.drafts.findLast(({ notes }) => (notes[0]?.string ?? 0) > 0)?.notes[0]?.string ?? 6;
    const habit = state.habits['which E'];
    const isThin = habit === undefined ? near <= 3 : habit === 'high E';
    const saidAs = words.slice(at, said.next).map(({ raw }) => raw);
    const choices = (isThin ? ['high E', 'low E'] : ['low E', 'high E']).map((one) => ({
      label: one,
      say: saidAs.map((word) => (/^e$/i.test(word) ? one : word)).join(' '),
    }));
    const span = SpokenState.span(words, at, said.next);
    const says = `Which E was not said; the ${isThin ? 'high' : 'low'} one is taken.`;
    if (habit === undefined) state.doubt('which E', span, says, choices);
    const strings = said.strings.map((string) => (string === 6 && isThin ? 1 : string));
    sayStrings(state, strings, words, at, said.next);
  }
  return said.next;
}

function sayStrings(
  state: SpokenState,
  strings: readonly number[],
  words: readonly Word[],
  at: number,
  next: number,
): void {
  const span = SpokenState.span(words, at, next);
  if (state.pending.length > 0) {
    state.assign(strings, span);
    state.forward = undefined;
    return;
  }
  const { last } = state;
  const [only] = strings;
  const focus = strings.length === 1 ? (last?.notes.findIndex(({ string }) => string === only) ?? -1) : -1;
  // “…, the B bent up a whole step”: one note of a stack.
  if (
    focus >= 0 &&
    (last?.notes.length ?? 0) > 1 &&
    OF_NOTES.has(actAt(words, skip(words, next, ['with', 'as', 'a']))?.act ?? 'then')
  ) {
    state.focus = focus;
    return;
  }
  // “on the D 5, 7 on the G”: the last fret was put on the string before it, but its own follows.
  const from = words[at - 1]?.text === 'the' ? at - 2 : at - 1;
  const isRight = words[from]?.text === 'on' && last !== undefined && last.span.to === words[from - 1]?.span.to;
  const isOwn = isRight && (last.link !== undefined || (state.forward !== undefined && !fretAt(words, next)));
  if (!isOwn) {
    state.forward = strings;
    state.unused = span;
  } else if (new Set(last.notes.map(({ fret }) => fret)).size === strings.length)
    last.notes = last.notes.map((note, index) => ({ ...note, string: strings[index] ?? note.string }));
  else last.notes = strings.map((string) => ({ ...(last.notes[0] ?? { fret: 0 }), string }));
}

/** What can be said of one note of a stack. */
const OF_NOTES: ReadonlySet<Act> = new Set([
  ...([
    'bend',
    'pre-bend',
    'release',
    'vibrato',
    'wide vibrato',
    'harmonic',
    'pinch',
    'trill',
    'held bent',
    'struck bent',
  ] as const),
]);

function readAct(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const found = actAt(words, at);
  if (!found) return undefined;
  const { act } = found;
  let { next } = found;
  if (act === 'then') {
    state.endClause();
    state.isThen = true;
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
    return said.next;
  }
  const { last } = state;
  if (state.isTrilling && last && words[at - 1]?.text === 'with') {
    state.isTrilling = false;
    for (const note of state.notes) note.trill = said.fret;
    return said.next;
  }
  const draft = state.addFret(said.fret, SpokenState.span(words, at, said.next));
  if (state.isThen) draft.isAfterThen = true;
  state.isThen = false;
  return said.next;
}

/** A word that is none of these: talk, or something that should be asked. */
function passOver(state: SpokenState, word: Word, at: number): number {
  const isNumber = /^\d/.test(word.raw) || (NUMBERS[word.text] !== undefined && word.text !== 'one');
  if (!TALK.has(word.text) && /[\p{L}\d]/u.test(word.raw))
    state.strange.push({ word, isTrade: isNumber || UNREAD.has(word.text) });
  return at + 1;
}
