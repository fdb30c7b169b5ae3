export {
  mmBetween,
  pitchAt,
  reachOfHand,
  reachOfSpan,
  topFret,
  usualGuitar,
  USUAL_REACH_MM,
  USUAL_SCALE_MM,
} from './guitar.ts';
export type { Guitar } from './guitar.ts';
export { gripsFor } from './grips.ts';
export type { FrettingFinger, Grip, GripNote, GripRules, FretPositions } from './grips.ts';
export { beyondReachMm, gripMs, HAND_MS, spanMm, wayMs } from './costs.ts';
export type { Way } from './costs.ts';
export { movedEvent, fretPositionsOf, positionsFor, spread, withFretPositions } from './fretPositions.ts';
export type { PositionRules } from './fretPositions.ts';
export { bestPath, fretPositionsOnPath } from './bestPath.ts';
export type { Growth, OtherFinger, Path, PathStep } from './bestPath.ts';
export { oneBox } from './oneBox.ts';
export type { Boxed } from './oneBox.ts';
export { moveTo } from './moveTo.ts';
export type { Lost, Moved, MoveOptions } from './moveTo.ts';
export { namesOf, sayEvent, sayNote, sayString } from './names.ts';
export type { StringNames } from './names.ts';
