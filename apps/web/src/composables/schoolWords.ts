import { SCHOOL_NAMES, SCHOOL_WORDS, type SchoolName, type Schools } from '@jam-ledger/contract';

/** A question on which teachers differ, as it is asked. */
export interface SchoolQuestion {
  readonly name: SchoolName;
  readonly label: string;
  readonly words: readonly string[];
  /** What the choice decides, in one sentence. */
  readonly explains: string;
}

const ASKED: Readonly<Record<SchoolName, readonly [label: string, explains: string]>> = {
  learning: ['Learning order', 'In which order the pieces of a song are cut, learned and joined.'],
  raising: ['Raising tempo', 'How the ladder of a piece leads to its target.'],
  hearing: ['First hearing', 'What is heard first on the practice page: the target, or the tempo to practise.'],
  picking: ['Strokes', 'How strokes are planned where none is written.'],
  position: ['Positions', 'Where the recorded player has it, or all under one hand for learning.'],
  first: ['The margin tells', 'Strings, frets and fingers first, or chord, scale and degrees.'],
  naming: [
    'Strings are named',
    'By letters from the low E to the high e, or by numbers from the thinnest, wherever a string is told.',
  ],
  fidelity: [
    'Fidelity',
    'What a scope and a sheet promise, which version a request means at first, and how strictly a phrase is heard.',
  ],
};

/** Every question, in the order they are asked. */
export const SCHOOL_QUESTIONS: readonly SchoolQuestion[] = SCHOOL_NAMES.map((name) => {
  const [label, explains] = ASKED[name];
  return { name, label, words: SCHOOL_WORDS[name], explains };
});

/** Schools with one answered anew; as they were where the word is no answer to the question. */
export function withSchool<Some extends { readonly [Name in SchoolName]: Schools[Name] | null }>(
  schools: Some,
  name: SchoolName,
  word: string | null,
): Some {
  if (word !== null && !SCHOOL_WORDS[name].some((known) => known === word)) return schools;
  return { ...schools, [name]: word };
}
