export { closeEditor, makeEditor, showProblems } from './editor.ts';
export type { EditorParts } from './editor.ts';
export { applyEdit, SHORTCUTS } from './keys.ts';
export type { EditorHost } from './keys.ts';
export type { Surroundings } from './completion.ts';
