import { partOf } from '../packages/core/test/bands.ts';
import type { RightPhrase } from '../packages/core/test/corpus.ts';
import { heldOut, isOneLine, sampledBand, SEED } from './recordingCases.ts';
import { slowFigures } from './slowing.ts';
import {
  addNoise,
  draftLine,
  hearBeat,
  LISTEN_RATE,
  loudness,
  offPitchOf,
  onsetsOf,
  playAsBand,
  riseOf,
  trackPitch,
  weighTab,
  type BandRecording,
} from '@jam-ledger/core/listen';
import { perform, type PlayedNote } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';
import { renderNotes, renderPlucks } from '@jam-ledger/core/sound';
import { figure, share, timingOf, type Figure } from './measure.ts';

const mono = ({ left, right }: BandRecording) => left.map((sample, n) => (sample + (right[n] ?? 0)) / 2);

/** What a recording tells, on the simulated band playing idioms that nothing was fitted to. */
export async function recordingFigures(): Promise<readonly Figure[]> {
  return [
    ...setUpFigures(),
    ...AGREEING.flatMap(agreeFigures),
    ...DRAFTING.flatMap(draftFigures),
    ...(await slowFigures()),
  ];
}

/** Pitch and beat of whole recordings, half of them drifting, two thirds with drums. */
function setUpFigures(): readonly Figure[] {
  const offs: number[] = [];
  const tempos: number[] = [];
  const found = { right: 0, octave: 0, first: 0, usual: 0, all: 0 };
  let [hits, there, heard] = [0, 0, 0];
  heldOut.forEach((phrase, index) => {
    const part = partOf(phrase, 30);
    const tuningCents = ((index * 17) % 79) - 39;
    const drums = index % 3 === 0 ? {} : { drumsDb: -3 };
    const room = {
      noiseDb: 30,
      sampleRate: LISTEN_RATE,
      guitar: index % 2 ? ('string' as const) : ('plucks' as const),
    };
    const recording = playAsBand(part, {
      seed: SEED + index,
      tuningCents,
      drift: index % 2 ? 0.015 : 0,
      ...drums,
      ...room,
    });
    const samples = mono(recording);
    const off = offPitchOf(samples);
    offs.push(Math.abs((((off?.cents ?? 50) - tuningCents + 150) % 100) - 50));
    const beat = hearBeat(samples, { beatsInBar: phrase.meter.beats });
    const { beats } = recording;
    const played = (60 * (beats.length - 1)) / ((beats.at(-1) ?? 0) - (beats[0] ?? 0));
    found.all += 1;
    if (isNear(autocorrelated(samples) / played)) found.usual += 1;
    if (!beat) return;
    const error = Math.abs(beat.bpm / played - 1);
    if (isNear(beat.bpm / played)) found.octave += 1;
    if (error >= 0.04) return;
    found.right += 1;
    tempos.push(100 * error);
    hits += beat.beats.filter((at) => beats.some((one) => Math.abs(one - at) < 0.07)).length;
    [there, heard] = [there + beats.length, heard + beat.beats.length];
    const first = beat.beats[beat.firsts[0] ?? 0] ?? -1;
    if (beats.some((at, place) => part.clicks[place]?.accent === true && Math.abs(at - first) < 0.07)) found.first += 1;
  });
  const [off, tempo] = [timingOf(offs), timingOf(tempos)];
  const f = (2 * hits) / (there + heard);
  const of = (count: number, all: number) => count / Math.max(1, all);
  return [
    figure(
      'Pitch of a recording, median and 95th percentile',
      `${off.median.toFixed(2)} / ${off.p95.toFixed(2)} cents`,
      '1 cent',
      off.p95 <= 1,
      `${found.all} bands, ±39 cents off`,
    ),
    figure(
      'Its tempo, blind',
      share(of(found.right, found.all)),
      '80 %',
      of(found.right, found.all) >= 0.8,
      `${found.all} bands`,
    ),
    figure(
      'The same, or half or twice of it',
      share(of(found.octave, found.all)),
      '97 %',
      of(found.octave, found.all) >= 0.97,
      `the strongest repeat of the loudness: ${share(of(found.usual, found.all))}`,
    ),
    figure(
      'Error of a right tempo, median and 95th percentile',
      `${tempo.median.toFixed(2)} / ${tempo.p95.toFixed(2)} %`,
      '0.3 / 0.6 %',
      tempo.median <= 0.3 && tempo.p95 <= 0.6,
      'half of them drift by 1.5 %',
    ),
    figure('Its beats, F within 70 ms', f.toFixed(3), '0.95', f >= 0.95, 'where the tempo is right'),
    figure(
      'The first beat of the bar',
      share(of(found.first, found.right)),
      '75 %',
      of(found.first, found.right) >= 0.75,
      'the others are offered; by chance 25 to 33 %',
    ),
  ];
}

/** Whether a tempo is right, or half or twice of what is. */
function isNear(ratio: number): boolean {
  return [0.5, 1, 2].some((times) => Math.abs(ratio / times - 1) < 0.04);
}

/** The plainest tempo there is: the lag between a quarter and one and a half seconds at which the loudness of 10 ms repeats most, of the peaks. */
function autocorrelated(samples: Float32Array): number {
  const hop = Math.round(LISTEN_RATE / 100);
  const levels = Array.from({ length: Math.floor(samples.length / hop) }, (_, row) =>
    loudness(samples, row * hop, (row + 1) * hop),
  );
  const mean = levels.reduce((sum, value) => sum + value, 0) / levels.length;
  const repeats = Array.from({ length: 152 }, (_, lag) =>
    levels.slice(lag).reduce((sum, value, row) => sum + (value - mean) * ((levels[row] ?? 0) - mean), 0),
  );
  const peaks = [...repeats.keys()].filter(
    (lag) =>
      lag >= 25 && lag <= 150 && at(repeats, lag) > at(repeats, lag - 1) && at(repeats, lag) >= at(repeats, lag + 1),
  );
  const best = peaks.sort((a, b) => at(repeats, b) - at(repeats, a))[0] ?? 50;
  return 6000 / best;
}

const at = (values: readonly number[], place: number) => values[place] ?? 0;

/** How loud the guitar is against the backing, decibels, and what is aimed for: right events doubted, frets and octaves found. */
const AGREEING = [
  { name: 'as loud as the backing', band: { backingDb: 0 }, doubted: 0.02, frets: 0.95, octaves: 0.85 },
  { name: 'the same with drums', band: { backingDb: 0, drumsDb: -2 }, doubted: 0.04, frets: 0.95, octaves: 0.8 },
  { name: '6 dB louder', band: { backingDb: -6 }, doubted: 0.01, frets: 0.97, octaves: 0.9 },
  { name: '6 dB softer', band: { backingDb: 6 }, doubted: 0.05, frets: 0.9, octaves: 0.75 },
  { name: 'of sampled instruments with drums', elsewhere: true, doubted: 0.04, frets: 0.95, octaves: 0.8 },
] as const;

function agreeFigures(set: (typeof AGREEING)[number]): readonly Figure[] {
  const counts = { right: 0, doubted: 0, untold: 0, frets: 0, fretsFound: 0, octaves: 0, octavesFound: 0, byEar: 0 };
  let [took, sounded] = [0, 0];
  heldOut.forEach((phrase, index) => {
    const part = partOf(phrase, 4);
    const guitar = index % 2 ? ('string' as const) : ('plucks' as const);
    const samples =
      'elsewhere' in set
        ? sampledBand(part)
        : mono(playAsBand(part, { ...set.band, seed: SEED + index, noiseDb: 35, sampleRate: LISTEN_RATE, guitar }));
    sounded += samples.length / LISTEN_RATE;
    // Of every four notes one is written a fret or two off, and of every eight one an octave.
    const singles = part.notes.filter(
      (note) => !part.notes.some((one) => one !== note && Math.abs(one.startSeconds - note.startSeconds) < 0.012),
    );
    const written = singles.map((note, place): PlayedNote => ({
      ...note,
      midi: note.midi === null ? null : note.midi + wrongBy(place + index),
    }));
    const before = performance.now();
    const weighed = weighTab(samples, written, { atSeconds: 0 });
    took += performance.now() - before;
    for (const { seconds, says } of weighed) {
      const place = written.findIndex((note) => Math.abs(note.startSeconds - seconds) < 1e-6);
      const by = wrongBy(place + index);
      const contradicts = says === 'contradicts';
      if (by === 0) {
        counts.right += 1;
        if (contradicts) counts.doubted += 1;
        if (says === 'cannot tell') counts.untold += 1;
      } else if (Math.abs(by) === 12) {
        counts.octaves += 1;
        if (contradicts) counts.octavesFound += 1;
      } else {
        counts.frets += 1;
        if (contradicts) counts.fretsFound += 1;
        if (Math.abs(trackedAt(samples, seconds) - (written[place]?.midi ?? 0)) > 0.5) counts.byEar += 1;
      }
    }
  });
  const [doubted, frets, octaves] = [
    counts.doubted / counts.right,
    counts.fretsFound / counts.frets,
    counts.octavesFound / counts.octaves,
  ];
  const untold = counts.untold / counts.right;
  const yardstick = `cannot tell ${share(untold)}; the tracker alone doubts right notes too, finds ${share(counts.byEar / counts.frets)}`;
  const speed = sounded / (took / 1000);
  return [
    figure(
      `A tab against a recording, the guitar ${set.name}: right notes doubted`,
      share(doubted),
      share(set.doubted),
      doubted <= set.doubted,
      `${counts.right} notes`,
    ),
    figure('The same: one or two frets off found', share(frets), share(set.frets), frets >= set.frets, yardstick),
    figure(
      'The same: octaves found',
      share(octaves),
      share(set.octaves),
      octaves >= set.octaves,
      `${speed.toFixed(1)} × real time`,
    ),
  ];
}

function wrongBy(place: number): number {
  if (place % 8 === 5) return place % 16 === 5 ? 12 : -12;
  return place % 4 === 2 ? ([-2, -1, 1, 2][(place >> 2) % 4] ?? 1) : 0;
}

/** What the package hears 60 ms behind an attack. */
function trackedAt(samples: Float32Array, seconds: number): number {
  const from = Math.round((seconds + 0.05) * LISTEN_RATE);
  return trackPitch(samples.subarray(from, from + 1024)).midis[0] ?? NaN;
}

/** Where lines are drafted from, and the F that is aimed for; louder backing is to be refused. */
const DRAFTING = [
  { name: 'alone, 40 dB', noiseDb: 40, f: 0.95 },
  { name: 'alone, 10 dB', noiseDb: 10, f: 0.92 },
  { name: 'backing 12 dB below', backingDb: -12, f: 0.75 },
  { name: 'backing as loud', backingDb: 0, f: undefined },
] as const;

function draftFigures(set: (typeof DRAFTING)[number]): readonly Figure[] {
  const score = { hits: 0, there: 0, found: 0, refused: 0, all: 0, bends: 0, seen: 0, sized: 0, false: 0, plain: 0 };
  let worst = 1;
  heldOut.filter(isOneLine).forEach((phrase, index) => {
    const { samples, played } = lineOf(phrase, set, index);
    const { notes } = draftLine(samples);
    score.all += 1;
    if (notes.length === 0) {
      score.refused += 1;
      return;
    }
    const left = new Set(notes);
    let hits = 0;
    for (const note of played) {
      const start = (note.midi ?? 0) + (note.contour[0]?.cents ?? 0) / 100;
      const hit = [...left].find(
        (one) => Math.abs(one.seconds - note.startSeconds) < 0.05 && Math.abs(one.midi - start) < 0.5,
      );
      if (!hit) continue;
      left.delete(hit);
      hits += 1;
      const top = Math.max(...note.contour.map(({ cents }) => cents));
      if (top >= 90 && Math.abs(note.contour[0]?.cents ?? 0) < 20 && note.attack !== 'none') {
        score.bends += 1;
        if (hit.bend) score.seen += 1;
        if (hit.bend && Math.abs(hit.bend.cents - top) <= 25) score.sized += 1;
      } else if (top < 40) {
        score.plain += 1;
        if (hit.bend) score.false += 1;
      }
    }
    [score.hits, score.there, score.found] = [
      score.hits + hits,
      score.there + played.length,
      score.found + notes.length,
    ];
    worst = Math.min(worst, (2 * hits) / (played.length + notes.length));
  });
  if (set.f === undefined)
    return [
      figure(
        `A draft, ${set.name}: refused`,
        share(score.refused / score.all),
        'all',
        score.refused === score.all,
        `${score.all} phrases; F of the others ${((2 * score.hits) / Math.max(1, score.there + score.found)).toFixed(2)}`,
      ),
    ];
  const f = (2 * score.hits) / (score.there + score.found);
  const isAlone = 'noiseDb' in set;
  return [
    figure(
      `A draft, ${set.name}: notes, F`,
      f.toFixed(3),
      `${set.f}`,
      f >= set.f,
      `onsets and the tracker alone: ${plainDraft(set).toFixed(3)}; worst phrase ${worst.toFixed(2)}, refused ${score.refused} of ${score.all}`,
    ),
    ...(isAlone
      ? [
          figure(
            `A draft, ${set.name}: bends seen, their size within 25 cents, false ones in 100 notes`,
            `${share(score.seen / score.bends)}, ${share(score.sized / Math.max(1, score.seen))}, ${((100 * score.false) / score.plain).toFixed(1)}`,
            '85 %, 95 %, 2',
            score.seen >= 0.85 * score.bends && score.sized >= 0.95 * score.seen && score.false <= 0.02 * score.plain,
            `${score.bends} bends`,
          ),
        ]
      : []),
  ];
}

function lineOf(phrase: RightPhrase, set: (typeof DRAFTING)[number], index: number) {
  const part = partOf(phrase, 2);
  const isString = index % 2 === 1;
  const sounding = (notes: readonly PlayedNote[]) => notes.filter(({ midi, ornament }) => midi !== null && !ornament);
  if ('noiseDb' in set) {
    const all = perform(phrase.phrase, { tuning: TUNINGS.standard, capo: 0, bpm: phrase.bpm });
    const samples = (isString ? renderNotes : renderPlucks)(all, { sampleRate: LISTEN_RATE, seed: SEED + index });
    addNoise(samples, set.noiseDb, SEED + index);
    return { samples, played: sounding(all) };
  }
  const recording = playAsBand(part, {
    seed: SEED + index,
    backingDb: set.backingDb,
    noiseDb: 40,
    sampleRate: LISTEN_RATE,
    guitar: isString ? 'string' : 'plucks',
  });
  return { samples: mono(recording), played: sounding(part.notes) };
}

/** The yardstick: every onset is a note, of the pitch that the package’s tracker has 60 ms behind it. */
function plainDraft(set: (typeof DRAFTING)[number]): number {
  let [hits, there, found] = [0, 0, 0];
  heldOut.filter(isOneLine).forEach((phrase, index) => {
    const { samples, played } = lineOf(phrase, set, index);
    const onsets = onsetsOf(riseOf(samples)).map(({ seconds }) => ({
      seconds,
      midi: Math.round(trackedAt(samples, seconds)),
    }));
    for (const note of played)
      if (
        onsets.some(
          ({ seconds, midi }) =>
            Math.abs(seconds - note.startSeconds) < 0.05 && Math.abs(midi - (note.midi ?? 0)) < 0.5,
        )
      )
        hits += 1;
    [there, found] = [there + played.length, found + onsets.length];
  });
  return (2 * hits) / (there + found);
}
