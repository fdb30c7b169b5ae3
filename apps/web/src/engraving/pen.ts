import { MARK_FONT, SIZES } from './layout.ts';

/** A place on the page, pixels. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** How a text is written. */
export interface TextLook {
  readonly size?: number;
  readonly weight?: number;
  readonly italic?: boolean;
  readonly soft?: boolean;
  readonly anchor?: 'middle';
}

/** Size of the music font at which a stave of our line gap would stand. Pixels. */
const GLYPH_PIXELS = 37;

/**
 * Draws what the music library lacks. Everything is gathered as one piece of SVG and put into the page at once,
 * which is many times faster than element by element.
 */
export class Pen {
  readonly #parts: string[] = [];

  /** All that was drawn, as the inside of an SVG element. */
  markup(): string {
    return this.#parts.join('');
  }

  line(from: Point, to: Point, width = 1): void {
    this.#path(`M${at(from)}L${at(to)}`, width);
  }

  /** A line of the stave’s own colour. */
  rule(from: Point, to: Point): void {
    this.#parts.push(`<path d="M${at(from)}L${at(to)}" stroke="var(--stave)" stroke-width="1.2" fill="none"/>`);
  }

  dot({ x, y }: Point, radius: number): void {
    this.#parts.push(`<circle cx="${n(x)}" cy="${n(y)}" r="${radius}" fill="var(--ink)" stroke="none"/>`);
  }

  /** A patch of paper over whatever lies there. */
  patch({ x, y }: Point, { width, height }: { width: number; height: number }): void {
    this.#parts.push(
      `<rect x="${n(x)}" y="${n(y)}" width="${n(width)}" height="${n(height)}" fill="var(--page)" stroke="none"/>`,
    );
  }

  /** A sign of the music font, its left end at a place. */
  glyph(sign: string, { x, y }: Point): void {
    this.#parts.push(
      `<text x="${n(x)}" y="${n(y)}" font-family="Bravura" font-size="${GLYPH_PIXELS}" fill="var(--ink)" stroke="none">${sign}</text>`,
    );
  }

  dashes(from: Point, to: Point): void {
    this.#parts.push(
      `<path d="M${at(from)}L${at(to)}" stroke="var(--ink)" stroke-width="1" stroke-dasharray="2.75 2.25" fill="none"/>`,
    );
  }

  /** An arc over (or, with a negative rise, under) two places. */
  arc(from: Point, to: Point, rise: number): void {
    const middle = { x: (from.x + to.x) / 2, y: Math.min(from.y, to.y) - rise };
    this.#path(`M${at(from)}Q${at(middle)} ${at(to)}`, 1.2);
  }

  /** A curve that leaves flat and arrives upright, as a bend is drawn. */
  sweep(from: Point, to: Point): void {
    this.#path(`M${at(from)}Q${at({ x: to.x, y: from.y })} ${at(to)}`, 1.2);
  }

  /** An arrow head whose tip is at a place. */
  head({ x, y }: Point, up: boolean): void {
    const foot = y + (up ? 6 : -6);
    const d = `M${at({ x, y })}L${at({ x: x - 3.2, y: foot })}L${at({ x: x + 3.2, y: foot })}Z`;
    this.#parts.push(`<path d="${d}" fill="var(--ink)" stroke="none"/>`);
  }

  /** Waves along a line; wider ones for a wide vibrato. */
  wave(from: Point, toX: number, height: number): void {
    const half = 4.5;
    let d = `M${at(from)}`;
    let turn = -height;
    for (let x = from.x; x + half <= toX + 0.1; x += half) {
      d += `q${n(half / 2)} ${turn} ${half} 0`;
      turn = -turn;
    }
    this.#path(d, 1.3);
  }

  text(text: string, { x, y }: Point, look: TextLook = {}): void {
    const { size = SIZES.markFont, weight = 500, italic = false, soft = false, anchor } = look;
    const style = `font-family="${FAMILY}" font-size="${size}" font-weight="${weight}"${italic ? ' font-style="italic"' : ''}`;
    const fill = soft ? 'var(--ink-soft)' : 'var(--ink)';
    const where = `x="${n(x)}" y="${n(y)}"${anchor ? ` text-anchor="${anchor}"` : ''}`;
    this.#parts.push(`<text ${where} ${style} fill="${fill}" stroke="none">${escaped(text)}</text>`);
  }

  #path(d: string, width: number): void {
    this.#parts.push(`<path d="${d}" stroke="var(--ink)" stroke-width="${width}" fill="none"/>`);
  }
}

const FAMILY = MARK_FONT.replaceAll('"', "'");

/** Numbers to a tenth of a pixel; more is never seen. */
function n(value: number): string {
  return String(Math.round(value * 10) / 10);
}

function at({ x, y }: Point): string {
  return `${n(x)} ${n(y)}`;
}

const ENTITIES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Typed words stand in the markup as text and nothing else. */
function escaped(text: string): string {
  return text.replaceAll(/[&<>"]/g, (sign) => ENTITIES[sign] ?? '');
}
