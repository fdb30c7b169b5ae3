import { COMMON_TIME, readMeter, readShorthand, writeMeter, type Meter } from '../notation/index.ts';
import type { FileProblem } from './xml.ts';

/** A song as a file of our own notation: its phrases exactly as they were typed. */
export interface ShorthandSong {
  readonly title: string;
  readonly credit: string;
  readonly tuning: string;
  readonly capo: number;
  readonly key: string;
  /** Quarter notes a minute; undefined where nobody said. */
  readonly bpm: number | undefined;
  readonly meter: Meter;
  readonly sections: readonly ShorthandSection[];
}

/** A section of such a file. */
export interface ShorthandSection {
  readonly label: string;
  readonly role: string;
  /** Undefined where it is as long as its phrases. */
  readonly bars: number | undefined;
  readonly times: number;
  readonly phrases: readonly { readonly name: string; readonly text: string }[];
}

/** Most characters that are read. Our choice. */
const MAX_TEXT = 2_000_000;
/** First words of such a file. */
const FIRST_LINE = 'Shorthand of Jam Ledger';

/**
 * A song as plain text: its set-up a line each, then `== A riff, 8 bars, 2 times ==` for a section and `-- Name --` for a phrase, under
 * it the text as typed.
 */
export function writeShorthandFile(song: ShorthandSong): string {
  const { title, credit, tuning, capo, key, bpm, meter, sections } = song;
  const head = [
    FIRST_LINE,
    `title: ${oneLine(title)}`,
    credit && `by: ${oneLine(credit)}`,
    `tuning: ${oneLine(tuning)}`,
    capo > 0 && `capo: ${capo}`,
    key && `key: ${oneLine(key)}`,
    bpm !== undefined && `tempo: ${bpm}`,
    `meter: ${writeMeter(meter)}`,
  ].filter((line) => typeof line === 'string' && line !== '');
  const body = sections.flatMap(({ label, role, bars, times, phrases }) => [
    '',
    `== ${[[oneLine(label), oneLine(role)].filter(Boolean).join(' '), bars !== undefined && `${bars} bars`, times > 1 && `${times} times`].filter(Boolean).join(', ')} ==`,
    ...phrases.flatMap(({ name, text }) => ['', `-- ${oneLine(name)} --`, ...text.split('\n').map(guarded)]),
  ]);
  return `${[...head, ...body].join('\n')}\n`;
}

function oneLine(text: string): string {
  return text.replaceAll(/\s+/g, ' ').trim();
}

/** A line of a phrase that would be taken for a heading stands behind a space. */
function guarded(line: string): string {
  return /^(?:==|--)/.test(line) ? ` ${line}` : line;
}

/** Whether a text begins like such a file. */
export function isShorthandFile(text: string): boolean {
  return text.trimStart().startsWith(FIRST_LINE) || /^(?:==|--)\s.*\s(?:==|--)\s*$/m.test(text);
}

/** Reads such a file; phrases that do not read are told, and come in as they are. Never throws. Linear. */
export function readShorthandFile(text: string): {
  readonly song: ShorthandSong;
  readonly problems: readonly FileProblem[];
} {
  const problems: FileProblem[] = [];
  const facts = new Map<string, string>();
  const sections: {
    label: string;
    role: string;
    bars: number | undefined;
    times: number;
    phrases: { name: string; text: string }[];
  }[] = [];
  if (text.length > MAX_TEXT) problems.push({ place: '', message: 'The text is too long to be read to its end.' });
  text
    .slice(0, MAX_TEXT)
    .split(/\r\n|\r|\n/)
    .forEach((line, index) => {
      const section = /^==\s*(.*?)\s*==\s*$/.exec(line)?.[1];
      const phrase = /^--\s*(.*?)\s*--\s*$/.exec(line)?.[1];
      const last = sections.at(-1);
      if (section !== undefined) sections.push({ ...headingOf(section), phrases: [] });
      else if (phrase !== undefined) {
        if (!last) sections.push({ ...headingOf('A'), phrases: [] });
        sections.at(-1)?.phrases.push({ name: phrase || `Phrase ${index + 1}`, text: '' });
      } else if (!last) {
        const [, name = '', value = ''] = /^\s*([a-z]+):\s*(.*?)\s*$/i.exec(line) ?? [];
        if (name) facts.set(name.toLowerCase(), value);
      } else {
        const open = last.phrases.at(-1);
        if (open) open.text += `${open.text === '' ? '' : '\n'}${line}`;
        else if (line.trim() !== '')
          problems.push({ place: `line ${index + 1}`, message: 'Words that belong to no phrase are left out.' });
      }
    });
  const meter = readMeter(facts.get('meter') ?? '') ?? COMMON_TIME;
  const trimmed = sections.map((section) => ({
    ...section,
    phrases: section.phrases.map(({ name, text: typed }) => ({ name, text: typed.replace(/^\n+|\s+$/g, '') })),
  }));
  for (const { phrases, label } of trimmed)
    for (const { name, text: typed } of phrases) {
      const wrong = readShorthand(typed, { meter }).problems.filter(({ severity }) => severity === 'error');
      for (const { message } of wrong.slice(0, 3)) problems.push({ place: `${name} in ${label}`, message });
    }
  if (trimmed.length === 0)
    problems.push({
      place: '',
      message: 'There is no phrase in this text: a phrase stands under its name, “-- Phrase 1 --”.',
    });
  const bpm = Number(facts.get('tempo') ?? NaN);
  const capo = Number(facts.get('capo') ?? 0);
  return {
    song: {
      ...{
        title: facts.get('title') ?? '',
        credit: facts.get('by') ?? '',
        tuning: facts.get('tuning') ?? 'standard',
        meter,
      },
      ...{ capo: Number.isInteger(capo) && capo >= 0 && capo <= 12 ? capo : 0, key: facts.get('key') ?? '' },
      ...{ bpm: bpm >= 10 && bpm <= 500 ? bpm : undefined, sections: trimmed },
    },
    problems,
  };
}

function headingOf(text: string): { label: string; role: string; bars: number | undefined; times: number } {
  const [name = '', ...facts] = text.split(',').map((part) => part.trim());
  const numberOf = (unit: RegExp) =>
    facts.map((fact) => Number(unit.exec(fact)?.[1] ?? NaN)).find((number) => number > 0);
  const [label = 'A', ...role] = name.split(' ');
  return {
    label: label || 'A',
    role: role.join(' '),
    bars: numberOf(/^(\d{1,3}) bars?$/),
    times: numberOf(/^(\d{1,2}) times$/) ?? 1,
  };
}
