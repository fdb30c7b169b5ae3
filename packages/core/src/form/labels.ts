/** A label in its family: a number for the page or part, a letter, and a stroke for each change when it returns. */
export interface FamilyLabel {
  readonly number: number;
  readonly letter: string;
  readonly strokes: number;
}

const LABEL = /^(\d{1,2})([A-Z])(′*)$/;

/** Reads `1A`, `2C′`; undefined for a label of somebody’s own. */
export function readLabel(text: string): FamilyLabel | undefined {
  const match = LABEL.exec(text.trim().replaceAll("'", '′'));
  if (!match) return undefined;
  return { number: Number(match[1]), letter: match[2] ?? 'A', strokes: (match[3] ?? '').length };
}

/** The text of a label, `1A′`. */
export function writeLabel({ number, letter, strokes }: FamilyLabel): string {
  return `${number}${letter}${'′'.repeat(strokes)}`;
}

/** What is known of a section when its label is proposed. */
export interface Unlabelled {
  /** The place in the list of an earlier section whose material this one brings back; undefined for new material. */
  readonly returns?: number;
  /** Whether it comes back unchanged. */
  readonly same?: boolean;
  /** Whether a new page or part begins here. */
  readonly newPart?: boolean;
}

/**
 * Proposes labels in families: material that returns keeps its number and letter, with a stroke more each time it
 * comes back changed; new material takes the next letter; a new part the next number. After Z comes the next number.
 */
export function labelSections(sections: readonly Unlabelled[]): readonly string[] {
  const labels: FamilyLabel[] = [];
  const strokes = new Map<string, number>();
  let newest: FamilyLabel | undefined;
  for (const { returns, same, newPart } of sections) {
    const before = returns === undefined ? undefined : labels[returns];
    if (before) {
      const family = `${before.number}${before.letter}`;
      const max = (strokes.get(family) ?? 0) + (same ? 0 : 1);
      strokes.set(family, max);
      labels.push(same ? before : { ...before, strokes: max });
      continue;
    }
    newest = nextLabel(newest, newPart ?? false);
    labels.push(newest);
  }
  return labels.map(writeLabel);
}

/** The label after the newest one of a form, for new material. */
export function nextLabel(newest: FamilyLabel | undefined, newPart = false): FamilyLabel {
  if (!newest) return { number: 1, letter: 'A', strokes: 0 };
  if (newPart || newest.letter === 'Z') return { number: newest.number + 1, letter: 'A', strokes: 0 };
  const letter = String.fromCharCode(newest.letter.charCodeAt(0) + 1);
  return { number: newest.number, letter, strokes: 0 };
}
