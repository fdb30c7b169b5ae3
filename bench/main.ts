import { writeFile } from 'node:fs/promises';
import { cpus } from 'node:os';
import { accuracyFigures } from './accuracy.ts';
import { byteFigures } from './bytes.ts';
import { drawingFigures } from './drawing.ts';
import { durableFigures } from './durable.ts';
import { formatFigures } from './formats.ts';
import { formFigures } from './form.ts';
import { growthFigures } from './growth.ts';
import { handFigures } from './hands.ts';
import { hearingFigures } from './hearing.ts';
import { lickFigures } from './licks.ts';
import { listeningFigures } from './listening.ts';
import { recordingFigures } from './recordings.ts';
import type { Figure } from './measure.ts';
import { ledgerFigures } from './ledger.ts';
import { planFigures } from './plan.ts';
import { pressFigures } from './presses.ts';
import { readingFigures } from './reading.ts';
import { requestFigures } from './requests.ts';
import { slipFigures } from './slips.ts';
import { spokenFigures } from './spoken.ts';
import { soundFigures } from './sound.ts';
import { typingFigures } from './typing.ts';
import { weekFigures } from './week.ts';

/** Measures everything that has a target, prints it and writes it to `docs/figures.md`. */
const parts: readonly (readonly [string, () => Promise<readonly Figure[]>])[] = [
  ['Notation', readingFigures],
  ['Drawing', drawingFigures],
  ['Typing', typingFigures],
  ['Presses', pressFigures],
  ['Form', formFigures],
  ['Formats', formatFigures],
  ['Plan', planFigures],
  ['Sound', soundFigures],
  ['Hearing', hearingFigures],
  ['Accuracy', accuracyFigures],
  ['Listening', listeningFigures],
  ['Recordings', recordingFigures],
  ['Slips', slipFigures],
  ['Spoken', spokenFigures],
  ['Hands', handFigures],
  ['Bytes', byteFigures],
  ['Server', ledgerFigures],
  ['Licks', lickFigures],
  ['Requests', requestFigures],
  ['Week', weekFigures],
  ['Durable', durableFigures],
  ['Growth', growthFigures],
];
const only = process.argv[2]?.toLowerCase();
const lines = [
  '# Figures',
  '',
  'Written by `npm run bench`; every figure stands beside a yardstick measured in the same run, since machines differ.',
  `Last run: ${new Date().toISOString().slice(0, 10)}, ${cpus().length} cores, Node ${process.versions.node}.`,
];
for (const [title, measure] of parts) {
  if (only && title.toLowerCase() !== only) continue;
  const figures = await measure();
  lines.push(
    '',
    `## ${title}`,
    '',
    '| what | measured | target | met | yardstick | ratio |',
    '|---|---|---|---|---|---|',
  );
  for (const { what, measured, target, met, yardstick, ratio } of figures)
    lines.push(
      `| ${what} | ${measured} | ${target} | ${met === null ? '' : met ? 'yes' : 'no'} | ${yardstick} | ${ratio} |`,
    );
}
const text = `${lines.join('\n')}\n`;
process.stdout.write(text);
if (!only) await writeFile(new URL('../docs/figures.md', import.meta.url), text);
