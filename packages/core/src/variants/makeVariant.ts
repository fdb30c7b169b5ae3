import { moveTo, oneBox, type Guitar, type Lost } from '../fretboard/index.ts';
import { beatsOf, eventsOf, type Phrase, type Span } from '../notation/index.ts';
import { OPEN_KEY, spell, tonicOf, writeSpelling, type Key } from '../pitch/index.ts';
import { easier } from './easier.ts';

/** What can be made of a phrase for somebody else, or for now. */
export const VARIANT_KINDS = ['easier', 'one box', 'fewer frets', 'down an octave', 'other key'] as const;
/** One of the `VARIANT_KINDS`. */
export type VariantKind = (typeof VARIANT_KINDS)[number];

/** What a variant is made for. */
export interface VariantOptions extends Guitar {
  readonly key?: Key;
  /** The key of `other key`. */
  readonly toKey?: Key;
  /** The frets of `fewer frets`. */
  readonly fewerFrets?: number;
}

/** A draft made from a phrase, and in words what is different. */
export interface Variant {
  readonly kind: VariantKind;
  readonly phrase: Phrase;
  /** Never empty: where nothing had to change, it says so. */
  readonly changes: readonly string[];
}

/** Frets of the guitar that `fewer frets` is for, where none is said. Source: common practice (a classical guitar). */
const FEWER_FRETS = 19;

/** Makes a variant; the phrase itself stays as it is. */
export function makeVariant(phrase: Phrase, kind: VariantKind, options: VariantOptions): Variant {
  const made = make(phrase, kind, options);
  const changes = made.changes.length > 0 ? made.changes : ['Nothing had to change.'];
  return { kind, phrase: made.phrase, changes };
}

function make(phrase: Phrase, kind: VariantKind, options: VariantOptions): Omit<Variant, 'kind'> {
  switch (kind) {
    case 'easier':
      return easier(phrase, options);
    case 'one box':
      return boxed(phrase, options);
    case 'fewer frets':
      return fewerFrets(phrase, options);
    case 'down an octave':
      return moved(phrase, options, { octave: -1, says: 'All of it an octave lower' });
    case 'other key':
      return toKey(phrase, options);
  }
}

function boxed(phrase: Phrase, options: VariantOptions): Omit<Variant, 'kind'> {
  const box = oneBox(phrase, options);
  if (!box) return { phrase, changes: [] };
  const outside = box.outside.map((span) => `${capital(placeOf(phrase, span))} lies outside and stays where it was.`);
  return { phrase: box.phrase, changes: [`The hand stays at fret ${box.position}.`, ...outside] };
}

function fewerFrets(phrase: Phrase, options: VariantOptions): Omit<Variant, 'kind'> {
  const frets = options.fewerFrets ?? FEWER_FRETS;
  const { phrase: made, lost } = moveTo(phrase, options, {
    strings: 0,
    guitar: { frets },
    octaveBelow: true,
    ...keyOf(options),
  });
  return { phrase: made, changes: [`For ${frets} frets.`, ...sayLost(phrase, lost)] };
}

function toKey(phrase: Phrase, options: VariantOptions): Omit<Variant, 'kind'> {
  const { key = OPEN_KEY, toKey: to = OPEN_KEY } = options;
  const up = (((tonicOf(to) - tonicOf(key)) % 12) + 12) % 12;
  // The nearer way, so that the phrase stays in its register.
  const semitones = up > 6 ? up - 12 : up;
  if (semitones === 0) return { phrase, changes: [] };
  const name = writeSpelling(spell(60 + tonicOf(to), to), false);
  const far = `${Math.abs(semitones)} semitone${Math.abs(semitones) === 1 ? '' : 's'}`;
  const says = `In ${name}${to.mode === 'minor' ? ' minor' : ''}, ${far} ${semitones > 0 ? 'higher' : 'lower'}`;
  return moved(phrase, options, { semitones, says, key: to });
}

function moved(
  phrase: Phrase,
  options: VariantOptions,
  {
    says,
    key,
    ...by
  }: { readonly octave?: number; readonly semitones?: number; readonly says: string; readonly key?: Key },
): Omit<Variant, 'kind'> {
  const { phrase: made, lost, strings } = moveTo(phrase, options, { ...by, ...(key ? { key } : keyOf(options)) });
  const side = strings > 0 ? 'thinner' : 'thicker';
  const over = Math.abs(strings) === 1 ? 'one string' : `${Math.abs(strings)} strings`;
  const where = strings === 0 ? 'on the same strings' : `${over} ${side}`;
  return { phrase: made, changes: [`${says}, ${where}.`, ...sayLost(phrase, lost)] };
}

function keyOf({ key }: VariantOptions): { readonly key?: Key } {
  return key ? { key } : {};
}

function sayLost(phrase: Phrase, lost: readonly Lost[]): readonly string[] {
  return lost.map(({ span, why }) => `${capital(placeOf(phrase, span))}: ${why}`);
}

function placeOf(phrase: Phrase, { from }: Span): string {
  const item = eventsOf(phrase).find((one) => one.item.span.from === from)?.item;
  return (item && beatsOf(phrase).get(item)) ?? 'somewhere';
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
