import type { Degree } from '@jam-ledger/core/harmony';
import { isPlucking, type EventItem, type ScoreBar, type ScoreEvent } from '@jam-ledger/core/notation';

/** What stands on a handout besides frets and rhythm. */
export interface Shown {
  readonly fingers: boolean;
  readonly strokes: boolean;
  readonly words: boolean;
  readonly chords: boolean;
}

/** Bars with only what is to be shown on them. */
export function onlyShown(bars: readonly ScoreBar[], shown: Shown): readonly ScoreBar[] {
  if (shown.fingers && shown.strokes && shown.words && shown.chords) return bars;
  return bars.map(({ closing, ...bar }) => ({
    ...bar,
    events: bar.events.map((event) => shownEvent(event, shown)),
    ...(closing && shown.chords && shown.words && { closing }),
  }));
}

function shownEvent({ chord, ...event }: ScoreEvent, shown: Shown): ScoreEvent {
  const isStroke = (mark: string) => mark === 'down' || mark === 'up' || isPlucking(mark);
  return {
    ...event,
    item: event.item && shownItem(event.item, shown),
    marks: shown.strokes ? event.marks : event.marks.filter((mark) => !isStroke(mark)),
    words: shown.words ? event.words : [],
    ...(chord !== undefined && shown.chords && { chord }),
  };
}

function shownItem(item: EventItem, { fingers, strokes }: Shown): EventItem {
  if (fingers && strokes) return item;
  return {
    ...item,
    notes: item.notes.map(({ finger, fingerBehind, fingerOr, plucked, ...note }) => ({
      ...note,
      ...(fingers && finger && { finger }),
      ...(fingers && fingerBehind && { fingerBehind }),
      ...(fingers && fingerOr && { fingerOr }),
      ...(strokes && plucked && { plucked }),
    })),
  };
}

/** Bars with what their notes are against the chord, else against the key, written under them; of a repeat, as it is on the first pass. */
export function withDegrees(bars: readonly ScoreBar[], degrees: readonly Degree[]): readonly ScoreBar[] {
  const said = new Map<number, Map<number, Degree>>();
  for (const one of degrees) {
    const there = said.get(one.span.from) ?? new Map<number, Degree>();
    if (!there.has(one.string)) there.set(one.string, one);
    said.set(one.span.from, there);
  }
  return bars.map((bar) => ({
    ...bar,
    events: bar.events.map((event): ScoreEvent => {
      const notes = event.item && !event.tied ? [...(said.get(event.span.from)?.values() ?? [])] : [];
      if (notes.length === 0) return event;
      const lowestFirst = notes.sort((a, b) => a.midi - b.midi);
      return { ...event, degrees: lowestFirst.map(({ degree, keyDegree }) => degree ?? keyDegree).join(' ') };
    }),
  }));
}
