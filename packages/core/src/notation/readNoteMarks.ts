import { chromaOfName, HIGHEST_FRET, midiOf, type Tuning } from '../pitch/index.ts';
import type { WordCursor } from './cursor.ts';
import { fingerOf, type NoteDraft } from './drafts.ts';
import { HIGHEST_STEPS, readSteps } from './eventParts.ts';
import type { Span } from './model.ts';
import type { Fix } from './problems.ts';

/** A place of the neck; no fret for a dead note or one that is not known yet. */
export interface PlaceOnNeck {
  readonly fret: number | null;
  readonly string: number | undefined;
}

/** The guitar that names of pitches speak of. */
export interface Strings {
  readonly tuning: Tuning;
  readonly capo: number;
}

/** An octave in whole steps. */
const OCTAVE_STEPS = 6;

/** Reads the marks of one note, one at a time. */
export class NoteMarkReader {
  readonly #cursor: WordCursor;
  readonly #strings: Strings;

  constructor(cursor: WordCursor, strings: Strings) {
    this.#cursor = cursor;
    this.#strings = strings;
  }

  /** Reads a move of a bend; false where none stands next. */
  move(note: NoteDraft, place: PlaceOnNeck): boolean {
    const from = this.#cursor.at;
    const bend = this.#cursor.take('bend');
    if (bend) this.#bend(note, bend, place, from);
    const release = bend ? undefined : this.#cursor.take('release');
    if (release) this.#release(note, release, place, from);
    return bend !== undefined || release !== undefined;
  }

  /** Reads any mark of a note; false where none stands next, or a link does. */
  mark(note: NoteDraft, place: PlaceOnNeck): boolean {
    const cursor = this.#cursor;
    const from = cursor.at;
    let match: RegExpExecArray | undefined;
    if ((match = cursor.take('preBend'))) note.preBend = readSteps(match[1]) ?? 1;
    else if ((match = cursor.take('bend'))) this.#bend(note, match, place, from);
    else if ((match = cursor.take('trill'))) this.#trill(note, Number(match[1]), from);
    else if (cursor.sees('link')) return false;
    else if ((match = cursor.take('release'))) this.#release(note, match, place, from);
    else if ((match = cursor.take('vibrato'))) note.vibrato = match[0] === '~~' ? 'wide' : 'narrow';
    else if ((match = cursor.take('harmonic'))) note.harmonic = match[0] === '*p' ? 'pinch' : 'natural';
    else if (cursor.take('again')) note.again = 0;
    else if ((match = cursor.take('finger'))) this.#finger(note, match);
    else if ((match = cursor.take('claim'))) note.claim = match[1] ?? '';
    else return false;
    return true;
  }

  #trill(note: NoteDraft, fret: number, from: number): void {
    if (fret <= HIGHEST_FRET) note.trill = fret;
    else
      this.#cursor.report(
        'fret-range',
        { from, to: this.#cursor.at },
        `Fret ${fret} is beyond fret ${HIGHEST_FRET}; the trill is left out.`,
      );
  }

  #finger(note: NoteDraft, [, finger, behind, other]: RegExpExecArray): void {
    note.finger = fingerOf(finger);
    if (behind !== undefined) note.fingerBehind = fingerOf(behind);
    if (other !== undefined) note.fingerOr = fingerOf(other);
  }

  #bend(note: NoteDraft, match: RegExpExecArray, place: PlaceOnNeck, from: number): void {
    const [, word, letters, unsized, sized, target, steps, upTo] = match;
    const { fret } = place;
    const slow = letters === 'bb' ? ({ slow: true } as const) : {};
    const span = { from, to: this.#cursor.at };
    if (unsized) {
      this.#cursor.report(
        'bend-unsized',
        span,
        'How far is this bent? Listen again; until then it sounds as half a step.',
      );
      note.moves.push({ kind: 'bend', steps: 0.5, unsized: true, ...slow });
      return;
    }
    if (target !== undefined) {
      const far = this.#stepsTo(target, place);
      // A bend to the name of its own fret goes an octave up.
      const up = far === 0 && !/^\d/.test(target) ? OCTAVE_STEPS : Math.min(HIGHEST_STEPS, far);
      if (Number.isNaN(up) || up <= 0)
        this.#cursor.report('bend-target', span, `A bend goes up: fret ${target} is not above fret ${fret ?? 'x'}.`);
      else note.moves.push({ kind: 'bend', steps: this.#sizeOrTarget(sized, up, { target, span }), ...slow });
      return;
    }
    const height = word === undefined ? (readSteps(steps) ?? 1) : word === 'full' ? 1 : 0.5;
    const max = readSteps(upTo);
    if (height <= 0) this.#cursor.report('bend-target', span, 'A bend of no size does not bend.');
    else if (max !== undefined && max > height) note.moves.push({ kind: 'bend', steps: height, upTo: max, ...slow });
    else note.moves.push({ kind: 'bend', steps: height, ...slow });
  }

  /** How many whole steps lie from a place of the neck up to a fret, or to the next pitch of a name, its own among them. */
  #stepsTo(target: string, { fret, string }: PlaceOnNeck): number {
    if (fret === null) return NaN;
    if (/^\d/.test(target)) return (Number(target) - fret) / 2;
    if (string === undefined) return NaN;
    const semitones = chromaOfName(target) - midiOf(this.#strings.tuning, string, fret, this.#strings.capo);
    return (((semitones % 12) + 12) % 12) / 2;
  }

  /** The size that was said with a target; where they differ, that is asked, and the size stands. */
  #sizeOrTarget(sized: string | undefined, up: number, { target, span }: { target: string; span: Span }): number {
    const said = readSteps(sized);
    if (said === undefined || said === up) return up;
    const message = `A bend of ${said} does not reach ${target}; that would take ${up}.`;
    const written = this.#cursor.word.slice(span.from, span.to);
    const write = (text: string): Fix => ({ title: `Write ${text}`, span, text });
    const letters = written.startsWith('bb') ? 'bb' : 'b';
    this.#cursor.report('bend-target', span, message, write(`${letters}${up}`), write(`${letters}${said}`));
    return said;
  }

  #release(note: NoteDraft, match: RegExpExecArray, place: PlaceOnNeck, from: number): void {
    const [, , target, steps] = match;
    const to = target === undefined ? readSteps(steps) : this.#stepsTo(target, place);
    const height = to === undefined || Number.isNaN(to) ? 0 : Math.max(0, to);
    const span = { from, to: this.#cursor.at };
    const standing = note.height();
    if (standing <= height) {
      const why = standing === 0 ? 'nothing is bent here' : `the bend stands at ${standing} only`;
      const fix = { title: 'Take the release away', span, text: '' };
      this.#cursor.report('release-without-bend', span, `There is nothing to let down: ${why}.`, fix);
      return;
    }
    const slow = match[1] === 'rr' ? ({ slow: true } as const) : {};
    note.moves.push({ kind: 'release', steps: height, ...slow });
  }
}
