import type { BendMove, Link } from '../../notation/index.ts';
import { HIGHEST_FRET } from '../../pitch/index.ts';
import type { BroughtNote } from '../brought.ts';
import { LINK_SIGNS, stepsTo } from './signs.ts';

/** A note at its column. */
export interface Token {
  readonly column: number;
  /** Of the fret alone. */
  readonly width: number;
  readonly string: number;
  readonly note: Omit<BroughtNote, 'midi'>;
  readonly link?: Link;
  readonly slideIn?: 'below' | 'above';
  readonly slideOut?: 'up' | 'down';
  readonly arm: readonly number[];
  readonly isQuiet: boolean;
  /** Whether only the moves of a bend stand here. */
  readonly isHeld: boolean;
}

/** What stands at one column, or a bar line. */
export interface Place {
  readonly column: number;
  readonly tokens: readonly Token[];
}

const LINKS = new Map((Object.keys(LINK_SIGNS) as readonly Link[]).map((link) => [LINK_SIGNS[link], link]));
const TARGET = String.raw`\d{1,2}(?:\.\d+)?`;
/** One note: what stands before the fret, the fret, and what follows. Bends without a target are as high as most are: a whole step. */
const NOTE = new RegExp(
  String.raw`([hpsStT]?)([/\\]?)([<[(]?)(\d{1,2}|[xX])([>\])]?)((?:pb${TARGET}|\^${TARGET}|tr\d{1,2}|bb?(?:${TARGET})?|rr?(?:${TARGET})?|~~?|w[+-]\d*\.?\d*|v)*)([/\\](?![\dxX<[(]))?` +
    String.raw`|((?:bb?${TARGET}|rr?${TARGET})+~{0,2})`,
  'y',
);
const SUFFIX = new RegExp(
  String.raw`pb${TARGET}|\^${TARGET}|tr\d{1,2}|bb?(?:${TARGET})?|rr?(?:${TARGET})?|~~?|w[+-]\d*\.?\d*|v`,
  'g',
);

/** Reads the notes of a system, string by string. */
export class TokenReader {
  readonly #tell: (place: string, message: string) => void;
  /** The last fret of each string, which a bend goes on from, and how high it stands. */
  readonly #last = new Map<number, { fret: number; steps: number }>();

  constructor(tell: (place: string, message: string) => void) {
    this.#tell = tell;
  }

  /** The notes of some lines, `from` being the number of the first, from 0. */
  read({ strings, from }: { readonly strings: readonly string[]; readonly from: number }): readonly Token[] {
    return strings.flatMap((line, index) => {
      const tokens: Token[] = [];
      let at = 0;
      while (at < line.length) {
        NOTE.lastIndex = at;
        const match = NOTE.exec(line);
        if (match?.[0] !== undefined && match[0] !== '') {
          const token = this.#token(match, { column: at, string: index + 1, before: line[at - 1] ?? '-' });
          if (token) tokens.push(token);
          else this.#tell(`line ${from + index + 1}`, `“${match[0]}” is no fret of a guitar; it is left out.`);
          at += match[0].length;
          continue;
        }
        const sign = line[at] ?? '';
        if (!/[-|:\s*=.o\\/]/.test(sign))
          this.#tell(`line ${from + index + 1}, column ${at + 1}`, `“${sign}” is not known in a tab; it is left out.`);
        at += 1;
      }
      return tokens;
    });
  }

  #token(
    match: RegExpExecArray,
    { column, string, before }: { readonly column: number; readonly string: number; readonly before: string },
  ): Token | undefined {
    const [, linkSign = '', slide = '', open = '', fretText = '', , suffix = '', away, alone] = match;
    const last = this.#last.get(string);
    if (alone !== undefined) {
      if (!last) return undefined;
      const { note } = this.#signs(alone, last.fret);
      const held = { ...note, place: { string, fret: last.fret }, held: last.steps };
      this.#last.set(string, { ...last, steps: note.moves?.at(-1)?.steps ?? last.steps });
      return { column, width: 1, string, note: held, arm: [], isQuiet: false, isHeld: true };
    }
    const fret = /[xX]/.test(fretText) ? null : Number(fretText);
    if (fret !== null && fret > HIGHEST_FRET) return undefined;
    const { note, arm } = this.#signs(suffix, fret ?? 0);
    if (fret === null) this.#last.delete(string);
    else this.#last.set(string, { fret, steps: note.moves?.at(-1)?.steps ?? note.preBend ?? 0 });
    // A stroke between two frets is a slide from one to the other.
    const isBetween = slide !== '' && /[\dxX~>)\]]/.test(before) && last !== undefined;
    const link = linkSign === 'T' ? 'tap' : (LINKS.get(linkSign) ?? (isBetween ? 'slide' : undefined));
    return {
      ...{
        column: column + linkSign.length + slide.length + open.length,
        width: fretText.length,
        string,
        arm,
        isQuiet: open === '(',
        isHeld: false,
      },
      note: {
        ...note,
        place: { string, fret },
        ...(open === '<' && { harmonic: 'natural' as const }),
        ...(open === '[' && { harmonic: 'pinch' as const }),
      },
      ...(link && { link }),
      ...(slide !== '' && !isBetween && { slideIn: slide === '/' ? ('below' as const) : ('above' as const) }),
      ...(away && { slideOut: away === '/' ? ('up' as const) : ('down' as const) }),
    };
  }

  /** What follows a fret. */
  #signs(text: string, fret: number): { readonly note: Omit<BroughtNote, 'midi'>; readonly arm: readonly number[] } {
    const moves: BendMove[] = [];
    const arm: number[] = [];
    let note: Omit<BroughtNote, 'midi'> = {};
    for (const [sign] of text.matchAll(SUFFIX)) {
      const target = Number(/[\d.]+$/.exec(sign)?.[0] ?? NaN);
      const isSaid = !Number.isNaN(target);
      if (sign.startsWith('pb')) {
        note = { ...note, preBend: stepsTo(fret, target) };
      } else if (sign.startsWith('^')) {
        note = { ...note, again: stepsTo(fret, target) };
      } else if (sign.startsWith('tr')) note = { ...note, trill: target };
      else if (sign.startsWith('w')) arm.push(Number(sign.slice(1)) || (sign[1] === '-' ? -1 : 1));
      else if (sign.startsWith('~') || sign === 'v') note = { ...note, vibrato: sign === '~~' ? 'wide' : 'narrow' };
      else {
        const kind = sign.startsWith('b') ? 'bend' : 'release';
        const steps = isSaid ? stepsTo(fret, target) : kind === 'bend' ? 1 : 0;
        moves.push({ kind, steps, ...(/^(?:bb|rr)/.test(sign) && { slow: true as const }) });
      }
    }
    return { note: { ...note, ...(moves.length > 0 && { moves }) }, arm };
  }
}

/** Notes one over the other: those whose frets share a column, none of a string twice. */
export function placesOf(tokens: readonly Token[]): readonly Place[] {
  const places: { column: number; end: number; tokens: Token[] }[] = [];
  for (const token of tokens.toSorted((one, other) => one.column - other.column)) {
    const last = places.at(-1);
    const end = token.column + token.width;
    if (last && token.column < last.end && last.tokens.every(({ string }) => string !== token.string)) {
      last.tokens.push(token);
      last.end = Math.min(last.end, end);
    } else places.push({ column: token.column, end, tokens: [token] });
  }
  return places.map((place) => ({ ...place, tokens: place.tokens.toSorted((a, b) => b.string - a.string) }));
}
