export { factsOf, GRAM_LENGTH } from './facts.ts';
export type { LickFacts, LickSetup } from './facts.ts';
