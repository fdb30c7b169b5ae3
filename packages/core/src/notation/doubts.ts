import type { Phrase, Span, Sureness } from './model.ts';
import { isGuessed } from './playOut.ts';
import { scoreOf, type ScoreEvent } from './score.ts';
import { sayPlace } from './values.ts';

/** What is not heard and certain of an event: how sure it is, how far it is bent, or where it lies. */
export type DoubtKind = Sureness | 'bend without a size' | 'place not said';

/** A stretch of a phrase that is not heard and certain. */
export interface Doubt {
  readonly span: Span;
  readonly kind: DoubtKind;
  /** The words that stand with it. */
  readonly reason: string;
  /** `bar 2, beat 3`; `note 6` where only the order is known. */
  readonly place: string;
}

/** All of a phrase that wants a second listen, in the order of the text; neighbours of the same doubt are one. */
export function doubtsOf(phrase: Phrase): readonly Doubt[] {
  const doubts: Doubt[] = [];
  let open = false;
  let note = 0;
  for (const [index, { events, meter }] of scoreOf(phrase).entries())
    for (const event of events) {
      const { span, words, at, timed } = event;
      if (event.item) note += 1;
      const kind = doubtOf(event);
      const last = doubts.at(-1);
      if (kind === null) open = false;
      else if (open && last?.kind === kind) doubts[doubts.length - 1] = longer(last, event);
      else {
        doubts.push({
          span,
          kind,
          reason: words.join(' · '),
          place: sayPlace({ timed, bar: index + 1, at, meter, note }),
        });
        open = true;
      }
    }
  return doubts;
}

function doubtOf({ sureness, item }: ScoreEvent): DoubtKind | null {
  if (sureness !== null) return sureness;
  const unsure = item?.notes.find((note) => note.sureness)?.sureness;
  if (unsure) return unsure;
  if (item?.notes.some(({ sought }) => isGuessed(sought))) return 'place not said';
  const isUnsized = item?.notes.some(({ moves }) => moves?.some(({ unsized }) => unsized));
  return isUnsized ? 'bend without a size' : null;
}

function longer(doubt: Doubt, { span, words }: ScoreEvent): Doubt {
  const reason = [doubt.reason, ...words].filter(Boolean).join(' · ');
  return { ...doubt, span: { from: doubt.span.from, to: span.to }, reason };
}
