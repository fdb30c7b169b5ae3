import { chromaOfName } from '../../pitch/index.ts';
import { childOf, element, numberOf, textOf, type XmlElement } from '../xml.ts';

/** Kinds of chord by what follows the root in a symbol. Source: MusicXML 3.1, type kind-value; symbols: common practice. */
const KINDS: Readonly<Record<string, string>> = {
  '': 'major',
  m: 'minor',
  7: 'dominant',
  maj7: 'major-seventh',
  m7: 'minor-seventh',
  dim: 'diminished',
  dim7: 'diminished-seventh',
  m7b5: 'half-diminished',
  aug: 'augmented',
  aug7: 'augmented-seventh',
  '+': 'augmented',
  6: 'major-sixth',
  m6: 'minor-sixth',
  9: 'dominant-ninth',
  maj9: 'major-ninth',
  m9: 'minor-ninth',
  11: 'dominant-11th',
  m11: 'minor-11th',
  13: 'dominant-13th',
  m13: 'minor-13th',
  mmaj7: 'major-minor',
  sus2: 'suspended-second',
  sus4: 'suspended-fourth',
  5: 'power',
};

const SYMBOL = /^([A-G])([#b♯♭]?)([^/]*)(?:\/([A-G])([#b♯♭]?))?$/;

/** A chord symbol as an element; one that is no symbol stands as words. Null is “no chord”. */
export function writeHarmony(chord: string | null): XmlElement {
  const [, step, sign = '', suffix = '', bass, bassSign = ''] = SYMBOL.exec(chord ?? '') ?? [];
  if (chord === null || step === undefined)
    return element(
      'harmony',
      {},
      element('root', {}, element('root-step', { text: '' }, 'C')),
      element('kind', { text: chord ?? 'N.C.' }, chord === null ? 'none' : 'other'),
    );
  return element(
    'harmony',
    {},
    element('root', {}, element('root-step', {}, step), sign && element('root-alter', {}, alterOfSign(sign))),
    element('kind', { text: suffix }, KINDS[suffix] ?? 'other'),
    bass !== undefined &&
      element('bass', {}, element('bass-step', {}, bass), bassSign && element('bass-alter', {}, alterOfSign(bassSign))),
  );
}

function alterOfSign(sign: string): number {
  return sign === '#' || sign === '♯' ? 1 : -1;
}

/** The chord symbol of a harmony element; null for none, undefined where it says no symbol that a phrase can hold. */
export function readHarmony(harmony: XmlElement): string | null | undefined {
  const kind = childOf(harmony, 'kind');
  const value = textOf(kind);
  if (value === 'none') return null;
  const root = childOf(harmony, 'root');
  const name = nameOf(textOf(root, 'root-step'), numberOf(root, 'root-alter'));
  if (Number.isNaN(chromaOfName(name))) return undefined;
  const text = kind?.attributes['text'];
  if (value === 'other' && childOf(root, 'root-step')?.attributes['text'] === '' && text) return text;
  const suffix = text !== undefined && /^[\w#b♯♭+()-]*$/.test(text) ? text : suffixOf(value);
  const bass = childOf(harmony, 'bass');
  const under = bass ? `/${nameOf(textOf(bass, 'bass-step'), numberOf(bass, 'bass-alter'))}` : '';
  return `${name}${suffix.replaceAll('♯', '#').replaceAll('♭', 'b')}${under}`;
}

function nameOf(step: string, alter = 0): string {
  return step + (alter > 0 ? '#'.repeat(alter) : 'b'.repeat(-alter));
}

function suffixOf(kind: string): string {
  return Object.entries(KINDS).find(([, value]) => value === kind)?.[0] ?? '';
}
