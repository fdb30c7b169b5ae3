import { pitchAt, topFret } from '../fretboard/index.ts';
import { bendHeight, eventsOf, type BendMove, type EventItem, type WrittenNote } from '../notation/index.ts';
import { chromaOf } from '../harmony/index.ts';
import { scaleOfKey } from '../pitch/index.ts';
import { fixOf, type Checked, type HandProblem } from './problem.ts';

/** A bend that ends so near to a note struck or sounding with it is meant to meet it, semitones. Our choice. */
const MEANT_UNISON_SEMITONES = 2;

/** Widest bend that is proposed, whole steps. Source: common practice. */
const WIDEST_PROPOSED_STEPS = 2;

/** Bends that miss the note they are heard against, that have no size yet, or that open strings cannot give. */
export function bendProblems({ phrase, options }: Checked): readonly HandProblem[] {
  const events = eventsOf(phrase).map(({ item }) => item);
  return events.flatMap((item, index) => [
    ...partnerProblems(item, events[index + 1], options),
    ...sizeProblems(events, index, options),
    ...armProblems(item, options),
  ]);
}

function partnerProblems(
  item: EventItem,
  after: EventItem | undefined,
  options: Checked['options'],
): readonly HandProblem[] {
  return item.notes.flatMap((note, at): readonly HandProblem[] => {
    const last = heldBend(note);
    if (!last || last.unsized || note.fret === null) return [];
    const bent = pitchAt(options, note.string, note.fret) + last.steps * 2;
    // A partner struck with the bend, or right after it while the bend is held.
    const struck = item.notes.filter((one) => one !== note && heldBend(one) === undefined);
    const beside =
      item.notes.length === 1 && last.kind === 'bend' && after?.link === undefined ? (after?.notes ?? []) : [];
    // Whether the melody only goes on: the bent pitch belongs to the key by itself.
    const belongs = options.key !== undefined && scaleOfKey(options.key).has(chromaOf(Math.round(bent)));
    const later = (belongs ? [] : beside).filter(
      (one) => one.string !== note.string && beside.length === 1 && heldBend(one) === undefined,
    );
    const off = [...struck, ...later].find((one) => {
      if (one.fret === null || one.fret === 0) return false;
      const apart = Math.abs(pitchAt(options, one.string, one.fret) - bent);
      const near = struck.includes(one) ? MEANT_UNISON_SEMITONES : 1;
      return apart > 0.01 && apart <= near && !inRange(last, pitchAt(options, one.string, one.fret) - bent);
    });
    if (!off || off.fret === null) return [];
    const steps = (pitchAt(options, off.string, off.fret) - pitchAt(options, note.string, note.fret)) / 2;
    const apart = pitchAt(options, off.string, off.fret) - bent;
    const bends = steps > 0 && steps <= WIDEST_PROPOSED_STEPS;
    return [
      {
        code: 'unison-off',
        severity: struck.includes(off) ? 'warning' : 'hint',
        span: item.span,
        message: `The bend ends ${sayCents(apart)} ${apart > 0 ? 'below' : 'above'} the note it is heard against (fret ${off.fret}).`,
        ...(bends && { fix: fixOf(`Bend ${sayBend(steps)}`, options, resized(item, at, steps)) }),
      },
    ];
  });
}

/** A bend to anything in a range meets what lies in it; semitones above its least height. */
function inRange({ steps, upTo = steps }: BendMove, above: number): boolean {
  return above > 0 && above <= (upTo - steps) * 2 + 0.01;
}

/** The bend that stands when a note is over; a pre-bend alone stands too. */
function heldBend({ moves, preBend }: WrittenNote): BendMove | undefined {
  const last = moves?.at(-1);
  if (last) return last.steps > 0 || last.unsized ? last : undefined;
  return preBend === undefined || preBend === 0 ? undefined : { kind: 'bend', steps: preBend };
}

function sayCents(semitones: number): string {
  const half = Math.round(Math.abs(semitones) * 2) / 2;
  return half === 1 ? 'a half step' : half === 2 ? 'a whole step' : `${Math.round(Math.abs(semitones) * 100)} cents`;
}

function sayBend(steps: number): string {
  const words: Readonly<Record<string, string>> = {
    0.5: 'a half step',
    1: 'a whole step',
    1.5: 'a step and a half',
    2: 'two steps',
  };
  return words[String(steps)] ?? `${steps} steps`;
}

/** For a bend without a size: the next plain note of a pitch that a bend can reach. */
function sizeProblems(
  events: readonly EventItem[],
  index: number,
  options: Checked['options'],
): readonly HandProblem[] {
  const item = events[index];
  if (!item?.notes.some(({ moves }) => moves?.some(({ unsized }) => unsized))) return [];
  const later = events.slice(index + 1);
  return item.notes.flatMap((note, at): readonly HandProblem[] => {
    if (note.fret === null || !note.moves?.some(({ unsized }) => unsized)) return [];
    const own = pitchAt(options, note.string, note.fret);
    const plain = later
      .flatMap(({ notes }) => notes)
      .find(({ fret, moves, preBend }) => fret !== null && !moves && !preBend);
    const steps = plain?.fret == null ? NaN : (pitchAt(options, plain.string, plain.fret) - own) / 2;
    const fits = steps > 0 && steps <= WIDEST_PROPOSED_STEPS;
    const size = fits ? steps : 1;
    const why = fits
      ? `the next plain note is ${sayBend(steps)} above it`
      : 'nothing plain after it says how far; a whole step is the usual size';
    return [
      {
        code: 'bend-proposed',
        severity: 'hint',
        span: item.span,
        message: `This bend has no size: ${why}.`,
        fix: fixOf(`Bend ${sayBend(size)}`, options, resized(item, at, size)),
      },
    ];
  });
}

/** The event with the last bend of one of its notes given another size. */
function resized(item: EventItem, at: number, steps: number): ReadonlyMap<EventItem, EventItem> {
  const notes = item.notes.map((note, index) => {
    if (index !== at) return note;
    if (!note.moves) return { ...note, preBend: steps };
    const last = note.moves.findLastIndex(
      ({ kind, steps: height, unsized }) => kind === 'bend' && (height > 0 || unsized),
    );
    const moves = note.moves.map((move, place) =>
      place === last ? { kind: move.kind, steps, ...(move.slow && { slow: move.slow }) } : move,
    );
    return { ...note, moves };
  });
  return new Map([[item, { ...item, notes }]]);
}

function armProblems(item: EventItem, options: Checked['options']): readonly HandProblem[] {
  if (options.tremoloArm !== false || item.arm === undefined) return [];
  const { arm: _, ...without } = item;
  const notes = item.notes.map((note) => (note.fret === 0 ? note : { ...note, vibrato: 'wide' as const }));
  return [
    {
      code: 'no-tremolo-arm',
      severity: 'warning',
      span: item.span,
      message: 'This guitar has no tremolo arm; a wide vibrato comes nearest to the dip.',
      fix: fixOf('Make it a wide vibrato', options, new Map([[item, { ...without, notes }]])),
    },
  ];
}

/** Bends that go higher than the highest fret would cannot be checked against a fretted note. */
export function unheardTargets({ phrase, options }: Checked): readonly HandProblem[] {
  return eventsOf(phrase).flatMap(({ item }): readonly HandProblem[] => {
    const note = item.notes.find(
      (one) => (one.fret ?? 0) + 2 * bendHeight(one) > topFret(options) && bendHeight(one) > 0,
    );
    if (!note) return [];
    return [
      {
        code: 'bend-beyond-neck',
        severity: 'hint',
        span: item.span,
        message: `The target of this bend lies above fret ${options.frets}; it cannot be checked by playing that fret first, only an octave lower.`,
      },
    ];
  });
}
