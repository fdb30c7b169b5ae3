import { heardOf, namedMidi, unroll, type EventItem, type Phrase, type Setup, type Span } from '../notation/index.ts';
import { OPEN_KEY, spell, writeSpelling, type Key } from '../pitch/index.ts';
import { chordTones, chromaOf } from './names.ts';

/** A chord played note after note. */
export interface Arpeggio {
  /** From its first event to its last. */
  readonly span: Span;
  /** `Am`, `C♯m7♭5`, spelt for the key. */
  readonly symbol: string;
  readonly notes: number;
  /** Which tone of the chord it starts on, `b3`. */
  readonly from: string;
  readonly shape: 'one note a string' | 'along one string' | 'in one box' | 'over several positions';
  readonly lowestFret: number;
  readonly highestFret: number;
}

/** Chords that are looked for, semitones above the root, the plainest first. Source: common practice. */
const KINDS: readonly (readonly [suffix: string, tones: readonly number[]])[] = [
  ['', [0, 4, 7]],
  ['m', [0, 3, 7]],
  ['dim', [0, 3, 6]],
  ['aug', [0, 4, 8]],
  ['7', [0, 4, 7, 10]],
  ['m7', [0, 3, 7, 10]],
  ['maj7', [0, 4, 7, 11]],
  ['m7b5', [0, 3, 6, 10]],
  ['dim7', [0, 3, 6, 9]],
  ['6', [0, 4, 7, 9]],
  ['m6', [0, 3, 7, 9]],
];

/** Fewest notes of an arpeggio, how many frets a box has, and the longest run that is told as one. Our choice. */
const LIMITS = { notes: 4, box: 5, max: 64 } as const;

interface Candidate {
  readonly root: number;
  readonly kind: number;
  readonly chromas: ReadonlySet<number>;
}

const CANDIDATES: readonly Candidate[] = KINDS.flatMap(([, tones], kind) =>
  Array.from({ length: 12 }, (_, root) => ({ root, kind, chromas: new Set(tones.map((tone) => (root + tone) % 12)) })),
);

interface Sung {
  readonly item: EventItem;
  readonly string: number;
  readonly fret: number;
  readonly midi: number;
  readonly chord: string | null;
}

/**
 * Runs of at least four single notes that are all tones of one chord, all of its tones among them, and that go through it
 * step by step. Longest first from the left; a chord written above them wins over others. Linear in the notes.
 */
export function arpeggiosOf(
  phrase: Phrase,
  { tuning, capo, key = OPEN_KEY }: Setup & { readonly key?: Key },
): readonly Arpeggio[] {
  const notes = sungNotes(phrase, { tuning, capo });
  const found: Arpeggio[] = [];
  let from = 0;
  while (from < notes.length) {
    const run = longestRun(notes, from);
    if (run) found.push(describe(run.notes, run.chord, key));
    from += run ? run.notes.length : 1;
  }
  return found;
}

/** The notes of events that sound one alone, each event once; nothing for any other event. */
function sungNotes(phrase: Phrase, { tuning, capo }: Setup): readonly (Sung | undefined)[] {
  const heard = new Map<EventItem, Sung>();
  for (const { item, string, fret, rests, chord } of heardOf(phrase, { tuning, capo }))
    if (!heard.has(item)) heard.set(item, { item, string, fret, midi: namedMidi(rests), chord });
  const seen = new Set<EventItem>();
  return unroll(phrase).events.flatMap(({ item }): readonly (Sung | undefined)[] => {
    if (!item) return [undefined];
    if (seen.has(item)) return [];
    seen.add(item);
    return [item.notes.length === 1 ? heard.get(item) : undefined];
  });
}

function longestRun(
  notes: readonly (Sung | undefined)[],
  from: number,
): { readonly notes: readonly Sung[]; readonly chord: Candidate } | undefined {
  const run: Sung[] = [];
  let open = CANDIDATES;
  let best: { length: number; chord: Candidate } | undefined;
  for (let index = from; index < Math.min(notes.length, from + LIMITS.max); index += 1) {
    const note = notes[index];
    const before = run.at(-1);
    if (!note) break;
    open = open.filter(
      (chord) => chord.chromas.has(chromaOf(note.midi)) && (!before || isStep(before.midi, note.midi, chord)),
    );
    if (open.length === 0) break;
    run.push(note);
    const whole = open.filter((chord) => isWhole(run, chord));
    const written = whole
      .filter((chord) => isWritten(run, chord))
      .toSorted((a, b) => rootApart(run, a) - rootApart(run, b))[0];
    const chord = written ?? whole[0];
    if (chord && run.length >= LIMITS.notes) best = { length: run.length, chord };
  }
  return best && { notes: run.slice(0, best.length), chord: best.chord };
}

/** To the next tone of the chord, up or down; not the same note again, and no tone left out. */
function isStep(before: number, after: number, { chromas }: Candidate): boolean {
  const [low, high] = [Math.min(before, after), Math.max(before, after)];
  if (low === high || high - low > 12) return false;
  for (let between = low + 1; between < high; between += 1) if (chromas.has(chromaOf(between))) return false;
  return true;
}

function isWhole(run: readonly Sung[], { chromas }: Candidate): boolean {
  return new Set(run.map(({ midi }) => chromaOf(midi))).size === chromas.size;
}

function isWritten(run: readonly Sung[], { chromas }: Candidate): boolean {
  const tones = run[0]?.chord ? chordTones(run[0].chord) : undefined;
  return tones !== undefined && [...chromas].every((chroma) => tones.degrees.has(chromaOf(chroma - tones.root)));
}

/** Whether a chord has another root than the one written, as a number; of two with the same notes the one with its root is meant. */
function rootApart(run: readonly Sung[], { root }: Candidate): 0 | 1 {
  return run[0]?.chord && chordTones(run[0].chord)?.root === root ? 0 : 1;
}

function describe(notes: readonly Sung[], { root, kind }: Candidate, key: Key): Arpeggio {
  const symbol = `${writeSpelling(spell(60 + root, key), false)}${KINDS[kind]?.[0] ?? ''}`;
  const [first, last] = [notes[0], notes.at(-1)];
  const tones = chordTones(symbol.replaceAll('♯', '#').replaceAll('♭', 'b'));
  const frets = notes.map(({ fret }) => fret).filter((fret) => fret > 0);
  const [lowestFret, highestFret] = frets.length === 0 ? [0, 0] : [Math.min(...frets), Math.max(...frets)];
  return {
    span: { from: first?.item.span.from ?? 0, to: last?.item.span.to ?? 0 },
    symbol,
    notes: notes.length,
    from: tones?.degrees.get(chromaOf((first?.midi ?? 0) - root)) ?? '1',
    shape: shapeOf(notes, highestFret - lowestFret),
    lowestFret,
    highestFret,
  };
}

function shapeOf(notes: readonly Sung[], width: number): Arpeggio['shape'] {
  const changes = notes.slice(1).filter(({ string }, index) => string !== notes[index]?.string).length;
  if (changes === 0) return 'along one string';
  if (changes === notes.length - 1) return 'one note a string';
  return width <= LIMITS.box ? 'in one box' : 'over several positions';
}
