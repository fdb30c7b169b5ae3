import { PitchDetector } from 'pitchy';
import { HELD_OUT, readCorpus } from '../packages/core/test/corpus.ts';
import {
  addNoise,
  finePitch,
  judgeTake,
  LISTEN_RATE,
  onsetsOf,
  playAsLearner,
  resample,
  riseOf,
  type JudgedTake,
  type NoteVerdict,
  type PracticeTake,
  type SlipKind,
} from '@jam-ledger/core/listen';
import { perform, type PlayedNote } from '@jam-ledger/core/notation';
import { midiAt, TUNINGS } from '@jam-ledger/core/pitch';
import { loudness } from '@jam-ledger/core/listen';
import { renderNotes, renderPlucks } from '@jam-ledger/core/sound';
import { figure, share, timingOf, type Figure } from './measure.ts';

const GUITARS = ['string', 'plucks'] as const;
const SLIPS = { missed: 3, wrong: 3, extra: 3, early: 2, late: 2 } as const;
const TOLD: readonly (readonly [SlipKind, NoteVerdict])[] = [
  ['missed', 'missing'],
  ['wrong', 'wrong'],
  ['early', 'early'],
  ['late', 'late'],
];
/** Seeds that nothing was looked at with. */
const HELD_OUT_SEEDS = 50_000;

/** How right what is heard is, on idioms and seeds that nothing was fitted to; the yardstick is the packages’ plain functions on the same sound. */
export function listeningFigures(): Promise<readonly Figure[]> {
  return Promise.resolve([
    ...pitchFigures(),
    ...([20, 10] as const).flatMap((db) => [...onsetFigures(db), ...takeFigures(db)]),
    speedFigure(),
  ]);
}

const cents = (value: number) => `${value.toFixed(2)} cents`;

/** Held notes of both guitars under noise: all fretted pitches, with a seed each. */
function pitchFigures(): readonly Figure[] {
  const ours: number[] = [];
  const theirs: number[] = [];
  for (const render of [renderNotes, renderPlucks])
    for (let midi = 40; midi <= 86; midi += 1) {
      const note = { ...PLAIN, midi: midi + 0.13, durationSeconds: 0.9 };
      const samples = render([note], { sampleRate: LISTEN_RATE, seed: HELD_OUT_SEEDS + midi });
      addNoise(samples, 20, HELD_OUT_SEEDS + midi);
      ours.push(100 * Math.abs(finePitch(samples, 0.05, 0.45, midi) - note.midi));
      const [hz] = PitchDetector.forFloat32Array(4096).findPitch(samples.subarray(1500, 5596), LISTEN_RATE);
      theirs.push(100 * Math.abs(midiAt(Math.max(hz, 1)) - note.midi));
    }
  const [one, other] = [timingOf(ours), timingOf(theirs)];
  const gross = ours.filter((off) => !(off < 50)).length / ours.length;
  return [
    figure(
      'Held pitch at 20 dB, median and 95th percentile',
      `${cents(one.median)} / ${cents(one.p95)}`,
      '1 / 4 cents',
      one.median <= 1 && one.p95 <= 4,
      `pitchy over 186 ms: ${cents(other.median)} / ${cents(other.p95)}`,
    ),
    figure(
      'The same, gross errors',
      share(gross),
      '1 %',
      gross <= 0.01,
      `pitchy: ${share(theirs.filter((off) => off >= 50).length / theirs.length)}`,
    ),
  ];
}

const PLAIN: PlayedNote = {
  ...{ startSeconds: 0, durationSeconds: 1, string: 3, midi: 60, contour: [{ seconds: 0, cents: 0 }], attack: 'pick' },
  ...{ level: 0.75, palmMuted: false, harmonic: false, span: { from: 0, to: 0 } },
};

interface Case {
  readonly idiom: string;
  readonly bpm: number;
  readonly tempo: number;
  readonly played: readonly PlayedNote[];
  readonly take: PracticeTake;
}

/** Takes of every held-out phrase on both guitars, with slips or without. */
function* cases(noiseDb: number, slipping: boolean): Generator<Case> {
  const phrases = readCorpus().filter(({ idiom }) => HELD_OUT.includes(idiom));
  for (const [index, { idiom, phrase, bpm }] of phrases.entries()) {
    const played = perform(phrase, { tuning: TUNINGS.standard, capo: 0, bpm });
    for (const [which, guitar] of GUITARS.entries()) {
      const tempo = 0.85 + 0.05 * ((index + which) % 7);
      const seed = HELD_OUT_SEEDS + index * 4 + which * 2 + (slipping ? 1 : 0);
      const learner = { seed, guitar, tempo, noiseDb, tuningCents: ((index * 7) % 31) - 15, sampleRate: LISTEN_RATE };
      yield {
        idiom,
        bpm,
        tempo,
        played,
        take: playAsLearner(played, { ...learner, ...(slipping && { slips: SLIPS }) }),
      };
    }
  }
}

function onsetFigures(noiseDb: number): readonly Figure[] {
  const ours = new Score();
  const theirs = new Score();
  const offs: number[] = [];
  for (const { take } of cases(noiseDb, false)) {
    const struck = take.played.filter(({ attack }) => attack !== 'none').map(({ startSeconds }) => startSeconds);
    const starts = struck.filter((at, index) => index === 0 || at - (struck[index - 1] ?? 0) > 0.03);
    const heard = onsetsOf(riseOf(take.audio.samples)).map(({ seconds }) => seconds);
    offs.push(...ours.match(starts, heard));
    theirs.match(starts, loudnessOnsets(take.audio.samples));
  }
  const off = timingOf(offs.map((one) => 1000 * Math.abs(one))).median;
  const target = noiseDb === 20 ? 0.98 : 0.95;
  return [
    figure(
      `Onsets at ${noiseDb} dB, F within 50 ms`,
      ours.f().toFixed(3),
      `${target}`,
      ours.f() >= target,
      `rise of loudness over 20 ms: ${theirs.f().toFixed(3)}`,
    ),
    figure(`The same, median distance`, `${off.toFixed(1)} ms`, '2 ms', off <= 2, ''),
  ];
}

/** The plainest detector there is: where the loudness of 10 ms doubles against 20 ms before. */
function loudnessOnsets(samples: Float32Array): readonly number[] {
  const hop = Math.round(LISTEN_RATE / 100);
  const levels = Array.from({ length: Math.floor(samples.length / hop) }, (_, row) =>
    loudness(samples, row * hop, (row + 1) * hop),
  );
  const onsets: number[] = [];
  for (let row = 2; row < levels.length; row += 1)
    if ((levels[row] ?? 0) > 2 * (levels[row - 2] ?? 0) && row / 100 - (onsets.at(-1) ?? -1) > 0.05)
      onsets.push(row / 100);
  return onsets;
}

/** Hits, false ones and misses. */
class Score {
  hits = 0;
  extra = 0;
  missed = 0;

  /** Matches what was found to what is there, within 50 ms, each once; how far off the hits are. */
  match(there: readonly number[], found: readonly number[]): readonly number[] {
    const left = new Set(found.keys());
    const offs: number[] = [];
    for (const at of there) {
      const best = [...left].sort((a, b) => Math.abs((found[a] ?? 0) - at) - Math.abs((found[b] ?? 0) - at))[0];
      const off = best === undefined ? Infinity : (found[best] ?? 0) - at;
      if (best !== undefined && Math.abs(off) < 0.05) {
        left.delete(best);
        offs.push(off);
      } else this.missed += 1;
    }
    this.hits += offs.length;
    this.extra += left.size;
    return offs;
  }

  f(): number {
    return (2 * this.hits) / Math.max(1, 2 * this.hits + this.extra + this.missed);
  }
}

function takeFigures(noiseDb: number): readonly Figure[] {
  const scores = new Map<string, Score>();
  const scoreOf = (name: string) => scores.get(name) ?? scores.set(name, new Score()).get(name) ?? new Score();
  const bends: number[] = [];
  const tempos: number[] = [];
  const tunings: number[] = [];
  let [right, falseWrong, untold, all, clean, takes] = [0, 0, 0, 0, 0, 0];
  const add = ({ take, played, bpm, tempo }: Case, slipping: boolean) => {
    const judged: JudgedTake = judgeTake(take.audio, played, { bpm });
    const slipAt = new Map(take.slips.map(({ event, kind }) => [event, kind]));
    judged.events.forEach(({ verdict, bend }, index) => {
      const slip = slipAt.get(index);
      all += 1;
      if (verdict === 'cannot tell') untold += 1;
      if (!slip || slip === 'extra') right += 1;
      if ((!slip || slip === 'extra') && verdict === 'wrong') falseWrong += 1;
      if (bend) bends.push(Math.abs(bend.reachedCents - bend.targetCents));
      for (const [kind, told] of TOLD) {
        const score = scoreOf(told);
        if (slip === kind && verdict === told) score.hits += 1;
        else if (slip === kind) score.missed += 1;
        else if (verdict === told) score.extra += 1;
      }
    });
    const extras = take.slips.filter(({ kind }) => kind === 'extra').length;
    const found = Math.min(extras, judged.extras.length);
    const score = scoreOf('extra');
    [score.hits, score.missed, score.extra] = [
      score.hits + found,
      score.missed + extras - found,
      score.extra + judged.extras.length - found,
    ];
    tempos.push(100 * Math.abs(judged.bpm / (bpm * tempo) - 1));
    if (slipping) return;
    takes += 1;
    if (
      judged.extras.length === 0 &&
      judged.events.every(({ verdict }) => verdict === 'right' || verdict === 'cannot tell')
    )
      clean += 1;
  };
  for (const slipping of [true, false]) for (const one of cases(noiseDb, slipping)) add(one, slipping);
  for (const { take, played, bpm } of cases(noiseDb, false)) {
    const meant = Math.round(100 * ((take.played[0]?.midi ?? 0) % 1));
    if (take.played[0]?.midi != null)
      tunings.push(Math.abs(judgeTake(take.audio, played, { bpm }).tuningCents - (meant > 50 ? meant - 100 : meant)));
  }
  const least = noiseDb === 20 ? 0.94 : 0.85;
  const most = noiseDb === 20 ? 3 : 10;
  const perThousand = (1000 * falseWrong) / right;
  const [bend, tempo, tuning] = [timingOf(bends), timingOf(tempos), timingOf(tunings)];
  const counted = (name: string) =>
    `${scoreOf(name).hits + scoreOf(name).missed} slips, ${scoreOf(name).extra} told where there is none`;
  return [
    ...['missing', 'wrong', 'extra', 'early', 'late'].map((name) =>
      figure(
        `Takes at ${noiseDb} dB: ${name}, F`,
        scoreOf(name).f().toFixed(3),
        `${least}`,
        scoreOf(name).f() >= least,
        counted(name),
      ),
    ),
    figure(
      `Takes at ${noiseDb} dB: false “wrong” in 1,000 right notes`,
      perThousand.toFixed(1),
      `${most}`,
      perThousand <= most,
      `${right} right notes; cannot tell ${share(untold / all)}`,
    ),
    figure(
      `Takes at ${noiseDb} dB without a slip that get no false verdict`,
      share(clean / takes),
      '85 %',
      noiseDb === 10 || clean / takes >= 0.85,
      `${takes} takes`,
    ),
    figure(
      `Takes at ${noiseDb} dB: bend reach, 95th percentile`,
      cents(bend.p95),
      '10 cents',
      bend.p95 <= 10,
      `${bends.length} bends`,
    ),
    figure(
      `Takes at ${noiseDb} dB: tempo really played, median and 95th percentile`,
      `${tempo.median.toFixed(2)} / ${tempo.p95.toFixed(2)} %`,
      '0.2 %',
      tempo.median <= 0.2,
      'a hand 12 ms unsteady over two bars',
    ),
    figure(
      `Takes at ${noiseDb} dB: tuning, median and 95th percentile`,
      `${cents(tuning.median)} / ${cents(tuning.p95)}`,
      '1 cent',
      tuning.p95 <= 1,
      '',
    ),
  ];
}

/** A take of 30 seconds, judged, from 44,100 samples a second. */
function speedFigure(): Figure {
  const [first] = readCorpus().filter(({ idiom }) => HELD_OUT.includes(idiom));
  const round = perform(first?.phrase ?? never(), { tuning: TUNINGS.standard, capo: 0, bpm: first?.bpm ?? 100 });
  const length = Math.max(...round.map((note) => note.startSeconds + note.durationSeconds));
  const played = Array.from({ length: Math.ceil(29 / length) }, (_, turn) =>
    round.map((note) => ({ ...note, startSeconds: note.startSeconds + turn * length })),
  ).flat();
  const { audio } = playAsLearner(played, { seed: HELD_OUT_SEEDS, noiseDb: 30 });
  const times = Array.from({ length: 5 }, () => {
    const from = performance.now();
    judgeTake(audio, played, { bpm: first?.bpm ?? 100 });
    return performance.now() - from;
  });
  const from = performance.now();
  const detector = PitchDetector.forFloat32Array(1024);
  const { samples } = resample(audio);
  for (let at = 0; at + 1024 <= samples.length; at += 220)
    detector.findPitch(samples.subarray(at, at + 1024), LISTEN_RATE);
  const yardstick = performance.now() - from;
  const { median } = timingOf(times);
  const seconds = audio.samples.length / audio.sampleRate;
  return figure(
    `A take of ${seconds.toFixed(0)} s judged`,
    `${(median / 1000).toFixed(2)} s`,
    'under 2 s',
    median < 2000,
    `pitchy alone over the same rows: ${(yardstick / 1000).toFixed(2)} s`,
    `${(median / yardstick).toPrecision(2)} ×`,
  );
}

function never(): never {
  throw new Error('the corpus has phrases that nothing is fitted to');
}
