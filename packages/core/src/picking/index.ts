export { crossings } from './crossings.ts';
export type { Crossing, CrossingCount } from './crossings.ts';
export { PICKING_POLICIES, planStrokes, strokeMarks } from './planStrokes.ts';
export type { PickingPolicy, Stroke, StrokeOptions, StrokePlan, Struck } from './planStrokes.ts';
