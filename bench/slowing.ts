import { openStretcher } from '../apps/web/src/recordings/stretcher.ts';
import { LISTEN_RATE, onsetsOf, riseOf, trackPitch } from '@jam-ledger/core/listen';
import { perform } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';
import { renderNotes } from '@jam-ledger/core/sound';
import { figure, timingOf, type Figure } from './measure.ts';
import { heldOut, isOneLine, SEED } from './recordingCases.ts';

/** A line at half its speed: when its notes begin, which they are, and how fast that is made. */
export async function slowFigures(): Promise<readonly Figure[]> {
  const sampleRate = 2 * LISTEN_RATE;
  const [onsets, cents, naive, speeds]: [number[], number[], number[], number[]] = [[], [], [], []];
  for (const [index, phrase] of heldOut
    .filter(isOneLine)
    .filter((_, place) => place % 5 === 0)
    .entries()) {
    const played = perform(phrase.phrase, { tuning: TUNINGS.standard, capo: 0, bpm: phrase.bpm });
    const sound = renderNotes(played, { sampleRate, seed: SEED + index });
    const stretcher = await openStretcher(sampleRate);
    stretcher.begin([sound, sound], { sampleRate, speed: 0.5, semitones: 0, loop: false });
    const before = performance.now();
    const [slow = new Float32Array(0)] = stretcher.next(2 * sound.length);
    speeds.push(slow.length / sampleRate / ((performance.now() - before) / 1000));
    const half = Float32Array.from(
      { length: slow.length >> 1 },
      (_, n) => ((slow[2 * n] ?? 0) + (slow[2 * n + 1] ?? 0)) / 2,
    );
    const heard = onsetsOf(riseOf(half)).map(({ seconds }) => seconds);
    for (const note of played.filter(({ attack }) => attack === 'pick')) {
      const off = Math.min(...heard.map((at) => Math.abs(at - 2 * note.startSeconds)));
      if (off < 0.06) onsets.push(1000 * off);
    }
    const track = trackPitch(half);
    const own = trackPitch(
      Float32Array.from({ length: sound.length >> 1 }, (_, n) => ((sound[2 * n] ?? 0) + (sound[2 * n + 1] ?? 0)) / 2),
    );
    for (const note of played.filter(
      ({ contour, midi, durationSeconds }) =>
        midi !== null && durationSeconds > 0.2 && contour.every((point) => point.cents === 0),
    )) {
      const row = Math.round((2 * note.startSeconds + note.durationSeconds - track.firstSeconds) / track.hopSeconds);
      const off = 100 * Math.abs((track.midis[row] ?? NaN) - (note.midi ?? 0));
      if (off < 50) cents.push(off);
      const at = Math.round((note.startSeconds + note.durationSeconds / 2 - own.firstSeconds) / own.hopSeconds);
      const offThere = 100 * Math.abs((own.midis[at] ?? NaN) - (note.midi ?? 0));
      if (offThere < 50) naive.push(offThere);
    }
  }
  const [onset, cent, before] = [timingOf(onsets), timingOf(cents), timingOf(naive)];
  const speed = timingOf(speeds).median;
  return [
    figure(
      'Half speed: onsets, 95th percentile',
      `${onset.p95.toFixed(1)} ms`,
      '10 ms',
      onset.p95 <= 10,
      `${onsets.length} notes, in slowed time, our own detector among it`,
    ),
    figure(
      'Half speed: pitch, 95th percentile',
      `${cent.p95.toFixed(1)} cents`,
      '2 cents',
      cent.p95 <= 2,
      `the same tracker on the sound before: ${before.p95.toFixed(1)} cents`,
    ),
    figure('Half speed: made', `${speed.toFixed(1)} × real time`, '8 ×', speed >= 8, 'two channels'),
  ];
}
