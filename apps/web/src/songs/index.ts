export { sayPass } from './form/formStrip.ts';
export { useSong } from './song.ts';
