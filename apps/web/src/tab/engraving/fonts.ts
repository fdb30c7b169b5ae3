import music from './jam-music.woff2?url';
import { MUSIC_FONT } from './pen.ts';

/** The font as documents take it. */
export { default as musicUrl } from './jam-music.woff?url';

let loading: Promise<void> | undefined;

/** Loads the music font once; nothing can be engraved before. */
export function loadMusicFont(): Promise<void> {
  loading ??= load();
  return loading;
}

async function load(): Promise<void> {
  try {
    document.fonts.add(await new FontFace(MUSIC_FONT, `url(${music})`).load());
    await document.fonts.load('600 12px "Source Sans 3 Variable"');
  } catch {
    // A line that is cut just then leaves a tab in the letters that are there; the next tab asks again.
    loading = undefined;
  }
}
