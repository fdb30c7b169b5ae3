export { isPlaced, placePhrase, readPlaced, settledText } from './placePhrase.ts';
export type { PlaceOptions } from './placePhrase.ts';
