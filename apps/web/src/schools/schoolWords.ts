import { CLEAN_RULES, type CleanSchool } from '@jam-ledger/core/pieces';
import { SCHOOL_NAMES, SCHOOL_WORDS, type SchoolName, type Schools } from '@jam-ledger/contract';

/** A question on which teachers differ, as it is asked. */
export interface SchoolQuestion {
  readonly name: SchoolName;
  readonly label: string;
  readonly words: readonly string[];
  /** What the choice decides, in one sentence. */
  readonly explains: string;
  /** What each answer means, in one sentence. */
  readonly says: Readonly<Record<string, string>>;
}

const ASKED: { readonly [Name in SchoolName]: readonly [label: string, explains: string] } = {
  learning: ['Learning order', 'In which order the pieces of a song are cut, learned and joined.'],
  raising: ['Raising tempo', 'How the ladder of a piece leads to its target.'],
  hearing: ['First hearing', 'What is heard first on the practice page.'],
  picking: ['Strokes', 'How strokes are planned where none is written.'],
  position: ['Positions', 'Where on the neck a phrase is shown.'],
  first: ['The margin tells', 'What stands first beside a phrase.'],
  naming: ['Strings are named', 'How a string is told wherever one is.'],
  fidelity: ['Fidelity', 'What a scope and a sheet promise, and how strictly a phrase is heard.'],
  clean: ['A clean take', 'When a take of the practice page is proposed as clean.'],
};

/** What a clean take is, by one of the schools. */
export function sayClean(school: CleanSchool): string {
  const { inTimePercent, bendCents } = CLEAN_RULES[school];
  return `Every note there and none wrong, ${inTimePercent} of 100 in time, bends within ${bendCents} cents.`;
}

/** What each answer means, in one sentence. */
export const SCHOOL_SAYS: { readonly [Name in SchoolName]: Readonly<Record<Schools[Name], string>> } = {
  learning: {
    'front to back': 'Each phrase is added to all before it.',
    'alone, then joined': 'Every phrase is learned by itself, and the joins come after.',
    'hardest first': 'What is hardest is begun first, so that it has the longest time.',
  },
  raising: {
    'small even steps': 'The tempo rises by the same small share each time.',
    'short fragments': 'Short fragments at the target from the first day, then longer ones.',
    'past and back': 'A little past the target, then back to it, so that it feels easy.',
  },
  hearing: {
    'full speed first': 'First the target, so that the ear knows where it leads, then the tempo to practise.',
    'slow first': 'First the tempo to practise, then the target.',
  },
  picking: {
    'the player’s choice': 'No stroke is prescribed; any plan is a click away.',
    'strict alternate': 'Down and up in turn, whatever the string.',
    economy: 'The pick goes on in the direction of the next string.',
    'all down': 'Every stroke down, for weight.',
  },
  position: {
    'as recorded': 'Where the recorded player has it.',
    'one box': 'All under one hand, for learning.',
  },
  first: {
    'where first': 'Strings, frets and fingers, the why one key away.',
    'why first': 'Chord, scale and degrees, the where one key away.',
  },
  naming: {
    letters: 'From the low E to the high e.',
    numbers: 'From 1, the thinnest, to 6.',
  },
  fidelity: {
    'note for note': 'Every note as on the record, alternates kept beside it.',
    'as played live': 'As it is played on stage; a request means the live version at first.',
    'in the ballpark': 'Pitch and silence must be right, the rest leaves room for one’s own ideas.',
  },
  clean: {
    'nine in ten': sayClean('nine in ten'),
    'eight in ten': sayClean('eight in ten'),
    'nearly all': sayClean('nearly all'),
  },
};

/** Every question, in the order they are asked. */
export const SCHOOL_QUESTIONS: readonly SchoolQuestion[] = SCHOOL_NAMES.map((name) => {
  const [label, explains] = ASKED[name];
  return { name, label, words: SCHOOL_WORDS[name], explains, says: SCHOOL_SAYS[name] };
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
