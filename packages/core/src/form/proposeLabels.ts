import { ALIKE, compare, type CompareOptions } from '../likeness/index.ts';
import type { Phrase } from '../notation/index.ts';
import { labelSections, type Unlabelled } from './labels.ts';

/** A section as far as its label is told from its phrases. */
export interface WrittenSection {
  readonly phrases: readonly Phrase[];
  readonly newPart?: boolean;
}

/**
 * Labels told from what was written: a section whose phrases are like an earlier one’s keeps its family, with a
 * stroke where it is changed; sections without phrases count as new material. Cost: every pair of sections.
 */
export function proposeLabels(sections: readonly WrittenSection[], options: CompareOptions): readonly string[] {
  return labelSections(
    sections.map((section, index): Unlabelled => {
      const likes = sections.slice(0, index).map((earlier) => likenessOf(earlier, section, options));
      const max = Math.max(0, ...likes);
      const part = section.newPart === undefined ? {} : { newPart: section.newPart };
      if (max < ALIKE) return part;
      return { ...part, returns: likes.indexOf(max), same: max === 1 };
    }),
  );
}

function likenessOf(a: WrittenSection, b: WrittenSection, options: CompareOptions): number {
  const max = Math.max(a.phrases.length, b.phrases.length);
  if (a.phrases.length === 0 || b.phrases.length === 0) return 0;
  const likes = b.phrases.map((phrase, index) => {
    const other = a.phrases[index];
    if (!other) return 0;
    const { likeness, kinship, differences } = compare(other, phrase, options);
    if (kinship !== 'same') return likeness * MOVED_SHARE;
    return differences.length === 0 ? likeness : Math.min(likeness, ALMOST);
  });
  return likes.reduce((sum, like) => sum + like, 0) / max;
}

/** Material that returns moved is a change, not the same; so much of its likeness counts. Our choice. */
const MOVED_SHARE = 0.9;
/** The most a changed phrase can be like another. Our choice. */
const ALMOST = 0.99;
