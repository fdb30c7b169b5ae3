import type { EventItem, Link, Writable, WrittenNote } from './model.ts';
import type { TimedEvent } from './unroll.ts';

/** How high a string stands bent, cents, and the fret it was bent at; 0 where it is not bent. */
export interface Standing {
  readonly cents: number;
  readonly fret: number | null;
}

/** What of a note says whether it begins bent. */
export type Coming = Pick<WrittenNote, 'string' | 'fret' | 'held' | 'again'>;

/** How a note comes to sound on what stands before it. */
export interface Following {
  readonly link: Link | undefined;
  readonly before: Pick<EventItem, 'link'> | null | undefined;
}

/**
 * Which strings stand bent while a phrase is played on, and how high: since their bend, until they are fretted anew, cut, or rest.
 */
export class StandingBends {
  /** Entries are changed in place: this is asked and told for every note at every keystroke. */
  readonly #strings = new Map<number, Writable<Standing> & { at: number }>();
  #count = 0;

  /**
   * How high its string stands as a note begins, cents: a bend that goes on, or is struck again, and a tap on a bent string start
   * bent; a pull-off right after the tap falls back to the bent note. Any other note starts plain.
   */
  under({ string, fret, held, again }: Coming, { link, before }: Following): number {
    const standing = this.#strings.get(string);
    if (!standing) return 0;
    if (held !== undefined || again !== undefined || link === 'tap') return standing.cents;
    const backToBend = link === 'pull' && before?.link === 'tap' && standing.fret === fret;
    return backToBend ? standing.cents : 0;
  }

  /** Takes in a note that ends so high, cents. */
  take({ string, fret }: WrittenNote, { link }: Pick<EventItem, 'link'>, cents: number): void {
    const known = this.#strings.get(string);
    this.#count += 1;
    if (fret === null) this.#strings.delete(string);
    else if (!known) this.#strings.set(string, { cents, fret: link === 'tap' ? null : fret, at: this.#count });
    else {
      known.cents = cents;
      known.at = this.#count;
      if (link !== 'tap') known.fret = fret;
    }
  }

  /** How a string stands; undefined where it does not sound. */
  on(string: number): Standing | undefined {
    return this.#strings.get(string);
  }

  /** The strings that stand bent, the latest last. */
  get bent(): readonly number[] {
    return [...this.#strings]
      .filter(([, { cents }]) => cents > 0)
      .sort(([, a], [, b]) => a.at - b.at)
      .map(([string]) => string);
  }

  /** Some strings are cut short; left out, all rest. */
  silence(strings?: readonly number[]): void {
    if (strings === undefined) this.#strings.clear();
    else for (const string of strings) this.#strings.delete(string);
  }
}

/** Until when strings ring because a bend on them goes on later, ticks, by the event and string they are struck in. Linear. */
export function heldTo(events: readonly TimedEvent[]): ReadonlyMap<TimedEvent, ReadonlyMap<number, number>> {
  const found = new Map<TimedEvent, Map<number, number>>();
  const waiting = new Map<number, number>();
  for (const event of events.toReversed()) {
    if (!event.item) waiting.clear();
    for (const { string, held } of event.item?.notes ?? []) {
      const to = waiting.get(string);
      if (to !== undefined) found.set(event, (found.get(event) ?? new Map<number, number>()).set(string, to));
      waiting.delete(string);
      if (held !== undefined) waiting.set(string, event.at);
    }
  }
  return found;
}

/** The stretches over which a string stands bent until its bend goes on, ticks. Linear. */
export function heldSpans(events: readonly TimedEvent[]): readonly { readonly from: number; readonly to: number }[] {
  return [...heldTo(events)].flatMap(([{ at }, strings]) => [...strings.values()].map((to) => ({ from: at, to })));
}

/** Where the earliest of the bends that go on in an event was struck, among the events in the order of the text; the event itself where none does. */
export function heldFrom(events: readonly EventItem[], index: number): number {
  const strings = (events[index]?.notes ?? []).filter(({ held }) => held !== undefined).map(({ string }) => string);
  let from = index;
  for (const string of strings) {
    let at = index - 1;
    while (at >= 0 && !events[at]?.notes.some((note) => note.string === string && note.held === undefined)) at -= 1;
    if (at >= 0) from = Math.min(from, at);
  }
  return from;
}
