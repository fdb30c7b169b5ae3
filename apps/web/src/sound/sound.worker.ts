import { expose } from 'comlink';
import { renderer } from './renderer.ts';

/** What the page can ask of this worker. */
export type SoundRenderer = typeof renderer;

expose(renderer);
