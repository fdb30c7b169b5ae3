import { checkPhrase, type HandProblem } from '@jam-ledger/core/checks';
import { eventsOf, readShorthand, samePhrase, type Fix, type Phrase } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';
import { HELD_OUT, readCorpus, type RightPhrase } from '../packages/core/test/corpus.ts';
import { randomFrom } from '../packages/core/test/learners.ts';
import { guitar, slipInto, type SlippedPhrase } from '../packages/core/test/slipping.ts';
import { ratio, type Figure } from './measure.ts';

interface Count {
  events: number;
  alarms: number;
  slips: number;
  told: number;
  first: number;
  amongThree: number;
  byKind: Map<string, { slips: number; told: number; three: number }>;
}

/** Other slips than those the weights were fitted to. */
const SEED = 4711;

function checksOf(right: RightPhrase, phrase: Phrase, text: string): readonly HandProblem[] {
  return checkPhrase(phrase, { ...guitar, text, bpm: right.bpm, key: right.key });
}

/** Alarms on right phrases, and what is told of slips in them. */
function measure(phrases: readonly RightPhrase[]): Count {
  const random = randomFrom(SEED);
  const count: Count = { events: 0, alarms: 0, slips: 0, told: 0, first: 0, amongThree: 0, byKind: new Map() };
  for (const right of phrases) {
    count.events += eventsOf(right.phrase).length;
    const alarms = checksOf(right, right.phrase, right.text);
    count.alarms += alarms.length;
    for (const slipped of slipInto(right, random)) weigh(slipped, count);
  }
  return count;
}

function weigh({ right, text, phrase, event, kind }: SlippedPhrase, count: Count): void {
  const item = eventsOf(phrase)[event]?.item;
  const next = eventsOf(phrase)[event + 1]?.item;
  if (!item) return;
  // A slip may be told where it is, or where the next note hangs on it.
  const to = next?.link === undefined ? item.span.to : next.span.to;
  const here = checksOf(right, phrase, text).filter(({ span }) => span.from < to && span.to > item.span.from);
  const fixes = here.flatMap(({ fix, otherFixes = [] }) => (fix ? [fix, ...otherFixes] : []));
  const isMeant = (fix: Fix) => {
    const fixed = text.slice(0, fix.span.from) + fix.text + text.slice(fix.span.to);
    return samePhrase(readShorthand(fixed, { tuning: TUNINGS.standard, meter: right.meter }).phrase, right.phrase);
  };
  const known = count.byKind.get(kind) ?? { slips: 0, told: 0, three: 0 };
  count.byKind.set(kind, known);
  count.slips += 1;
  known.slips += 1;
  if (here.length === 0) return;
  count.told += 1;
  known.told += 1;
  if (fixes[0] && isMeant(fixes[0])) count.first += 1;
  if (fixes.slice(0, 3).some(isMeant)) {
    count.amongThree += 1;
    known.three += 1;
  }
}

/** How surely slips are told, on the idioms that the weights were fitted to and on those kept apart from them. */
export function slipFigures(): Promise<readonly Figure[]> {
  const corpus = readCorpus();
  const parts = [
    ['kept apart', corpus.filter(({ idiom }) => HELD_OUT.includes(idiom))],
    ['fitted to', corpus.filter(({ idiom }) => !HELD_OUT.includes(idiom))],
  ] as const;
  return Promise.resolve(parts.flatMap(([part, phrases]) => figuresOf(part, phrases)));
}

function figuresOf(part: string, phrases: readonly RightPhrase[]): readonly Figure[] {
  const { events, alarms, slips, told, first, amongThree, byKind } = measure(phrases);
  const percent = (share: number, of: number) => (100 * share) / of;
  const alarmRate = percent(alarms, events);
  const random = `events flagged by chance as often, ${alarmRate.toFixed(1)} %`;
  const kinds = [...byKind].map(([kind, one]) => `${kind} ${one.told}/${one.slips}`).join(', ');
  const row = (what: string, share: number, of: number, target: number): Figure => ({
    what: `${what} (idioms ${part})`,
    measured: `${percent(share, of).toFixed(1)} % of ${of}`,
    target: `at least ${target} %`,
    met: percent(share, of) >= target,
    yardstick: random,
    ratio: ratio(percent(share, of), Math.max(0.1, alarmRate)),
  });
  return [
    {
      what: `False alarms of all checks on right events (idioms ${part}, ${phrases.length} phrases)`,
      measured: `${alarmRate.toFixed(2)} in 100 of ${events}`,
      target: 'at most 1.0 in 100',
      met: alarmRate <= 1,
      yardstick: 'the checks before they heard what sounds, on right phrases by others: 3.3 in 100',
      ratio: ratio(alarmRate, 3.3),
    },
    { ...row('Slips that could be noticed, told', told, slips, 85), yardstick: `${random}; by kind: ${kinds}` },
    row('… whose meant text is the first fix', first, told, 70),
    row('… whose meant text is among the first three', amongThree, told, 90),
  ];
}
