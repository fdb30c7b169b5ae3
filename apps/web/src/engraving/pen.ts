import type { RenderContext } from 'vexflow/core';
import { MARK_FONT, SIZES } from './layout.ts';

/** A place on the page, pixels. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Size of the music font at which a stave of our line gap would stand. Points. */
const GLYPH_POINTS = 28;

/** Draws the marks that the music library lacks, with its own strokes. */
export class Pen {
  readonly #context: RenderContext;

  constructor(context: RenderContext) {
    this.#context = context;
  }

  line(from: Point, to: Point, width = 1): void {
    this.#stroke(width, () => {
      this.#context.moveTo(from.x, from.y);
      this.#context.lineTo(to.x, to.y);
    });
  }

  /** A patch of paper over whatever lies there. */
  patch({ x, y }: Point, { width, height }: { width: number; height: number }): void {
    this.#context.clearRect(x, y, width, height);
  }

  /** A sign of the music font, its left end at a place. */
  glyph(sign: string, { x, y }: Point): void {
    this.#context.save();
    this.#context.setFont('Bravura', GLYPH_POINTS);
    this.#context.setFillStyle('var(--ink)');
    this.#context.fillText(sign, x, y);
    this.#context.restore();
  }

  dashes(from: Point, to: Point): void {
    const step = 5;
    for (let x = from.x; x < to.x - 1; x += step)
      this.line({ x, y: from.y }, { x: Math.min(x + step * 0.55, to.x), y: from.y });
  }

  /** An arc over (or, with a negative rise, under) two places. */
  arc(from: Point, to: Point, rise: number): void {
    const middle = (from.x + to.x) / 2;
    this.#stroke(1.2, () => {
      this.#context.moveTo(from.x, from.y);
      this.#context.quadraticCurveTo(middle, Math.min(from.y, to.y) - rise, to.x, to.y);
    });
  }

  /** A curve that leaves flat and arrives upright, as a bend is drawn. */
  sweep(from: Point, to: Point): void {
    this.#stroke(1.2, () => {
      this.#context.moveTo(from.x, from.y);
      this.#context.quadraticCurveTo(to.x, from.y, to.x, to.y);
    });
  }

  /** An arrow head whose tip is at a place. */
  head({ x, y }: Point, up: boolean): void {
    const length = up ? 6 : -6;
    this.#context.save();
    this.#context.setFillStyle('var(--ink)');
    this.#context.beginPath();
    this.#context.moveTo(x, y);
    this.#context.lineTo(x - 3.2, y + length);
    this.#context.lineTo(x + 3.2, y + length);
    this.#context.closePath();
    this.#context.fill();
    this.#context.restore();
  }

  dot({ x, y }: Point, radius: number): void {
    this.#context.save();
    this.#context.setFillStyle('var(--ink)');
    this.#context.beginPath();
    this.#context.arc(x, y, radius, 0, 2 * Math.PI, false);
    this.#context.fill();
    this.#context.restore();
  }

  /** Waves along a line; wider ones for a wide vibrato. */
  wave(from: Point, toX: number, height: number): void {
    const half = 4.5;
    this.#stroke(1.3, () => {
      this.#context.moveTo(from.x, from.y);
      let up = true;
      for (let x = from.x; x + half <= toX + 0.1; x += half) {
        this.#context.quadraticCurveTo(x + half / 2, from.y + (up ? -height : height), x + half, from.y);
        up = !up;
      }
    });
  }

  text(
    text: string,
    { x, y }: Point,
    style: { size?: number; weight?: number; italic?: boolean; soft?: boolean; anchor?: 'middle' } = {},
  ): void {
    const { size = SIZES.markFont, weight = 500, italic = false, soft = false, anchor } = style;
    this.#context.save();
    this.#context.setFont(MARK_FONT, size * 0.75, weight, italic ? 'italic' : 'normal');
    this.#context.setFillStyle(soft ? 'var(--ink-soft)' : 'var(--ink)');
    const width = anchor ? this.#context.measureText(text).width : 0;
    this.#context.fillText(text, x - width / 2, y);
    this.#context.restore();
  }

  #stroke(width: number, draw: () => void): void {
    this.#context.save();
    this.#context.setStrokeStyle('var(--ink)');
    this.#context.setFillStyle('none');
    this.#context.setLineWidth(width);
    this.#context.beginPath();
    draw();
    this.#context.stroke();
    this.#context.restore();
  }
}
