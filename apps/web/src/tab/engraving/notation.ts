import { shallowRef } from 'vue';

type StaffDrawing = typeof import('./staffDrawing.ts');

const drawing = shallowRef<StaffDrawing>();

/** Loads what draws standard notation; the tab alone needs none of it. @throws Error where it could not be loaded */
export async function loadNotation(): Promise<void> {
  drawing.value ??= await import('./staffDrawing.ts');
}

/** What draws standard notation, once it is loaded; whatever is computed with it is computed anew then. */
export const notation = (): StaffDrawing | undefined => drawing.value;
