import { actAt } from './acts.ts';
import { skip } from './hands.ts';
import { fretAt, stringsAt } from './places.ts';
import { SpokenState } from './state.ts';
import type { Word } from './words.ts';

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
  if (found?.act !== 'correction') return undefined;
  const from = skip(words, found.next, CORRECTED);
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
