import { startValueOf, type Rhythm } from '@jam-ledger/contract';
import {
  COMMON_TIME,
  readMeter,
  scoreOf,
  type Meter,
  type ReadOptions,
  type Reading,
  type ScoreBar,
} from '@jam-ledger/core/notation';
import { readPlaced } from '@jam-ledger/core/placing';
import { readTuning, TUNINGS, type Tuning } from '@jam-ledger/core/pitch';
import { computed, toValue, type ComputedRef, type MaybeRefOrGetter } from 'vue';

/** How the guitar and the song are set up, as far as reading needs it. */
export interface ReadingSetUp {
  readonly tuning: string;
  readonly meter: string;
  /** Fret of the capo; none where left out. */
  readonly capo?: number;
  /** How lengths are written where a phrase says none; counted where left out. */
  readonly rhythm?: Rhythm;
}

/** The tuning of a set-up; standard where it cannot be read. */
export function tuningOf({ tuning }: Pick<ReadingSetUp, 'tuning'>): Tuning {
  return readTuning(tuning) ?? TUNINGS.standard;
}

/** A text read and laid out for the page. */
export interface LiveReading {
  readonly reading: ComputedRef<Reading>;
  readonly bars: ComputedRef<readonly ScoreBar[]>;
  readonly tuning: ComputedRef<Tuning>;
  readonly meter: ComputedRef<Meter>;
  /** Reads any text with the same set-up; the same text twice running is read once. */
  readonly read: (text: string) => Reading;
}

/** A text read anew whenever it or the set-up changes. */
export function useReading(text: MaybeRefOrGetter<string>, setUp: MaybeRefOrGetter<ReadingSetUp>): LiveReading {
  // By their texts, so that both stay the same objects while other things of the song change.
  const tuningText = computed(() => toValue(setUp).tuning);
  const meterText = computed(() => toValue(setUp).meter);
  const capo = computed(() => toValue(setUp).capo ?? 0);
  const tuning = computed(() => tuningOf({ tuning: tuningText.value }));
  const meter = computed(() => readMeter(meterText.value) ?? COMMON_TIME);
  const startValue = computed(() => startValueOf(toValue(setUp).rhythm ?? 'counted'));
  let last: { text: string; set: ReadOptions; reading: Reading } | undefined;
  const set = computed(() => ({
    ...{ tuning: tuning.value, meter: meter.value, capo: capo.value },
    startValue: startValue.value,
  }));
  const read = (asked: string): Reading => {
    if (last?.text === asked && last.set === set.value) return last.reading;
    last = { text: asked, set: set.value, reading: readPlaced(asked, set.value) };
    return last.reading;
  };
  const reading = computed(() => read(toValue(text)));
  const bars = computed(() => scoreOf(reading.value.phrase));
  return { reading, bars, tuning, meter, read };
}
