export { difficultyOf } from './difficultyOf.ts';
export type { Difficulty, DifficultyContext, DifficultyPart, HardSpan, PartName } from './difficultyOf.ts';
export { newTechniques, practiceDrills } from './drills.ts';
export type { Drill, NewTechnique } from './drills.ts';
export { CARE_LINE, CAUTIONS, cautionsOf } from './care.ts';
export type { Caution, CautionName } from './care.ts';
