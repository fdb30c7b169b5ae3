import { accompany, perform, readShorthand } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';
import { backingOf, renderClick, renderNotes, startRendering } from '@jam-ledger/core/sound';
import { ms, time, type Figure } from './measure.ts';
import { longSolo } from './reading.ts';

const RATE = 44_100;
const LINE = '/16 5D h7 p5 7A 5D 7D /8 10Bb1r 8B /4 10B~ 12G 14G | '.repeat(16);
const SIX = ':Em /8 0E+2A+2D+0G+0B+0e%8 | :Am 0A+2D+2G+1B+0e%8 | '.repeat(8);
const setup = { tuning: TUNINGS.standard, capo: 0, bpm: 100 };

/** How fast sound is made. The yardstick: as many sines, one for each string, computed sample by sample. */
export async function soundFigures(): Promise<readonly Figure[]> {
  const line = await realTimes(LINE, false);
  const six = await realTimes(SIX, true);
  const sine = await sines(1);
  const sixSines = await sines(6);
  const first = await time(firstSound, 40);
  const times = (value: number) => `${Math.round(value)} × real time`;
  const yardstick = (value: number, count: string) => `${count} by Math.sin, ${times(value)}`;
  return [
    {
      what: 'Rendering a single line',
      measured: times(line),
      target: 'at least 100 × real time',
      met: line >= 100,
      yardstick: yardstick(sine, 'one sine'),
      ratio: `${(line / sine).toPrecision(2)} ×`,
    },
    {
      what: 'Rendering six strings with click, bass and chords',
      measured: times(six),
      target: 'at least 40 × real time',
      met: six >= 40,
      yardstick: yardstick(sixSines, 'six sines'),
      ratio: `${(six / sixSines).toPrecision(2)} ×`,
    },
    {
      what: 'First 0.75 s of a 64-bar solo, from the text, 95th percentile (without the browser)',
      measured: ms(first.p95),
      target: 'under 200 ms',
      met: first.p95 < 200,
      yardstick: 'rendering alone of 0.75 s',
      ratio: `${(first.p95 / (750 / line)).toPrecision(2)} ×`,
    },
  ];
}

async function realTimes(text: string, accompanied: boolean): Promise<number> {
  const { phrase } = readShorthand(text);
  const notes = perform(phrase, setup);
  const along = accompany(phrase, setup);
  const seconds = along.seconds;
  const spent = await time(() => {
    renderNotes(notes, { sampleRate: RATE, seconds });
    if (!accompanied) return;
    renderNotes(backingOf(along), { sampleRate: RATE, seconds });
    renderClick(along.clicks, { sampleRate: RATE, from: 0, frames: Math.round(seconds * RATE) });
  }, 8);
  return (seconds * 1000) / spent.median;
}

async function sines(count: number): Promise<number> {
  const seconds = 10;
  const spent = await time(() => {
    const out = new Float32Array(seconds * RATE);
    for (let voice = 1; voice <= count; voice += 1)
      for (let n = 0; n < out.length; n += 1) out[n] = (out[n] ?? 0) + Math.sin((n * voice * 110 * 2 * Math.PI) / RATE);
    return out[7];
  }, 8);
  return (seconds * 1000) / spent.median;
}

function firstSound(): number {
  const { phrase } = readShorthand(longSolo());
  const along = accompany(phrase, setup);
  const strings = startRendering(perform(phrase, setup), { sampleRate: RATE });
  const backing = startRendering(backingOf(along), { sampleRate: RATE });
  const frames = Math.round(0.75 * RATE);
  return strings.next(frames).length + backing.next(frames).length;
}
