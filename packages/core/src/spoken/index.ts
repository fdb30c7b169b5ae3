export { cutNarration } from './cutNarration.ts';
export type { NarratedPhrase, NarratedSection } from './cutNarration.ts';
export { readSpoken } from './readSpoken.ts';
export type { SpokenContext, SpokenPart, SpokenReading } from './readSpoken.ts';
export { sayPhrase } from './sayPhrase.ts';
export type { SayOptions } from './sayPhrase.ts';
export { JUST_TALK } from './doubts.ts';
export type { DoubtKind, Habits, SpokenChoice, SpokenDoubt } from './doubts.ts';
