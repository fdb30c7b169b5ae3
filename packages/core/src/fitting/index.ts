export { fitText, stringsFor } from './fitText.ts';
export type { Fitted, FitOptions } from './fitText.ts';
