export * from './tempo.ts';
export * from './tempoChanges.ts';
export * from './timeForm.ts';
export * from './proposeLabels.ts';
export * from './playForm.ts';
export * from './checkForm.ts';
export * from './labels.ts';
