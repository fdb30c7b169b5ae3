export { renderClick, renderNotes, startRendering } from './render.ts';
export type { ClickOptions, Rendering, RenderOptions } from './render.ts';
export { backingOf, voiceChord } from './backing.ts';
