import { readdirSync, readFileSync } from 'node:fs';
import { readShorthand, type Meter, type Phrase } from '../src/notation/index.ts';
import { readKey, TUNINGS, type Key } from '../src/pitch/index.ts';

/** A phrase that is right as it stands. */
export interface RightPhrase {
  readonly idiom: string;
  readonly text: string;
  readonly phrase: Phrase;
  readonly key: Key;
  readonly meter: Meter;
  /** Quarter notes a minute. */
  readonly bpm: number;
}

const FOLDER = new URL('./corpus/', import.meta.url);

/** Idioms that nothing is fitted to: a third of all, as unlike the others as they come. */
export const HELD_OUT: readonly string[] = [
  'jazz-lines',
  'fingerstyle-thumb',
  'unison-solos',
  'modal-legato',
  'surf-minor',
];

/**
 * The right phrases of the repository, our own, by idiom: a file each, a phrase a line as `key | meter | tempo | text`.
 *
 * @throws Error for a line that does not read
 */
export function readCorpus(): readonly RightPhrase[] {
  return readdirSync(FOLDER)
    .toSorted()
    .flatMap((file) => {
      const lines = readFileSync(new URL(file, FOLDER), 'utf8').trim().split('\n');
      return lines.map((line) => readLine(file.replace('.txt', ''), line));
    });
}

function readLine(idiom: string, line: string): RightPhrase {
  const [keyText = '', meterText = '', bpm = '', ...rest] = line.split(' | ');
  const text = rest.join(' | ');
  const [beats = NaN, unit = NaN] = meterText.split('/').map(Number);
  const meter = { beats, unit };
  const key = readKey(keyText);
  const { phrase, problems } = readShorthand(text, { tuning: TUNINGS.standard, meter });
  const wrong = problems.filter(({ severity, code }) => severity === 'error' && code !== 'bar-length');
  if (!key || wrong.length > 0) throw new Error(`${idiom}: “${line}” does not read: ${wrong[0]?.message ?? 'its key'}`);
  return { idiom, text, phrase, key, meter, bpm: Number(bpm) };
}
