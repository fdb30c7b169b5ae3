import { chordTones, chromaOf, degreeAbove, nameChord } from '../harmony/index.ts';
import { heardOf, namedMidi, type EventItem, type HeardNote } from '../notation/index.ts';
import { OPEN_KEY } from '../pitch/index.ts';
import type { Checked, HandProblem } from './problem.ts';

/** A grip is held against its symbol from so many different notes on; two are part of many chords. Our choice. */
const MIN_NOTES = 3;

/** A name that is further from plain says nothing against a symbol. Our choice. */
const MAX_STRAIN = 0.7;

/** Grips that are plainly another chord than the one that stands above them: each once, with what they lack and add. Linear. */
export function chordProblems({ phrase, options }: Checked): readonly HandProblem[] {
  const grips = new Map<EventItem, HeardNote[]>();
  for (const note of heardOf(phrase, options)) {
    const known = grips.get(note.item);
    if (!known) grips.set(note.item, [note]);
    else if (known[0]?.at === note.at) known.push(note);
  }
  const told = new Set<string>();
  /** Grips under their chords that were looked at: what comes again says nothing new. */
  const seen = new Set<string>();
  return [...grips].flatMap(([item, notes]): readonly HandProblem[] => {
    const chord = notes[0]?.chord;
    if (!chord || notes.length < MIN_NOTES) return [];
    const midis = notes.map(({ rests }) => namedMidi(rests));
    const grip = `${chord} ${midis.join(' ')}`;
    if (seen.has(grip)) return [];
    seen.add(grip);
    const problem = gripProblem(item, midis, { chord, options });
    if (!problem || told.has(problem.message)) return [];
    told.add(problem.message);
    return [problem];
  });
}

function gripProblem(
  item: EventItem,
  midis: readonly number[],
  { chord, options }: { readonly chord: string; readonly options: Checked['options'] },
): HandProblem | undefined {
  const tones = chordTones(chord);
  const heard = new Set(midis.map(chromaOf));
  if (!tones || heard.size < MIN_NOTES) return undefined;
  const isMinor = tones.degrees.has(3);
  const added = [...heard].map((chroma) => chromaOf(chroma - tones.root)).filter((above) => !tones.degrees.has(above));
  const lacking = [...tones.degrees].filter(([above]) => !heard.has(chromaOf(tones.root + above)));
  const lacksItself = lacking.some(([above]) => above === 0 || above === 3 || above === 4);
  const [name] = nameChord(midis, { key: options.key ?? OPEN_KEY });
  if (added.length === 0 || !lacksItself || !name || name.strain > MAX_STRAIN) return undefined;
  const words = (degrees: readonly string[]) => {
    const shown = degrees.map((degree) => degree.replace('b', '♭').replace('#', '♯'));
    return shown.length < 2 ? shown.join('') : `${shown.slice(0, -1).join(', ')} and ${shown.at(-1) ?? ''}`;
  };
  const lacks = words(lacking.map(([, degree]) => degree));
  const adds = words(added.map((above) => degreeAbove(above, isMinor)));
  return {
    code: 'chord-differs',
    severity: 'hint',
    span: item.span,
    message: `This sounds as ${name.symbol}, not as the ${chord} above it: of ${chord} it lacks the ${lacks}, and adds the ${adds}.`,
  };
}
