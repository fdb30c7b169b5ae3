import { chordTones, chromaOf, chromaOfDegree, degreeAbove } from '../harmony/index.ts';
import { heardOf, namedMidi, type EventItem, type Fix, type HeardNote, type WrittenNote } from '../notation/index.ts';
import { chromaOfName, HIGHEST_FRET, OPEN_KEY, spell, writeSpelling } from '../pitch/index.ts';
import { fixOf, type Checked, type HandProblem } from './problem.ts';

/** Notes that do not rest on what is said of them: each once, with both ways out. Linear. */
export function claimProblems({ phrase, options }: Checked): readonly HandProblem[] {
  const told = new Set<WrittenNote>();
  return heardOf(phrase, options).flatMap((heard): readonly HandProblem[] => {
    const { note } = heard;
    if (note.claim === undefined || told.has(note)) return [];
    told.add(note);
    const problem = claimProblem(note.claim, heard, options);
    return problem ? [problem] : [];
  });
}

function claimProblem(claim: string, heard: HeardNote, options: Checked['options']): HandProblem | undefined {
  const { item, span, rests, chord } = heard;
  const isName = /^[A-G]/.test(claim);
  const meant = isName ? chromaOfName(claim) : chromaOfDegree(claim, chord);
  if (meant === undefined)
    return {
      code: 'claim-wrong',
      severity: 'warning',
      span,
      message: `There is no chord here that ${claim} could be a degree of; write the chord before it, as in :Am.`,
    };
  const above = chromaOf(namedMidi(rests));
  if (above === meant) return undefined;
  const name = writeSpelling(spell(namedMidi(rests), options.key ?? OPEN_KEY), false);
  const degree = chord === null || isName ? undefined : degreeIn(chord, above);
  const says = isName ? name : `${degree ?? name}${degree === undefined ? '' : `, ${name}`}`;
  const written = isName ? name.replace('♯', '#').replace('♭', 'b') : degree;
  const fixes = [
    movedTo(heard, meant, options),
    written === undefined ? undefined : claimed(item, heard, { written, options }),
  ];
  const [fix, ...otherFixes] = fixes.flatMap((one) => one ?? []);
  return {
    code: 'claim-wrong',
    severity: 'warning',
    span,
    message: `Said to be ${claim}, but it rests on ${says}.`,
    ...(fix && { fix }),
    ...(otherFixes.length > 0 && { otherFixes }),
  };
}

function degreeIn(chord: string, chroma: number): string | undefined {
  const tones = chordTones(chord);
  if (!tones) return undefined;
  const above = chromaOf(chroma - tones.root);
  return tones.degrees.get(above) ?? degreeAbove(above, tones.degrees.has(3));
}

/** The note on the nearest fret of its string where it would rest on what is said. */
function movedTo({ item, note, fret, rests }: HeardNote, meant: number, options: Checked['options']): Fix | undefined {
  const up = chromaOf(meant - namedMidi(rests));
  const to = [up, up - 12].map((by) => fret + by).filter((one) => one >= 0 && one <= HIGHEST_FRET);
  const nearest = to.toSorted((a, b) => Math.abs(a - fret) - Math.abs(b - fret))[0];
  if (nearest === undefined) return undefined;
  const notes = item.notes.map((one) => (one === note ? { ...one, fret: nearest } : one));
  return fixOf(`Play fret ${nearest}`, options, new Map([[item, { ...item, notes }]]));
}

function claimed(
  item: EventItem,
  { note }: HeardNote,
  { written, options }: { readonly written: string; readonly options: Checked['options'] },
): Fix {
  const notes = item.notes.map((one) => (one === note ? { ...one, claim: written } : one));
  return fixOf(`Say ${written}`, options, new Map([[item, { ...item, notes }]]));
}
