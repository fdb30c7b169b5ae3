import type { EventItem, Span } from '../notation/index.ts';

/** How one event is set going; `legato` needs no stroke, `open` is left to the player. */
export type Stroke = 'down' | 'up' | 'plucked' | 'legato' | 'open';

/** An event with its stroke. Strings from 1, the thinnest; `at` in ticks as played. */
export interface Struck {
  readonly item: EventItem;
  readonly span: Span;
  readonly at: number;
  readonly strings: readonly number[];
  readonly stroke: Stroke;
  /** Whether the player wrote it. */
  readonly given: boolean;
  /** Strings of a split pair that a finger plucks while the pick strikes the thickest. */
  readonly plucked: readonly number[];
}
