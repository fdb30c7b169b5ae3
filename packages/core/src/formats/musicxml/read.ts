import { unzipSync } from 'fflate';
import { barTicks, COMMON_TIME, TICKS_PER_QUARTER, type Feel, type Meter } from '../../notation/index.ts';
import {
  makeTuning,
  OPEN_STRING_RANGE,
  STRING_COUNT_RANGE,
  type Key,
  type Mode,
  type Tuning,
} from '../../pitch/index.ts';
import { FileProblems, MAX_NOTES, notBrought, type Brought, type BroughtBar, type BroughtPart } from '../brought.ts';
import { decode } from '../text.ts';
import { childOf, childrenOf, isElement, numberOf, readXml, textOf, type XmlElement } from '../xml.ts';
import { readHarmony } from './chords.ts';
import { EventMaker, midiOfPitch } from './events.ts';
import { settledBars } from '../repeats.ts';

/** Largest text of a document that is read, characters. Our choice. */
export const MAX_XML = 25_000_000;

/**
 * Reads a MusicXML document, partwise or timewise, of any version from 1.0 to 4.0, as far as it can be played on a guitar; what cannot
 * is told with its place. Never throws. Linear.
 */
export function readMusicXml(text: string): Brought {
  if (text.length > MAX_XML) return notBrought({ place: '', message: 'The file is too long to be read.' });
  const root = readXml(text);
  if (!isElement(root)) return notBrought(root);
  const score = root.name === 'score-timewise' ? partwise(root) : root;
  if (score.name !== 'score-partwise')
    return notBrought({ place: '', message: `This is no MusicXML score; it begins with “${root.name}”.` });
  const problems = new FileProblems();
  const names = new Map(
    childrenOf(childOf(score, 'part-list'), 'score-part').map((part) => [
      part.attributes['id'],
      textOf(part, 'part-name'),
    ]),
  );
  const read = childrenOf(score, 'part').map((part, index) =>
    new PartReader(names.get(part.attributes['id']) || `Part ${index + 1}`, problems).read(part),
  );
  if (read.length === 0) problems.add('', 'There is no part in this score.');
  const key = read.find((one) => one.key)?.key;
  const bpm = read.find((one) => one.bpm !== undefined)?.bpm;
  const identification = childOf(score, 'identification');
  return {
    title: textOf(childOf(score, 'work'), 'work-title') || textOf(score, 'movement-title'),
    credit: textOf(identification, 'creator'),
    ...(key && { key }),
    ...(bpm !== undefined && { bpm }),
    parts: read.map(({ part }) => part),
    problems: problems.all,
  };
}

/** Source: MusicXML 4.0, “Compressed .MXL files”: the root file is named by META-INF/container.xml. */
const CONTAINER = 'META-INF/container.xml';

/**
 * Reads a compressed score. What it unpacks to is counted while it is unpacked, whatever the archive says of it.
 */
export function readMxl(bytes: Uint8Array): Brought {
  let total = 0;
  const isTooLong = () => total > MAX_XML;
  let files: Readonly<Record<string, Uint8Array>>;
  try {
    files = unzipSync(bytes, {
      filter: ({ originalSize }) => {
        total += originalSize;
        return !isTooLong();
      },
    });
  } catch {
    return notBrought({
      place: '',
      message: 'This is no compressed score that can be opened; it may have been cut off.',
    });
  }
  if (isTooLong() || Object.values(files).reduce((sum, { length }) => sum + length, 0) > MAX_XML)
    return notBrought({ place: '', message: 'The score is too long when it is unpacked.' });
  const container = files[CONTAINER];
  const described = container && readXml(decode(container));
  const rootFile =
    described && isElement(described)
      ? childrenOf(childOf(described, 'rootfiles'), 'rootfile')[0]?.attributes['full-path']
      : Object.keys(files).find((name) => /^[^/]+\.(?:music)?xml$/i.test(name));
  const score = rootFile === undefined ? undefined : files[rootFile];
  if (!score) return notBrought({ place: '', message: 'There is no score in this archive.' });
  return readMusicXml(decode(score));
}

/** A timewise score with its measures sorted by part. */
function partwise(root: XmlElement): XmlElement {
  const parts = new Map<string, XmlElement[]>();
  for (const measure of childrenOf(root, 'measure'))
    for (const part of childrenOf(measure, 'part')) {
      const id = part.attributes['id'] ?? '';
      parts.set(id, [...(parts.get(id) ?? []), { ...measure, children: part.children }]);
    }
  const others = root.children.filter((child) => typeof child === 'string' || child.name !== 'measure');
  const sorted = [...parts].map(([id, children]): XmlElement => ({ name: 'part', attributes: { id }, children }));
  return { name: 'score-partwise', attributes: {}, children: [...others, ...sorted] };
}

const MODES: readonly Mode[] = ['major', 'minor', 'dorian', 'phrygian', 'lydian', 'mixolydian', 'locrian'];

/** What a bar is known by while it is read. */
interface BarDraft {
  bpm?: number;
  feel?: Feel;
  label?: string;
  phrase?: string;
  isRepeatStart: boolean;
  repeatEnd?: { times: number; isOpen: boolean };
  ending?: { passes: readonly number[]; ends: boolean };
}

interface PartRead {
  readonly part: BroughtPart;
  readonly key: Key | undefined;
  readonly bpm: number | undefined;
}

/** Reads one part, measure by measure. Ticks count from the beginning of the part, repeats folded. */
class PartReader {
  readonly #name: string;
  readonly #problems: FileProblems;
  readonly #bars: BroughtBar[] = [];
  readonly #chords: { at: number; chord: string | null }[] = [];
  readonly #events: EventMaker;
  #divisions = 1;
  #meter: Meter = COMMON_TIME;
  #key: Key | undefined;
  #bpm: number | undefined;
  #tuning: Tuning | undefined;
  #capo = 0;
  /** The staff with tablature, where there are several; null where all are read. */
  #staff: number | null = null;
  #at = 0;
  #ending: readonly number[] | undefined;
  #place = '';

  constructor(name: string, problems: FileProblems) {
    this.#name = name;
    this.#problems = problems;
    this.#events = new EventMaker((message) => problems.add(this.#place, message));
  }

  read(part: XmlElement): PartRead {
    const measures = childrenOf(part, 'measure');
    this.#findStaff(measures);
    measures.forEach((measure, index) => {
      this.#place = `bar ${index + 1} of ${this.#name}`;
      this.#measure(measure);
    });
    const { events, count } = this.#events.finish(this.#at);
    if (count > MAX_NOTES) this.#problems.add(this.#name, `Only the first ${MAX_NOTES} notes are read.`);
    return {
      part: {
        ...{ name: this.#name, capo: this.#capo, bars: settledBars(this.#bars), events, chords: this.#chords },
        ...(this.#tuning && { tuning: this.#tuning }),
      },
      key: this.#key,
      bpm: this.#bars[0]?.bpm ?? this.#bpm,
    };
  }

  /** Where notes stand on a staff and as tablature, too, the tablature is read. */
  #findStaff(measures: readonly XmlElement[]): void {
    for (const measure of measures)
      for (const attributes of childrenOf(measure, 'attributes'))
        for (const clef of childrenOf(attributes, 'clef'))
          if (textOf(clef, 'sign') === 'TAB' && clef.attributes['number'] !== undefined)
            this.#staff = Number(clef.attributes['number']);
  }

  #measure(measure: XmlElement): void {
    const draft: BarDraft = { isRepeatStart: false };
    let now = 0;
    let longest = 0;
    let onset = 0;
    for (const child of childrenOf(measure))
      switch (child.name) {
        case 'note': {
          const length = this.#ticks(child);
          const isUpper = childOf(child, 'chord') !== undefined;
          const isGrace = childOf(child, 'grace') !== undefined;
          const staff = numberOf(child, 'staff') ?? 1;
          if (!isUpper) onset = now;
          if (this.#staff === null || staff === this.#staff)
            this.#note(child, { at: this.#at + onset, ticks: length, isUpper, isGrace });
          if (!isUpper && !isGrace) now += length;
          break;
        }
        case 'backup':
          now = Math.max(0, now - this.#ticks(child));
          break;
        case 'forward':
          now += this.#ticks(child);
          break;
        case 'attributes':
          this.#attributes(child);
          break;
        case 'direction':
          this.#direction(child, draft, this.#at + now);
          break;
        case 'sound':
          this.#tempo(Number(child.attributes['tempo']), draft);
          break;
        case 'harmony': {
          const chord = readHarmony(child);
          if (chord === undefined) this.#problems.add(this.#place, 'A chord symbol could not be read; it is left out.');
          else this.#chords.push({ at: this.#at + now + this.#offset(child), chord });
          break;
        }
        case 'bookmark':
          draft.phrase ??= child.attributes['name'] ?? '';
          break;
        case 'barline':
          this.#barline(child, draft);
          break;
        default:
      }
    longest = Math.max(longest, now, this.#events.endSince(this.#at) - this.#at);
    this.#close(measure, draft, longest);
  }

  #close(measure: XmlElement, draft: BarDraft, ticks: number): void {
    const full = barTicks(this.#meter);
    const isShort = measure.attributes['implicit'] === 'yes' || this.#bars.length === 0;
    if (ticks > full)
      this.#problems.add(this.#place, `The bar is longer than ${this.#meter.beats}/${this.#meter.unit}.`);
    else if (ticks < full && ticks > 0 && !isShort)
      this.#problems.add(this.#place, `The bar is shorter than ${this.#meter.beats}/${this.#meter.unit}.`);
    const length = ticks === 0 ? full : ticks;
    const ending = draft.ending ?? (this.#ending && { passes: this.#ending, ends: false });
    // Source: common practice, an upbeat is measure 0.
    const isPickup = ticks < full && measure.attributes['number'] === '0';
    const bar = { ...draft, at: this.#at, ticks: length, meter: this.#meter };
    this.#bars.push({ ...bar, ...(ending && { ending }), ...(isPickup && { isPickup }) });
    if (ending?.ends) this.#ending = undefined;
    this.#at += length;
  }

  #ticks(parent: XmlElement): number {
    const duration = numberOf(parent, 'duration') ?? 0;
    return Math.max(0, Math.round((duration * TICKS_PER_QUARTER) / this.#divisions));
  }

  #offset(parent: XmlElement): number {
    return Math.round(((numberOf(parent, 'offset') ?? 0) * TICKS_PER_QUARTER) / this.#divisions);
  }

  #note(note: XmlElement, where: { at: number; ticks: number; isUpper: boolean; isGrace: boolean }): void {
    if (childOf(note, 'cue')) return;
    if (childOf(note, 'rest')) return;
    this.#events.add(note, { ...where, tuning: this.#tuning, capo: this.#capo });
  }

  #attributes(attributes: XmlElement): void {
    const divisions = numberOf(attributes, 'divisions');
    if (divisions !== undefined && divisions > 0) this.#divisions = divisions;
    const time = childOf(attributes, 'time');
    if (time) this.#time(time);
    const fifths = numberOf(childOf(attributes, 'key'), 'fifths');
    if (fifths !== undefined && Math.abs(fifths) <= 7 && !this.#key) {
      const mode = MODES.find((one) => one === textOf(childOf(attributes, 'key'), 'mode'));
      if (mode !== undefined) this.#key = { fifths, mode };
    }
    for (const transpose of childrenOf(attributes, 'transpose'))
      this.#events.transposed =
        (numberOf(transpose, 'chromatic') ?? 0) + 12 * (numberOf(transpose, 'octave-change') ?? 0);
    const staff = childrenOf(attributes, 'staff-details').find((one) => childOf(one, 'staff-tuning'));
    if (staff) this.#staffDetails(staff);
  }

  #time(time: XmlElement): void {
    const beats = textOf(time, 'beats')
      .split('+')
      .reduce((sum, one) => sum + Number(one), 0);
    const unit = numberOf(time, 'beat-type') ?? 4;
    if (Number.isInteger(beats) && beats >= 1 && beats <= 32 && [1, 2, 4, 8, 16, 32].includes(unit))
      this.#meter = { beats, unit };
    else if (!childOf(time, 'senza-misura'))
      this.#problems.add(this.#place, 'A time signature could not be read; the one before goes on.');
  }

  #staffDetails(staff: XmlElement): void {
    const opens = childrenOf(staff, 'staff-tuning')
      .toSorted((a, b) => Number(b.attributes['line']) - Number(a.attributes['line']))
      .map((line) =>
        midiOfPitch(textOf(line, 'tuning-step'), numberOf(line, 'tuning-alter') ?? 0, numberOf(line, 'tuning-octave')),
      );
    const { min, max } = OPEN_STRING_RANGE;
    const isSound = opens.every((midi): midi is number => midi !== undefined && midi >= min && midi <= max);
    const { min: fewest, max: most } = STRING_COUNT_RANGE;
    if (isSound && opens.length >= fewest && opens.length <= most) {
      const tuning = makeTuning('of the file', opens);
      if (this.#tuning && this.#tuning.openMidis.join() !== opens.join())
        this.#problems.add(
          this.#place,
          'The tuning changes here; the one at the beginning is kept, and places are found anew.',
        );
      else this.#tuning = tuning;
    } else this.#problems.add(this.#place, 'The tuning could not be read.');
    const capo = numberOf(staff, 'capo');
    if (capo !== undefined && Number.isInteger(capo) && capo >= 0 && capo <= 12) this.#capo = capo;
  }

  #direction(direction: XmlElement, draft: BarDraft, at: number): void {
    for (const type of childrenOf(direction, 'direction-type'))
      for (const one of childrenOf(type))
        switch (one.name) {
          case 'rehearsal':
          case 'segno':
          case 'coda':
            draft.label ??= textOf(one) || one.name;
            break;
          case 'words':
            this.#words(textOf(one), draft, at);
            break;
          case 'metronome':
            this.#metronome(one, draft);
            break;
          case 'wedge':
            this.#events.wedge(one.attributes['type'] ?? '', at);
            break;
          default:
        }
    const tempo = childOf(direction, 'sound')?.attributes['tempo'];
    if (tempo !== undefined && draft.bpm === undefined) this.#tempo(Number(tempo), draft);
  }

  #words(text: string, draft: BarDraft, at: number): void {
    const about = /^about (\d+) times$/.exec(text);
    if (text === 'swing' || text === 'straight') draft.feel = text;
    else if (about) draft.repeatEnd = { times: Number(about[1]), isOpen: true };
    else if (text !== '') this.#events.words(text, at);
  }

  #metronome(metronome: XmlElement, draft: BarDraft): void {
    const units: Readonly<Record<string, number>> = { whole: 4, half: 2, quarter: 1, eighth: 0.5, '16th': 0.25 };
    const unit = units[textOf(metronome, 'beat-unit')];
    const dotted = (unit ?? 1) * (childOf(metronome, 'beat-unit-dot') ? 1.5 : 1);
    const perMinute = numberOf(metronome, 'per-minute');
    if (unit !== undefined && perMinute !== undefined) this.#tempo(perMinute * dotted, draft);
  }

  #tempo(bpm: number, draft: BarDraft): void {
    if (!Number.isFinite(bpm) || bpm < 10 || bpm > 500) return;
    const rounded = Math.round(bpm * 10) / 10;
    if (rounded !== this.#bpm) draft.bpm = rounded;
    this.#bpm = rounded;
  }

  #barline(barline: XmlElement, draft: BarDraft): void {
    const repeat = childOf(barline, 'repeat');
    const ending = childOf(barline, 'ending');
    const passes = (ending?.attributes['number'] ?? '')
      .split(/[\s,]+/)
      .map(Number)
      .filter((pass) => Number.isInteger(pass) && pass > 0 && pass <= 99);
    if (ending?.attributes['type'] === 'start' && passes.length > 0) {
      this.#ending = passes;
      draft.ending = { passes, ends: false };
    } else if (ending && this.#ending) draft.ending = { passes: this.#ending, ends: true };
    if (repeat?.attributes['direction'] === 'forward') draft.isRepeatStart = true;
    if (repeat?.attributes['direction'] === 'backward') {
      const times = Number(repeat.attributes['times'] ?? 2);
      draft.repeatEnd = draft.repeatEnd?.isOpen
        ? draft.repeatEnd
        : { times: Number.isInteger(times) && times >= 2 && times <= 99 ? times : 2, isOpen: false };
    }
  }
}
