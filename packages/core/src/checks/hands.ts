import {
  namesOf,
  sayNote,
  beyondReachMm,
  gripsFor,
  mmBetween,
  movedEvent,
  moveTo,
  pitchAt,
  fretPositionsOf,
  spanMm,
  topFret,
  type Path,
  type PathStep,
} from '../fretboard/index.ts';
import { eventsOf, type EventItem, type WrittenNote } from '../notation/index.ts';
import { fixOf, type Checked, type HandProblem } from './problem.ts';

/** Frets that this guitar has not, with the way out: the same pitch elsewhere, else an octave lower. */
export function missingFrets({ phrase, options }: Checked): readonly HandProblem[] {
  const top = topFret(options);
  const events = eventsOf(phrase).map(({ item }) => item);
  return events.flatMap((item, index): readonly HandProblem[] => {
    const note = item.notes.find(({ fret, trill }) => Math.max(fret ?? 0, trill ?? 0) > top);
    if (!note) return [];
    const fret = Math.max(note.fret ?? 0, note.trill ?? 0);
    const chain = chainAround(events, index);
    const whole = { ...phrase, items: chain };
    const moved = moveTo(whole, options, { strings: 0, guitar: { frets: options.frets }, octaveBelow: true });
    const changed = eventsOf(moved.phrase).map(({ item: one }) => one);
    const changes = new Map(
      chain.flatMap((one, at) => (changed[at] && changed[at] !== one ? [[one, changed[at]] as const] : [])),
    );
    const first = changes.get(item)?.notes[0];
    const way = moved.lost.some(({ why }) => why.includes('octave')) ? 'an octave lower' : 'the same pitch';
    return [
      {
        code: 'fret-missing',
        severity: 'warning',
        span: item.span,
        message: `This guitar ends at fret ${options.frets}${options.capo > 0 ? `, ${top} from the capo` : ''}; fret ${fret} is not there.`,
        ...(first && { fix: fixOf(`Play ${sayNote(first, namesOf(options))}, ${way}`, options, changes) }),
      },
    ];
  });
}

/** The events that a link holds together with one of them. */
function chainAround(events: readonly EventItem[], index: number): readonly EventItem[] {
  let from = index;
  while (from > 0 && events[from]?.link !== undefined) from -= 1;
  let to = index + 1;
  while (events[to]?.link !== undefined) to += 1;
  return events.slice(from, to);
}

/** Stacks that four fingers cannot hold, that one finger would hold twice, or that are wider than this hand. */
export function gripProblems({ options }: Checked, path: Path): readonly HandProblem[] {
  return path.steps.flatMap((step, index): readonly HandProblem[] => {
    const { item, grip } = step;
    const twice = fingerTwice(item);
    if (twice !== undefined)
      return [
        {
          code: 'finger-twice',
          severity: 'warning',
          span: item.span,
          message: `Finger ${twice} would have to press two frets at once.`,
          fix: fixOf('Leave the fingers open', options, new Map([[item, withoutFingers(item)]])),
        },
      ];
    if (grip.impossible) {
      const fewer = possibleWithout(item);
      return [
        {
          code: 'stack-impossible',
          severity: 'warning',
          span: item.span,
          ...(fewer && {
            fix: fixOf(`Leave out ${sayNote(fewer.out, namesOf(options))}`, options, new Map([[item, fewer.event]])),
          }),
          message: `No hand can hold ${item.notes.map((note) => sayNote(note, namesOf(options))).join(', ')} at once; check the strings or leave a note out.`,
        },
      ];
    }
    return reachProblem(step, path.steps[index - 1], options) ?? [];
  });
}

function withoutFingers(item: EventItem): EventItem {
  return { ...item, notes: item.notes.map(({ finger: _, ...note }) => note) };
}

/** The stack with the one note left out that lets a hand hold the rest, the least heard first. */
function possibleWithout(item: EventItem): { readonly event: EventItem; readonly out: WrittenNote } | undefined {
  // Neither the bass nor the tune, where an inner note will do.
  const byString = [...item.notes].sort((a, b) => a.string - b.string);
  const order = [...byString.slice(1, -1), ...byString.slice(-1), ...byString.slice(0, 1)];
  for (const out of order) {
    const notes = item.notes.filter((note) => note !== out);
    const event = { ...item, notes };
    const fretPositions = notes.map(({ string, fret }) => ({ string, fret }));
    if (notes.length > 0 && gripsFor(event, fretPositions, { barre: null }).some(({ impossible }) => !impossible))
      return { event, out };
  }
  return undefined;
}

/** The finger that was written for two frets of one stack. */
function fingerTwice({ notes }: EventItem): string | undefined {
  const frets = new Map<string, number | null>();
  for (const { finger, fret } of notes) {
    if (finger === undefined) continue;
    if (frets.has(finger) && frets.get(finger) !== fret) return finger;
    frets.set(finger, fret);
  }
  return undefined;
}

function reachProblem(
  { item, grip }: PathStep,
  before: PathStep | undefined,
  options: Checked['options'],
): readonly HandProblem[] | undefined {
  const { reachMm } = options;
  // A single note is reached by moving; only what is held at once can be too wide.
  const beyond = item.notes.length > 1 ? beyondReachMm(grip, options) : 0;
  const legato = legatoMm(item, before?.item, options);
  const beyondLegato = legato > reachMm + LEGATO_ROOM_MM;
  if (beyond <= ANGLED_MM && !beyondLegato) return undefined;
  const mm = Math.max(beyond > ANGLED_MM ? spanMm(grip, options) : 0, beyondLegato ? legato : 0);
  const elsewhere = item.notes.length === 1 || legato > 0 ? undefined : narrower(item, options);
  return [
    {
      code: 'reach',
      severity: 'warning',
      span: item.span,
      message: `Spans ${Math.round(mm)} mm; this hand reaches ${Math.round(reachMm)} mm.`,
      ...(elsewhere && {
        fix: fixOf(
          `Play ${elsewhere.notes.map((note) => sayNote(note, namesOf(options))).join(', ')}`,
          options,
          new Map([[item, elsewhere]]),
        ),
      }),
    },
  ];
}

/** What a hand that is turned a little reaches further than one that lies along the neck, millimetres. Source: common practice; the size our choice. */
const ANGLED_MM = 12;

/** What a finger that may let go reaches further from one that need not press on, millimetres. Our choice. */
const LEGATO_ROOM_MM = 30;

/** From the fret that stays down to the one hammered or pulled to, millimetres; none where the other hand taps. */
function legatoMm(item: EventItem, before: EventItem | undefined, options: Checked['options']): number {
  if ((item.link !== 'hammer' && item.link !== 'pull') || before?.link === 'tap') return 0;
  const spans = item.notes.map(({ string, fret }) => {
    const from = before?.notes.find((note) => note.string === string)?.fret ?? 0;
    return fret === null || fret === 0 || from === 0 ? 0 : mmBetween(options, from, fret);
  });
  return Math.max(0, ...spans);
}

/** The same stack where it lies within reach: the note furthest out on another string. */
function narrower(item: EventItem, options: Checked['options']): EventItem | undefined {
  const width = (notes: readonly Pick<WrittenNote, 'fret'>[]) => {
    const frets = notes.flatMap(({ fret }) => (fret === null || fret === 0 ? [] : [fret]));
    return mmBetween(options, Math.min(...frets), Math.max(...frets));
  };
  const tried = item.notes.flatMap((note, at) =>
    note.fret === null || note.harmonic
      ? []
      : fretPositionsOf(pitchAt(options, note.string, note.fret), options)
          .filter(({ string }) => item.notes.every((one, index) => index === at || one.string !== string))
          .map((place) => item.notes.map(({ string, fret }, index) => (index === at ? place : { string, fret }))),
  );
  const best = tried
    .filter((fretPositions) => width(fretPositions) <= options.reachMm)
    .sort((a, b) => width(a) - width(b))[0];
  return best && movedEvent(item, best);
}
