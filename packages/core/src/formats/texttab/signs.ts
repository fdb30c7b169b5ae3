import type { Link, WrittenNote } from '../../notation/index.ts';

/** What stands before the fret of a linked note. Source: common practice (h, p, t; s for a slide that is not picked); S is our choice. */
export const LINK_SIGNS: Readonly<Record<Link, string>> = { hammer: 'h', pull: 'p', slide: 's', shift: 'S', tap: 't' };

/** Frets from the fret, and semitones, of a whole step. */
const SEMITONES = 2;

/** The pitch a bend goes to, as a fret: 9, or 7.5 for a quarter tone above 7. */
export function targetOf(fret: number, steps: number): string {
  return String(Math.round((fret + SEMITONES * steps) * 100) / 100);
}

/** How high a bend goes that leads to a fret, whole steps. */
export function stepsTo(fret: number, target: number): number {
  return Math.max(0, Math.round(((target - fret) / SEMITONES) * 100) / 100);
}

/** What is written of a note: before its fret, and the fret with what follows it. */
export interface NoteText {
  readonly front: string;
  readonly rest: string;
}

/** How a note is written on its line. */
export function noteText(
  note: WrittenNote,
  around: {
    readonly link?: Link | undefined;
    readonly slideIn?: 'below' | 'above' | undefined;
    readonly slideOut?: 'up' | 'down' | undefined;
    readonly isQuiet: boolean;
    readonly arm: readonly number[];
  },
): NoteText {
  const { fret, harmonic, preBend, again, held, moves = [], vibrato, trill } = note;
  const [open, close] = harmonic
    ? harmonic === 'natural'
      ? '<>'
      : '[]'
    : around.isQuiet || note.quiet
      ? '()'
      : ['', ''];
  const slideIn = around.slideIn ? (around.slideIn === 'below' ? '/' : '\\') : '';
  const slideOut = around.slideOut ? (around.slideOut === 'up' ? '/' : '\\') : '';
  const base = fret ?? 0;
  const after = [
    preBend === undefined ? '' : `pb${targetOf(base, preBend)}`,
    again === undefined ? '' : `^${targetOf(base, again)}`,
    ...moves.map(({ kind, steps, slow }) => (kind === 'bend' ? 'b' : 'r').repeat(slow ? 2 : 1) + targetOf(base, steps)),
    trill === undefined ? '' : `tr${trill}`,
    vibrato ? (vibrato === 'wide' ? '~~' : '~') : '',
    ...around.arm.map((steps) => `w${steps < 0 ? '-' : '+'}${String(Math.abs(steps)).replace(/^0\./, '.')}`),
    slideOut,
  ].join('');
  const link = around.link ? LINK_SIGNS[around.link] : '';
  // Of a bend that goes on, only the moves are written.
  if (held !== undefined) return { front: '', rest: after };
  return { front: link + slideIn + (open ?? ''), rest: `${fret ?? 'x'}${close ?? ''}${after}` };
}
