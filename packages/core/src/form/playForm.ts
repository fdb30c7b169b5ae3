/** What is left out or replaced on one pass of a section. Passes count from 1. */
export interface PassNote {
  readonly pass: number | 'last';
  /** In words, “stops on the power chord”. */
  readonly change: string;
  /** Whether the section ends after fewer bars on this pass; its length then. */
  readonly bars?: number;
}

/** A section as laid out. Bars are whole; `startSeconds` is its first stamp in the recording. */
export interface FormSection {
  readonly id: string;
  readonly label: string;
  readonly bars: number;
  /** How often it goes round before the form goes on; 1 where it is not repeated. */
  readonly times: number;
  /** About so often, to the fade. */
  readonly open?: boolean;
  readonly startSeconds: number;
  /** False where the start, or the length, is only supposed; nothing is checked against it then. */
  readonly startKnown?: boolean;
  readonly barsKnown?: boolean;
  readonly passes: readonly PassNote[];
  /** Where it is heard when it comes again, seconds, by the time it is played over the whole song, from 2; as far as that is known. */
  readonly returns?: ReadonlyMap<number, number>;
  /** The section the form jumps back to after this one, and how often; then it goes on. */
  readonly jump?: { readonly to: string; readonly times: number };
}

/** One time round a section, in playing order. Bars count from 1, as musicians do. */
export interface PlayedSection {
  readonly id: string;
  readonly label: string;
  /** Which time this section is played, over the whole song, from 1. */
  readonly visit: number;
  /** Which pass of its own repeat, from 1. */
  readonly pass: number;
  readonly firstBar: number;
  readonly bars: number;
  /** What is different this time, in words. */
  readonly changes: readonly string[];
}

/** Most times round that a form is written out to; beyond that its jumps go in a circle. Our choice. */
export const MAX_ROUNDS = 2000;

/** The playing order, and whether it was cut off because jumps lead in a circle or repeats are endless. */
export interface PlayedForm {
  readonly rounds: readonly PlayedSection[];
  readonly truncated: boolean;
}

/**
 * Writes out the playing order: each section as often as it goes round, jumps back taken as often as they say,
 * with the number of the bar at which every round begins. Sections that jump to none that is there go on.
 * Source: the order of repeats and of “from the sign” jumps in printed music, common practice.
 */
export function playForm(sections: readonly FormSection[]): PlayedForm {
  const rounds: PlayedSection[] = [];
  const visits = new Map<string, number>();
  const jumped = new Map<string, number>();
  let bar = 1;
  let at = 0;
  while (at < sections.length) {
    const section = sections[at];
    if (!section) break;
    for (let pass = 1; pass <= Math.max(1, section.times); pass += 1) {
      if (rounds.length >= MAX_ROUNDS) return { rounds, truncated: true };
      const visit = (visits.get(section.id) ?? 0) + 1;
      visits.set(section.id, visit);
      const notes = section.passes.filter(
        (note) => note.pass === pass || (note.pass === 'last' && pass === section.times),
      );
      const bars = notes.findLast((note) => note.bars !== undefined)?.bars ?? section.bars;
      const changes = notes.map(({ change }) => change);
      rounds.push({ id: section.id, label: section.label, visit, pass, firstBar: bar, bars, changes });
      bar += bars;
    }
    at = nextPlace(sections, at, jumped);
  }
  return { rounds, truncated: false };
}

function nextPlace(sections: readonly FormSection[], at: number, jumped: Map<string, number>): number {
  const section = sections[at];
  const to = section?.jump ? sections.findIndex(({ id }) => id === section.jump?.to) : -1;
  if (!section?.jump || to < 0 || to > at) return at + 1;
  const taken = jumped.get(section.id) ?? 0;
  if (taken >= section.jump.times) return at + 1;
  jumped.set(section.id, taken + 1);
  return to;
}
