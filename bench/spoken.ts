import { readFileSync } from 'node:fs';
import { playOut, readShorthand } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';
import { readSpoken } from '@jam-ledger/core/spoken';
import { figure, ms, ratio, share, time, type Figure } from './measure.ts';

interface Sentence {
  readonly say: string;
  readonly means: string;
}
const FOLDER = new URL('../packages/core/test/', import.meta.url);
const sentencesOf = (file: string) => JSON.parse(readFileSync(new URL(file, FOLDER), 'utf8')) as readonly Sentence[];

/** What is played, event by event; lengths aside. */
function eventsOf(text: string): readonly string[] {
  return playOut(readShorthand(text).phrase, { tuning: TUNINGS.standard, capo: 0 })
    .filter(({ notes }) => notes.length > 0)
    .map(({ notes, marks, barre }) =>
      JSON.stringify([[...notes].sort((a, b) => a.string - b.string), [...marks].sort(), barre]),
    );
}

/** How many events two readings share, in order. */
function shared(one: readonly string[], other: readonly string[]): number {
  const rows = one.map(() => other.map(() => 0));
  for (const [row, event] of one.entries())
    for (const [column, more] of other.entries()) {
      const before = (r: number, c: number) => rows[r]?.[c] ?? 0;
      const best =
        event === more ? before(row - 1, column - 1) + 1 : Math.max(before(row - 1, column), before(row, column - 1));
      const line = rows[row];
      if (line) line[column] = best;
    }
  return rows.at(-1)?.at(-1) ?? 0;
}

interface Count {
  readonly whole: number;
  readonly events: number;
  readonly right: number;
  /** Events that are wrong, where nothing was asked. */
  readonly silent: number;
  readonly of: number;
}

function count(sentences: readonly Sentence[], read: (say: string) => { shorthand: string; doubts: number }): Count {
  let [whole, events, right, silent] = [0, 0, 0, 0];
  for (const { say, means } of sentences) {
    const { shorthand, doubts } = read(say);
    const [meant, got] = [eventsOf(means), eventsOf(shorthand)];
    const same = shared(meant, got);
    if (same === meant.length && same === got.length) whole += 1;
    events += meant.length;
    right += same;
    if (doubts === 0) silent += Math.max(meant.length, got.length) - same;
  }
  return { whole, events, right, silent, of: sentences.length };
}

/** The plainest reader that does something: a number, “on the”, a letter. */
function plainly(say: string): { shorthand: string; doubts: number } {
  const found = say.matchAll(/(\d+) on the (?:(low|high) )?([EADGB])\b/g);
  const notes = Array.from(
    found,
    ([, fret, side, letter]) => `${fret}${letter === 'E' && side === 'high' ? 'e' : letter}`,
  );
  return { shorthand: notes.join(' '), doubts: 0 };
}
const fully = (say: string) => {
  const { shorthand, doubts } = readSpoken(say);
  return { shorthand, doubts: doubts.length };
};

/** Sentences that nothing was mended by, beside those that were; and how long a long page takes. */
export async function spokenFigures(): Promise<readonly Figure[]> {
  const sets = [
    ['kept apart', sentencesOf('narrations-apart.json')],
    ['used', [...sentencesOf('narrations.json'), ...sentencesOf('narrations-used.json')]],
  ] as const;
  const figures = sets.flatMap(([name, sentences]): readonly Figure[] => {
    const [ours, plain] = [count(sentences, fully), count(sentences, plainly)];
    const row = (what: string, part: number, of: number, target: string, met: boolean, beside: number): Figure =>
      figure(
        `${what}, ${ours.of} sentences ${name}`,
        share(part / of),
        target,
        met,
        `${share(beside / of)} by numbers “on the” letters alone`,
      );
    return [
      row('whole sentences right', ours.whole, ours.of, '≥ 85 %', ours.whole / ours.of >= 0.85, plain.whole),
      row('events right', ours.right, ours.events, '≥ 95 %', ours.right / ours.events >= 0.95, plain.right),
      row(
        'events wrong and not asked',
        ours.silent,
        ours.events,
        '≤ 2 %',
        ours.silent / ours.events <= 0.02,
        plain.silent,
      ),
    ];
  });
  const all = sets.flatMap(([, sentences]) => sentences.map(({ say }) => say));
  const page = Array.from({ length: Math.ceil(10_000 / all.join(' ').split(' ').length) }, () => all.join('. ')).join(
    '. ',
  );
  const shorthand = readSpoken(page).shorthand;
  const { median: spoken } = await time(() => readSpoken(page), 5);
  const { median: written } = await time(() => readShorthand(shorthand), 5);
  return [
    ...figures,
    figure(
      `a page of ${page.split(' ').length} words`,
      ms(spoken),
      '< 2 s',
      spoken < 2000,
      `${ms(written)} to read its shorthand`,
      ratio(spoken, written),
    ),
  ];
}
