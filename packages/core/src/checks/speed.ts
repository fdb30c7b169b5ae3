import { mmBetween, movedEvent, namesOf, pitchAt, fretPositionsOf, sayNote, type Path } from '../fretboard/index.ts';
import { hasRhythm, isPicked, secondsOfEvents, type EventItem } from '../notation/index.ts';
import type { FretPosition } from '../pitch/index.ts';
import { fixOf, type Checked, type HandProblem } from './problem.ts';

/** Faster than this along the neck and a hand arrives by luck, millimetres a second. Our choice. */
export const FASTEST_HAND_MM_PER_SECOND = 900;

/** Most picked notes a second that are asked of anyone: 16ths at 210. Our choice. */
export const FASTEST_PICK_PER_SECOND = 14;

/** Most hammered or pulled notes a second. Our choice. */
export const FASTEST_LEGATO_PER_SECOND = 18;

/** So many fast notes in a row are said at once. */
const FEWEST_IN_A_ROW = 3;

/** Jumps and runs that are faster than hands, at full speed. */
export function speedProblems({ phrase, options }: Checked, path: Path): readonly HandProblem[] {
  if (!hasRhythm(phrase)) return [];
  const seconds = secondsOfEvents(phrase, options.bpm);
  return [...jumps(path, seconds, options), ...runs(path, seconds, options.bpm)];
}

function jumps(
  path: Path,
  seconds: ReadonlyMap<EventItem, number>,
  options: Checked['options'],
): readonly HandProblem[] {
  const names = namesOf(options);
  return path.steps.flatMap(({ item, shiftMm }, index): readonly HandProblem[] => {
    const before = path.steps[index - 1]?.item;
    const time = before && seconds.get(before);
    const link = item.link === 'slide' || item.link === 'shift' || item.link === 'tap';
    const [from, to] = [before?.notes[0], item.notes[0]];
    if (!before || !from || !to || time === undefined || link) return [];
    // A hand that reaches from one fret to the other need not have gone all the way.
    const jumpMm = from.fret && to.fret ? Math.min(shiftMm, mmBetween(options, from.fret, to.fret)) : shiftMm;
    if (jumpMm / time <= FASTEST_HAND_MM_PER_SECOND) return [];
    const nearer = nearerFretPosition(path, index, options);
    return [
      {
        code: 'jump-fast',
        severity: 'warning',
        span: item.span,
        message: `The jump from ${sayNote(from, names)} to ${sayNote(to, names)} is ${Math.round(jumpMm)} mm in ${time.toFixed(2)} s, ${Math.round(jumpMm / time)} mm a second; a hand can be sure of ${FASTEST_HAND_MM_PER_SECOND}.`,
        ...(nearer && {
          fix: fixOf(`Play ${sayNote(nearer, names)}, nearer`, options, new Map([[item, movedEvent(item, [nearer])]])),
        }),
      },
    ];
  });
}

/** The same pitch nearer to the hand, where the event can move alone. */
function nearerFretPosition(path: Path, index: number, options: Checked['options']): FretPosition | undefined {
  const [before, step, after] = [path.steps[index - 1], path.steps[index], path.steps[index + 1]];
  const [note] = step?.item.notes ?? [];
  const alone = step?.item.notes.length === 1 && step.item.link === undefined && after?.item.link === undefined;
  if (!before || !step || !note || note.fret === null || note.harmonic || !alone) return undefined;
  const hand = before.grip.position;
  const away = ({ fret }: { readonly fret: number }) => mmBetween(options, hand, fret);
  const fretPositions = fretPositionsOf(pitchAt(options, note.string, note.fret), options).filter(
    ({ fret }) => fret > 0,
  );
  const best = fretPositions.reduce((a, b) => (away(b) < away(a) ? b : a), { string: note.string, fret: note.fret });
  return best.fret === note.fret ? undefined : best;
}

function runs(path: Path, seconds: ReadonlyMap<EventItem, number>, bpm: number): readonly HandProblem[] {
  const found: HandProblem[] = [];
  let run: EventItem[] = [];
  const close = () => {
    const [first, last] = [run[0], run.at(-1)];
    if (first && last && run.length >= FEWEST_IN_A_ROW) {
      const rate = run.length / run.reduce((sum, item) => sum + (seconds.get(item) ?? 0), 0);
      const slowEnough = Math.floor((bpm * FASTEST_PICK_PER_SECOND) / rate);
      found.push({
        code: 'too-fast',
        severity: 'warning',
        span: { from: first.span.from, to: last.span.to },
        message: `${run.length} events at ${rate.toFixed(1)} a second; ${FASTEST_PICK_PER_SECOND} picked or ${FASTEST_LEGATO_PER_SECOND} slurred are the most that is asked of anyone. At ${slowEnough} bpm it would do.`,
      });
    }
    run = [];
  };
  for (const { item } of path.steps) {
    const time = seconds.get(item) ?? Infinity;
    const max = isPicked(item) ? FASTEST_PICK_PER_SECOND : FASTEST_LEGATO_PER_SECOND;
    if (time > 0 && 1 / time > max && item.value !== 'grace') run.push(item);
    else close();
  }
  close();
  return found;
}
