import { sayNote, mmBetween, movedEvent, namesOf, pitchAt, topFret, type Guitar } from '../fretboard/index.ts';
import { chordTones } from '../harmony/index.ts';
import { unroll, type EventItem, type Phrase } from '../notation/index.ts';
import { scaleOfKey, type Key } from '../pitch/index.ts';
import { betterKey, withBlueNotes } from './keys.ts';
import { fixOf, type Checked, type HandProblem } from './problem.ts';

/** A note that was likely said or typed wrongly, and what was likely meant. */
export interface Slip {
  readonly item: EventItem;
  readonly string: number;
  readonly fret: number;
  readonly meant: { readonly string: number; readonly fret: number; readonly how: SlipKind };
  /** How strange the note is where it stands, and how much less the meant one would be. */
  readonly strangeness: number;
  readonly gain: number;
}

/** How people slip. Source: common practice. */
export type SlipKind = 'fret said for string' | 'neighbour string' | 'octave' | 'far from the hand';

/** What makes a note strange. Our choice, from the labelled set of the tests. */
const STRANGE = {
  /** Out of the key, foreign to the chord, found nowhere else in the phrase, and no step to its neighbour. */
  outOfKey: 1,
  /** The same where it recurs or steps on to a neighbour. */
  outOfKeyExcused: 0.25,
  /** For each 10 mm that the hand goes out of its way and back, beyond what is free. */
  detourPer10Mm: 0.12,
  freeDetourMm: 115,
  /** For each semitone that the melody leaps away and back, beyond an octave there and back. */
  leapPerSemitone: 0.09,
  freeLeapSemitones: 15,
} as const;

/** From this strangeness on, and for so much to gain, a slip is told. */
const THRESHOLD = { strangeness: 0.85, gain: 0.6 } as const;

/** So many notes to each side are what a note is heard among. */
const NEIGHBOURS = 2;

interface Sung {
  readonly item: EventItem;
  readonly string: number;
  readonly fret: number;
  readonly midi: number;
  readonly chord: ReadonlySet<number> | undefined;
  readonly linked: boolean;
}

/** Likely slips of a phrase, in the order of the text; at most one a note. Linear. */
export function slipsOf(phrase: Phrase, guitar: Guitar, key: Key | undefined): readonly Slip[] {
  const line = lineOf(phrase, guitar);
  const trusted = key && !betterKey(phrase, key, guitar) ? scaleOfKey(key) : undefined;
  const blue = new Set(key && [...withBlueNotes(key)].filter((chroma) => !trusted?.has(chroma)));
  const counts = new Map<number, number>();
  for (const { midi } of line) counts.set(midi % 12, (counts.get(midi % 12) ?? 0) + 1);
  return line.flatMap((note, index): readonly Slip[] => {
    if (note.linked) return [];
    const context: Context = {
      guitar,
      scale: trusted,
      blue,
      counts,
      before: line.slice(Math.max(0, index - NEIGHBOURS), index),
      after: line.slice(index + 1, index + 1 + NEIGHBOURS),
      chord: note.chord,
    };
    const strangeness = strangenessOf(note, context, 1);
    if (strangeness < THRESHOLD.strangeness) return [];
    const tried = candidates(note, guitar).map((meant) => ({
      meant,
      gain: strangeness - strangenessOf({ ...meant, midi: pitchAt(guitar, meant.string, meant.fret) }, context, 0),
    }));
    const best = tried.reduce<(typeof tried)[number] | undefined>((a, b) => (a && a.gain >= b.gain ? a : b), undefined);
    if (!best || best.gain < THRESHOLD.gain) return [];
    return [{ item: note.item, string: note.string, fret: note.fret, strangeness, ...best }];
  });
}

/** The single notes of a phrase, written order, first hearing. */
function lineOf(phrase: Phrase, guitar: Guitar): readonly Sung[] {
  const seen = new Set<EventItem>();
  const line: Sung[] = [];
  const known = new Map<string, ReadonlySet<number> | undefined>();
  const chordOf = (symbol: string | null) => {
    if (symbol === null) return undefined;
    if (!known.has(symbol)) {
      const tones = chordTones(symbol);
      known.set(symbol, tones && new Set([...tones.degrees.keys()].map((above) => (tones.root + above) % 12)));
    }
    return known.get(symbol);
  };
  let before: Sung | undefined;
  for (const { item, chord } of unroll(phrase).events) {
    if (!item || seen.has(item)) continue;
    seen.add(item);
    const [note] = item.notes;
    if (item.notes.length !== 1 || !note || note.fret === null || note.harmonic || item.link === 'tap') continue;
    if (note.string > guitar.tuning.openMidis.length) continue;
    const midi = pitchAt(guitar, note.string, note.fret);
    const sung = {
      item,
      string: note.string,
      fret: note.fret,
      midi,
      chord: chordOf(chord),
      linked: item.link !== undefined,
    };
    // The note a link grows from cannot change strings alone.
    if (sung.linked && before === line.at(-1) && before) line[line.length - 1] = { ...before, linked: true };
    line.push(sung);
    before = line.at(-1);
  }
  return line;
}

interface Context {
  readonly guitar: Guitar;
  readonly scale: ReadonlySet<number> | undefined;
  /** The blue notes of the key that its scale has not. */
  readonly blue: ReadonlySet<number>;
  readonly counts: ReadonlyMap<number, number>;
  readonly before: readonly Sung[];
  readonly after: readonly Sung[];
  readonly chord: ReadonlySet<number> | undefined;
}

/** `own`: how often the note itself is among the counts. */
function strangenessOf(note: Pick<Sung, 'string' | 'fret' | 'midi'>, context: Context, own: 0 | 1): number {
  return keyStrangeness(note, context, own) + detourStrangeness(note, context) + leapStrangeness(note, context);
}

function keyStrangeness({ midi, string }: Pick<Sung, 'string' | 'midi'>, context: Context, own: 0 | 1): number {
  const { scale, blue, chord, counts, before, after } = context;
  const chroma = midi % 12;
  if (!scale || scale.has(chroma) || chord?.has(chroma)) return 0;
  const recurs = (counts.get(chroma) ?? 0) > own;
  // One blue note may be a slip; where others stand beside it, it is the blues.
  const isBlues = blue.has(chroma) && [...blue].some((other) => other !== chroma && (counts.get(other) ?? 0) > 0);
  // A step on along one string, up or down the scale of frets, is how chromatic notes are passed through.
  const steps = [before.at(-1), after[0]].some(
    (one) => one && one.string === string && Math.abs(one.midi - midi) === 1,
  );
  return recurs || steps || isBlues ? STRANGE.outOfKeyExcused : STRANGE.outOfKey;
}

/** How far the hand goes out of its way, millimetres: there and back against straight on. Open strings need no hand. */
function detourStrangeness({ fret }: Pick<Sung, 'fret'>, { guitar, before, after }: Context): number {
  if (fret === 0) return 0;
  const near = (notes: readonly Sung[]) => notes.filter((one) => one.fret > 0);
  const detour = detourOf(fret, near(before).at(-1)?.fret, near(after)[0]?.fret, (a, b) => mmBetween(guitar, a, b));
  return (Math.max(0, detour - STRANGE.freeDetourMm) / 10) * STRANGE.detourPer10Mm;
}

function leapStrangeness({ midi }: Pick<Sung, 'midi'>, { before, after }: Context): number {
  const detour = detourOf(midi, before.at(-1)?.midi, after[0]?.midi, (a, b) => Math.abs(a - b));
  return Math.max(0, detour - STRANGE.freeLeapSemitones) * STRANGE.leapPerSemitone;
}

/** At the ends of a phrase the one neighbour counts there and back. */
function detourOf(
  at: number,
  before: number | undefined,
  after: number | undefined,
  apart: (a: number, b: number) => number,
): number {
  const [from, to] = [before ?? after, after ?? before];
  if (from === undefined || to === undefined) return 0;
  return apart(from, at) + apart(at, to) - apart(from, to);
}

function candidates({ string, fret }: Sung, guitar: Guitar): readonly Slip['meant'][] {
  const strings = guitar.tuning.openMidis.length;
  const found: Slip['meant'][] = [];
  const add = (to: number, at: number, how: SlipKind) => {
    const differs = to !== string || at !== fret;
    if (differs && to >= 1 && to <= strings && at >= 0 && at <= topFret(guitar))
      found.push({ string: to, fret: at, how });
  };
  add(fret, string, 'fret said for string');
  for (const by of [-1, 1]) add(string + by, fret, 'neighbour string');
  for (const by of [-12, 12]) add(string, fret + by, 'octave');
  const midi = pitchAt(guitar, string, fret);
  guitar.tuning.openMidis.forEach((_, index) =>
    add(index + 1, midi - pitchAt(guitar, index + 1, 0), 'far from the hand'),
  );
  return found;
}

/** The slips as problems, each with its fix. */
export function slipProblems({ phrase, options }: Checked): readonly HandProblem[] {
  const names = namesOf(options);
  return slipsOf(phrase, options, options.key).map(({ item, string, fret, meant }) => {
    const changed = movedEvent(item, [{ string: meant.string, fret: meant.fret }]);
    const said = sayNote({ string, fret }, names);
    const likely = sayNote(meant, names);
    return {
      code: 'slip',
      severity: 'hint',
      span: item.span,
      message: `${said} stands apart from its neighbours; ${likely} would not (${HOW[meant.how]}).`,
      fix: fixOf(`Make it ${likely}`, options.text, new Map([[item, changed]])),
    };
  });
}

const HOW: Readonly<Record<SlipKind, string>> = {
  'fret said for string': 'fret and string said the wrong way round',
  'neighbour string': 'the string beside it',
  octave: 'an octave away',
  'far from the hand': 'the same pitch under the hand',
};
