import { eventsOf, type Phrase, type Span } from '../notation/index.ts';
import { bestPath, fretPositionsOnPath, type Path } from './bestPath.ts';
import { pitchAt, topFret, type Guitar } from './guitar.ts';
import { inBox, fretPositionsOf, withFretPositions, type PositionRules } from './fretPositions.ts';

/** A phrase brought under a hand that stays where it is. */
export interface Boxed {
  readonly phrase: Phrase;
  /** The fret under the first finger. */
  readonly position: number;
  readonly path: Path;
  /** Events that the box has not; they stay where they are written. */
  readonly outside: readonly Span[];
}

/**
 * The same pitches with the hand in one place: the box that holds the most events, of those the one that costs the hand
 * least. Undefined for a phrase without a fretted note.
 */
export function oneBox(phrase: Phrase, guitar: Guitar, rules: PositionRules = {}): Boxed | undefined {
  const boxes = Array.from({ length: Math.max(1, topFret(guitar) - 3) }, (_, index) => index + 1);
  const missing = boxes.map((position) => outsideOf(phrase, guitar, position).length);
  const fewest = Math.min(...missing);
  const tried = boxes
    .filter((_, index) => missing[index] === fewest)
    .map((position) => ({ position, path: bestPath(phrase, guitar, { ...rules, position }) }));
  const best = tried.reduce((a, b) => (b.path.costMs < a.path.costMs ? b : a));
  if (best.path.steps.length === 0) return undefined;
  const fretPositions = fretPositionsOnPath(best.path);
  const outside = best.path.steps.filter(({ grip }) => grip.impossible).map(({ item }) => item.span);
  return { ...best, phrase: withFretPositions(phrase, (item) => fretPositions.get(item)), outside };
}

/** The events with a note that lies in no string of the box. */
function outsideOf(phrase: Phrase, guitar: Guitar, position: number): readonly Span[] {
  return eventsOf(phrase)
    .filter(({ item }) =>
      item.notes.some(
        ({ string, fret }) =>
          fret !== null &&
          !fretPositionsOf(pitchAt(guitar, string, fret), guitar).some((place) => inBox(place.fret, position)),
      ),
    )
    .map(({ item }) => item.span);
}
