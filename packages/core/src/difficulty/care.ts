import { bestPath, spanMm, type Guitar, type Path } from '../fretboard/index.ts';
import { bendHeight, eventsOf, secondsOfEvents, type Phrase, type Span } from '../notation/index.ts';

/** The customary cautions. Source: common practice; they never diagnose. */
export const CAUTIONS = {
  'wide stretch':
    'A wide stretch: warm up first, keep the wrist straight and the thumb low, and shake the hand out between tries.',
  'long repetition':
    'Long and fast: rest between repetitions, and stop when the arm grows stiff rather than playing through it.',
  'heavy bends':
    'Heavy bends: put the fingers behind the one that bends, turn the wrist, and take breaks for the fingertips.',
} as const;
/** One of the `CAUTIONS`. */
export type CautionName = keyof typeof CAUTIONS;

/** Said with every caution. */
export const CARE_LINE =
  'Playing should not hurt. With pain, numbness or tingling stop, tell your teacher, and see a health professional.';

/** A caution, and the place that asks for it. */
export interface Caution {
  readonly name: CautionName;
  readonly says: string;
  readonly span: Span;
}

/** From when on cautions are given. Our choice. */
const LIMITS = { shareOfReach: 0.9, fastPerSecond: 7, longEvents: 32, heavySteps: 1.5, manyBends: 8 } as const;

/** The cautions a phrase asks for at a tempo, at most one of each kind. */
export function cautionsOf(
  phrase: Phrase,
  { bpm, path, ...guitar }: Guitar & { readonly bpm: number; readonly path?: Path },
): readonly Caution[] {
  const way = path ?? bestPath(phrase, guitar, { asWritten: true });
  const wide = way.steps.find(
    ({ item, grip }) => item.notes.length > 1 && spanMm(grip, guitar) > LIMITS.shareOfReach * guitar.reachMm,
  );
  const found: readonly (readonly [CautionName, Span | undefined])[] = [
    ['wide stretch', wide?.item.span],
    ['long repetition', longRun(phrase, bpm)],
    ['heavy bends', heavyBend(phrase)],
  ];
  return found.flatMap(([name, span]) => (span ? [{ name, says: CAUTIONS[name], span }] : []));
}

function longRun(phrase: Phrase, bpm: number): Span | undefined {
  const seconds = secondsOfEvents(phrase, bpm);
  let run = 0;
  for (const { item } of eventsOf(phrase)) {
    const each = seconds.get(item) ?? Infinity;
    run = 1 / each >= LIMITS.fastPerSecond ? run + item.times : 0;
    if (run >= LIMITS.longEvents) return item.span;
  }
  return undefined;
}

function heavyBend(phrase: Phrase): Span | undefined {
  let bends = 0;
  for (const { item } of eventsOf(phrase))
    for (const note of item.notes) {
      const highest = bendHeight(note);
      if (highest > 0) bends += 1;
      if (highest >= LIMITS.heavySteps || bends >= LIMITS.manyBends) return item.span;
    }
  return undefined;
}
