import bravura from '@fontsource/bravura/files/bravura-latin-400-normal.woff2?url';
import { Font, VexFlow } from 'vexflow/core';

let loading: Promise<void> | undefined;

/** Loads the music font once; nothing can be engraved before. */
export function loadMusicFont(): Promise<void> {
  loading ??= load();
  return loading;
}

async function load(): Promise<void> {
  await Font.load('Bravura', bravura);
  await document.fonts.load('600 12px "Source Sans 3 Variable"');
  VexFlow.setFonts('Bravura');
}
