import { Note } from 'tonal';
import { checkPhrase, type CheckCode, type HandProblem } from '../checks/index.ts';
import { moveTo, oneBox, topFret, type Guitar } from '../fretboard/index.ts';
import { eventsOf, rewriteMoved, type Meter, type NoteValue, type Phrase } from '../notation/index.ts';
import { TUNINGS, type Tuning } from '../pitch/index.ts';
import { readPlaced } from '../placing/index.ts';

/** How a text is fitted. */
export interface FitOptions {
  /** Quarter notes a minute at full speed. */
  readonly bpm: number;
  readonly meter: Meter;
  readonly startValue: NoteValue;
  /** Whether the hand is to stay in one box where all of it lies in one. */
  readonly isInBox: boolean;
}

/** A text fitted to another guitar and hand: what was changed and what could not be, in sentences. */
export interface Fitted {
  readonly text: string;
  readonly changes: readonly string[];
  readonly left: readonly string[];
}

/** What keeps this hand from playing it on this guitar; that it is fast or hard is for the student to grow into. */
const UNPLAYABLE: readonly CheckCode[] = [
  'fret-missing',
  'reach',
  'stack-impossible',
  'no-tremolo-arm',
  'bend-beyond-neck',
];
/** So many places are mended at most, each in a round of its own. Our choice. */
const MAX_ROUNDS = 24;

/**
 * Fits the text of a phrase to another guitar and hand, at the same pitches where they can be had: notes that the guitar has not go to
 * other strings, else an octave lower; stretches too wide for the hand are fixed as the checks would; then all of it is laid into one box
 * where that is how this student is taught. Comments, lines and brackets stay as they were typed. Never throws.
 */
export function fitText(
  text: string,
  from: Guitar,
  to: Guitar,
  { bpm, isInBox, meter, startValue }: FitOptions,
): Fitted {
  const changes: string[] = [];
  const read = (typed: string, guitar: Guitar) => readPlaced(typed, { ...guitar, meter, startValue }).phrase;
  let fitted = text;
  const before = read(text, from);
  if (!isSameNeck(from, to) && !fits(before, from, to)) {
    const { phrase, lost } = moveTo(before, from, { guitar: to, octaveBelow: true });
    fitted = rewriteMoved(text, before, phrase, (typed) => read(typed, to));
    if (fitted !== text) changes.push('Lies on other places, since this guitar is another.');
    changes.push(...new Set(lost.map(({ why }) => why)));
  }
  const find = (typed: string) =>
    checkPhrase(read(typed, to), { ...to, text: typed, bpm, isTrusted: true }).filter(({ code }) =>
      UNPLAYABLE.includes(code),
    );
  for (let round = 0; round < MAX_ROUNDS; round += 1) {
    const mended = mend(fitted, find(fitted), find);
    if (!mended) break;
    fitted = mended.text;
    changes.push(mended.says);
  }
  const phrase = read(fitted, to);
  if (isInBox && !liesInBox(phrase)) {
    const box = oneBox(phrase, to, { keepOpen: true });
    const boxed =
      box && box.outside.length === 0 ? rewriteMoved(fitted, phrase, box.phrase, (typed) => read(typed, to)) : fitted;
    if (box && boxed !== fitted && find(boxed).length <= find(fitted).length) {
      fitted = boxed;
      changes.push(`The hand stays at fret ${box.position}.`);
    }
  }
  return {
    text: fitted,
    changes: [...new Set(changes)],
    left: [...new Set(find(fitted).map(({ message }) => message))],
  };
}

/** Frets under a hand that stays: one for each of four fingers. Source: common practice. */
const BOX_FRETS = 4;

/** Whether all that is pressed lies under a hand that stays. */
function liesInBox(phrase: Phrase): boolean {
  const frets = eventsOf(phrase).flatMap(({ item }) =>
    item.notes.flatMap(({ fret }) => (fret === null || fret === 0 ? [] : [fret])),
  );
  return Math.max(...frets) - Math.min(...frets) < BOX_FRETS || frets.length === 0;
}

/** The tuning for a guitar with so many strings: as it is where they suffice, else its thinnest; its name can be read as a tuning. */
export function stringsFor(tuning: Tuning, strings: number): Tuning {
  const { openMidis } = tuning;
  if (openMidis.length <= strings) return tuning;
  const left = openMidis.slice(0, strings);
  if (left.join() === TUNINGS.standard.openMidis.join()) return TUNINGS.standard;
  return {
    name: left
      .toReversed()
      .map((midi) => Note.fromMidiSharps(midi))
      .join(' '),
    openMidis: left,
  };
}

function isSameNeck(from: Guitar, to: Guitar): boolean {
  const { openMidis } = to.tuning;
  return (
    from.capo === to.capo &&
    from.frets === to.frets &&
    from.tuning.openMidis.length === openMidis.length &&
    from.tuning.openMidis.every((midi, index) => midi === openMidis[index])
  );
}

/** Whether all of a phrase lies on another guitar just where it is: same strings and capo, and its frets are there. */
function fits(phrase: Phrase, from: Guitar, to: Guitar): boolean {
  if (!isSameNeck({ ...from, frets: to.frets }, to)) return false;
  const top = topFret(to);
  return eventsOf(phrase).every(({ item }) =>
    item.notes.every(({ fret, trill }) => Math.max(fret ?? 0, trill ?? 0) <= top),
  );
}

/** The first fix that leaves less to mend; undefined where none does. */
function mend(
  text: string,
  problems: readonly HandProblem[],
  find: (text: string) => readonly HandProblem[],
): { readonly text: string; readonly says: string } | undefined {
  for (const { fix, message } of problems) {
    if (!fix) continue;
    const mended = text.slice(0, fix.span.from) + fix.text + text.slice(fix.span.to);
    if (find(mended).length < problems.length) return { text: mended, says: `${message} ${fix.title}.` };
  }
  return undefined;
}
