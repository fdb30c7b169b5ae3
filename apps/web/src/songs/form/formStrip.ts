import type { RigNote, Section, SectionPass } from '@jam-ledger/contract';
import type { SongPlace, TimedRound } from '@jam-ledger/core/form';
import { clockText } from '../../ui/index.ts';

/** A block of the strip: one time round a section, or all that follow one another, folded. */
export interface StripBlock extends Pick<TimedRound, 'id' | 'label' | 'visit' | 'pass' | 'fromSeconds' | 'toSeconds'> {
  readonly key: string;
  readonly times: number;
  readonly open?: boolean;
  /** Whether its start is only supposed. */
  readonly isSupposed?: true;
  /** What is different, in words. */
  readonly notes: readonly string[];
}

/** Folds the rounds of a section that follow one another into one block. */
export function foldRounds(rounds: readonly TimedRound[], sections: readonly Section[]): readonly StripBlock[] {
  const byId = new Map(sections.map((section) => [section.id, section]));
  const blocks: StripBlock[] = [];
  for (const round of rounds) {
    const last = blocks.at(-1);
    if (last && last.id === round.id && round.pass > 1)
      blocks[blocks.length - 1] = { ...last, toSeconds: round.toSeconds, times: last.times + 1 };
    else blocks.push(blockOf(round, byId.get(round.id), blocks.length));
  }
  return blocks;
}

function blockOf(round: TimedRound, section: Section | undefined, index: number): StripBlock {
  const { id, label, visit, pass, fromSeconds, toSeconds } = round;
  const notes = (section?.passes ?? []).map(sayPass);
  const open = section?.open ?? false;
  const place = { id, label, visit, pass, fromSeconds, toSeconds, key: `${id}-${index}` };
  return { ...place, times: 1, open, notes, ...(section?.startKnown === false && { isSupposed: true }) };
}

/** What is different on a pass, in words: “last time stops on the power chord”. */
export function sayPass({ pass, change }: SectionPass): string {
  return `${pass === 'last' ? 'last time' : `time ${pass}`} ${change}`;
}

/** Steps of the ruler, seconds. */
const STEPS = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600] as const;
/** Room that a mark of the ruler needs, pixels. */
const MARK_PIXELS = 52;

/** The seconds that the ruler names, none closer than can be read. */
export function rulerMarks(total: number, pixelsPerSecond: number): readonly number[] {
  const step = STEPS.find((one) => one * pixelsPerSecond >= MARK_PIXELS) ?? 1200;
  return Array.from({ length: Math.floor(total / step) + 1 }, (_, index) => index * step);
}

/** A place of the song in words: stamp, section, bar and beat, and the rig that holds there. */
export function sayPlace(seconds: number, place: SongPlace | undefined, rig: readonly RigNote[]): string {
  const stamp = clockText(Math.round(seconds * 10) / 10);
  const holds = rig.filter(({ fromSeconds, toSeconds }) => fromSeconds <= seconds && seconds < (toSeconds ?? Infinity));
  const notes = holds.map(({ note }) => note);
  if (!place) return [stamp, ...notes].join(' · ');
  const pass = place.pass > 1 ? `, time ${place.pass}` : '';
  const beat = (Math.floor(place.beat * 10) / 10).toFixed(1);
  const where = `${place.label}${pass}, bar ${place.bar}, beat ${beat}`;
  return [stamp, where, `bar ${place.songBar} of the song`, ...notes].join(' · ');
}
