import { bendOff, proposeEntry, type JudgedTake, type NoteVerdict } from '@jam-ledger/core/listen';
import type { CleanRule } from '@jam-ledger/core/pieces';
import type { TabFlag } from '../tab/index.ts';

/** The sign of each verdict on the tab, and what it means. */
export const VERDICTS: Readonly<Record<NoteVerdict, { readonly sign: string; readonly says: string }>> = {
  right: { sign: '✓', says: 'right' },
  early: { sign: '‹', says: 'early' },
  late: { sign: '›', says: 'late' },
  missing: { sign: '○', says: 'not heard' },
  wrong: { sign: '×', says: 'another note' },
  'cannot tell': { sign: '?', says: 'cannot tell' },
};

/** From what is worst: a sign that is played several times shows it. */
const WORST: readonly NoteVerdict[] = ['wrong', 'missing', 'late', 'early', 'cannot tell', 'right'];

/** What stands at the notes of a tab after a take. A note whose bend missed its pitch is told with its cents. */
export function flagsOf({ events }: JudgedTake, { bendCents }: CleanRule): readonly TabFlag[] {
  const bySign = new Map<number, (typeof events)[number]>();
  for (const event of events) {
    const known = bySign.get(event.span.from);
    if (!known || WORST.indexOf(event.verdict) < WORST.indexOf(known.verdict)) bySign.set(event.span.from, event);
  }
  return [...bySign.values()].map((event): TabFlag => {
    const { sign, says } = VERDICTS[event.verdict];
    const off = Math.round(bendOff(event) ?? 0);
    const isBendOff = event.verdict === 'right' && Math.abs(off) > bendCents;
    const bend = `${off > 0 ? '+' : '−'}${Math.abs(off)}¢`;
    return { span: event.span, look: isBendOff ? 'wrong' : lookOf(event.verdict), sign: isBendOff ? bend : sign, says };
  });
}

function lookOf(verdict: NoteVerdict): TabFlag['look'] {
  return verdict === 'cannot tell' ? 'unsure' : verdict;
}

/** How steady a take is, in words; `clickSeconds`: where in the recording the click that it was played to is heard, if that is known. */
export function sayTake(
  { bpm, startSeconds, tuningCents, unsteadySeconds }: JudgedTake,
  clickSeconds?: number,
): string {
  const tuning = Math.round(tuningCents);
  const tuned =
    Math.abs(tuning) < 4 ? 'in tune' : `${Math.abs(tuning)} cents ${tuning < 0 ? 'flat' : 'sharp'} as a whole`;
  return `Played at ${bpm.toFixed(1)} bpm, ${Math.round(unsteadySeconds * 1000)} ms unsteady, ${tuned}; ${sayBegin(startSeconds, clickSeconds)}.`;
}

/** What all notes share, which is taken out of each: how far behind the click they lie, where the delay of the device is known. */
function sayBegin(startSeconds: number, clickSeconds: number | undefined): string {
  if (clickSeconds === undefined) return `it begins ${startSeconds.toFixed(2)} s into the recording`;
  const off = Math.round((startSeconds - clickSeconds) * 1000);
  if (Math.abs(off) <= ON_THE_CLICK_MS) return 'as a whole on the click';
  return `as a whole ${Math.abs(off)} ms ${off < 0 ? 'ahead of' : 'behind'} the click`;
}

/** A hand that claps to find the delay is no more even than this, milliseconds. Our choice. */
const ON_THE_CLICK_MS = 15;

/** Two takes of one piece against each other. */
export interface Beside {
  /** What is told of each, a line each. */
  readonly rows: readonly { readonly name: string; readonly values: readonly [string, string] }[];
  /** Notes that came out otherwise, counted from 1. */
  readonly changes: readonly { readonly note: number; readonly verdicts: readonly [NoteVerdict, NoteVerdict] }[];
}

/** Two takes line by line, and the notes in which they differ; of stretches that are not the same, no notes. */
export function besideEachOther(one: JudgedTake, other: JudgedTake, rule: CleanRule): Beside {
  const of = (say: (take: JudgedTake) => string): readonly [string, string] => [say(one), say(other)];
  const isSame = one.events.length === other.events.length;
  const right = ({ events }: JudgedTake) => events.filter(({ verdict }) => verdict === 'right').length;
  return {
    rows: [
      { name: 'came out', values: of((take) => OUTCOMES[proposeEntry(take, rule).outcome ?? 'untold']) },
      { name: 'tempo', values: of(({ bpm }) => `${bpm.toFixed(1)} bpm`) },
      { name: 'notes right', values: of((take) => `${right(take)} of ${take.events.length}`) },
      { name: 'unsteady', values: of(({ unsteadySeconds }) => `${Math.round(unsteadySeconds * 1000)} ms`) },
    ],
    changes: (isSame ? one.events : []).flatMap(({ verdict }, index) => {
      const then = other.events[index]?.verdict ?? verdict;
      return then === verdict ? [] : [{ note: index + 1, verdicts: [verdict, then] as const }];
    }),
  };
}

const OUTCOMES = { clean: 'clean', 'not-yet': 'not yet', untold: 'cannot tell' } as const;
