import { chromaOf } from '../harmony/index.ts';
import { heardOf, namedMidi, type Phrase, type Setup } from '../notation/index.ts';
import { scaleOfKey, tonicOf, type Key } from '../pitch/index.ts';

/** Share of a phrase outside its key from which the key itself is in doubt, and how much better another must be. Our choice. */
const DOUBT = { outside: 0.3, better: 0.2, fewestNotes: 6 } as const;

/** A signature that fits a phrase better than the stated one, and how much of the phrase each holds, 0 to 1. */
export interface BetterKey {
  readonly fifths: number;
  readonly inside: number;
  readonly statedInside: number;
}

/** How long each pitch class sounds, by the pitch that its notes rest on, ticks. */
export function soundingOf(phrase: Phrase, setup: Setup): readonly number[] {
  const lengths = Array.from({ length: 12 }, () => 0);
  for (const { rests, length } of heardOf(phrase, setup)) {
    const chroma = chromaOf(namedMidi(rests));
    lengths[chroma] = (lengths[chroma] ?? 0) + length;
  }
  return lengths;
}

/**
 * The signature whose scale holds clearly more of a phrase than the stated key’s, or undefined. The blue third, fifth and
 * seventh of the stated key count as its own.
 */
export function betterKey(phrase: Phrase, key: Key, setup: Setup): BetterKey | undefined {
  const lengths = soundingOf(phrase, setup);
  const all = lengths.reduce((sum, length) => sum + length, 0);
  if (lengths.filter((length) => length > 0).length < DOUBT.fewestNotes || all === 0) return undefined;
  const share = (chromas: ReadonlySet<number>) =>
    lengths.reduce((sum, length, chroma) => sum + (chromas.has(chroma) ? length : 0), 0) / all;
  const statedInside = share(withBlueNotes(key));
  if (1 - statedInside < DOUBT.outside) return undefined;
  const signatures = Array.from({ length: 13 }, (_, index) => index - 6);
  const best = signatures
    .map((fifths) => ({ fifths, inside: share(scaleOfKey({ fifths, mode: 'major' })) }))
    .reduce((a, b) => (b.inside > a.inside ? b : a));
  return best.inside >= statedInside + DOUBT.better ? { ...best, statedInside } : undefined;
}

/** The scale of a key with the blue notes over its tonic. Source: common practice. */
export function withBlueNotes(key: Key): ReadonlySet<number> {
  const tonic = tonicOf(key);
  return new Set([...scaleOfKey(key), (tonic + 3) % 12, (tonic + 6) % 12, (tonic + 10) % 12]);
}
