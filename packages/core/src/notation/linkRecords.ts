import type { SignRecord } from './signs.ts';

/** How an event grows out of the one before it. */
export interface LinkRecord extends SignRecord {
  /** What is typed before the fret. */
  readonly code: string;
  /** How loud it is where nothing else is said; null for as loud as any. */
  readonly level: number | null;
}

/** How an event can grow out of the one before it; `shift` is a slide whose target is picked again. */
export const LINK_RECORDS = {
  hammer: {
    code: 'h',
    level: 0.6,
    example: '7G h9',
    means: 'hammer-on',
    sign: 'h',
    legend: 'hammer-on: sounded by the fretting hand alone',
    technique: { name: 'hammer-on', rank: 4 },
    drill: 'The second note as loud as the first, with the pick still.',
    hearing: { kind: 'slur', says: 'hammered' },
  },
  pull: {
    code: 'p',
    level: 0.6,
    example: '9G p7',
    means: 'pull-off',
    sign: 'p',
    legend: 'pull-off',
    technique: { name: 'pull-off', rank: 5 },
    drill: 'Pull a little downward, so that the lower note speaks.',
    hearing: { kind: 'slur', says: 'pulled' },
  },
  slide: {
    code: 's',
    level: 0.6,
    example: '7G s12',
    means: 'slide, the target not picked',
    sign: '⁄ with arc',
    legend: 'slide, the target not picked',
    technique: { name: 'slide', rank: 6 },
    drill: 'Keep the pressure until the slide arrives.',
    hearing: { kind: 'slide', says: 'still sounding, not picked again' },
  },
  shift: {
    code: 'S',
    level: null,
    example: '7G S12',
    means: 'slide, the target picked again',
    sign: '⁄ alone',
    legend: 'slide, the target picked again; or from and to nowhere',
    technique: { name: 'shift slide', rank: 21 },
    drill: 'Arrive first, then pick.',
    hearing: { kind: 'slide', says: 'before it is picked again' },
  },
  tap: {
    code: 't',
    level: 0.6,
    example: '7G t17',
    means: 'tapped with the picking hand',
    sign: 'T',
    legend: 'tapped with the picking hand',
    technique: { name: 'tap', rank: 43 },
    drill: 'The other hand hits the fret and plucks off toward the thick strings.',
    hearing: { kind: 'slur', says: 'tapped' },
  },
} as const satisfies Readonly<Record<string, LinkRecord>>;
/** How an event grows out of the one before it. */
export type Link = keyof typeof LINK_RECORDS;

const LINK_OF_CODE = new Map(
  (Object.keys(LINK_RECORDS) as readonly Link[]).map((link) => [LINK_RECORDS[link].code as string, link]),
);
/** What is typed for any link. */
export const LINK_BEGINS = [...LINK_OF_CODE.keys()].join('');

/** The link a letter stands for. */
export function linkOfCode(code: string): Link | undefined {
  return LINK_OF_CODE.get(code);
}
