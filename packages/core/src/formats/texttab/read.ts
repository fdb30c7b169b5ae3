import {
  COMMON_TIME,
  EVENT_MARKS,
  MARK_RECORDS,
  readMeter,
  readValue,
  ticksOf,
  type EventMark,
  type Meter,
  type NoteValue,
} from '../../notation/index.ts';
import { readTuning, STRING_COUNT_RANGE, TUNINGS, type Tuning } from '../../pitch/index.ts';
import { FileProblems, MAX_NOTES, notBrought, type Brought, type BroughtBar, type BroughtEvent } from '../brought.ts';
import { settledBars } from '../repeats.ts';
import { placesOf, TokenReader, type Token } from './tokens.ts';

/** Longest text that is read, characters. Our choice. */
const MAX_TEXT = 5_000_000;

/** A line of a string: its name, if it has one, then dashes, frets and bar lines. */
const STRING_LINE = /^\s{0,4}([A-Ga-g][#b]?\d?|\d)?\s?([|:-].*)$/;
const DASHES = /[-|]/g;

/** Whether a text holds tablature: as many lines one under the other as a guitar has strings. */
export function isTextTab(text: string): boolean {
  return blocksOf(text.slice(0, 200_000).split(/\r\n|\r|\n/)).length > 0;
}

/** Lines of one system: where it stands, the lines of its strings, and those above and below. */
interface Block {
  readonly from: number;
  readonly names: readonly (string | undefined)[];
  /** What follows the name, all from one column on. */
  readonly strings: readonly string[];
  /** Lines above from the same column on, the nearest last, and the one below. */
  readonly above: readonly string[];
  readonly below: string;
  /** What stands between this system and the one before. */
  readonly between: readonly string[];
}

/**
 * Reads text tab: of others, in the order of its columns, untimed; of our own, also lengths, marks, chords, repeats and endings. Never
 * throws. Linear.
 */
export function readTextTab(text: string): Brought {
  if (text.length > MAX_TEXT) return notBrought({ place: '', message: 'The text is too long to be read.' });
  const lines = text.split(/\r\n|\r|\n/);
  const blocks = blocksOf(lines);
  const [first] = blocks;
  if (!first)
    return notBrought({
      place: '',
      message: 'There is no tab in this text: no lines of strings stand one under the other.',
    });
  const reader = new TabReader(blocks);
  const title = lines.slice(0, first.from).find((line) => line.trim() !== '' && !/^(tuning|==|--)/.test(line));
  return reader.read(title?.trim() ?? '', lines);
}

function blocksOf(lines: readonly string[]): readonly Block[] {
  const blocks: Block[] = [];
  let end = 0;
  for (let at = 0; at < lines.length; at += 1) {
    let to = at;
    while (to < lines.length && isStringLine(lines[to] ?? '')) to += 1;
    const { min, max } = STRING_COUNT_RANGE;
    if (to - at < min || to - at > max || !areStrings(lines.slice(at, to))) {
      at = Math.max(at, to - 1);
      continue;
    }
    const matched = lines.slice(at, to).map((line) => STRING_LINE.exec(line));
    const starts = lines.slice(at, to).map((line, index) => line.length - (matched[index]?.[2]?.length ?? line.length));
    const column = Math.max(...starts);
    const above = lines.slice(Math.max(end, at - 2), at).map((line) => line.slice(column));
    blocks.push({
      ...{ from: at, names: matched.map((match) => match?.[1]), above },
      strings: lines.slice(at, to).map((line) => line.slice(column)),
      below: isRow(lines[to] ?? '') ? (lines[to] ?? '').slice(column) : '',
      between: lines.slice(end, at),
    });
    end = to;
    at = to - 1;
  }
  return blocks;
}

function isStringLine(line: string): boolean {
  const body = STRING_LINE.exec(line)?.[2];
  if (body === undefined || body.length < 3) return false;
  return (body.match(DASHES)?.length ?? 0) >= 2;
}

/** Whether lines that may be of strings are: over all of them, most of what stands there is dashes and bar lines. */
function areStrings(lines: readonly string[]): boolean {
  const all = lines.map((line) => STRING_LINE.exec(line)?.[2] ?? '').join('');
  return (all.match(DASHES)?.length ?? 0) >= all.length * LEAST_DASHES;
}

/** Our choice: a chord on all strings with a bend on one leaves as much. */
const LEAST_DASHES = 0.3;

/** Whether a line under the strings says lengths. */
function isRow(line: string): boolean {
  return /^\s*(?:(?:\/[\d?][\d.t]*)?[:r_g]\s*)+$/.test(line) && line.trim() !== '';
}

class TabReader {
  readonly #blocks: readonly Block[];
  readonly #problems = new FileProblems();
  readonly #bars: BroughtBar[] = [];
  readonly #events: BroughtEvent[] = [];
  readonly #chords: { at: number; chord: string | null }[] = [];
  readonly #tokens: TokenReader;
  #meter: Meter = COMMON_TIME;
  #bpm: number | undefined;
  #value: NoteValue = 'untimed';
  #at = 0;
  #barAt = 0;
  #label: string | undefined;
  #phrase: string | undefined;
  #isRepeatStart = false;
  #ending: readonly number[] | undefined;
  #bpmHere: number | undefined;
  #count = 0;

  constructor(blocks: readonly Block[]) {
    this.#blocks = blocks;
    this.#tokens = new TokenReader((place, message) => this.#problems.add(place, message));
  }

  read(title: string, lines: readonly string[]): Brought {
    const tuning = this.#tuning(lines);
    const capo = Number(/\bcapo:?\s+(?:fret\s+)?(\d{1,2})\b/i.exec(lines.slice(0, 40).join('\n'))?.[1] ?? 0);
    const strings = this.#blocks[0]?.strings.length ?? 6;
    for (const block of this.#blocks) {
      if (block.strings.length !== strings) {
        this.#problems.add(
          `line ${block.from + 1}`,
          `Here are ${block.strings.length} strings, elsewhere ${strings}; these lines are left out.`,
        );
        continue;
      }
      this.#block(block);
    }
    this.#closeBar(undefined);
    const bars = settledBars(this.#bars);
    const part = {
      ...{ name: 'Tab', capo: capo <= 12 ? capo : 0, bars, events: this.#events, chords: this.#chords },
      ...(tuning && { tuning }),
    };
    const bpm = bars[0]?.bpm;
    return { title, credit: '', ...(bpm !== undefined && { bpm }), parts: [part], problems: this.#problems.all };
  }

  /** The tuning as a line above says it, else as the strings are named; unknown where they have their usual names. */
  #tuning(lines: readonly string[]): Tuning | undefined {
    const said = /^\s*tuning:?\s+(.+?)(?:,\s*capo.*)?$/i.exec(
      lines.slice(0, 40).find((line) => /^\s*tuning/i.test(line)) ?? '',
    )?.[1];
    const named = said === undefined ? undefined : readTuning(said);
    if (named) return named;
    const names = this.#blocks[0]?.names ?? [];
    const letters = names.map((name) => (name === undefined ? '' : (name[0] ?? '').toUpperCase() + name.slice(1)));
    const tuning = letters.every((letter) => /^[A-G]/.test(letter))
      ? readTuning(letters.toReversed().join(' '))
      : undefined;
    // Most name their strings so whatever they are tuned to.
    const isUsual = tuning?.openMidis.join() === TUNINGS.standard.openMidis.join();
    return isUsual ? undefined : tuning;
  }

  #block(block: Block): void {
    for (const line of block.between) this.#between(line);
    const width = Math.max(...block.strings.map(({ length }) => length));
    const places = placesOf(this.#tokens.read(block));
    const values = columnsOf(block.below);
    const marks = columnsOf(this.#rowAbove(block, false));
    const chords = columnsOf(this.#rowAbove(block, true));
    const lines = barLines(block.strings, width);
    let nextPlace = 0;
    let nextLine = 0;
    const columns = values.length > 0 ? values.map(({ column }) => column) : places.map(({ column }) => column);
    const endOf = (index: number) => columns[index + 1] ?? Infinity;
    columns.forEach((column, index) => {
      for (let line = lines[nextLine]; line && line.column <= column; line = lines[nextLine]) {
        this.#line(line.sign, { at: line.column, marks });
        nextLine += 1;
      }
      const own: Token[] = [];
      for (let place = places[nextPlace]; place && place.column < endOf(index); place = places[nextPlace]) {
        own.push(...place.tokens);
        nextPlace += 1;
      }
      const here = (row: readonly Word[]) =>
        row.find(
          (word) => word.column >= column && word.column < Math.min(endOf(index), lines[nextLine]?.column ?? Infinity),
        )?.text ?? '';
      const chord = here(chords);
      if (chord.startsWith(':')) this.#chords.push({ at: this.#at, chord: chord === ':-' ? null : chord.slice(1) });
      this.#place(own, { sign: values[index]?.text ?? '', marks: here(marks) });
    });
    for (let line = lines[nextLine]; line; line = lines[nextLine]) {
      this.#line(line.sign, { at: line.column, marks });
      nextLine += 1;
    }
  }

  #between(line: string): void {
    const section = /^==\s*(.+?)\s*==\s*$/.exec(line)?.[1] ?? /^\s*\[([A-Za-z][^\]]{0,60})\]\s*$/.exec(line)?.[1];
    const phrase = /^--\s+(.+?)\s+--\s*$/.exec(line)?.[1];
    const tempo = /^tempo:?\s+([\d.]+)(?:,\s*(\d+\/\d+))?/i.exec(line);
    if (section === undefined && phrase === undefined && !tempo) return;
    this.#closeBar(undefined);
    this.#value = 'untimed';
    if (section !== undefined) this.#label = section;
    if (phrase !== undefined) this.#phrase = phrase;
    if (!tempo) return;
    const bpm = Number(tempo[1]);
    if (bpm >= 10 && bpm <= 500 && bpm !== this.#bpm) this.#bpmHere = bpm;
    this.#bpm = bpm;
    this.#meter = readMeter(tempo[2] ?? '') ?? this.#meter;
  }

  /** The line of chords above the strings, or that of marks. */
  #rowAbove({ above }: Block, isChords: boolean): string {
    const last = above.at(-1) ?? '';
    const isChordRow = (line: string) => /(?:^|\s):\S/.test(line);
    if (isChords) return above.find(isChordRow) ?? '';
    return isChordRow(last) || /^[=-]{2}/.test(last) ? '' : last;
  }

  #place(tokens: readonly Token[], { sign, marks }: { readonly sign: string; readonly marks: string }): void {
    const [, valueText, kind = ':'] = /^(?:\/([\d?][\d.t]*))?([:r_g])?$/.exec(sign) ?? [];
    this.#value = (valueText === undefined ? undefined : readValue(valueText)) ?? this.#value;
    const ticks = kind === 'g' ? 0 : ticksOf(this.#value);
    const last = this.#events.at(-1);
    if (kind === '_' && last && last.at + last.ticks === this.#at)
      this.#events[this.#events.length - 1] = { ...last, ticks: last.ticks + ticks };
    else if (tokens.length > 0) this.#event(tokens, { ticks, isGrace: kind === 'g', marks: marksOf(marks) });
    this.#at += ticks;
  }

  #event(
    tokens: readonly Token[],
    {
      ticks,
      isGrace,
      marks,
    }: { readonly ticks: number; readonly isGrace: boolean; readonly marks: readonly EventMark[] },
  ): void {
    this.#count += tokens.length;
    if (this.#count > MAX_NOTES) return;
    const isQuiet = tokens.every((token) => token.isQuiet);
    const link = tokens.find((token) => token.link)?.link;
    const slideIn = tokens.find((token) => token.slideIn)?.slideIn;
    const slideOut = tokens.find((token) => token.slideOut)?.slideOut;
    this.#events.push({
      ...{ at: this.#at, ticks, isGrace, words: [], arm: tokens.flatMap(({ arm }) => arm) },
      notes: tokens.map(({ note, isQuiet: quiet }) => ({
        ...note,
        midi: null,
        ...(quiet && !isQuiet && { quiet: true as const }),
      })),
      marks: isQuiet ? ['quiet', ...marks] : marks,
      isTimed: this.#value !== 'untimed',
      ...(link && { link }),
      ...(slideIn && { slideIn }),
      ...(slideOut && { slideOut }),
    });
  }

  #line(sign: string, { at, marks }: { readonly at: number; readonly marks: readonly Word[] }): void {
    const word = marks.find(({ column }) => column === at)?.text ?? '';
    const times = Number(/^x(\d{1,2})\+?$/.exec(word)?.[1] ?? 2);
    if (sign.startsWith(':')) this.#closeBar({ times, isOpen: word.endsWith('+') });
    else this.#closeBar(undefined);
    const ending = /^\[([\d,]+)\]$/.exec(word)?.[1];
    if (ending !== undefined) this.#ending = ending.split(',').map(Number);
    if (/\|+:/.test(sign)) this.#isRepeatStart = true;
    const meter = readMeter(word);
    if (meter) this.#meter = meter;
  }

  #closeBar(repeatEnd: { readonly times: number; readonly isOpen: boolean } | undefined): void {
    const isEmpty = this.#at === this.#barAt;
    const last = this.#bars.at(-1);
    if (isEmpty) {
      if (repeatEnd && last) this.#bars[this.#bars.length - 1] = { ...last, repeatEnd };
    } else {
      const ticks = this.#at - this.#barAt;
      this.#bars.push({
        ...{ at: this.#barAt, ticks, meter: this.#meter, isRepeatStart: this.#isRepeatStart },
        ...(this.#bpmHere !== undefined && { bpm: this.#bpmHere }),
        ...(this.#label !== undefined && { label: this.#label }),
        ...(this.#phrase !== undefined && { phrase: this.#phrase }),
        ...(this.#ending && { ending: { passes: this.#ending, ends: true } }),
        ...(repeatEnd && { repeatEnd }),
      });
      this.#barAt = this.#at;
      this.#label = this.#phrase = this.#bpmHere = this.#ending = undefined;
      this.#isRepeatStart = false;
    }
  }
}

interface Word {
  readonly column: number;
  readonly text: string;
}

function columnsOf(row: string): readonly Word[] {
  return [...row.matchAll(/\S+/g)].map(({ 0: text, index }) => ({ column: index, text }));
}

/** Bar lines of a system: where every string has one, with what stands around it. */
function barLines(
  strings: readonly string[],
  width: number,
): readonly { readonly column: number; readonly sign: string }[] {
  const lines: { column: number; sign: string }[] = [];
  for (let column = 0; column < width; column += 1) {
    if (
      !strings.every((line) => line[column] === '|' || line[column] === undefined) ||
      strings[0]?.[column] === undefined
    )
      continue;
    const isRepeatEnd = strings.some((line) => line[column - 1] === ':');
    const isRepeatStart = strings.some((line) => line[column + 1] === ':') && !isEndColon(strings, column);
    lines.push({
      column: isRepeatEnd ? column - 1 : column,
      sign: `${isRepeatEnd ? ':' : ''}|${isRepeatStart ? ':' : ''}`,
    });
  }
  return lines;
}

/** Whether the colon behind a bar line belongs to the next one, which ends a repeat. */
function isEndColon(strings: readonly string[], column: number): boolean {
  return strings.some((line) => line[column + 1] === ':' && line[column + 2] === '|');
}

const CODES = EVENT_MARKS.flatMap((mark): readonly (readonly [string, EventMark])[] => {
  const { code } = MARK_RECORDS[mark];
  return code === null ? [] : [[code, mark]];
}).sort(([a], [b]) => b.length - a.length);

function marksOf(text: string): readonly EventMark[] {
  const marks: EventMark[] = [];
  let rest = text;
  while (rest !== '') {
    const found = CODES.find(([code]) => rest.startsWith(code));
    if (!found) return [];
    marks.push(found[1]);
    rest = rest.slice(found[0].length);
  }
  return marks;
}
