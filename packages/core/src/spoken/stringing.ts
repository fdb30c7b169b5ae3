import { actAt } from './acts.ts';
import { fretAt, stringsAt } from './places.ts';
import { SpokenState } from './state.ts';
import type { Act } from './vocabulary.ts';
import { numberAt, skip, type Word } from './words.ts';

export function readStrings(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const that = words[at]?.text;
  if ((that === 'that' || that === 'same') && words[at + 1]?.text === 'string') {
    const strings = state.drafts
      .findLast(({ notes }) => notes.every(({ string }) => string > 0))
      ?.notes.map(({ string }) => string);
    if (strings) sayStrings(state, strings, words, at, at + 2);
    return at + 2;
  }
  const said = stringsAt(words, at, state.strings);
  if (!said) return beyondAt(state, words, at);
  const isMuted = ['muted', 'dead', 'damped'].includes(words[said.next]?.text ?? '');
  if (isMuted && state.last && state.pending.length === 0) {
    state.last.notes.push(...said.strings.map((string) => ({ string, fret: null })));
    return said.next + 1;
  }
  if (!said.isEither) sayStrings(state, said.strings, words, at, said.next);
  else {
    // The nearer one is the likelier: to the strings it is named with, or else to the last.
    const others = said.strings.filter((string) => string !== 6);
    const last = state.drafts.findLast(({ notes }) => (notes[0]?.string ?? 0) > 0)?.notes[0]?.string;
    const near = others[0] ?? last ?? state.setup.before;
    const habit = state.habits['which E'];
    const isNearThin = near === undefined ? habit === 'high E' : near <= 3;
    const nearest = isNearThin ? ['high E', 'low E'] : ['low E', 'high E'];
    // Beside others that are named with it there is nothing to weigh.
    const taken = nearest[said.strings.length > 1 ? 0 : state.pick([0, 5])];
    const isThin = taken === 'high E';
    const saidAs = words.slice(at, said.next).map(({ raw }) => raw);
    const choices = (isThin ? ['high E', 'low E'] : ['low E', 'high E']).map((one) => ({
      label: one,
      say: saidAs.map((word) => (/^e$/i.test(word) ? one : word)).join(' '),
    }));
    const span = SpokenState.span(words, at, said.next);
    const says = `Which E was not said; the ${isThin ? 'high' : 'low'} one is taken.`;
    // What is usually meant is not asked, but where the line stands by the other.
    if (habit !== taken) state.doubt('which E', span, says, choices);
    const strings = said.strings.map((string) => (string === 6 && isThin ? 1 : string));
    sayStrings(state, strings, words, at, said.next);
  }
  return said.next;
}

/** “the ninth string”, “string 0”: a string that the guitar does not have. */
function beyondAt(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const from = words[at]?.text === 'the' ? at + 1 : at;
  const isBefore = words[from]?.text === 'string';
  const number = numberAt(words, isBefore ? from + 1 : from);
  if (!number || (!isBefore && !(number.isOrdinal && words[number.next]?.text === 'string'))) return undefined;
  if (number.value >= 1 && number.value <= state.strings) return undefined;
  const next = isBefore ? number.next : number.next + 1;
  state.doubt('string', SpokenState.span(words, at, next), `There is no string ${number.value}.`);
  return next;
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
  if (state.everyFret !== undefined && !fretAt(words, next)) {
    state.forward = strings;
    state.addFret(state.everyFret, span);
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
  const isLikelyOwn = last?.link !== undefined || (state.forward !== undefined && !fretAt(words, next));
  const isOwn = isRight && (state.forward === undefined ? isLikelyOwn : isLikelyOwn === (state.pick([0, 4]) === 0));
  if (!isOwn) {
    state.forward = strings;
    state.unused = span;
    state.isStruck = STRUCK.has(words[skipBack(words, at)]?.text ?? '');
  } else if (new Set(last.notes.map(({ fret }) => fret)).size === strings.length)
    last.notes = last.notes.map((note, index) => ({ ...note, string: strings[index] ?? note.string }));
  else last.notes = strings.map((string) => ({ ...(last.notes[0] ?? { fret: 0 }), string }));
}

/** What is done to a string that is named without a fret: it sounds open. */
const STRUCK = new Set(
  'hit hits hitting strike strikes pick picks picking play plays pluck plucks strum strums chug chugs chugging'.split(
    ' ',
  ),
);

/** The word before a string that is named, past those that only lead to it. */
function skipBack(words: readonly Word[], at: number): number {
  let before = at - 1;
  while (['the', 'that', 'on', 'your'].includes(words[before]?.text ?? '')) before -= 1;
  return before;
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
