import type { Span } from './model.ts';

/** Every kind of trouble that reading the shorthand can report. */
export type ProblemCode =
  | 'unknown-item'
  | 'string-missing'
  | 'string-or-mark'
  | 'shape-changes'
  | 'fret-range'
  | 'same-string-twice'
  | 'link-without-note'
  | 'hammer-not-up'
  | 'pull-not-down'
  | 'slide-nowhere'
  | 'release-without-bend'
  | 'bend-on-open-string'
  | 'bend-too-wide'
  | 'bend-target'
  | 'bend-unsized'
  | 'bend-whose'
  | 'nothing-bent'
  | 'struck-unbent'
  | 'hammer-from-nowhere'
  | 'degree-without-chord'
  | 'not-a-harmonic'
  | 'bar-length'
  | 'value-unknown'
  | 'repeat-unclosed'
  | 'pass-outside-repeat'
  | 'no-place'
  | 'ways-differ'
  | 'stamp-backwards'
  | 'too-long'
  | 'chord-unknown';

/** `error`: not read as typed; `warning`: read, but surely not meant; `hint`: worth a second look. */
export type Severity = 'error' | 'warning' | 'hint';

/** A certain fix: what a button does, in words, and the text that replaces the span. */
export interface Fix {
  readonly title: string;
  readonly span: Span;
  readonly text: string;
}

/** One thing wrong, said in a plain sentence, with its place in the text. */
export interface Problem<Code extends string = ProblemCode> {
  readonly code: Code;
  readonly severity: Severity;
  readonly message: string;
  readonly span: Span;
  readonly fix?: Fix;
  /** Other fixes, the likelier first. */
  readonly otherFixes?: readonly Fix[];
}

/** The severity of each code. Our choice: what is skipped is an error, what is kept is a warning. */
const SEVERITIES: Record<ProblemCode, Severity> = {
  'unknown-item': 'error',
  'string-missing': 'error',
  'string-or-mark': 'hint',
  'shape-changes': 'hint',
  'fret-range': 'error',
  'same-string-twice': 'error',
  'link-without-note': 'error',
  'hammer-not-up': 'warning',
  'pull-not-down': 'warning',
  'slide-nowhere': 'warning',
  'release-without-bend': 'warning',
  'bend-on-open-string': 'warning',
  'bend-too-wide': 'warning',
  'bend-target': 'warning',
  'bend-unsized': 'hint',
  'bend-whose': 'hint',
  'nothing-bent': 'error',
  'struck-unbent': 'warning',
  'hammer-from-nowhere': 'hint',
  'degree-without-chord': 'error',
  'not-a-harmonic': 'warning',
  'bar-length': 'warning',
  'value-unknown': 'error',
  'repeat-unclosed': 'error',
  'pass-outside-repeat': 'error',
  'no-place': 'warning',
  'ways-differ': 'warning',
  'stamp-backwards': 'warning',
  'too-long': 'error',
  'chord-unknown': 'warning',
};

/** Most problems listed for one text; a paste of something else entirely needs no more. Our choice. */
export const MAX_PROBLEMS = 200;

/** Collects problems, up to `MAX_PROBLEMS`. */
export class ProblemList {
  readonly #found: Problem[] = [];

  /** Whether no more are listed. */
  get isFull(): boolean {
    return this.#found.length >= MAX_PROBLEMS;
  }

  /** Adds a problem with the severity of its code, and its fixes, the likeliest first. */
  add(code: ProblemCode, span: Span, message: string, ...fixes: readonly Fix[]): void {
    if (this.isFull) return;
    const problem = { code, severity: SEVERITIES[code], message, span };
    const [fix, ...otherFixes] = fixes;
    this.#found.push(fix ? { ...problem, fix, ...(otherFixes.length > 0 && { otherFixes }) } : problem);
  }

  /** The problems in the order of the text. */
  inOrder(): readonly Problem[] {
    return [...this.#found].sort((a, b) => a.span.from - b.span.from);
  }
}

/** A span so many characters further on. */
export function shifted({ from, to }: Span, by: number): Span {
  return { from: from + by, to: to + by };
}
