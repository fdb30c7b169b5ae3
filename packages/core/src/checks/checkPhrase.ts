import { bestPath, type Guitar, type Path } from '../fretboard/index.ts';
import { eventsOf, type Phrase } from '../notation/index.ts';
import { spell, tonicOf, writeSpelling } from '../pitch/index.ts';
import { bendProblems, unheardTargets } from './bends.ts';
import { gripProblems, missingFrets } from './hands.ts';
import { betterKey } from './keys.ts';
import type { Checked, CheckOptions, HandProblem } from './problem.ts';
import { slipProblems } from './slips.ts';
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
  return [
    ...missingFrets(checked),
    ...gripProblems(checked, way),
    ...speedProblems(checked, way),
    ...bendProblems(checked),
    ...unheardTargets(checked),
    ...keyProblems(checked),
    ...slipProblems(checked),
  ].sort((a, b) => a.span.from - b.span.from);
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
