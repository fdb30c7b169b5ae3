import { playOut, readShorthand } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';
import type { Figure } from './measure.ts';

/**
 * Phrases as they are dictated in lessons, each typed in both editions of the shorthand with as few presses as it allows: invented
 * for this count. A question mark before a phrase stands for a song that is written by feel: in the first edition such a phrase says
 * so itself, in the second the set-up of the song does.
 */
const PHRASES: readonly (readonly [first: string, second: string])[] = [
  // Single lines, a box or two.
  ['?5G 7G 5G 7D 5D 7D', '?5g 7 5 7D 5 7'],
  ['?12e 15e 12e 15B 12B 14G', '?12e 15 12 15B 12 14g'],
  ['?5Gh7p5 7D 5D 7A 5A', '?5gh7p5 7D 5 7a 5'],
  ['?3E 5E 3E 5A 3A 5A 3E', '?3E 5 3 5a 3 5 3E'],
  ['?7D 9D 7D 9D 7G 9G 7G', '?7D 9 7 9 7g 9 7'],
  ['?8B 10B 8B 10B 8e 10e 8e', '?8B 10 8 10 8e 10 8'],
  ['?10Gs12 10G 12G 10G 8G', '?10gs12 10 12 10 8'],
  ['?0E 3E 5E 0E 3E 6E 5E', '?0E 3 5 0 3 6 5'],
  ['?14G 12G 14D 12D 14A 12A 14A', '?14g 12 14D 12 14a 12 14'],
  ['?5e 8e 5e 8B 5B 7G 5G 7G', '?5e 8 5 8B 5 7g 5 7'],
  ['?2A 3A 5A 2D 3D 5D 2G', '?2a 3 5 2D 3 5 2g'],
  ['?17e 15e 13e 15B 13B 12B', '?17e 15 13 15B 13 12'],
  ['?9G 11G 9G 11D 9D 11D', '?9g 11 9 11D 9 11'],
  ['?7B 8B 10B 8B 7B 8B', '?7B 8 10 8 7 8'],
  ['?3G 5G 3G 5G 3B 5B 3B', '?3g 5 3 5 3B 5 3'],
  // Bends and what belongs to them.
  ['?7Gb1 5G 7D 5D 7D', '?7gb1 5 7D 5 7'],
  ['?15Bb1 15B 12B 15B 12e', '?15Bfull 15 12 15 12e'],
  ['?8Bb1r 5B 8B 5B 7G', '?8Bb1r 5 8 5 7g'],
  ['?10Bb.5 8B 10B 8B 9G~', '?10Bb.5 8 10 8 9g~'],
  ['?7Gb1~ 7Gb1~ 7Gb1r 5G', '?7gb1~ 7b1~ 7b1r 5'],
  ['?14Gb1 14G 12G 14G 12G 14D', '?14gb1 14 12 14 12 14D'],
  ['?12Bpb1r 10B 12B 10B', '?12Bpb1r 10 12 10'],
  ['?9Gb1.5 9Gb1 7G 9G 7G', '?9gb1.5 9b1 7 9 7'],
  ['?17eb1 15e 17Bb1 15B', '?17eb1 15 17Bb1 15'],
  ['?13Bbb1 13B 11B 13B', '?13Bbb1 13 11 13'],
  // Stacks and riffs.
  ['?0E2A2D%2 3E5A5D 5E7A7D', '?0E2a2D%2 3E5a5D 5E7a7D'],
  ['?5A7D s7A9D s5A7D s3A5D', '?5a7D s+2 s-2 s-2'],
  ['?0Em%4 3A5D 2A4D 0Em%4', '?0Em%4 3a5D 2a4D 0Em%4'],
  ['?7GB 5GB 7GB 9GB 7GB', '?7gB 5 7 9 7'],
  ['?12Be 10Be 8Be 10Be 12Be', '?12Be 10 8 10 12'],
  ['?5DGB 7DGB 5DGB 3DGB', '?5DgB 7 5 3'],
  ['?3A5D5G s5A7D7G s3A5D5G', '?3a5D5g s+2 s-2'],
  ['?2DGB%2 5DGB%2 2DGB%2', '?2DgB%2 5%2 2%2'],
  ['?9G10B 7G8B 5G7B 4G5B', '?9g10B 7g8B 5g7B 4g5B'],
  ['?0E 0E 7A9D 0E 0E 5A7D', '?0E 0 7a9D 0E 0 5a7D'],
  // Strokes said with the notes.
  ['?12Bd 10Bu 12Gd 9Gu', '?{alt: 12B 10 12g 9}'],
  ['?7Gd 5Gd 7Dd 5Dd', '?{d: 7g 5 7D 5}'],
  ['?5em 5em 8em 5em 7em', '?{m: 5e 5 8 5 7}'],
  ['?0El 2Dl 2Gl 0Bl 0el', '?{l: 0E 2D 2g 0B 0e}'],
  ['?10B~ 12B~ 13B~ 12B~', '?{~: 10B 12 13 12}'],
  // Counted: values said once.
  ['/16 5G 7G 5G 7G 8G 7G 5G 7G', '/16 5g 7 5 7 8 7 5 7'],
  ['/8 5D 7D 5D 7D | 7G 5G 7G 5G', '/8 5D 7 5 7 | 7g 5 7 5'],
  ['/4 7D~ 5D 7D 5D', '/4 7D~ 5 7 5'],
  ['/8t 12e 10e 8e 12B 10B 8B', '/8t 12e 10 8 12B 10 8'],
  ['/4 7D /8 - 9D /4 7D 5D', '/4 7D -/8 9/8 7 5'],
  ['/8 15Bb1 _ 13B 12B 15B 13B', '/8 15Bb1_ 13 12 15 13'],
  ['/2 7G~ _ /4 5G 7G', '/2 7g~_ /4 5 7'],
  ['/8 [ 9G 7G 9G 7G ]3 9G', '/8 [ 9g 7 9 7 ]3 9'],
  ['/8 0E 3E 0E 5E | 0E 3E 6E 5E', '/8 0E 3 0 5 | 0 3 6 5'],
  ['/16 17e 15e 13e 12e 15B 13B 12B 10B', '/16 17e 15 13 12 15B 13 12 10'],
  // Chords in force, and quiet notes.
  ['?:Am 5e 8e 5B 8B :G 3e 7e', '?:Am 5e 8 5B 8 :G 3e 7'],
  ['?:E7 0E 4E 7A 5A 7A', '?:E7 0E 4 7a 5 7'],
  ['?(5G) (7G) (5G) 7D 5D', '?(5g 7 5) 7D 5'],
  ['?7G (5G) 7G (5G) 7G 5G', '?7g (5) 7 (5) 7 5'],
  ['?5G, 7G, 5G, 7G, 5D', '?{,: 5g 7 5 7} 5D'],
  // Runs over the neck, taps, slides.
  ['?5Gh7h9 5Bh7h8 5eh7h8', '?5gh7h9 5Bh7h8 5eh7h8'],
  ['?12e t17p12h15 12e t17p12h15', '?12e t17p12h15 12 t17p12h15'],
  ['?<9G 7G 9G 7G 5G>', '?<9g 7 9 7 5>'],
  ['?7Ds9 7D 9D 7D 5D 7D', '?7Ds9 7 9 7 5 7'],
  ['?3As5 3A 5A 7A 5A 3A', '?3as5 3 5 7 5 3'],
  ['?16G 14G 13G 14G 16D 14D', '?16g 14 13 14 16D 14'],
  ['?8e 7e 5e 8B 6B 5B 7G 5G', '?8e 7 5 8B 6 5 7g 5'],
  ['?19e 17e 15e 19B 17B 15B', '?19e 17 15 19B 17 15'],
  ['?6A 8A 6A 8D 6D 8D 5D', '?6a 8 6 8D 6 8 5'],
  ['?12D* 7D* 5D* 12G* 7G*', '?12D* 7* 5* 12g* 7*'],
];

/** Keys of a keyboard as most of the world has it; those with Shift take two presses. */
const SHIFTED = /[A-Z~!@#$%^&*()_+{}|:"<>?]/;

function pressesOf(text: string): number {
  return Array.from(text).reduce((sum, key) => sum + (SHIFTED.test(key) ? 2 : 1), 0);
}

function soundOf(text: string, byFeel: boolean): string {
  const setup = { tuning: TUNINGS.standard, capo: 0 };
  const { phrase, problems } = readShorthand(text, byFeel ? { startValue: 'untimed' } : {});
  const worse = problems.filter(({ severity, code }) => severity === 'error' || code === 'string-or-mark');
  if (worse.length > 0) throw new Error(`${text}: ${worse[0]?.message ?? ''}`);
  const played = playOut(phrase, setup).map(({ span: _, bar: _bar, pass: _pass, ...event }) => event);
  return JSON.stringify(played);
}

/** Presses that phrases take to type in both editions. The yardstick is the first edition. */
export function pressFigures(): Promise<readonly Figure[]> {
  let [first, second, notes, fewest] = [0, 0, 0, 1];
  for (const [one, other] of PHRASES) {
    const byFeel = one.startsWith('?');
    const [old, now] = byFeel ? [`/? ${one.slice(1)}`, other.slice(1)] : [one, other];
    if (soundOf(old, false) !== soundOf(now, byFeel)) throw new Error(`${old} and ${now} do not say the same`);
    const { phrase } = readShorthand(old);
    notes += playOut(phrase, { tuning: TUNINGS.standard, capo: 0 }).filter((event) => event.notes.length > 0).length;
    first += pressesOf(old);
    second += pressesOf(now);
    fewest = Math.min(fewest, pressesOf(now) / pressesOf(old));
  }
  const share = second / first;
  const each = (presses: number) => (presses / notes).toFixed(2);
  return Promise.resolve([
    {
      what: `Presses to type ${PHRASES.length} phrases as they are dictated, Shift counted (${notes} events)`,
      measured: `${second}, ${each(second)} an event`,
      target: 'at most 75 % of the first edition',
      met: share <= 0.75,
      yardstick: `the same phrases in the first edition, ${first}, ${each(first)} an event`,
      ratio: `${Math.round(share * 100)} %; the phrase that saves most ${Math.round(fewest * 100)} %`,
    },
  ]);
}
