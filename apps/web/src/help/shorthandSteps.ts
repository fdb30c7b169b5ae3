import { scoreOf } from '@jam-ledger/core/notation';
import { readPlaced } from '@jam-ledger/core/placing';

/** A step of the lesson: what is told, what is to be typed, and a line that does it. */
export interface ShorthandStep {
  readonly title: string;
  readonly says: string;
  readonly task: string;
  readonly answer: string;
  /** What stands there at first. */
  readonly begun?: string;
}

/** The shorthand in five minutes. Our own choice of what comes first. */
export const SHORTHAND_STEPS: readonly ShorthandStep[] = [
  {
    title: 'Fret, then string',
    says: '7G is fret 7 on the G string. Letters go from thick to thin: E A D G B e.',
    task: 'Fret 7 on the G string, then fret 5 on the B string.',
    answer: '7G 5B',
  },
  {
    title: 'How long',
    says: '/8 and from there on everything is an eighth, until another length is said.',
    task: 'Two eighths, 5 and 7 on the G string, then a quarter, 5 on the B string.',
    answer: '/8 5G 7G /4 5B',
  },
  {
    title: 'Together',
    says: '5A7D is struck at once. After a mark write a plus: 15Bb1+12e.',
    task: 'A quarter: fret 5 on A and fret 7 on D at once.',
    answer: '/4 5A7D',
  },
  {
    title: 'The hands',
    says: 'h9 hammers on, p7 pulls off, s12 slides, each on the string before. b1 bends a whole step, r lets it down, ~ is vibrato.',
    task: 'In eighths: 5 on G, a hammer-on to 7, a pull-off to 5, then 7 on G bent a whole step.',
    answer: '/8 5G h7 p5 7Gb1',
  },
  {
    title: 'Bars',
    says: '| ends a bar. Where there is one, all must add up, but for the last.',
    task: 'Quarters: 5, 7, 9, 7 on G, a bar line, then 5 on G.',
    answer: '/4 5G 7G 9G 7G | 5G',
  },
  {
    title: 'Repeats',
    says: '[ … ]4 plays four times.',
    task: 'Eighths 5 and 7 on G, four times.',
    answer: '[/8 5G 7G]4',
  },
  {
    title: 'What the margin says',
    says: 'What cannot be right is told beside the text, with its rule, and nothing that is typed is thrown away.',
    task: 'This pull-off goes up. Mend it: 7 on G, a pull-off to 5.',
    answer: '/8 7G p5',
    begun: '/8 5G p7',
  },
];

/** Whether two lines say the same, however they are written. */
export function isSameLine(one: string, other: string): boolean {
  return sayLine(one) === sayLine(other);
}

/** What a line says, without where each of it stands in the text; nothing where some of it is not read. */
function sayLine(text: string): string {
  const { phrase, problems } = readPlaced(text);
  if (problems.length > 0) return `not read: ${text}`;
  return JSON.stringify(scoreOf(phrase), (key, value: unknown) => (/span/i.test(key) ? undefined : value));
}
