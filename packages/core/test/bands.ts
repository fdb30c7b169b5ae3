import type { BandPart } from '../src/listen/index.ts';
import { accompany, perform, type Click } from '../src/notation/index.ts';
import { hasMinorThird, tonicOf, TUNINGS } from '../src/pitch/index.ts';
import { backingOf } from '../src/sound/index.ts';
import type { RightPhrase } from './corpus.ts';

/** Chords that go under any of our phrases, as steps of the key: common practice. */
const STEPS = { major: [0, 5, 7, 0], minor: [0, 5, 10, 0] } as const;
const NAMES = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];

/** A phrase played round and round for so many seconds, with a bass and chords a bar under it in its key. */
export function partOf({ phrase, key, meter, bpm }: RightPhrase, seconds: number): BandPart {
  const played = perform(phrase, { tuning: TUNINGS.standard, capo: 0, bpm });
  const along = accompany(phrase, { bpm });
  const barSeconds = (meter.beats * 4 * 60) / meter.unit / bpm;
  const round = Math.max(1, Math.ceil(along.seconds / barSeconds - 1e-6)) * barSeconds;
  const rounds = Math.max(1, Math.ceil(seconds / round));
  const beat = barSeconds / meter.beats;
  const bars = Math.round((rounds * round) / barSeconds);
  const clicks: Click[] = Array.from({ length: bars * meter.beats }, (_, index) => ({
    seconds: index * beat,
    accent: index % meter.beats === 0,
  }));
  const root = tonicOf(key);
  const isMinor = hasMinorThird(key);
  const steps = isMinor ? STEPS.minor : STEPS.major;
  const chords = Array.from({ length: bars }, (_, bar) => {
    const step = steps[bar % steps.length] ?? 0;
    return { seconds: bar * barSeconds, chord: `${NAMES[(root + step) % 12]}${isMinor && step !== 10 ? 'm' : ''}` };
  });
  return {
    notes: Array.from({ length: rounds }, (_, turn) =>
      played.map((note) => ({ ...note, startSeconds: note.startSeconds + turn * round })),
    ).flat(),
    backing: backingOf({ ...along, chords, clicks, seconds: rounds * round }),
    clicks,
    seconds: rounds * round + 0.8,
  };
}
