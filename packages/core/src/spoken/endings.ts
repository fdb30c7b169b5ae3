import { JUST_TALK } from './doubts.ts';
import { grown } from './drafts.ts';
import { OPEN, type SpokenState } from './state.ts';

/** Numbers among words that nobody knows are talk where nothing says string, fret or hand: “two or three hours”. */
function passTalk(state: SpokenState): void {
  const { pending, strange } = state;
  const own = state.drafts.slice(state.sentence);
  const isTalk =
    own.length > 0 &&
    strange.length >= own.length &&
    own.every((draft) => draft.isBare && !draft.link && draft.marks.size === 0 && pending.includes(draft));
  if (!isTalk || state.unused || state.openBend.length > 0) return;
  state.drafts.splice(state.sentence);
  state.pending = [];
  state.strange = [];
  const span = own.map((draft) => draft.span).reduce(grown);
  state.doubt('not understood', span, 'No string, fret or hand is named here; the numbers are taken for talk.');
}

/** What was said ahead of the sentence of all of its events. */
function ofAll(state: SpokenState): void {
  sweep(state);
  const { everyMark, stackFrom, repeatAhead } = state;
  state.everyMark = undefined;
  state.stackFrom = undefined;
  state.repeatAhead = 1;
  if (everyMark) for (const draft of state.drafts.slice(state.sentence)) draft.marks.add(everyMark);
  const stack = stackFrom === undefined ? [] : state.drafts.slice(stackFrom);
  const strings = new Set(stack.flatMap(({ notes }) => notes.map(({ string }) => string)));
  const notes = stack.reduce((sum, draft) => sum + draft.notes.length, 0);
  if (stack.length > 1 && strings.size === notes && !stack.some(({ link, isAfterThen }) => link ?? isAfterThen))
    state.merge(stack);
  const last = state.last?.span;
  if (repeatAhead > 1 && last && state.drafts.length > state.sentence)
    state.repeat(repeatAhead - 1, { strings: 0, frets: 0 }, { span: last });
}

/** One stroke goes through single notes, down towards the thinner strings and up towards the thicker. */
function sweep(state: SpokenState): void {
  const { sweepFrom } = state;
  state.sweepFrom = undefined;
  const swept = sweepFrom === undefined ? [] : state.drafts.slice(sweepFrom).filter(({ link }) => !link);
  swept.forEach((draft, index) => {
    const [string, before, after] = [index, index - 1, index + 1].map((one) => swept[one]?.notes[0]?.string ?? 0);
    const way = Math.sign((after ?? 0) > 0 ? (string ?? 0) - (after ?? 0) : (before ?? 0) - (string ?? 0));
    if (way !== 0 && swept.length > 1) draft.marks.add(way > 0 ? 'down' : 'up');
  });
}

/** “the twelfth fret on the G, then the B”: a string that is named without a fret takes that of the note before; that is asked. */
function sameFret(state: SpokenState): void {
  const { unused, forward } = state;
  const [note] = state.last?.notes ?? [];
  if (!unused || !forward || note?.fret == null || state.drafts.length === state.sentence || state.isMuting) return;
  const { fret } = note;
  state.addFret(fret, unused);
  for (const one of state.notes) if (note.harmonic) one.harmonic = note.harmonic;
  state.doubt('open', unused, `No fret was said; ${fret} is taken as before.`, [
    { label: `${fret}`, say: `${fret} on …` },
    OPEN,
  ]);
}

/** A sentence ends: what follows is said anew. */
export function endSentence(state: SpokenState): void {
  passTalk(state);
  state.carry();
  ofAll(state);
  if (!state.isStruck) sameFret(state);
  state.everyShape = undefined;
  state.isNaming = false;
  state.isMuting = false;
  if (state.isStruck) state.openStrings();
  if (state.unused) state.doubt('not understood', state.unused, 'A string was named, and no fret on it.', [OPEN]);
  state.unused = undefined;
  const hasNotes = state.drafts.length > state.sentence;
  state.unknown += state.strange.length;
  for (const { word, isTrade } of state.strange)
    if (isTrade || hasNotes)
      state.doubt(
        'not understood',
        word.span,
        `“${word.raw}” was not understood; nothing is written for it.`,
        isTrade ? [] : [{ label: JUST_TALK, say: '…' }],
      );
  state.strange = [];
  state.forward = undefined;
  state.isTrilling = false;
  state.ahead = { marks: [] };
  state.joinsNext = false;
  state.isInPairs = false;
  state.isUnison = false;
  state.everyFret = undefined;
  if (state.drafts.length > state.sentence) state.before = state.sentence;
  state.sentence = state.drafts.length;
  state.clause = state.drafts.length;
}
