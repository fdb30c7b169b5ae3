import type { WordsLook } from './handout.ts';

/** How words look on paper and in its PDF: points, style, grey of 255; room above, pixels. */
export const WORDS: Readonly<
  Record<
    WordsLook,
    {
      readonly size: number;
      readonly style: 'normal' | 'bold' | 'italic';
      readonly grey: number;
      readonly above: number;
    }
  >
> = {
  title: { size: 20, style: 'bold', grey: 0, above: 0 },
  facts: { size: 9.5, style: 'normal', grey: 40, above: 0 },
  section: { size: 12, style: 'bold', grey: 0, above: 16 },
  phrase: { size: 10, style: 'bold', grey: 30, above: 4 },
  note: { size: 9, style: 'italic', grey: 50, above: 0 },
  legend: { size: 8, style: 'normal', grey: 30, above: 0 },
  rights: { size: 8, style: 'italic', grey: 60, above: 8 },
};
