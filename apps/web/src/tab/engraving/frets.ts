import { isGuessed, type ScoreEvent } from '@jam-ledger/core/notation';
import { SIZES } from './sizes.ts';
import type { Pen } from './pen.ts';
import type { Placed } from './rhythm.ts';

/** Width of a fret's text, pixels; figures are all alike. */
export function textWidth(text: string, size: number = SIZES.fretFont): number {
  return text.length * size * 0.55;
}

/** Writes a fret centred on a place of its line, on a patch of paper. */
export function drawFret(
  pen: Pen,
  text: string,
  at: { x: number; y: number },
  look: { size?: number; faint: boolean },
): void {
  const { size = SIZES.fretFont, faint } = look;
  const width = textWidth(text, size);
  pen.patch({ x: at.x - width / 2 - 1.5, y: at.y - size * 0.45 }, { width: width + 3, height: size * 0.9 });
  const weight = faint ? 400 : 650;
  pen.text(text, { x: at.x - width / 2, y: at.y + size * 0.36 }, { size, weight, italic: faint, soft: faint });
}

/** Writes the frets of one written value of an event; those tied over stand in brackets. */
export function drawFrets(pen: Pen, { event, head, x, value }: Placed, yOf: (string: number) => number): void {
  const { item, marks, sureness } = event;
  if (!item) return;
  const faint = sureness !== null || !head;
  let right = x;
  for (const note of item.notes) {
    const text = shownFret(note, marks.includes('quiet') || !head);
    drawFret(pen, text, { x, y: yOf(note.string) }, { faint: faint || isFaint(note) });
    right = Math.max(right, x + textWidth(text) / 2);
  }
  const top = Math.min(...item.notes.map(({ string }) => yOf(string)));
  for (let dot = 0; dot < value.dots; dot += 1) pen.dot({ x: right + 5 + dot * 4, y: top - 4 }, 1.4);
}

type Note = NonNullable<ScoreEvent['item']>['notes'][number];

/** A fret as it is shown: in brackets where it is quiet or sounds on, with a question mark where its place is a guess. */
function shownFret({ fret, harmonic, quiet, held, sought }: Note, bracketed: boolean): string {
  const plain = fret === null ? '×' : String(fret);
  const known = harmonic ? `‹${plain}›` : plain;
  const shown = isGuessed(sought) ? `${fret === null ? '' : known}?` : known;
  return bracketed || quiet || held !== undefined ? `(${shown})` : shown;
}

/** Whether a note of a stack is drawn less surely than the others. */
function isFaint({ sureness, held, sought }: Note): boolean {
  return sureness !== undefined || held !== undefined || isGuessed(sought);
}

/** The frets of a grace note, small. */
export function drawGrace(
  pen: Pen,
  grace: ScoreEvent['graces'][number],
  x: number,
  yOf: (string: number) => number,
): void {
  for (const { string, fret } of grace.notes) {
    const text = fret === null ? '×' : String(fret);
    drawFret(pen, text, { x, y: yOf(string) }, { size: SIZES.fretFont * 0.78, faint: false });
  }
}
