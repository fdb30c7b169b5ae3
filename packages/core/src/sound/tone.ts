/** A source of noise, -1 to 1. */
export type Noise = () => number;

/**
 * Repeatable noise for a seed. Source: the mulberry32 generator, public domain.
 */
export function noiseOf(seed: number): Noise {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 31 - 1;
  };
}

/** Share of each new sample in the low-pass of pickup and speaker, which take the edge off a string; about 5 kHz at 44.1 kHz. Our choice, by ear. */
export const BODY_SHARE = 0.5;
