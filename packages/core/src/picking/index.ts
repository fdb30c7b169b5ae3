export { crossingCost, crossings } from './crossings.ts';
export type { Crossing, CrossingCount } from './crossings.ts';
export { PICKING_POLICIES, planStrokes, strokeMarks } from './planStrokes.ts';
export type { PickingPolicy, StrokeOptions, StrokePlan } from './planStrokes.ts';
export type { Stroke, Struck } from './strokes.ts';
