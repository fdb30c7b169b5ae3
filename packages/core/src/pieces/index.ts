export * from './ladder.ts';
export * from './nextStep.ts';
