import { eventsOf, type PlacedItem } from './edit.ts';
import { LINK_RECORDS } from './linkRecords.ts';
import { MARK_RECORDS } from './marks.ts';
import type { EventItem, Phrase, Span, WrittenNote } from './model.ts';
import { NOTE_MARK_RECORDS } from './noteMarks.ts';

/** A technique that is no mark but follows from what stands together; `rank` as that of the marks. */
interface ShapeTechnique {
  readonly rank: number;
  readonly drill: string | null;
}

/** Techniques that no single mark says. Names: common practice. */
const SHAPES = {
  'double stop': { rank: 1, drill: null },
  'power chord': { rank: 2, drill: null },
  chord: { rank: 3, drill: null },
  'dead note': { rank: 9, drill: 'Touch, do not press; no pitch at all.' },
  'grace note': { rank: 13, drill: null },
  triplets: { rank: 14, drill: null },
  'odd tuplets': { rank: 15, drill: null },
  'quarter bend': { rank: 17, drill: null },
  'half-step bend': { rank: 18, drill: null },
  'whole-step bend': { rank: 19, drill: null },
  'slide in': { rank: 22, drill: null },
  'slide out': { rank: 23, drill: null },
  barre: { rank: 24, drill: null },
  octaves: { rank: 26, drill: null },
  'wide vibrato': { rank: 30, drill: 'As slow as it takes to be even, then wider.' },
  'slow bend': { rank: 32, drill: null },
  'unison bend': { rank: 34, drill: null },
  'bend beside a held note': { rank: 35, drill: null },
  'bend of two strings': { rank: 36, drill: null },
  'step-and-a-half bend': { rank: 37, drill: null },
  'two-step bend': { rank: 38, drill: null },
  'pinch harmonic': { rank: 41, drill: 'The thumb brushes the string right after the pick.' },
  'tap on a bent string': { rank: 44, drill: null },
} as const satisfies Readonly<Record<string, ShapeTechnique>>;

type Named<Records> = {
  readonly [Key in keyof Records]: Records[Key] extends { readonly technique: { readonly name: infer Name } }
    ? Name
    : never;
}[keyof Records];

/** What hands can be asked to do. */
export type Technique =
  keyof typeof SHAPES | Named<typeof MARK_RECORDS> | Named<typeof LINK_RECORDS> | Named<typeof NOTE_MARK_RECORDS>;

type Ranked = readonly [Technique, ShapeTechnique];
type MarkTechnique = { readonly name: Technique; readonly rank: number } | null;

function ranked(
  records: Readonly<Record<string, { readonly technique: MarkTechnique; readonly drill: string | null }>>,
): readonly Ranked[] {
  return Object.values(records).flatMap(({ technique, drill }): readonly Ranked[] =>
    technique ? [[technique.name, { rank: technique.rank, drill }]] : [],
  );
}

/** What is said of a technique, by the record of its mark or of what stands together; the plainest first. */
const RECORDS: ReadonlyMap<Technique, ShapeTechnique> = new Map(
  [
    ...(Object.keys(SHAPES) as readonly (keyof typeof SHAPES)[]).map((name): Ranked => [name, SHAPES[name]]),
    ...ranked(MARK_RECORDS),
    ...ranked(LINK_RECORDS),
    ...ranked(NOTE_MARK_RECORDS),
  ].sort(([, a], [, b]) => a.rank - b.rank),
);

/** All techniques, the plainest first. */
export const TECHNIQUES: readonly Technique[] = [...RECORDS.keys()];

/** What to listen for in a drill of a technique; undefined where nothing of its own is said. Source: common practice. */
export function drillWords(technique: Technique): string | undefined {
  return RECORDS.get(technique)?.drill ?? undefined;
}

/** How rare a technique is, 0 for the plainest to nearly 1. */
export function rarityOf(technique: Technique): number {
  return TECHNIQUES.indexOf(technique) / TECHNIQUES.length;
}

/** The techniques of a phrase and where each first stands. */
export type Techniques = ReadonlyMap<Technique, Span>;

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
    link && LINK_RECORDS[link].technique.name,
    link === 'tap' && before && endsBent(before) ? 'tap on a bent string' : undefined,
    item.slideIn && 'slide in',
    item.slideOut && 'slide out',
    around.some(({ kind }) => kind === 'barre') ? 'barre' : undefined,
    value === 'grace' ? 'grace note' : undefined,
    item.arm && NOTE_MARK_RECORDS.arm.technique.name,
    ...marks.map((mark) => MARK_RECORDS[mark].technique?.name),
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

/** Whether a note sounds bent beside others: what is struck bent, and what goes on. */
function standsBent({ moves, preBend, again }: WrittenNote): boolean {
  return moves !== undefined || preBend !== undefined || again !== undefined;
}

function stackTechniques(notes: readonly WrittenNote[]): readonly Technique[] {
  const fretted = notes.filter(({ fret }) => fret !== null);
  const bent = fretted.filter(standsBent);
  const found: Technique[] = [];
  if (bent.length === 1 && fretted.length === 2) {
    const held = fretted.find((note) => !standsBent(note));
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
  const { fret, moves = [], preBend, vibrato, harmonic, trill, again, plucked } = note;
  const heights = moves.filter(({ kind }) => kind === 'bend').map(({ steps }) => steps);
  const highest = Math.max(preBend ?? 0, ...heights);
  const found: (Technique | undefined)[] = [
    fret === null ? 'dead note' : undefined,
    highest > 0 ? bendTechnique(highest) : undefined,
    moves.some(({ kind }) => kind === 'release') ? NOTE_MARK_RECORDS.release.technique.name : undefined,
    preBend === undefined ? undefined : NOTE_MARK_RECORDS.preBend.technique.name,
    moves.some(({ slow }) => slow) ? 'slow bend' : undefined,
    vibrato && (vibrato === 'wide' ? 'wide vibrato' : NOTE_MARK_RECORDS.vibrato.technique.name),
    harmonic && (harmonic === 'pinch' ? 'pinch harmonic' : NOTE_MARK_RECORDS.harmonic.technique.name),
    trill === undefined ? undefined : NOTE_MARK_RECORDS.trill.technique.name,
    again === undefined ? undefined : NOTE_MARK_RECORDS.again.technique.name,
    plucked && MARK_RECORDS[plucked].technique.name,
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
