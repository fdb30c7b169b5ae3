import type { Guitar } from '../fretboard/index.ts';
import {
  readShorthand,
  rewriteEvents,
  type EventItem,
  type Fix,
  type Phrase,
  type Problem,
} from '../notation/index.ts';
import type { Key } from '../pitch/index.ts';

/** Every kind of trouble that hands, guitar or ear have with a phrase that reads well. */
export type CheckCode =
  | 'fret-missing'
  | 'reach'
  | 'stack-impossible'
  | 'finger-twice'
  | 'jump-fast'
  | 'too-fast'
  | 'unison-off'
  | 'bend-proposed'
  | 'bend-beyond-neck'
  | 'no-tremolo-arm'
  | 'key-doubt'
  | 'chord-differs'
  | 'claim-wrong'
  | 'slip';

/** One of these, with its place and where one is certain its fix. */
export type HandProblem = Problem<CheckCode>;

/** What a phrase is checked against. */
export interface CheckOptions extends Guitar {
  /** The text the phrase was read from, so that fixes fit it. */
  readonly text: string;
  /** Quarter notes a minute at full speed. */
  readonly bpm: number;
  /** The key that was stated; left out where it is open. */
  readonly key?: Key | undefined;
  readonly tremoloArm?: boolean;
  /** Whether somebody has checked what is written against what is heard; its notes are not doubted then. */
  readonly isTrusted?: boolean;
}

/** A phrase with what its checks share. */
export interface Checked {
  readonly phrase: Phrase;
  readonly options: CheckOptions;
}

/** The fix that writes some events anew; the span reaches from the first to the last of them, or of what must follow. */
export function fixOf(
  title: string,
  { text, tuning, capo }: CheckOptions,
  changes: ReadonlyMap<EventItem, EventItem>,
): Fix {
  const spans = [...changes.keys()].map(({ span }) => span);
  const from = Math.min(...spans.map((span) => span.from));
  const whole = rewriteEvents(text, changes, (typed) => readShorthand(typed, { tuning, capo }).phrase);
  const changed = Math.max(...spans.map((span) => span.to));
  const to = whole.endsWith(text.slice(changed)) ? changed : text.length - sameAtEnd(text, whole);
  return { title, span: { from, to }, text: whole.slice(from, whole.length - (text.length - to)) };
}

/** How many characters two texts have in common at their ends. */
function sameAtEnd(one: string, other: string): number {
  let count = 0;
  while (count < one.length && one.at(-1 - count) === other.at(-1 - count)) count += 1;
  return count;
}
