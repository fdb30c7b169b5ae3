import { checkPhrase } from '@jam-ledger/core/checks';
import { usualGuitar } from '@jam-ledger/core/fretboard';
import { chordTones } from '@jam-ledger/core/harmony';
import { eventsOf, playOut, readShorthand, rewriteEvents, type EventItem } from '@jam-ledger/core/notation';
import { OPEN_KEY, readKey, TUNINGS, type Key } from '@jam-ledger/core/pitch';
import { CORRECT_PHRASES } from '../packages/core/test/phrases.ts';
import { ratio, type Figure } from './measure.ts';

/** Slips injected into each phrase; each run is the same. */
const SLIPS_A_PHRASE = 40;

/** A note so many frets from both its neighbours is out of the hand’s way. */
const FAR_FRETS = 6;

const guitar = usualGuitar(TUNINGS.standard);

/** Numbers from 0 to 1 that are the same each time. Source: Park and Miller’s minimal standard generator, 1988. */
function randomFrom(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

const SLIP_KINDS = ['swapped', 'neighbour', 'octave', 'elsewhere'] as const;

function slip(
  { string, fret }: { string: number; fret: number },
  kind: (typeof SLIP_KINDS)[number],
  random: () => number,
) {
  const sign = random() < 0.5 ? -1 : 1;
  const to = (() => {
    if (kind === 'swapped') return { string: fret, fret: string };
    if (kind === 'neighbour') return { string: string + sign, fret };
    if (kind === 'octave') return { string, fret: fret + 12 * sign };
    const other = 1 + Math.floor(random() * 6);
    return {
      string: other,
      fret: fret + (guitar.tuning.openMidis[string - 1] ?? 0) - (guitar.tuning.openMidis[other - 1] ?? 0),
    };
  })();
  const there = to.string >= 1 && to.string <= 6 && to.fret >= 0 && to.fret <= guitar.frets;
  return there && (to.string !== string || to.fret !== fret) ? to : undefined;
}

/** Whether a slip changes what is played: out of key and chord, or far from both neighbours. Said without the checks’ own rules. */
function matters(
  events: readonly EventItem[],
  index: number,
  { to, key, chord }: { to: { string: number; fret: number }; key: Key; chord: string | null },
): boolean {
  const chroma = ((guitar.tuning.openMidis[to.string - 1] ?? 0) + to.fret) % 12;
  const tonic = (((key.fifths * 7) % 12) + 12) % 12;
  const inKey = [0, 2, 4, 5, 7, 9, 11].includes((chroma - tonic + 12) % 12);
  const tones = chord === null ? undefined : chordTones(chord);
  const inChord = tones?.degrees.has((chroma - tones.root + 12) % 12) ?? false;
  if (!inKey && !inChord) return true;
  const near = [events[index - 1], events[index + 1]]
    .flatMap((one) => one?.notes[0]?.fret ?? [])
    .filter((fret) => fret > 0);
  return to.fret > 0 && near.length === 2 && near.every((fret) => Math.abs(fret - to.fret) >= FAR_FRETS);
}

/** Injects slips into the correct phrases and counts what the checks flag, and how often they are wrong. */
function measureSlips() {
  const random = randomFrom(20_160);
  const count = { events: 0, alarms: 0, mattering: 0, flagged: 0, fixed: 0 };
  for (const { key: keyText, text } of CORRECT_PHRASES) {
    const key = readKey(keyText) ?? OPEN_KEY;
    const { phrase } = readShorthand(text);
    const options = { ...guitar, text, bpm: 90, key };
    const items = eventsOf(phrase).map(({ item }) => item);
    count.events += items.length;
    count.alarms += checkPhrase(phrase, options).length;
    const chords = new Map(playOut(phrase, guitar).map(({ span, chord }) => [span, chord]));
    for (let time = 0; time < SLIPS_A_PHRASE; time += 1) {
      const index = Math.floor(random() * items.length);
      const item = items[index];
      const [note] = item?.notes ?? [];
      const kind = SLIP_KINDS[Math.floor(random() * SLIP_KINDS.length)] ?? 'swapped';
      if (!item || !note || note.fret === null || item.link !== undefined || items[index + 1]?.link !== undefined)
        continue;
      const to = slip({ string: note.string, fret: note.fret }, kind, random);
      if (!to || (note.moves && to.fret === 0)) continue;
      if (!matters(items, index, { to, key, chord: chords.get(item.span) ?? null })) continue;
      count.mattering += 1;
      const wrong = rewriteEvents(text, new Map([[item, { ...item, notes: [{ ...note, ...to }] }]]));
      const slipped = readShorthand(wrong);
      const seen = [...slipped.problems, ...checkPhrase(slipped.phrase, { ...options, text: wrong })];
      const here = seen.filter(({ span }) => span.from <= item.span.from && span.to > item.span.from);
      if (here.length > 0) count.flagged += 1;
      if (here.some(({ fix }) => fix && wrong.slice(0, fix.span.from) + fix.text + wrong.slice(fix.span.to) === text))
        count.fixed += 1;
    }
  }
  return count;
}

/** How surely slips are told. The yardstick: flagging every note at random as often as the checks do. */
export function slipFigures(): Promise<readonly Figure[]> {
  const { events, alarms, mattering, flagged, fixed } = measureSlips();
  const share = (flagged / mattering) * 100;
  const falsely = (alarms / events) * 100;
  const yardstick = `a note flagged at random, ${falsely.toFixed(1)} %`;
  return Promise.resolve([
    {
      what: `Slips that change key or playability and are flagged (${mattering} of them, in ${CORRECT_PHRASES.length} phrases)`,
      measured: `${share.toFixed(1)} %`,
      target: 'at least 90 %',
      met: share >= 90,
      yardstick,
      ratio: ratio(share, Math.max(falsely, 0.1)),
    },
    {
      what: `False alarms of all checks on ${events} correct events`,
      measured: `${falsely.toFixed(2)} in 100`,
      target: 'under 2 in 100',
      met: falsely < 2,
      yardstick: 'the target, 2 in 100',
      ratio: ratio(falsely, 2),
    },
    {
      what: 'Slips whose mend gives back exactly what was meant',
      measured: `${((fixed / mattering) * 100).toFixed(1)} %`,
      target: '',
      met: null,
      yardstick: `flagged, ${share.toFixed(1)} %`,
      ratio: ratio(fixed, flagged),
    },
  ]);
}
