import {
  isGuessed,
  sameMeter,
  MARK_RECORDS,
  writeValue,
  type EventItem,
  type EventMark,
  type NoteValue,
  type Setup,
} from '../../notation/index.ts';
import { spell, writeSpelling } from '../../pitch/index.ts';
import { barsOfSong, type WrittenBar, type WrittenEvent } from '../bars.ts';
import { headingOf, type SongToWrite } from '../song.ts';
import { noteText } from './signs.ts';

/** How wide a line may be, characters. */
export type TabWidth = 72 | 100;

/** What stands at one place of all lines: chord, marks, one text a string, thickest last, and its length. */
interface Column {
  readonly chord: string;
  readonly marks: string;
  readonly strings: readonly string[];
  readonly value: string;
  readonly width: number;
  /** Whether a bar line stands here; systems end behind one. */
  readonly isLine: boolean;
}

const KEY_LINES = [
  'h hammer-on  p pull-off  s slid to  S slid to and picked  t tapped  / \\ slid into or away',
  'b9 bent to the pitch of fret 9  bb slowly  r7 let down to it  pb9 bent before it is picked  ^9 picked again while bent',
  '~ vibrato  ~~ wide  x dead  (7) quiet  <12> harmonic  [7] pinched harmonic  7tr9 trill  w-1 tremolo arm',
  'over the lines: m muted by the palm, l rings, d u strokes, ! accent, "," cut short, q plucked, k raked, o rolled, z tremolo',
  'under them: /8: from here on eighths, : as long, r rest, _ goes on, g grace note, /? only the order is known',
] as const;

/**
 * A song as text tab, monospaced: sections, phrases, repeats and endings as they are folded, six (or as many as there are) lines a
 * system, lengths under them. Only one layer stands in a system; several follow one another. Linear.
 */
export function writeTextTab(song: SongToWrite, width: TabWidth = 72): string {
  const { parts } = barsOfSong(song);
  const strings = tuningText(song.guitar);
  const head = [
    song.title,
    song.credit,
    `${strings}${song.guitar.capo > 0 ? `, capo ${song.guitar.capo}` : ''}`,
  ].filter(Boolean);
  const bodies = parts.map(({ layer, bars }) => {
    const title = parts.length > 1 ? [`## ${layer}`, ''] : [];
    return [...title, ...new TabWriter(song.guitar, width).write(bars)].join('\n');
  });
  return `${[...head, '', ...bodies, ...KEY_LINES].join('\n')}\n`;
}

function tuningText({ tuning }: Setup): string {
  return `tuning ${tuning.openMidis
    .toReversed()
    .map((midi) => ascii(writeSpelling(spell(midi))))
    .join(' ')}`;
}

function ascii(text: string): string {
  return text.replaceAll('♯', '#').replaceAll('♭', 'b');
}

class TabWriter {
  readonly #width: number;
  #guitar: Setup;
  #value: NoteValue | undefined;

  constructor(guitar: Setup, width: number) {
    this.#guitar = guitar;
    this.#width = width;
  }

  write(bars: readonly WrittenBar[]): readonly string[] {
    const lines: string[] = [];
    let columns: Column[] = [];
    const flush = () => {
      if (columns.length > 0) lines.push(...this.#systems(columns));
      columns = [];
    };
    bars.forEach((bar, index) => {
      const { stretch } = bar;
      if (stretch || bar.phrases.length > 0) {
        flush();
        this.#value = undefined;
      }
      if (stretch) {
        this.#guitar = stretch.section.guitar;
        lines.push(`== ${headingOf(stretch.section)} ==`);
        lines.push(`tempo ${Math.round(stretch.bpm * 10) / 10}, ${stretch.meter.beats}/${stretch.meter.unit}`);
        lines.push(...stretch.changes.map((change) => `(${change})`), '');
      }
      for (const name of bar.phrases) lines.push(`-- ${name} --`, '');
      const before = bars[index - 1];
      const isMeterNew = !stretch && before && !sameMeter(before.meter, bar.meter);
      columns.push(this.#opening(bar, isMeterNew ? `${bar.meter.beats}/${bar.meter.unit}` : ''));
      for (const event of bar.events) columns.push(...this.#event(event));
      const next = bars[index + 1];
      const isLast = !next || next.stretch !== undefined || next.phrases.length > 0;
      if (bar.repeatEnd || leadsBack(bar)) columns.push(this.#closing(bar));
      else if (isLast) columns.push(this.#line('|', ''));
    });
    flush();
    return lines;
  }

  #opening(bar: WrittenBar, meter: string): Column {
    const isFolded = bar.isRepeatStart && bar.repeatEnd?.times !== 1;
    const marks = [bar.ending?.begins ? `[${bar.ending.passes.join(',')}]` : '', meter].filter(Boolean).join(' ');
    return this.#line(isFolded ? '|:' : '|', marks);
  }

  #closing(bar: WrittenBar): Column {
    const { repeatEnd, ending } = bar;
    if (!leadsBack(bar)) return this.#line('|', '');
    const times = ending || !repeatEnd ? '' : `x${repeatEnd.times}${repeatEnd.isOpen ? '+' : ''}`;
    return this.#line(':|', times);
  }

  #line(sign: string, marks: string): Column {
    const strings = this.#guitar.tuning.openMidis.map(() => sign);
    return { chord: '', marks, strings, value: '', width: Math.max(sign.length, marks.length + 1), isLine: true };
  }

  #event(event: WrittenEvent): readonly Column[] {
    const graces = event.graces.map((item) => this.#column(item, { ...event, marks: item.marks, words: [] }, 'g', ''));
    const [first, ...more] = event.values;
    if (!first) return graces;
    const value = event.timed ? first : 'untimed';
    const sign = event.isTiedFrom ? '_' : event.item ? ':' : 'r';
    const chord = event.chord === undefined ? '' : `:${event.chord ?? '-'}`;
    const own = this.#column(event.isTiedFrom ? null : event.item, event, this.#valued(value) + sign, chord);
    const held = more.map((one) => this.#column(null, { ...event, marks: [] }, `${this.#valued(one)}_`, ''));
    return [...graces, own, ...held];
  }

  #valued(value: NoteValue): string {
    const text = writeValue(value);
    const isNew = this.#value === undefined || writeValue(this.#value) !== text;
    this.#value = value;
    return isNew ? `/${text}` : '';
  }

  #column(item: EventItem | null, event: WrittenEvent, value: string, chord: string): Column {
    const count = this.#guitar.tuning.openMidis.length;
    const texts = (item?.notes ?? [])
      .filter(({ string, sought }) => string <= count && !isGuessed(sought))
      .map((note, index) => ({
        string: note.string,
        ...noteText(note, {
          ...{ link: item?.link, slideIn: item?.slideIn, slideOut: item?.slideOut },
          isQuiet: event.marks.includes('quiet'),
          arm: index === 0 ? (item?.arm ?? []) : [],
        }),
      }));
    const front = Math.max(0, ...texts.map((text) => text.front.length));
    const strings = Array.from({ length: count }, (_, index) => {
      const text = texts.find(({ string }) => string === index + 1);
      return text ? text.front.padStart(front, '-') + text.rest : '';
    });
    const marks = item ? marksText(event.marks) : '';
    const width = 1 + Math.max(1, marks.length, value.length, chord.length, ...strings.map(({ length }) => length));
    return { chord, marks, strings, value, width, isLine: false };
  }

  #systems(columns: readonly Column[]): readonly string[] {
    const names = this.#guitar.tuning.openMidis.map((midi, index) => {
      const { letter, alter } = spell(midi);
      const name = letter + (alter > 0 ? '#' : alter < 0 ? 'b' : '');
      return index === 0 ? name.toLowerCase() : name;
    });
    const label = Math.max(...names.map(({ length }) => length));
    const lines: string[] = [];
    let from = 0;
    while (from < columns.length) {
      const to = this.#lineEnd(columns, from, label);
      const some = columns.slice(from, to);
      // A system that begins within a bar begins with a dash.
      const indent = some[0]?.isLine ? '' : ' ';
      const row = (of: (column: Column) => string, fill: string, head: string) =>
        head.padEnd(label) +
        indent.replace(' ', fill) +
        some.map((column) => of(column).padEnd(column.width, fill)).join('');
      const above = [row(({ chord }) => chord, ' ', ''), row(({ marks }) => marks, ' ', '')].filter(
        (line) => line.trim() !== '',
      );
      const below = row(({ value }) => value, ' ', '');
      const strings = names.map((name, index) => row((column) => column.strings[index] ?? '', '-', name));
      const isAtLine = columns[to]?.isLine === true && columns[to - 1]?.isLine === false;
      const ended = some.at(-1)?.isLine
        ? strings.map((line) => line.replace(/-+$/, ''))
        : strings.map((line) => line + (isAtLine ? '|' : ''));
      lines.push(...[...above, ...ended, below].map((line) => line.trimEnd()), '');
      from = to;
    }
    return lines;
  }

  /** The column behind the last that a line holds: behind a bar line where one fits. */
  #lineEnd(columns: readonly Column[], from: number, label: number): number {
    let width = label + 1;
    let to = from;
    let lastLine = -1;
    for (; to < columns.length; to += 1) {
      const column = columns[to];
      width += column?.width ?? 0;
      if (width > this.#width && to > from) break;
      if (column?.isLine && to > from) lastLine = to;
    }
    if (to === columns.length) return to;
    // A bar line ends this system and begins the next.
    return lastLine > from ? lastLine : to;
  }
}

function leadsBack({ repeatEnd, ending }: WrittenBar): boolean {
  if (ending?.ends) return repeatEnd === undefined;
  return repeatEnd !== undefined && repeatEnd.times > 1;
}

/** The codes of marks that are written over the lines; a quiet note has its brackets. */
function marksText(marks: readonly string[]): string {
  return (Object.keys(MARK_RECORDS) as readonly EventMark[])
    .filter((mark) => marks.includes(mark))
    .map((mark) => MARK_RECORDS[mark].code ?? '')
    .join('');
}
