/** How sure a stretch is. */
export interface SurenessRecord {
  readonly example: string;
  readonly means: string;
  /** The word above it on the page. */
  readonly sign: string;
}

/** How sure the teacher is of what stands inside; everything else is heard and certain. */
export const SURENESS_RECORDS = {
  likely: { example: '{likely: 7G}', means: 'heard, not certain', sign: 'likely' },
  guess: { example: '{guess: 7G}', means: 'a guess', sign: 'a guess' },
  seen: { example: '{seen: 7G}', means: 'taken from watching it played', sign: 'as seen live' },
  arranged: { example: '{arranged: 7G}', means: 'our own arrangement', sign: 'arranged' },
  optional: { example: '{optional: 7G}', means: 'may be left out', sign: 'optional' },
} as const satisfies Readonly<Record<string, SurenessRecord>>;
/** How sure something is. */
export type Sureness = keyof typeof SURENESS_RECORDS;
/** All of them. */
export const SURENESSES = Object.keys(SURENESS_RECORDS) as readonly Sureness[];

/** The sureness a word says; undefined for any other text. */
export function surenessOf(word: string | undefined): Sureness | undefined {
  return SURENESSES.find((one) => one === word);
}
