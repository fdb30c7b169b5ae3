import { TabNote, type RenderContext, type TabNoteStruct } from 'vexflow/core';
import { MARK_FONT, SIZES } from './layout.ts';

/** How one fret is written. */
export interface FretText {
  readonly text: string;
  readonly string: number;
}

/** A tab note whose frets are written in our own type, each on a patch of paper over its line. */
export class FretNote extends TabNote {
  readonly #frets: readonly FretText[];
  readonly #faint: boolean;

  constructor(struct: TabNoteStruct, frets: readonly FretText[], faint: boolean, stems: boolean) {
    super(struct, stems);
    this.#frets = frets;
    this.#faint = faint;
    this.renderOptions.drawStem = stems;
    this.width = Math.max(8, ...frets.map(({ text }) => textWidth(text)));
  }

  override drawPositions(): void {
    const context = this.checkContext();
    for (const { text, string } of this.#frets) {
      const y = this.checkStave().getYForLine(string - 1);
      drawFret(context, text, this.getAbsoluteX(), y, SIZES.fretFont, this.#faint);
    }
  }
}

/** Width of a fret's text, pixels; figures are all alike. */
export function textWidth(text: string, size: number = SIZES.fretFont): number {
  return text.length * size * 0.55;
}

/** Writes a fret centred on a place of its line. */
export function drawFret(
  context: RenderContext,
  text: string,
  x: number,
  y: number,
  size: number,
  faint: boolean,
): void {
  const width = textWidth(text, size);
  context.clearRect(x - width / 2 - 1.5, y - size * 0.45, width + 3, size * 0.9);
  context.save();
  context.setFont(MARK_FONT, size * 0.75, faint ? 400 : 650, faint ? 'italic' : 'normal');
  context.setFillStyle(faint ? 'var(--ink-soft)' : 'var(--ink)');
  context.fillText(text, x - width / 2, y + size * 0.36);
  context.restore();
}
