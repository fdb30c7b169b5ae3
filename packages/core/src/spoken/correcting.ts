import { actAt } from './acts.ts';
import type { SpokenChoice } from './doubts.ts';
import { fretAt, stringsAt } from './places.ts';
import { SpokenState } from './state.ts';
import { skip, type Word } from './words.ts';

const CORRECTED = [',', 'the', 'that', 'is', "that's", 'it', "it's", 'on', 'was'];

/** “no” and “wait” correct between a comma and a fret or a string; elsewhere they are talk. */
function weaklyAt(
  state: SpokenState,
  words: readonly Word[],
  at: number,
): { readonly act: 'correction'; readonly next: number } | undefined {
  const isWeak = ['no', 'wait', 'oops', 'not'].includes(words[at]?.text ?? '') && words[at - 1]?.isStop;
  const from = skip(words, at + 1, CORRECTED);
  const isSaid = fretAt(words, from) ?? stringsAt(words, from, state.strings);
  return isWeak && isSaid && state.drafts.length > state.sentence ? { act: 'correction', next: at + 1 } : undefined;
}

/** “eight, sorry, nine”: the later word stands, the first is kept as a doubt. */
export function readCorrection(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const found = actAt(words, at) ?? weaklyAt(state, words, at);
  if (found?.act !== 'correction' && found?.act !== 'make it') return undefined;
  const from = skip(words, found.next, CORRECTED);
  const [said, last] = [fretAt(words, from), state.last];
  const strings = said ? undefined : stringsAt(words, from, state.strings);
  const isSettled = found.act === 'make it';
  if (last && said) {
    const was = last.notes.map(({ fret }) => fret ?? 'x').join(' and ');
    last.notes = last.notes.map((note) => ({ ...note, fret: said.fret }));
    last.span = SpokenState.span(words, at, said.next);
    const says = `${said.fret} stands; first ${was} was said.`;
    if (!isSettled && was !== `${said.fret}`)
      state.doubt('correction', last.span, says, choicesOf(`${said.fret}`, was));
    return said.next;
  }
  if (last && strings) {
    const was = sayStrings(last.notes.map(({ string }) => string));
    last.notes = strings.strings.map((string) => ({ ...(last.notes[0] ?? { fret: 0 }), string }));
    const now = sayStrings(strings.strings);
    const says = `${now} stands; first ${was} was said.`;
    if (!isSettled && now !== was)
      state.doubt('correction', SpokenState.span(words, at, strings.next), says, choicesOf(now, was));
    return strings.next;
  }
  return found.next;
}

const sayStrings = (strings: readonly number[]) =>
  strings.length === 1 ? `string ${strings[0] ?? ''}` : `strings ${strings.join(' and ')}`;

/** “make it” corrects without being asked. */
const choicesOf = (now: string, was: string): readonly SpokenChoice[] => [
  { label: now, say: `make it ${now}` },
  { label: was, say: '' },
];
