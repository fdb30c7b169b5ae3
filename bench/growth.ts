import { randomUUID } from 'node:crypto';
import { checkPhrase } from '@jam-ledger/core/checks';
import { difficultyOf, practiceDrills } from '@jam-ledger/core/difficulty';
import { readMusicXml, writeMusicXml } from '@jam-ledger/core/formats';
import { bestPath, usualGuitar } from '@jam-ledger/core/fretboard';
import { compare } from '@jam-ledger/core/likeness';
import { draftLine, hearBeat, judgeTake, LISTEN_RATE, playAsLearner, weighTab } from '@jam-ledger/core/listen';
import { accompany, perform, readShorthand, scoreOf, writeShorthand } from '@jam-ledger/core/notation';
import { OPEN_KEY, readKey, TUNINGS } from '@jam-ledger/core/pitch';
import { forecast, type DatedResult } from '@jam-ledger/core/progress';
import { startRendering } from '@jam-ledger/core/sound';
import { readSpoken, sayPhrase } from '@jam-ledger/core/spoken';
import { openStore, type Store } from '../apps/server/src/store/index.ts';
import { songOf } from '../packages/core/test/formats/songs.ts';
import { openStage, type Stage } from '../e2e/stage.ts';
import { BAR } from './hands.ts';
import { computeEverything, cookieOf, fillStudio, send, STUDIO, WRITE, type StudioSize } from './largeStudio.ts';
import { ms, timesInTurn, type Figure } from './measure.ts';
import { plan } from './plan.ts';

const LARGEST = 100;
/** Lengths and sizes, against the smallest. */
const STEPS = [1, 10, LARGEST] as const;
type Step = (typeof STEPS)[number];

/** How often each is measured, and how often before that to warm up; what hears recordings is long enough to be measured once. */
const OFTEN = { turns: 9, warm: 2 } as const;
const ONCE = { turns: 1, warm: 0 } as const;

/** What may grow faster than linear: only what has to. */
const STEEPEST = 1.1;

const guitar = usualGuitar(TUNINGS.standard);
/** The smallest length that is measured, bars. */
const BARS = 4;

/** How the main figures grow with length and data: each at once, ten and a hundred times, with its exponent from ten to a hundred. */
export async function growthFigures(): Promise<readonly Figure[]> {
  return [...(await lengthFigures(COMPUTED, OFTEN)), ...(await lengthFigures(HEARD, ONCE)), ...(await dataFigures())];
}

/** In turns, each of as much work: a slow while of the machine, and what is collected of memory, fall on all lengths alike. */
async function lengthFigures(
  all: readonly Made[],
  { turns, warm }: { readonly turns: number; readonly warm: number },
): Promise<readonly Figure[]> {
  const figures: Figure[] = [];
  for (const [what, make] of all) {
    const works = STEPS.map((step) => again(make(step), LARGEST / step));
    const times = await timesInTurn(works, turns, warm);
    const each = times.map(({ median }, index) => (median * (STEPS[index] ?? NaN)) / LARGEST);
    figures.push(grown(what, each));
  }
  return figures;
}

/** Does something so many times. */
const again = (work: () => unknown, times: number) => () => {
  for (let time = 0; time < times; time += 1) work();
};

/** For a length, the work to be timed. */
type Made = readonly [what: string, make: (step: Step) => () => unknown];

/** What is computed from notes and lines. */
const COMPUTED: readonly Made[] = [
  ['Reading 4, 40 and 400 bars', (step) => () => readShorthand(textOf(step))],
  ['Writing them', (step) => from(phraseOf(step), (phrase) => writeShorthand(phrase, { strings: 'letters' }))],
  ['Laying them out as bars', (step) => from(phraseOf(step), scoreOf)],
  [
    'Fingers of them as written',
    (step) => from(phraseOf(step), (phrase) => bestPath(phrase, guitar, { asWritten: true })),
  ],
  [
    'Cheapest places of 2, 20 and 200 bars',
    (step) => from(readShorthand(BAR.repeat(2 * step)).phrase, (phrase) => bestPath(phrase, guitar)),
  ],
  [
    'All checks of 4, 40 and 400 bars',
    (step) => {
      const [text, phrase] = [textOf(step), phraseOf(step)];
      const way = bestPath(phrase, guitar, { asWritten: true });
      return () => checkPhrase(phrase, { ...guitar, text, bpm: 90, key: readKey('A minor') }, way);
    },
  ],
  [
    'What sounds when in them',
    (step) =>
      from(phraseOf(step), (phrase) => [perform(phrase, { ...guitar, bpm: 100 }), accompany(phrase, { bpm: 100 })]),
  ],
  [
    'Sound of 1, 10 and 100 bars, a second at a time',
    (step) =>
      from(perform(readShorthand(BAR.repeat(step)).phrase, { ...guitar, bpm: 100 }), (notes) => {
        const rendering = startRendering(notes, { sampleRate: 44_100 });
        const seconds = Math.max(...notes.map((note) => note.startSeconds + note.durationSeconds));
        for (let second = 0; second < seconds; second += 1) rendering.next(44_100);
      }),
  ],
  [
    'Saying 4, 40 and 400 bars',
    (step) => from(phraseOf(step), (phrase) => sayPhrase(phrase, { strings: 'letters', length: 'short' })),
  ],
  [
    'Words to notes, 10, 100 and 1000 sentences',
    (step) =>
      from('five on the G, seven on the G, bend it a whole step, eight on the B. '.repeat(10 * step), readSpoken),
  ],
  [
    'Two phrases alike but for a note, of 3, 30 and 300 events',
    (step) => {
      const notes = Array.from(
        { length: 3 * step },
        (_, index) => `${3 + ((index * 5) % 9)}${'DGBe'[index % 4] ?? 'e'}`,
      );
      const [one, other] = [notes, [...notes.slice(0, -1), '1E']].map(
        (list) => readShorthand(`/8 ${list.join(' ')}`).phrase,
      );
      if (!one || !other) throw new Error('there are two');
      return () => compare(one, other, { tuning: TUNINGS.standard, capo: 0, key: OPEN_KEY });
    },
  ],
  [
    'A song of 2, 20 and 200 phrases as MusicXML',
    (step) => from(songOf(Array.from({ length: 2 * step }, () => BAR.repeat(4))), writeMusicXml),
  ],
  [
    'Reading that MusicXML',
    (step) => from(writeMusicXml(songOf(Array.from({ length: 2 * step }, () => BAR.repeat(4)))), readMusicXml),
  ],
  [
    'Forecast from 10, 100 and 1000 lines',
    (step) => from(historyOf(10 * step), (lines) => forecast(lines, { target: 120, today: '2026-03-14' })),
  ],
  ['Drills for 4, 40 and 400 bars', (step) => from(phraseOf(step), (phrase) => practiceDrills(phrase, guitar))],
  ['How hard they are', (step) => from(phraseOf(step), (phrase) => difficultyOf(phrase, { ...guitar, bpm: 90 }))],
  ['Spreading 40, 400 and 4000 pieces over 40 lessons', (step) => () => plan(40 * step, 40)],
  ['Spreading 400 pieces over 4, 40 and 400 lessons', (step) => () => plan(400, 4 * step)],
];

/** What is heard in recordings: a line of even eighths, four a second. */
const HEARD: readonly Made[] = [
  [
    'A take of 1, 10 and 100 seconds judged',
    (step) => from(takeOf(step), ({ audio, written }) => judgeTake(audio, written, { bpm: LINE_BPM })),
  ],
  ['Its beat', (step) => from(takeOf(step), ({ audio }) => hearBeat(audio.samples, { beatsInBar: 4 }))],
  [
    'The tab against it',
    (step) => from(takeOf(step), ({ audio, written }) => weighTab(audio.samples, written, { atSeconds: 0 })),
  ],
  ['A draft of it', (step) => from(takeOf(step), ({ audio }) => draftLine(audio.samples))],
];

const LINE_BPM = 120;

/** A take of so many seconds, and what was to be played. */
function takeOf(step: Step) {
  const line = readShorthand('/8 5G 7G 5B 8B '.repeat(step)).phrase;
  const written = perform(line, { ...guitar, bpm: LINE_BPM });
  return { written, ...playAsLearner(written, { seed: 1, noiseDb: 30, sampleRate: LISTEN_RATE }) };
}

const textOf = (step: Step) => BAR.repeat(BARS * step);
const phraseOf = (step: Step) => readShorthand(textOf(step)).phrase;
/** Work on something that is made before. */
const from =
  <Made>(made: Made, work: (made: Made) => unknown) =>
  () =>
    work(made);

function historyOf(lines: number): readonly DatedResult[] {
  const first = Date.UTC(2026, 2, 13) - lines * 86_400_000;
  return Array.from({ length: lines }, (_, index) => ({
    bpm: Math.min(118, Math.round(50 + (index * 60) / lines)),
    outcome: index % 7 === 0 ? 'not-yet' : 'clean',
    medium: 'pencil',
    day: new Date(first + index * 86_400_000).toISOString().slice(0, 10),
  }));
}

/** Requests to studios of three sizes. */
async function dataFigures(): Promise<readonly Figure[]> {
  const more = await requestTimes(STEPS.map((step) => ({ ...STUDIO, students: 3 * step })));
  const longer = await requestTimes(STEPS.map((step) => ({ ...STUDIO, students: 30, entries: 8 * step })));
  return [
    ...[...more].map(([what, times]) => grown(`${what}, with 3, 30 and 300 students`, times)),
    ...[...longer].map(([what, times]) => grown(`${what}, with 8, 80 and 800 lines a piece`, times)),
  ];
}

/** The medians of each request, by what it asks for, at each size: studios of all sizes take turns. */
async function requestTimes(sizes: readonly StudioSize[]): Promise<ReadonlyMap<string, readonly number[]>> {
  const studios: Asking[] = [];
  try {
    for (const size of sizes) studios.push(await openAsking(size));
    const all = new Map<string, readonly number[]>();
    for (const what of studios[0]?.ask.keys() ?? []) {
      const asked = studios.flatMap(({ write, ask }) => [write, ask.get(what) ?? write]);
      const times = await timesInTurn(asked, 20, 3);
      all.set(
        what,
        studios.map((_, index) => times[2 * index + 1]?.median ?? NaN),
      );
    }
    return all;
  } finally {
    for (const { close } of studios) await close();
  }
}

/** A studio of some size that can be asked. */
interface Asking {
  /** Requests by what they ask for. */
  readonly ask: ReadonlyMap<string, () => Promise<unknown>>;
  /** After which all is looked at anew. */
  readonly write: () => Promise<unknown>;
  readonly close: () => Promise<void>;
}

async function openAsking(size: StudioSize): Promise<Asking> {
  const stage = await openStage();
  const store = openStore(stage.databaseUrl);
  const close = async () => {
    await store.close();
    await stage.close();
  };
  try {
    return { ask: await asksOf(stage, store, size), write: () => store.rows(WRITE, []), close };
  } catch (error) {
    await close();
    throw error;
  }
}

/** Fills a studio, computes all that is kept of it, and tells what is asked of it. */
async function asksOf(stage: Stage, store: Store, size: StudioSize): Promise<Asking['ask']> {
  const { student, piece } = await fillStudio(stage.databaseUrl, size);
  const [mara, odile] = [await cookieOf(stage, 'mara'), await cookieOf(stage, 'odile')];
  const by = (cookie: string, path: string, body?: () => object) => () =>
    send(`${stage.url}/api${path}`, { cookie, body });
  const desk = by(odile, '/desk');
  await computeEverything(desk, store);
  const posting = () => ({ id: randomUUID(), bpm: 70, outcome: 'clean', remark: '' });
  return new Map([
    ['Desk of all students', desk],
    ['Lesson', by(mara, `/lessons/of/${student}`)],
    ['Ledger', by(mara, `/ledger?studentId=${student}`)],
    ['Piece', by(mara, `/pieces/${piece}`)],
    ['Posting', by(mara, `/pieces/${piece}/entries`, posting)],
    ['Students', by(odile, '/students')],
    ['Series', by(odile, '/series')],
    ['Search', by(mara, '/search?q=phrase%201')],
  ]);
}

function grown(what: string, [one = 0, ten = 0, hundred = 0]: readonly number[]): Figure {
  // What a call costs in any case hides how the small sizes grow.
  const exponent = Math.log10(hundred / ten);
  return {
    what,
    measured: [one, ten, hundred].map(ms).join(', '),
    target: `exponent at most ${STEEPEST}`,
    met: exponent <= STEEPEST,
    yardstick: 'linear, 1',
    ratio: exponent.toFixed(2),
  };
}
