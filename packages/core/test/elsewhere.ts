import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LISTEN_RATE } from '../src/listen/index.ts';
import type { PlayedNote } from '../src/notation/index.ts';

/** Sound of other programs, which know nothing of ours: `sox`, and a guitar that somebody recorded, played by `fluidsynth`. */

/** Samples of what `sox` writes, at the rate we listen at. */
export function sox(...effects: readonly string[]): Float32Array {
  return soxOf(['-n'], effects);
}

/** The same sound after `sox` has worked on it. */
export function soxed(samples: Float32Array, ...effects: readonly string[]): Float32Array {
  const input = Buffer.from(samples.buffer, samples.byteOffset, samples.byteLength);
  return soxOf(['-t', 'f32', '-r', String(LISTEN_RATE), '-c', '1', '-'], effects, input);
}

function soxOf(from: readonly string[], effects: readonly string[], input?: Buffer): Float32Array {
  const to = ['-t', 'f32', '-r', String(LISTEN_RATE), '-c', '1', '-'];
  return floats(execFileSync('sox', [...from, ...to, ...effects], { maxBuffer: 1 << 28, ...(input && { input }) }));
}

function floats(raw: Buffer): Float32Array {
  return new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength));
}

/** Programs of General MIDI 1, counted from 0. */
export const PROGRAMS = { nylon: 24, steel: 25, clean: 27, driven: 29, piano: 0, bass: 33 } as const;
const SAMPLES = '/usr/share/sounds/sf2/TimGM6mb.sf2';
/** Ticks of a quarter note, which lasts half a second where no tempo is said. */
const TICKS = 480;
/** Where the wheel stands in the middle, and so many steps are a semitone at the usual range of two. */
const WHEEL = { middle: 8192, semitone: 4096, everySeconds: 0.01 } as const;
const DRUMS = 9;

/** What one instrument plays. */
export interface ElsewherePart {
  readonly program: keyof typeof PROGRAMS | 'drums';
  /** Every string has a wheel of its own. */
  readonly notes: readonly Pick<PlayedNote, 'startSeconds' | 'durationSeconds' | 'midi' | 'contour' | 'string'>[];
  /** 1 to 127. */
  readonly velocity?: number;
}

/** A small band of sampled instruments, recorded by another program: the MIDI file is made by `csvmidi`. */
export function sampled(parts: readonly ElsewherePart[], seconds: number): Float32Array {
  const folder = mkdtempSync(join(tmpdir(), 'jam-ledger-elsewhere-'));
  try {
    let channel = -1;
    const lines = parts.flatMap((part) =>
      [...new Set(part.notes.map(({ string }) => string))].map((string) => {
        if (part.program === 'drums') return { part, string, channel: DRUMS };
        channel += channel + 1 === DRUMS ? 2 : 1;
        return { part, string, channel };
      }),
    );
    const tracks = lines.map(({ part, ...line }, index) => trackOf(part, { ...line, track: index + 1 }));
    const header = `0, 0, Header, 1, ${tracks.length}, ${TICKS}`;
    writeFileSync(join(folder, 'band.csv'), [header, ...tracks.flat(), '0, 0, End_of_file', ''].join('\n'));
    execFileSync('csvmidi', [join(folder, 'band.csv'), join(folder, 'band.mid')]);
    const wav = join(folder, 'band.wav');
    const quiet = ['-q', '-ni', '-R', '0', '-C', '0', '-r', String(LISTEN_RATE), '-F', wav];
    execFileSync('fluidsynth', [...quiet, SAMPLES, join(folder, 'band.mid')], { stdio: 'ignore' });
    const raw = execFileSync('sox', [wav, '-t', 'f32', '-c', '1', '-'], { maxBuffer: 1 << 28 });
    return floats(raw).slice(0, Math.round(seconds * LISTEN_RATE));
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** A contour as the wheel is turned: in steps of ten milliseconds. */
function steps(contour: PlayedNote['contour']): PlayedNote['contour'] {
  return contour.flatMap((point, index) => {
    const next = contour[index + 1] ?? point;
    const count = Math.max(1, Math.ceil((next.seconds - point.seconds) / WHEEL.everySeconds));
    return Array.from({ length: count }, (_, step) => ({
      seconds: point.seconds + ((next.seconds - point.seconds) * step) / count,
      cents: point.cents + ((next.cents - point.cents) * step) / count,
    }));
  });
}

/** The part of one string as `csvmidi` reads it. */
function trackOf(
  { program, notes, velocity = 96 }: ElsewherePart,
  { string, channel, track }: { readonly string: number; readonly channel: number; readonly track: number },
): readonly string[] {
  const at = (seconds: number) => Math.round(seconds * 2 * TICKS);
  const events: { readonly tick: number; readonly order: number; readonly words: string }[] = [];
  const say = (seconds: number, order: number, words: string) => events.push({ tick: at(seconds), order, words });
  for (const { startSeconds, durationSeconds, midi, contour } of notes.filter((note) => note.string === string)) {
    if (midi === null) continue;
    const key = Math.round(midi);
    for (const { seconds, cents } of steps(contour)) {
      const wheel = Math.round(WHEEL.middle + (cents / 100) * WHEEL.semitone);
      say(startSeconds + seconds, 1, `Pitch_bend_c, ${channel}, ${Math.max(0, Math.min(16_383, wheel))}`);
    }
    say(startSeconds, 2, `Note_on_c, ${channel}, ${key}, ${velocity}`);
    say(startSeconds + durationSeconds - 0.005, 0, `Note_off_c, ${channel}, ${key}, 0`);
  }
  events.sort((a, b) => a.tick - b.tick || a.order - b.order);
  const choose = program === 'drums' ? [] : [`${track}, 0, Program_c, ${channel}, ${PROGRAMS[program]}`];
  const last = events.at(-1)?.tick ?? 0;
  return [
    `${track}, 0, Start_track`,
    ...choose,
    ...events.map(({ tick, words }) => `${track}, ${tick}, ${words}`),
    `${track}, ${last + 2 * TICKS}, End_track`,
  ];
}
