export { sayPass } from './form/formStrip.ts';
export { useSongForm, type SongForm } from './form/useSongForm.ts';
export { useSong } from './song.ts';
export { takeablesOf } from './takeables.ts';
