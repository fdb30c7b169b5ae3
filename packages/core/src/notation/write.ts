import { isNest, type BendMove, type EventItem, type EventMark, type Item, type NestItem } from './model.ts';
import type { Phrase, Setting, WrittenNote } from './model.ts';
import { LINK_RECORDS } from './linkRecords.ts';
import { codeOfMark } from './marks.ts';
import { letterOfString } from './strings.ts';
import { sameValue, STARTING_VALUE, writeMeter, writeValue, type NoteValue } from './values.ts';

/** How strings are named: letters (six strings only) or numbers from the thinnest. */
export interface WriteOptions {
  readonly strings: 'letters' | 'numbers';
}

/**
 * The canonical text of a phrase; reading it gives the same phrase. A note value is written where it changes;
 * strings beyond the sixth are written as numbers whatever is asked.
 */
export function writeShorthand(phrase: Phrase, options: WriteOptions): string {
  const writer = new Writer(options.strings === 'letters' && onSixStrings(phrase.items));
  return writer.items(phrase.items);
}

/** The text of one event alone, its value left out but for a grace note. */
export function writeEvent(event: EventItem, options: WriteOptions): string {
  const writer = new Writer(options.strings === 'letters' && onSixStrings([event]), event.value);
  return writer.items([event]);
}

function onSixStrings(items: readonly Item[]): boolean {
  return items.every((item) => {
    if (isNest(item)) return onSixStrings(item.items);
    return item.kind !== 'event' || item.notes.every(({ string }) => letterOfString(string) !== undefined);
  });
}

class Writer {
  readonly #letters: boolean;
  #value: NoteValue;

  constructor(letters: boolean, value: NoteValue = STARTING_VALUE) {
    this.#letters = letters;
    this.#value = value;
  }

  items(items: readonly Item[]): string {
    return items.map((item) => this.#item(item)).join(' ');
  }

  #item(item: Item): string {
    switch (item.kind) {
      case 'event':
        return this.#event(item);
      case 'rest':
        return this.#valued('-', item.value);
      case 'hold':
        return this.#valued('_', item.value);
      case 'bar':
        return '|';
      case 'harmony':
        return item.chord === null ? ':-' : `:${item.chord}`;
      case 'words':
        return `"${item.text}"`;
      case 'setting':
        return writeSetting(item.setting);
      case 'repeat':
        return `[ ${this.items(item.items)} ]${item.times}${item.open ? '+' : ''}`;
      default:
        return `{${head(item)}: ${this.items(item.items)} }`;
    }
  }

  #valued(text: string, value: NoteValue): string {
    if (value === 'grace' || sameValue(value, this.#value)) return text;
    this.#value = value;
    return `/${writeValue(value)} ${text}`;
  }

  #event(event: EventItem): string {
    const { link, slideIn, slideOut, marks, notes, times, value } = event;
    const quiet = marks.includes('quiet');
    const front = slideIn ? (slideIn === 'below' ? '<' : '>') : quiet ? '(' : '';
    const text = [
      front,
      link ? LINK_RECORDS[link].code : '',
      this.#stack(notes),
      slideOut ? (slideOut === 'up' ? '<' : '>') : '',
      ...marks.map(writeMark),
      quiet ? ')' : '',
      value === 'grace' ? '/g' : '',
      times > 1 ? `%${times}` : '',
    ].join('');
    return this.#valued(text, value);
  }

  #stack(notes: readonly WrittenNote[]): string {
    const groups: { marks: string; fret: string; strings: number[] }[] = [];
    for (const { string, fret, ...rest } of notes) {
      const group = { marks: writeNoteMarks(rest), fret: fret === null ? 'x' : String(fret), strings: [string] };
      const last = groups.at(-1);
      if (last?.fret === group.fret && last.marks === group.marks) last.strings.push(string);
      else groups.push(group);
    }
    return groups
      .map(({ fret, strings, marks }, index) => {
        const joined = marks !== '' || !this.#letters;
        return `${fret}${this.#strings(strings)}${marks}${joined && index < groups.length - 1 ? '+' : ''}`;
      })
      .join('');
  }

  #strings(strings: readonly number[]): string {
    if (!this.#letters) return `@${strings.join('')}`;
    return strings.map((string) => letterOfString(string)).join('');
  }
}

function writeMark(mark: EventMark): string {
  return codeOfMark(mark) ?? '';
}

/** Steps as typed: `.5`, `1`, `1.5`. */
function writeSteps(steps: number): string {
  return String(Math.round(steps * 100) / 100).replace(/^0\./, '.');
}

function writeMove({ kind, steps, slow, unsized, upTo }: BendMove): string {
  const letter = (kind === 'bend' ? 'b' : 'r').repeat(slow ? 2 : 1);
  if (unsized) return `${letter}?`;
  if (kind === 'release' && steps === 0) return letter;
  return `${letter}${writeSteps(steps)}${upTo === undefined ? '' : `-${writeSteps(upTo)}`}`;
}

function writeNoteMarks(note: Omit<WrittenNote, 'string' | 'fret'>): string {
  return [
    note.preBend === undefined ? '' : `pb${writeSteps(note.preBend)}`,
    ...(note.moves ?? []).map(writeMove),
    note.vibrato ? (note.vibrato === 'wide' ? '~~' : '~') : '',
    note.trill === undefined ? '' : `tr${note.trill}`,
    note.dip === undefined ? '' : `w-${writeSteps(note.dip)}`,
    note.finger ? `f${note.finger}` : '',
    note.harmonic ? (note.harmonic === 'pinch' ? '*p' : '*') : '',
    note.claim === undefined ? '' : `=${note.claim}`,
  ].join('');
}

function writeSetting(setting: Setting): string {
  switch (setting.name) {
    case 'meter':
      return `meter=${writeMeter(setting.meter)}`;
    case 'tempo':
      return `tempo=${setting.tempo}`;
    case 'feel':
      return `feel=${setting.feel}`;
    case 'pickup':
      return 'pickup';
  }
}

function head(item: Exclude<NestItem, { kind: 'repeat' }>): string {
  switch (item.kind) {
    case 'passes':
      return item.passes
        .map((range) => (range === 'last' ? 'last' : range[0] === range[1] ? range[0] : `${range[0]}-${range[1]}`))
        .join(',');
    case 'marked':
      return item.marks.map((mark) => codeOfMark(mark) ?? mark).join(' ');
    case 'barre':
      return `bar${item.fret}`;
    case 'alternate':
      return item.first === 'down' ? 'alt' : 'altu';
    case 'sure':
      return item.sureness;
  }
}
