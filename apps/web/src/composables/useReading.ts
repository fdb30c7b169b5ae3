import { readMeter, readShorthand, scoreOf, COMMON_TIME, type Reading, type ScoreBar } from '@jam-ledger/core/notation';
import { TUNINGS, type Tuning, type TuningName } from '@jam-ledger/core/pitch';
import { computed, toValue, type ComputedRef, type MaybeRefOrGetter } from 'vue';

/** How the guitar and the song are set up, as far as reading needs it. */
export interface ReadingSetUp {
  readonly tuning: TuningName;
  readonly meter: string;
}

/** A text read and laid out for the page, anew whenever it changes. */
export function useReading(
  text: MaybeRefOrGetter<string>,
  setUp: MaybeRefOrGetter<ReadingSetUp>,
): { reading: ComputedRef<Reading>; bars: ComputedRef<readonly ScoreBar[]>; tuning: ComputedRef<Tuning> } {
  const tuning = computed(() => TUNINGS[toValue(setUp).tuning]);
  const meter = computed(() => readMeter(toValue(setUp).meter) ?? COMMON_TIME);
  const reading = computed(() => readShorthand(toValue(text), { tuning: tuning.value, meter: meter.value }));
  const bars = computed(() => scoreOf(reading.value.phrase));
  return { reading, bars, tuning };
}
