export { renderClick, renderNotes, startRendering } from './render.ts';
export type { ClickOptions, Rendering, RenderOptions } from './render.ts';
export { noiseOf } from './tone.ts';
export { renderPlucks } from './plucks.ts';
export { backingOf, voiceChord } from './backing.ts';
