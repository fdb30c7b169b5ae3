type StaffDrawing = typeof import('./staffDrawing.ts');

let drawing: StaffDrawing | undefined;

/** Loads what draws standard notation; the tab alone needs none of it. @throws Error where it could not be loaded */
export async function loadNotation(): Promise<void> {
  drawing ??= await import('./staffDrawing.ts');
}

/** What draws standard notation, once it is loaded. */
export const notation = (): StaffDrawing | undefined => drawing;
