import { SpokenState } from './state.ts';
import { OPEN_CHORDS } from './vocabulary.ts';
import { numberAt, type Word } from './words.ts';

/** “an open E minor chord”, “a chord of G”: a chord by its name, as it is held by the nut. */
export function readChord(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const isOpen = words[at]?.text === 'open';
  const from = isOpen ? at + 1 : at;
  const letter = words[from]?.raw ?? '';
  if (!/^[A-G]$/.test(letter) || state.strings !== 6) return undefined;
  const named = qualityAt(words, from + 1);
  const isChord = words[named.next]?.text === 'chord';
  const after = words[named.next];
  const isAlone = state.isNaming && (!after || after.isStop || ['then', 'and', 'again'].includes(after.text));
  if (!isChord && !(isOpen && named.isSaid) && !isAlone) return undefined;
  const frets = OPEN_CHORDS[`${letter.toLowerCase()} ${named.quality}`];
  if (frets === undefined) return undefined;
  const notes = Array.from(frets, (fret, index) => ({ string: 6 - index, fret: Number(fret) })).filter(
    ({ fret }) => !Number.isNaN(fret),
  );
  const next = isChord ? named.next + 1 : named.next;
  state.isNaming = true;
  state.carry();
  state.forward = notes.map(({ string }) => string);
  const draft = state.addFret(0, SpokenState.span(words, at, next));
  state.forward = undefined;
  draft.notes.forEach((note, index) => (note.fret = notes[index]?.fret ?? 0));
  return next;
}

function qualityAt(
  words: readonly Word[],
  at: number,
): { readonly quality: string; readonly next: number; readonly isSaid: boolean } {
  const text = words[at]?.text ?? '';
  if (['major', 'minor'].includes(text)) return { quality: text, next: at + 1, isSaid: true };
  return numberAt(words, at)?.value === 7
    ? { quality: 'seven', next: at + 1, isSaid: true }
    : { quality: 'major', next: at, isSaid: false };
}
