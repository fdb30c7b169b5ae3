import { bestPath, type Guitar, type Path } from '../fretboard/index.ts';
import { eventsOf, type Phrase } from '../notation/index.ts';
import { spell, tonicOf, writeSpelling } from '../pitch/index.ts';
import { bendProblems, unheardTargets } from './bends.ts';
import { gripProblems, missingFrets } from './hands.ts';
import { chordProblems } from './chords.ts';
import { claimProblems } from './claims.ts';
import { betterKey } from './keys.ts';
import type { CheckCode, Checked, CheckOptions, HandProblem } from './problem.ts';
import { slipProblems } from './slips/index.ts';
import { speedProblems } from './speed.ts';

/**
 * Everything that hands, guitar and ear find wrong with a phrase that reads well, in the order of the text; each with its
 * numbers, and a fix where there is a certain one. What the reader reports itself (bars, links, bend targets) is not repeated.
 * Linear in the events.
 *
 * @param path the way of the hand through the phrase as written, where it is known already
 */
export function checkPhrase(phrase: Phrase, options: CheckOptions, path?: Path): readonly HandProblem[] {
  const within = eventsOf(phrase).every(({ item }) =>
    item.notes.every(({ string }) => string <= options.tuning.openMidis.length),
  );
  if (!within) return [];
  const guitar: Guitar = options;
  const way = path ?? bestPath(phrase, guitar, { asWritten: true });
  const checked: Checked = { phrase, options };
  const slips = options.isTrusted ? [] : slipProblems(checked);
  const others = [
    ...missingFrets(checked),
    ...gripProblems(checked, way),
    ...speedProblems(checked, way),
    ...bendProblems(checked),
    ...unheardTargets(checked),
    ...keyProblems(checked),
    ...chordProblems(checked),
    ...claimProblems(checked),
  ];
  return explained(phrase, slips, others).toSorted((a, b) => a.span.from - b.span.from);
}

/** What follows from a note that was likely not meant at all: it is not told beside the slip. */
const FOLLOWS: readonly CheckCode[] = ['reach', 'stack-impossible', 'jump-fast', 'unison-off', 'bend-beyond-neck'];

/** Most fixes of one problem. Our choice. */
const MAX_FIXES = 3;

/**
 * Slips with what else is found: a fret that is not there offers what was likely meant first; what only follows from a slip, at its
 * place or on the way back from it, is left out.
 */
function explained(
  phrase: Phrase,
  slips: readonly HandProblem[],
  others: readonly HandProblem[],
): readonly HandProblem[] {
  const bySpan = new Map(slips.map((slip) => [slip.span, slip]));
  const events = eventsOf(phrase);
  const after = new Set(
    events.flatMap(({ item }, index) => (bySpan.has(item.span) ? (events[index + 1]?.item.span ?? []) : [])),
  );
  const kept = others.flatMap((problem): readonly HandProblem[] => {
    if (after.has(problem.span) && FOLLOWS.includes(problem.code)) return [];
    const slip = bySpan.get(problem.span);
    if (!slip) return [problem];
    if (FOLLOWS.includes(problem.code)) return [];
    if (problem.code !== 'fret-missing') return [problem];
    bySpan.delete(problem.span);
    const fixes = [slip.fix, ...(slip.otherFixes ?? []), problem.fix].flatMap((fix) => fix ?? []).slice(0, MAX_FIXES);
    const [fix, ...otherFixes] = fixes;
    return [{ ...problem, ...(fix && { fix }), otherFixes }];
  });
  return [...kept, ...bySpan.values()];
}

function keyProblems({ phrase, options }: Checked): readonly HandProblem[] {
  const better = options.key && betterKey(phrase, options.key, options);
  if (!better) return [];
  const nameOf = (fifths: number, minor: boolean) => {
    const tonic = tonicOf({ fifths, mode: minor ? 'minor' : 'major' });
    return writeSpelling(spell(60 + tonic, { fifths, mode: 'major' }), false);
  };
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  const [first] = eventsOf(phrase);
  const span = first?.item.span ?? { from: 0, to: 0 };
  return [
    {
      code: 'key-doubt',
      severity: 'hint',
      span,
      message: `Only ${percent(better.statedInside)} of this lies in the stated key; ${percent(better.inside)} in ${nameOf(better.fifths, false)} major or ${nameOf(better.fifths, true)} minor. The key stands in the set-up.`,
    },
  ];
}
