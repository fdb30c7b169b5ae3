export * from './tempo.ts';
export * from './playForm.ts';
export * from './checkForm.ts';
export * from './labels.ts';
