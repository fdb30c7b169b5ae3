import { playForm, tempoAt, timeForm, type FormSection, type TempoChanges, type TimedRound } from '../form/index.ts';
import {
  barTicks,
  hasRounds,
  inRound,
  isNest,
  unroll,
  type Feel,
  type Item,
  type Meter,
  type Phrase,
  type Setup,
} from '../notation/index.ts';
import type { Key } from '../pitch/index.ts';

/** A phrase as it leaves: read and placed. `layer` names the part it belongs to. */
export interface PhraseToWrite {
  readonly name: string;
  readonly layer: string;
  readonly phrase: Phrase;
}

/** A section as it leaves, with the guitar it is played on. Phrases of one layer follow one another, layers sound at once. */
export interface SectionToWrite extends FormSection {
  readonly role: string;
  readonly guitar: Setup;
  readonly phrases: readonly PhraseToWrite[];
}

/** A song, or as much of it as was chosen, on its way into another format. */
export interface SongToWrite {
  readonly title: string;
  /** Who made it, as typed; empty where nobody said. */
  readonly credit: string;
  readonly guitar: Setup;
  readonly key: Key | undefined;
  readonly feel: Feel;
  /** How far the recording stands from A4 = 440 Hz, cents. */
  readonly offsetCents: number;
  readonly tempoChanges: TempoChanges;
  readonly sections: readonly SectionToWrite[];
}

/** Phrases of one layer, one after the other, with the ticks at which each begins. */
export interface Voice {
  readonly layer: string;
  readonly phrases: readonly (PhraseToWrite & { readonly at: number })[];
}

/** A section in one or several rounds that sound alike. */
export interface Stretch {
  readonly section: SectionToWrite;
  /** The first of its rounds. */
  readonly round: TimedRound;
  /** How many rounds follow one another, all alike; 1 unless rounds may be folded. */
  readonly times: number;
  /** Whether it is about as often as that. */
  readonly isOpen: boolean;
  /** What is different in it, in words. */
  readonly changes: readonly string[];
  readonly meter: Meter;
  /** Quarter notes a minute at its start. */
  readonly bpm: number;
  /** Of one round, ticks. */
  readonly ticks: number;
  readonly voices: readonly Voice[];
}

/** Most events that a song is written out to. Our choice: three hours of sixteenths. */
export const MAX_WRITTEN = 100_000;

/** The stretches of a song in playing order, and whether writing them out was stopped at `MAX_WRITTEN` events. */
export interface WrittenOut {
  readonly stretches: readonly Stretch[];
  readonly truncated: boolean;
}

/**
 * The order in which a song is written down: its form played out, jumps and rounds that differ written out, rounds that are alike
 * folded where `fold` asks for it. Linear in what is played.
 */
export function stretchesOf(song: SongToWrite, { fold }: { readonly fold: boolean }): WrittenOut {
  const rounds = timeForm(song.sections, song.tempoChanges);
  const sections = new Map(song.sections.map((section) => [section.id, section]));
  const stretches: Stretch[] = [];
  let events = 0;
  let at = 0;
  for (let round = rounds[at]; round; round = rounds[at]) {
    const section = sections.get(round.id);
    if (!section) throw new RangeError(`the form plays section ${round.id}, which is not there`);
    const alike = fold && areRoundsAlike(section) ? roundsFrom(rounds, at) : 1;
    at += alike;
    const stretch = stretchOf(section, round, song.tempoChanges);
    if (!stretch) continue;
    events += stretch.voices.reduce(
      (sum, voice) => sum + voice.phrases.reduce((all, { phrase }) => all + unroll(phrase).events.length, 0),
      0,
    );
    if (events > MAX_WRITTEN && stretches.length > 0) return { stretches, truncated: true };
    const changes = alike > 1 ? section.passes.map(sayPass) : round.changes;
    stretches.push({ ...stretch, changes, times: alike, isOpen: section.open === true && alike > 1 });
  }
  return { stretches, truncated: playForm(song.sections).truncated };
}

/** What is different on one pass, in words. */
function sayPass({ pass, change }: FormSection['passes'][number]): string {
  return `${pass === 'last' ? 'last time' : `time ${pass}`}: ${change}`;
}

/** Rounds of one repeat of a section that follow one another. */
function roundsFrom(rounds: readonly TimedRound[], at: number): number {
  const first = rounds[at];
  let count = 1;
  while (first && rounds[at + count]?.id === first.id && rounds[at + count]?.pass === first.pass + count) count += 1;
  return count;
}

/** Whether all rounds of a section are written alike, and hold no repeat of their own, which could not stand inside another. */
function areRoundsAlike({ passes, phrases }: SectionToWrite): boolean {
  const areWords = passes.every(({ bars }) => bars === undefined);
  return areWords && phrases.every(({ phrase }) => !hasRounds(phrase.items) && !holds(phrase.items, 'repeat'));
}

/** Whether an item of a kind stands among some, at whatever depth. */
export function holds(items: readonly Item[], kind: Item['kind']): boolean {
  return items.some((item) => item.kind === kind || (isNest(item) && holds(item.items, kind)));
}

/** What a section is called: its label and its role, as far as they are said. */
export function headingOf({ label, role }: Pick<SectionToWrite, 'label' | 'role'>): string {
  return [label, role].filter(Boolean).join(' ');
}

function stretchOf(
  section: SectionToWrite,
  round: TimedRound,
  tempoChanges: TempoChanges,
): Omit<Stretch, 'times' | 'isOpen' | 'changes'> | undefined {
  const { meter, bpm } = tempoAt(round.fromSeconds, tempoChanges);
  const layers = [...new Set(section.phrases.map(({ layer }) => layer))];
  const heard = { round: round.pass, of: section.open ? Infinity : section.times };
  const voices = layers.map((layer): Voice & { readonly ticks: number } => {
    let at = 0;
    const phrases = section.phrases
      .filter((one) => one.layer === layer)
      .map((one) => {
        const here = { ...one, phrase: inRound(one.phrase, heard), at };
        at += unroll(here.phrase).length;
        return here;
      });
    return { layer, phrases, ticks: at };
  });
  const written = Math.max(0, ...voices.map(({ ticks }) => ticks));
  const said = section.barsKnown === false ? 0 : round.bars * barTicks(meter);
  const ticks = Math.max(written, said);
  return ticks === 0 ? undefined : { section, round, meter, bpm, ticks, voices };
}
