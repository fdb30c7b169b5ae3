import type { Loop } from '@jam-ledger/contract';
import { namesOf, sayEvent, type StringNames } from '@jam-ledger/core/fretboard';
import { sayPlace, techniquesOfEvents, unroll, type Phrase, type Span } from '@jam-ledger/core/notation';
import type { Tuning } from '@jam-ledger/core/pitch';
import { computed, ref, toValue, watch, type MaybeRefOrGetter } from 'vue';
import type { Stretch } from '../sound/index.ts';

/** An event of a piece, one step after the other as it is played. */
export interface PlayedStep {
  readonly at: number;
  readonly length: number;
  readonly span: Span;
  /** `bar 2, beat 3`; `note 6` where only the order is known. */
  readonly place: string;
  /** What to play, in words. */
  readonly says: string;
}

function isSame(some: readonly PlayedStep[], others: readonly PlayedStep[]): boolean {
  if (some.length !== others.length) return false;
  return some.every(({ at, length, span, says }, index) => {
    const other = others[index];
    return other?.at === at && other.length === length && other.span.from === span.from && other.says === says;
  });
}

/** Steps through a piece event by event, and keeps some of its beats round and round. */
export function useStepping(
  phrase: MaybeRefOrGetter<Phrase>,
  tuning: MaybeRefOrGetter<Tuning>,
  naming: MaybeRefOrGetter<StringNames> = 'letters',
) {
  const steps = computed((before: readonly PlayedStep[] | undefined): readonly PlayedStep[] => {
    const made = readSteps();
    // What is read anew and is the same keeps the place and the loop one has in it.
    return before && isSame(before, made) ? before : made;
  });
  function readSteps(): readonly PlayedStep[] {
    const { events, bars } = unroll(toValue(phrase));
    const techniques = techniquesOfEvents(toValue(phrase));
    const names = namesOf({ tuning: toValue(tuning), names: toValue(naming) });
    let note = 0;
    return events.flatMap(({ item, at, length, span, timed, bar: index }) => {
      const bar = bars[index];
      if (!item || !bar) return [];
      note += 1;
      const place = sayPlace({ timed, bar: index + 1, at: at - bar.at, meter: bar.meter, note });
      return [{ at, length, span, place, says: sayEvent(item, techniques.get(item) ?? [], names) }];
    });
  }
  const index = ref(-1);
  const step = computed(() => steps.value[index.value]);
  /** First and last step that go round and round; nothing for the whole. */
  const ends = ref<readonly [number, number]>();

  watch(steps, () => {
    index.value = -1;
    ends.value = undefined;
  });

  /** Goes on or back; before the first begins at the first. */
  function move(by: 1 | -1): void {
    index.value = Math.min(steps.value.length - 1, Math.max(0, index.value + by));
  }

  /** Goes to an event of the text. */
  function pick({ from }: Span): void {
    const found = steps.value.findIndex(({ span }) => span.from === from);
    if (found >= 0) index.value = found;
  }

  /** Begins or ends the loop at the step one stands on. */
  function loopFrom(): void {
    if (index.value >= 0) ends.value = [index.value, Math.max(index.value, ends.value?.[1] ?? steps.value.length - 1)];
  }
  function loopTo(): void {
    if (index.value >= 0) ends.value = [Math.min(index.value, ends.value?.[0] ?? 0), index.value];
  }

  /** Keeps the events that begin from so many hundredths on to so many; all of them for 0 to 100. */
  function keepPart(from: number, to: number): void {
    ends.value = partOf(from, to);
  }
  function partOf(from: number, to: number): readonly [number, number] | undefined {
    const last = steps.value.at(-1);
    if ((from <= 0 && to >= 100) || !last) return undefined;
    const length = last.at + last.length;
    const first = steps.value.findIndex(({ at }) => at * 100 >= from * length);
    const end = steps.value.findLastIndex(({ at }) => at * 100 < to * length);
    return [Math.max(0, first), Math.max(0, first, end)];
  }

  /** What is played where a rung asks for so many hundredths: just that, all of it, or a loop that was chosen by hand. */
  function playedOf(percent: number): { readonly percent: number; readonly loop?: Loop } {
    const [first, last] = ends.value ?? [0, steps.value.length - 1];
    if (first === 0 && last === steps.value.length - 1) return { percent: 100 };
    const asked = partOf(0, percent);
    if (asked?.[0] === first && asked[1] === last) return { percent };
    const { from, to } = looped.value;
    return from === undefined || to === undefined ? { percent: 100 } : { percent: 100, loop: { from, to } };
  }

  const looped = computed((): Stretch => {
    const [first, last] = ends.value?.map((at) => steps.value[at]) ?? [];
    return first && last ? { from: first.at, to: last.at + last.length } : {};
  });
  const loopedSpans = computed(() => {
    const [first, last] = ends.value ?? [0, -1];
    return steps.value.slice(first, last + 1).map(({ span }) => span);
  });
  const loopSays = computed(() => {
    const [first, last] = ends.value?.map((at) => steps.value[at]?.place) ?? [];
    return first === undefined || last === undefined ? 'the whole' : first === last ? first : `${first} to ${last}`;
  });
  const clear = () => (ends.value = undefined);
  return { steps, index, step, move, pick, loopFrom, loopTo, keepPart, playedOf, clear, looped, loopedSpans, loopSays };
}
