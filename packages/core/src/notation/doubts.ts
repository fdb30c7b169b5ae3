import type { Phrase, Span, Sureness } from './model.ts';
import { scoreOf, type ScoreEvent } from './score.ts';
import { beatOf } from './values.ts';

/** A stretch of a phrase that is not heard and certain. Bars and beats count from 1. */
export interface Doubt {
  readonly span: Span;
  readonly sureness: Sureness;
  /** The words that stand with it. */
  readonly reason: string;
  readonly bar: number;
  readonly beat: number;
}

/** All of a phrase that wants a second listen, in the order of the text; neighbours of the same doubt are one. */
export function doubtsOf(phrase: Phrase): readonly Doubt[] {
  const doubts: Doubt[] = [];
  let open = false;
  for (const [index, { events, meter }] of scoreOf(phrase).entries())
    for (const event of events) {
      const last = doubts.at(-1);
      if (event.sureness === null) open = false;
      else if (open && last?.sureness === event.sureness) doubts[doubts.length - 1] = longer(last, event);
      else {
        const { span, sureness, words, at } = event;
        const beat = beatOf(at, meter);
        doubts.push({ span, sureness, reason: words.join(' · '), bar: index + 1, beat });
        open = true;
      }
    }
  return doubts;
}

function longer(doubt: Doubt, { span, words }: ScoreEvent): Doubt {
  const reason = [doubt.reason, ...words].filter(Boolean).join(' · ');
  return { ...doubt, span: { from: doubt.span.from, to: span.to }, reason };
}
