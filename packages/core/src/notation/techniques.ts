import { eventsOf, type PlacedItem } from './edit.ts';
import type { EventItem, EventMark, Link, Phrase, Span, WrittenNote } from './model.ts';

/** What hands can be asked to do, the plainest first. Names: common practice. */
export const TECHNIQUES = [
  'double stop',
  'power chord',
  'chord',
  'hammer-on',
  'pull-off',
  'slide',
  'palm mute',
  'let ring',
  'dead note',
  'quiet note',
  'cut-off',
  'accent',
  'grace note',
  'triplets',
  'odd tuplets',
  'vibrato',
  'quarter bend',
  'half-step bend',
  'whole-step bend',
  'release',
  'shift slide',
  'slide in',
  'slide out',
  'barre',
  'rolled chord',
  'octaves',
  'natural harmonic',
  'trill',
  'rake',
  'wide vibrato',
  'pre-bend',
  'slow bend',
  'plucked with fingers',
  'unison bend',
  'bend beside a held note',
  'bend of two strings',
  'step-and-a-half bend',
  'two-step bend',
  'picked again while bent',
  'tremolo picking',
  'pinch harmonic',
  'tremolo-arm dip',
  'tap',
  'tap on a bent string',
] as const;
/** One of the `TECHNIQUES`. */
export type Technique = (typeof TECHNIQUES)[number];

/** The techniques of a phrase and where each first stands. */
export type Techniques = ReadonlyMap<Technique, Span>;

const LINKS: Readonly<Record<Link, Technique>> = {
  hammer: 'hammer-on',
  pull: 'pull-off',
  slide: 'slide',
  shift: 'shift slide',
  tap: 'tap',
};

const MARKS: Partial<Record<EventMark, Technique>> = {
  quiet: 'quiet note',
  'palm-mute': 'palm mute',
  'let-ring': 'let ring',
  cut: 'cut-off',
  accent: 'accent',
  rake: 'rake',
  rolled: 'rolled chord',
  tremolo: 'tremolo picking',
};

/** Every technique that a phrase asks for, in the order in which they first stand. Linear. */
export function techniquesOf(phrase: Phrase): Techniques {
  const found = new Map<Technique, Span>();
  let before: EventItem | undefined;
  for (const placed of eventsOf(phrase)) {
    for (const technique of techniquesAt(placed, before))
      if (!found.has(technique)) found.set(technique, placed.item.span);
    before = placed.item;
  }
  return found;
}

/** The techniques of each written event, in the order of the text. Linear. */
export function techniquesOfEvents(phrase: Phrase): ReadonlyMap<EventItem, readonly Technique[]> {
  let before: EventItem | undefined;
  return new Map(
    eventsOf(phrase).map((placed) => {
      const found = techniquesAt(placed, before);
      before = placed.item;
      return [placed.item, found];
    }),
  );
}

function techniquesAt({ item, around }: PlacedItem, before: EventItem | undefined): readonly Technique[] {
  const { notes, value, link } = item;
  const marks = [...item.marks, ...around.flatMap((nest) => (nest.kind === 'marked' ? nest.marks : []))];
  const found: (Technique | undefined)[] = [
    ...stackTechniques(notes),
    link && LINKS[link],
    link === 'tap' && before && endsBent(before) ? 'tap on a bent string' : undefined,
    item.slideIn && 'slide in',
    item.slideOut && 'slide out',
    around.some(({ kind }) => kind === 'barre') ? 'barre' : undefined,
    value === 'grace' ? 'grace note' : undefined,
    ...marks.map((mark) => (mark.startsWith('plucked') ? 'plucked with fingers' : MARKS[mark])),
    ...notes.flatMap((note) => noteTechniques(note)),
  ];
  if (typeof value === 'object' && value.tuplet !== undefined)
    found.push([3, 6, 12].includes(value.tuplet) ? 'triplets' : 'odd tuplets');
  if (!link && before && endsBent(before) && notes.some((note) => (note.preBend ?? 0) > 0 && isSame(before, note)))
    found.push('picked again while bent');
  return found.filter((one) => one !== undefined);
}

function isSame(before: EventItem, { string, fret }: WrittenNote): boolean {
  return before.notes.some((note) => note.string === string && note.fret === fret);
}

function endsBent({ notes }: EventItem): boolean {
  return notes.some(({ preBend, moves }) => (moves?.at(-1)?.steps ?? preBend ?? 0) > 0);
}

function isBent({ moves, preBend }: WrittenNote): boolean {
  return moves !== undefined || preBend !== undefined;
}

function stackTechniques(notes: readonly WrittenNote[]): readonly Technique[] {
  const fretted = notes.filter(({ fret }) => fret !== null);
  const bent = fretted.filter(isBent);
  const found: Technique[] = [];
  if (bent.length === 1 && fretted.length === 2) {
    const held = fretted.find((note) => !isBent(note));
    const apart = held && bent[0] ? Math.abs(held.string - bent[0].string) : 0;
    found.push(apart === 1 && (held?.fret ?? 0) < (bent[0]?.fret ?? 0) ? 'unison bend' : 'bend beside a held note');
  }
  if (bent.length > 1) found.push('bend of two strings');
  if (fretted.length === 2 && bent.length === 0) found.push(pairTechnique(fretted));
  if (fretted.length > 2) found.push('chord');
  return found;
}

/** Two notes by their shape: root and fifth on neighbouring thick strings, octaves over the string between, or others. */
function pairTechnique(notes: readonly WrittenNote[]): Technique {
  const [thin, thick] = [...notes].sort((a, b) => a.string - b.string);
  const apart = (thick?.string ?? 0) - (thin?.string ?? 0);
  const higher = (thin?.fret ?? 0) - (thick?.fret ?? 0);
  if (apart === 1 && higher === 2 && (thin?.string ?? 0) >= 3) return 'power chord';
  return apart === 2 && (higher === 2 || higher === 3) ? 'octaves' : 'double stop';
}

function noteTechniques(note: WrittenNote): readonly Technique[] {
  const { fret, moves = [], preBend, vibrato, harmonic, trill, dip } = note;
  const heights = moves.filter(({ kind }) => kind === 'bend').map(({ steps }) => steps);
  const highest = Math.max(preBend ?? 0, ...heights);
  const found: (Technique | undefined)[] = [
    fret === null ? 'dead note' : undefined,
    highest > 0 ? bendTechnique(highest) : undefined,
    moves.some(({ kind }) => kind === 'release') ? 'release' : undefined,
    preBend === undefined ? undefined : 'pre-bend',
    moves.some(({ slow }) => slow) ? 'slow bend' : undefined,
    vibrato && (vibrato === 'wide' ? 'wide vibrato' : 'vibrato'),
    harmonic && (harmonic === 'pinch' ? 'pinch harmonic' : 'natural harmonic'),
    trill === undefined ? undefined : 'trill',
    dip === undefined ? undefined : 'tremolo-arm dip',
  ];
  return found.filter((one) => one !== undefined);
}

/** A bend by its height in whole steps. */
function bendTechnique(steps: number): Technique {
  if (steps < 0.5) return 'quarter bend';
  if (steps < 1) return 'half-step bend';
  if (steps < 1.5) return 'whole-step bend';
  return steps < 2 ? 'step-and-a-half bend' : 'two-step bend';
}
