import { MARK_FONT, SIZES } from './sizes.ts';

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
  readonly anchor?: 'middle' | 'end';
}

/** The font of the signs of music, as pages name it. */
export const MUSIC_FONT = 'Jam Ledger Music';

/** Size of the music font at which a stave of our line gap would stand. Pixels. */
const GLYPH_PIXELS = 37;

/**
 * Draws what the music library lacks. Everything is gathered as one piece of SVG and put into the page at once, all
 * that looks alike as one element: the browser lays out a page of few elements many times faster.
 * Patches of paper lie under all else that is drawn here.
 */
export class Pen {
  #patches = '';
  /** Outlines by their look. */
  readonly #paths = new Map<string, string>();
  readonly #dots: string[] = [];
  /** Words and signs by their look. */
  readonly #texts = new Map<string, Piece[]>();

  /** All that was drawn, as the inside of an SVG element. */
  markup(): string {
    const patches = this.#patches && `<path d="${this.#patches}" fill="var(--page)" stroke="none"/>`;
    const paths = [...this.#paths].map(([look, d]) => `<path d="${d}" ${look}/>`);
    const texts = [...this.#texts].map(([look, pieces]) => textMarkup(look, pieces));
    return [patches, ...paths, ...this.#dots, ...texts].join('');
  }

  line(from: Point, to: Point, width = 1): void {
    this.#path(`M${at(from)}L${at(to)}`, width);
  }

  /** A line of the stave’s own colour. */
  rule(from: Point, to: Point): void {
    this.#draw(`M${at(from)}L${at(to)}`, 'stroke="var(--stave)" stroke-width="1.2" fill="none"');
  }

  dot({ x, y }: Point, radius: number): void {
    this.#dots.push(`<circle cx="${n(x)}" cy="${n(y)}" r="${radius}" fill="var(--ink)" stroke="none"/>`);
  }

  /** A patch of paper over whatever lies there. */
  patch({ x, y }: Point, { width, height }: { width: number; height: number }): void {
    this.#patches += `M${at({ x, y })}h${n(width)}v${n(height)}h${n(-width)}z`;
  }

  /** A sign of the music font, its left end at a place; smaller where it is no note of its own. */
  glyph(sign: string, place: Point, share = 1): void {
    this.#write(sign, place, `font-family="${MUSIC_FONT}" font-size="${n(GLYPH_PIXELS * share)}" fill="var(--ink)"`);
  }

  dashes(from: Point, to: Point): void {
    const look = 'stroke="var(--ink)" stroke-width="1" stroke-dasharray="2.75 2.25" fill="none"';
    this.#draw(`M${at(from)}L${at(to)}`, look);
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
    this.#draw(d, 'fill="var(--ink)" stroke="none"');
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

  text(text: string, place: Point, look: TextLook = {}): void {
    const { size = SIZES.markFont, weight = 500, italic = false, soft = false, anchor } = look;
    const style = `font-family="${FAMILY}" font-size="${size}" font-weight="${weight}"${italic ? ' font-style="italic"' : ''}`;
    const fill = soft ? 'var(--ink-soft)' : 'var(--ink)';
    this.#write(text, place, `${style} fill="${fill}"${anchor ? ` text-anchor="${anchor}"` : ''}`);
  }

  #write(text: string, { x, y }: Point, look: string): void {
    const before = this.#texts.get(look);
    if (before) before.push({ text, x, y });
    else this.#texts.set(look, [{ text, x, y }]);
  }

  #path(d: string, width: number): void {
    this.#draw(d, `stroke="var(--ink)" stroke-width="${width}" fill="none"`);
  }

  #draw(d: string, look: string): void {
    this.#paths.set(look, (this.#paths.get(look) ?? '') + d);
  }
}

/** A word or a sign as it is drawn, and where it stands. */
export interface Piece extends Point {
  readonly text: string;
}

/** Pieces of one look: those of one sign share an element, which says the place of each. */
function textMarkup(look: string, pieces: readonly Piece[]): string {
  const signs = pieces.filter(({ text }) => text.length === 1);
  const words = pieces.filter(({ text }) => text.length !== 1);
  const places = `x="${signs.map(({ x }) => n(x)).join(' ')}" y="${signs.map(({ y }) => n(y)).join(' ')}"`;
  const spans = words.map(({ text, x, y }) => `<tspan x="${n(x)}" y="${n(y)}">${escaped(text)}</tspan>`);
  return [
    signs.length > 0 &&
      `<text ${places} ${look} stroke="none">${signs.map(({ text }) => escaped(text)).join('')}</text>`,
    spans.length > 0 && `<text ${look} stroke="none">${spans.join('')}</text>`,
  ]
    .filter(Boolean)
    .join('');
}

/** What stands in a text that was drawn here or by the music library, piece by piece. */
export function piecesOf(text: Element): readonly Piece[] {
  const spans = text.querySelectorAll('tspan');
  const content = text.textContent;
  const [xs = [], ys = []] = (['x', 'y'] as const).map((name) => text.getAttribute(name)?.split(' ') ?? []);
  if (spans.length > 0) return [...spans].flatMap(piecesOf);
  if (xs.length <= 1) return [{ text: content, x: Number(xs[0] ?? 0), y: Number(ys[0] ?? 0) }];
  return xs.map((x, at) => ({ text: content.charAt(at), x: Number(x), y: Number(ys[at]) }));
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
