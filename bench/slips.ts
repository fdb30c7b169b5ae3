import { checkPhrase } from '@jam-ledger/core/checks';
import { usualGuitar } from '@jam-ledger/core/fretboard';
import { chordTones } from '@jam-ledger/core/harmony';
import { eventsOf, playOut, readShorthand, rewriteEvents, type EventItem } from '@jam-ledger/core/notation';
import { OPEN_KEY, readKey, TUNINGS, type Key } from '@jam-ledger/core/pitch';
import { CORRECT_PHRASES } from '../packages/core/test/phrases.ts';

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

const slipKinds = ['swapped', 'neighbour', 'octave', 'elsewhere'] as const;

function slip(
  { string, fret }: { string: number; fret: number },
  kind: (typeof slipKinds)[number],
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
  to: { string: number; fret: number },
  key: Key,
  chord: string | null,
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

/** Injects slips and counts what the checks flag. `from` and `step` choose every so many phrases. */
export function measureSlips(from = 0, step = 1) {
  const random = randomFrom(20_160);
  let [events, alarms, mattering, flagged, mended] = [0, 0, 0, 0, 0];
  const missed: string[] = [];
  const falsely: string[] = [];
  for (const [place, { key: keyText, text }] of CORRECT_PHRASES.entries()) {
    if (place % step !== from % step) continue;
    const key = readKey(keyText) ?? OPEN_KEY;
    const { phrase } = readShorthand(text);
    const options = { ...guitar, text, bpm: 90, key };
    const found = checkPhrase(phrase, options);
    const items = eventsOf(phrase).map(({ item }) => item);
    events += items.length;
    alarms += found.length;
    falsely.push(...found.map(({ message, span }) => `${keyText}: ${text.slice(span.from, span.to)} ${message}`));
    const chords = new Map(playOut(phrase, guitar).map(({ span, chord }) => [span, chord]));
    for (let time = 0; time < SLIPS_A_PHRASE; time += 1) {
      const index = Math.floor(random() * items.length);
      const item = items[index];
      const [note] = item?.notes ?? [];
      const kind = slipKinds[Math.floor(random() * slipKinds.length)] ?? 'swapped';
      if (!item || !note || note.fret === null || item.link !== undefined || items[index + 1]?.link !== undefined)
        continue;
      const to = slip({ string: note.string, fret: note.fret }, kind, random);
      if (!to || (note.moves && to.fret === 0)) continue;
      if (!matters(items, index, to, key, chords.get(item.span) ?? null)) continue;
      mattering += 1;
      const wrong = rewriteEvents(text, new Map([[item, { ...item, notes: [{ ...note, ...to }] }]]));
      const slipped = readShorthand(wrong);
      const seen = [...slipped.problems, ...checkPhrase(slipped.phrase, { ...options, text: wrong })];
      const here = seen.filter(({ span }) => span.from <= item.span.from + 3 && span.to >= item.span.from);
      if (here.length > 0) flagged += 1;
      else
        missed.push(
          `${keyText} ${kind}: ${text.slice(item.span.from, item.span.to)} → ${to.fret}@${to.string} in ${wrong}`,
        );
      if (here.some(({ fix }) => fix && wrong.slice(0, fix.span.from) + fix.text + wrong.slice(fix.span.to) === text))
        mended += 1;
    }
  }
  return { events, alarms, mattering, flagged, mended, missed, falsely };
}
