export type Editor = typeof import('./editor.ts');

let editor: Editor | undefined;

/** Loads the editor: as much again as the tab, which is drawn without it. @throws Error where it could not be loaded */
export async function loadEditor(): Promise<Editor> {
  editor ??= await import('./editor.ts');
  return editor;
}

/** The editor, once it is loaded. */
export const loadedEditor = (): Editor | undefined => editor;
export type { EditorParts } from './editor.ts';
export { applyEdit, SHORTCUTS } from './keys.ts';
export type { EditorHost } from './keys.ts';
export type { Surroundings } from './completion.ts';
