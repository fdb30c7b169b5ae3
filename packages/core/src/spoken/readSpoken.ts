import { readShorthand, type Span } from '../notation/index.ts';
import { HIGHEST_FRET, TUNINGS, type Key, type Tuning } from '../pitch/index.ts';
import { writeDrafts } from './drafts.ts';
import { HAND_READERS, isFretAhead, isPronoun, sizeAt, sizeBend, skip, targetAt, type ActReader } from './hands.ts';
import { MARK_READERS } from './marking.ts';
import { fingerAt, fretAt, stringsAt } from './places.ts';
import { SpokenState, type Decide, type SpokenDoubt } from './state.ts';
import { ACTS, FINGERS, NUMBERS, OFTEN, TALK, UNREAD, VALUES, type Act } from './vocabulary.ts';
import { matchAt, numberAt, wordsOf, type Word } from './words.ts';

/** What is known besides the words. */
export interface SpokenContext {
  readonly tuning?: Tuning;
  readonly key?: Key;
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

/** More words are not read at once; they are left, and told. Our choice. */
const MAX_WORDS = 100_000;

/**
 * Reads what a teacher says of a phrase as shorthand. Any text at all is read; what might say something and was not understood is a
 * doubt at its place.
 */
export function readSpoken(text: string, context: SpokenContext = {}): SpokenReading {
  const tuning = context.tuning ?? TUNINGS.standard;
  const words = wordsOf(text).slice(0, MAX_WORDS);
  const state = readWords(words, tuning.openMidis.length, FIRST_WAY);
  const strings = tuning.openMidis.length === 6 ? 'letters' : 'numbers';
  const texts = writeDrafts(state.drafts, strings);
  const parts = state.drafts.map(({ span }, index) => ({ words: span, text: texts[index] ?? '' }));
  const shorthand = texts.join(' ');
  return { shorthand, parts, doubts: [...state.doubts, ...offNeck(shorthand, parts, tuning)], stamps: state.stamps };
}

const FIRST_WAY: Decide = (kind) => (kind === 'string' ? -1 : 0);

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

/** Every few words that do something, the longest first. */
const SAID_ACTS: readonly (readonly [said: string, act: Act])[] = (Object.keys(ACTS) as Act[])
  .flatMap((act) => ACTS[act].map((said) => [said, act] as const))
  .toSorted(([a], [b]) => b.split(' ').length - a.split(' ').length || b.length - a.length);
const ACTS_BY_WORD = new Map<string, (readonly [said: string, act: Act])[]>();
for (const one of SAID_ACTS) {
  const [first = ''] = one[0].split(' ');
  ACTS_BY_WORD.set(first, [...(ACTS_BY_WORD.get(first) ?? []), one]);
}

function actAt(words: readonly Word[], at: number): { readonly act: Act; readonly next: number } | undefined {
  for (const [said, act] of ACTS_BY_WORD.get(words[at]?.text ?? '') ?? []) {
    const count = matchAt(words, at, said);
    if (count > 0) return { act, next: at + count };
  }
  return undefined;
}

const READERS: Readonly<Partial<Record<Act, ActReader>>> = { ...HAND_READERS, ...MARK_READERS };

function readWords(words: readonly Word[], strings: number, decide: Decide): SpokenState {
  const state = new SpokenState(strings, decide);
  let at = 0;
  while (at < words.length) {
    const next = readAt(state, words, at);
    at = Math.max(next, at + 1);
  }
  state.endSentence();
  if (state.openBend.length > 0) askSize(state, { from: words.at(-1)?.span.from ?? 0, to: words.at(-1)?.span.to ?? 0 });
  return state;
}

function askSize(state: SpokenState, span: Span): void {
  sizeBend(state, 1);
  state.doubt('how far', span, 'How far it is bent was not said; a whole step is taken.', [
    'a whole step',
    'a half step',
  ]);
}

/** Reads what begins at a word. */
function readAt(state: SpokenState, words: readonly Word[], at: number): number {
  const word = words[at];
  if (!word) return at + 1;
  return (
    readStop(state, word, at) ??
    readStamp(state, word, at) ??
    readBarLabel(words, at) ??
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

/** “Bar 3:” is no fret. */
function readBarLabel(words: readonly Word[], at: number): number | undefined {
  if (words[at]?.text !== 'bar') return undefined;
  const said = numberAt(words, at + 1);
  return said && words[said.next]?.raw === ':' ? said.next + 1 : undefined;
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
    state.doubt('correction', last.span, `${said.fret} stands; first ${was} was said.`, [String(said.fret), was]);
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

/** How often is said: “twice”, “three times”, “two more times”, “once more”. */
function oftenAt(
  words: readonly Word[],
  at: number,
): { readonly times: number; readonly isMore: boolean; readonly next: number } | undefined {
  const once = OFTEN[words[at]?.text ?? ''];
  if (once !== undefined) {
    const isMore = words[at + 1]?.text === 'more';
    return { times: once, isMore, next: isMore ? at + 2 : at + 1 };
  }
  const said = numberAt(words, at);
  if (!said || said.isOrdinal) return undefined;
  const isMore = words[said.next]?.text === 'more';
  const place = isMore ? said.next + 1 : said.next;
  return words[place]?.text === 'times' || words[place]?.text === 'time'
    ? { times: said.value, isMore, next: place + 1 }
    : undefined;
}

function readOften(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const often = oftenAt(words, at);
  if (!often) return undefined;
  const { last } = state;
  if (last) last.times = often.isMore ? last.times + often.times : often.times;
  return often.next;
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
  for (const [said, value] of VALUES) {
    const count = matchAt(words, at, said);
    if (count === 0) continue;
    state.values.push({ value, before: state.drafts.length });
    return at + count;
  }
  return undefined;
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
    // The nearer one is the likelier.
    const isThin = (state.drafts.findLast(({ notes }) => (notes[0]?.string ?? 0) > 0)?.notes[0]?.string ?? 6) <= 3;
    const choices = isThin ? ['high E', 'low E'] : ['low E', 'high E'];
    const span = SpokenState.span(words, at, said.next);
    state.doubt('which E', span, `Which E was not said; the ${isThin ? 'high' : 'low'} one is taken.`, choices);
    sayStrings(state, [isThin ? 1 : 6], words, at, said.next);
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
    state.drafts.push({
      span: SpokenState.span(words, at, next),
      notes: [],
      marks: new Set(),
      times: 1,
      before: [],
      isRest: true,
    });
    return next;
  }
  const reader = READERS[act];
  return reader ? reader(state, words, at, next) : next;
}

/** “do that twice”, “the same again one string thinner”, “all of that once more”. */
function readSame(state: SpokenState, words: readonly Word[], at: number, next: number): number | undefined {
  const isAll = words[at]?.text === 'all' || words[at + 1]?.text === 'all';
  let [from, more] = [skip(words, next, [',', 'again', 'but', 'and']), 1];
  const often = oftenAt(words, from);
  if (often) {
    more = often.isMore ? often.times : Math.max(0, often.times - 1);
    from = often.next;
  } else if (words[at]?.text === 'and') return undefined;
  from = skip(words, from, [',', 'just', 'but', 'a', 'moved']);
  const move = { strings: 0, frets: 0 };
  const said = numberAt(words, from);
  const unit = said ? words[said.next]?.text : undefined;
  if (said && unit?.startsWith('string')) {
    const side = words[said.next + 1]?.text ?? '';
    move.strings = ['thinner', 'down', 'higher'].includes(side) ? -said.value : said.value;
    if (side === 'up' || side === 'down')
      state.doubt('string', SpokenState.span(words, from, said.next + 2), '“Up a string” can be thicker or thinner.', [
        'thicker',
        'thinner',
      ]);
    from = said.next + 2;
  } else if (said && unit?.startsWith('fret')) {
    const side = words[said.next + 1]?.text ?? '';
    move.frets = ['down', 'lower', 'back'].includes(side) ? -said.value : said.value;
    from = said.next + 2;
  }
  state.repeat(more, move, isAll);
  return from;
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
  const isTold =
    UNREAD.has(word.text) || /^\d/.test(word.raw) || (NUMBERS[word.text] !== undefined && word.text !== 'one');
  if (isTold && !TALK.has(word.text))
    state.doubt('not understood', word.span, `“${word.raw}” was not understood; nothing is written for it.`);
  return at + 1;
}
