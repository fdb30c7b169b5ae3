import { accompany, perform, readShorthand } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';
import { backingOf, noiseOf, renderClick, renderNotes, startRendering } from '@jam-ledger/core/sound';
import { inTurn, ms, time, type Figure } from './measure.ts';
import { longSolo } from './reading.ts';

const RATE = 44_100;
const LINE = '/16 5D h7 p5 7A 5D 7D /8 10Bb1r 8B /4 10B~ 12G 14G | '.repeat(16);
const SIX = ':Em /8 0E+2A+2D+0G+0B+0e%8 | :Am 0A+2D+2G+1B+0e%8 | '.repeat(8);
/** The strings, the bass, and the voices of the chord. */
const SIX_LOOPS = 6 + 1 + 4;
const setup = { tuning: TUNINGS.standard, capo: 0, bpm: 100 };

/**
 * How fast sound is made. The yardstick: as many of the smallest loops that sound like a string at all, in turns. Source of the loop:
 * Karplus & Strong, "Digital Synthesis of Plucked-String and Drum Timbres", CMJ 7(2), 1983 (from memory).
 */
export async function soundFigures(): Promise<readonly Figure[]> {
  const line = soundOf(LINE, false);
  const six = soundOf(SIX, true);
  const [lineMs, oneMs] = await inTurn(line.render, () => smallestLoops(1, line.seconds));
  const [sixMs, sixLoopsMs] = await inTurn(six.render, () => smallestLoops(SIX_LOOPS, six.seconds), 9);
  const first = await time(firstSound, 40);
  const times = (seconds: number, spent: number) => `${Math.round((1000 * seconds) / spent)} × real time`;
  return [
    {
      what: `Rendering a single line, of whose strings ${line.ringing.toFixed(1)} ring at a time`,
      measured: times(line.seconds, lineMs),
      target: 'at least 0.5 × the smallest loop',
      met: oneMs / lineMs >= 0.5,
      yardstick: `a string loop of one average and no more, ${times(line.seconds, oneMs)}`,
      ratio: `${(oneMs / lineMs).toPrecision(2)} ×`,
    },
    {
      what: 'Rendering six strings with click, bass and chords',
      measured: times(six.seconds, sixMs),
      target: 'at least 0.35 × as many smallest loops',
      met: sixLoopsMs / sixMs >= 0.35,
      yardstick: `eleven such loops, six and those of bass and chords, ${times(six.seconds, sixLoopsMs)}`,
      ratio: `${(sixLoopsMs / sixMs).toPrecision(2)} ×`,
    },
    {
      what: 'First 0.75 s of a 64-bar solo, from the text, 95th percentile (without the browser)',
      measured: ms(first.p95),
      target: 'under 200 ms',
      met: first.p95 < 200,
      yardstick: 'a smallest loop for 0.75 s',
      ratio: `${(first.p95 / ((oneMs / line.seconds) * 0.75)).toPrecision(2)} ×`,
    },
  ];
}

/** Seconds a string rings after it is let go, until it rests. */
const RELEASE_SECONDS = 0.13;

interface Rendered {
  readonly seconds: number;
  /** Strings that sound at a time, on average. */
  readonly ringing: number;
  readonly render: () => void;
}

function soundOf(text: string, accompanied: boolean): Rendered {
  const { phrase } = readShorthand(text);
  const notes = perform(phrase, setup);
  const along = accompany(phrase, setup);
  const { seconds } = along;
  const render = () => {
    renderNotes(notes, { sampleRate: RATE, seconds });
    if (!accompanied) return;
    renderNotes(backingOf(along), { sampleRate: RATE, seconds });
    renderClick(along.clicks, { sampleRate: RATE, from: 0, frames: Math.round(seconds * RATE) });
  };
  const rung = notes.map(({ string, startSeconds, durationSeconds }, index) => {
    const again = notes.slice(index + 1).find((note) => note.string === string)?.startSeconds ?? seconds;
    return Math.min(again - startSeconds, durationSeconds + RELEASE_SECONDS);
  });
  return { seconds, ringing: rung.reduce((sum, one) => sum + one, 0) / seconds, render };
}

/** Strings that are plucked once and ring: a delay line and an average of two, and nothing else. */
function smallestLoops(count: number, seconds: number): Float32Array {
  const out = new Float32Array(Math.round(seconds * RATE));
  const noise = noiseOf(1);
  for (let voice = 1; voice <= count; voice += 1) {
    const line = Float64Array.from({ length: Math.round(RATE / (voice * 82)) }, noise);
    let at = 0;
    let before = 0;
    for (let n = 0; n < out.length; n += 1) {
      const sample = line[at] ?? 0;
      const next = 0.499 * (sample + before);
      before = sample;
      line[at] = next;
      out[n] = (out[n] ?? 0) + next;
      at += 1;
      if (at === line.length) at = 0;
    }
  }
  return out;
}

function firstSound(): number {
  const { phrase } = readShorthand(longSolo());
  const along = accompany(phrase, setup);
  const strings = startRendering(perform(phrase, setup), { sampleRate: RATE });
  const backing = startRendering(backingOf(along), { sampleRate: RATE });
  const frames = Math.round(0.75 * RATE);
  return strings.next(frames).length + backing.next(frames).length;
}
