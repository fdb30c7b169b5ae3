import { checkPhrase, type CheckOptions, type HandProblem } from '@jam-ledger/core/checks';
import {
  cautionsOf,
  difficultyOf,
  newTechniques,
  type Caution,
  type Difficulty,
  type NewTechnique,
} from '@jam-ledger/core/difficulty';
import {
  bestPath,
  moveTo,
  namesOf,
  oneBox,
  fretPositionsOnPath,
  withFretPositions,
  type FrettingFinger,
  type Path,
} from '@jam-ledger/core/fretboard';
import {
  crossCells,
  type CrossCell,
  rewriteEvents,
  rewriteMoved,
  writeShorthand,
  type EventItem,
  type Feel,
  type Finger,
  type Meter,
  type Phrase,
  type Span,
  type Technique,
  type NoteValue,
} from '@jam-ledger/core/notation';
import { readPlaced } from '@jam-ledger/core/placing';
import { crossings, planStrokes, strokeMarks, type PickingPolicy, type Stroke } from '@jam-ledger/core/picking';
import { cutPoints, floorTempo, phraseToCut, type CutPhrase, type TempoAdvice } from '@jam-ledger/core/pieces';
import type { Key } from '@jam-ledger/core/pitch';
import { makeVariant, sayUnread, type VariantKind } from '@jam-ledger/core/variants';
import { expose } from 'comlink';

/** A text, and whose hands and guitar it is for. */
export interface HandJob extends CheckOptions {
  readonly meter: Meter;
  readonly startValue: NoteValue;
  readonly known: readonly Technique[];
  readonly policy: PickingPolicy;
  readonly feel: Feel;
}

/** Where a hand is for one event. */
export interface HandPosition {
  readonly span: Span;
  readonly position: number;
  /** One finger a note that is fretted, thickest string first, and what they hold. */
  readonly fingers: readonly FrettingFinger[];
  readonly others: readonly { readonly finger: FrettingFinger; readonly position: number; readonly moreMs: number }[];
  /** Why it is not the nearest finger: what comes next, in words; empty where there is nothing to say. */
  readonly because: string;
}

/** How strokes fall by one plan. */
export interface StrokeReport {
  readonly signs: readonly { readonly span: Span; readonly stroke: Stroke }[];
  readonly outside: number;
  readonly inside: number;
  readonly with: number;
  readonly against: number;
  readonly cost: number;
}

/** What to leave as it is while places are looked for. */
export interface PlaceWishes {
  readonly keepOpen: boolean;
  /** A string to stay away from. */
  readonly avoid: number | null;
  /** The notes selected in the text. */
  readonly keep: Span | null;
}

/** What a way over the neck would be: its text, and a sentence. */
export interface WayReport {
  readonly text: string;
  readonly says: string;
}

/** Everything about hands that the margin tells of a text. */
export interface HandReport {
  readonly text: string;
  readonly problems: readonly HandProblem[];
  readonly fretPositions: readonly HandPosition[];
  readonly workMs: number;
  readonly strokes: StrokeReport;
  /** The same plan begun with the other stroke, and the cheapest there is. */
  readonly reversed: StrokeReport;
  readonly cheapest: StrokeReport;
  readonly difficulty: Difficulty;
  readonly cautions: readonly Caution[];
  readonly news: readonly NewTechnique[];
  /** Cells that are repeated against the bar. */
  readonly cells: readonly CrossCell[];
  /** Slower than this it loses its sense; undefined where slower is only slower. */
  readonly floor: TempoAdvice | undefined;
}

/** Which phrase is to be cut. */
export interface CutJob {
  readonly id: string;
  readonly sectionId: string;
}

/** How a phrase is cut, where it can be cut in two (ticks), and the slowest tempo that makes sense; null for none. */
export interface CutReport {
  readonly cut: CutPhrase;
  readonly cutPoints: readonly number[];
  readonly floorBpm: number | null;
}

/** Longest phrase that is computed, items at its top; a paste of a book waits for nothing. Our choice. */
const MAX_ITEMS = 2000;

/** What a text is read with, wherever it is read: places that are looked for must be the same everywhere. */
function setUpOf({
  tuning,
  capo,
  meter,
  startValue,
}: HandJob): Pick<HandJob, 'tuning' | 'capo' | 'meter' | 'startValue'> {
  return { tuning, capo, meter, startValue };
}

function readJob(job: HandJob): Phrase {
  const { phrase } = readPlaced(job.text, setUpOf(job));
  return { ...phrase, items: phrase.items.slice(0, MAX_ITEMS) };
}

const hands = {
  compute(job: HandJob): HandReport {
    const phrase = readJob(job);
    const path = bestPath(phrase, job, { asWritten: true });
    const [first] = planStrokes(phrase, job.policy).strokes.filter(
      ({ stroke }) => stroke === 'down' || stroke === 'up',
    );
    const start = first?.stroke === 'down' ? 'up' : 'down';
    return {
      text: job.text,
      problems: checkPhrase(phrase, job, path),
      fretPositions: fretPositionsOf(path),
      workMs: path.costMs,
      strokes: strokesOf(phrase, job.policy),
      reversed: strokesOf(phrase, job.policy, start),
      cheapest: strokesOf(phrase, 'cheapest'),
      difficulty: difficultyOf(phrase, { ...job, known: new Set(job.known), path }),
      cautions: cautionsOf(phrase, { ...job, path }),
      news: newTechniques(phrase, new Set(job.known), job),
      cells: crossCells(phrase),
      floor: floorTempo(phrase, job.bpm, job.feel),
    };
  },

  /** How a phrase is cut into pieces, where it is hard, and how slow it may be. */
  cut(job: HandJob, { id, sectionId }: CutJob): CutReport {
    const phrase = readJob(job);
    const { total, hardest } = difficultyOf(phrase, { ...job, known: new Set(job.known) });
    return {
      cut: phraseToCut(phrase, { id, sectionId, difficulty: total, hardest: hardest?.span }),
      cutPoints: cutPoints(phrase).map(({ at }) => at),
      floorBpm: floorTempo(phrase, job.bpm, job.feel)?.bpm ?? null,
    };
  },

  /** The text with the strokes of a plan written in. */
  writeStrokes(job: HandJob, policy: PickingPolicy, start?: 'down' | 'up'): string {
    return rewriteEvents(job.text, strokeMarks(planStrokes(readJob(job), policy, start ? { start } : {})), reader(job));
  },

  /** The text with the fingers of the cheapest way written in. */
  writeFingers(job: HandJob): string {
    const changes = new Map<EventItem, EventItem>();
    for (const { item, grip } of bestPath(readJob(job), job, { asWritten: true }).steps) {
      const notes = item.notes.map((note, at) => {
        const finger = fingerText(grip.notes[at]?.finger ?? null);
        return finger === undefined ? note : { ...note, finger };
      });
      if (notes.some(({ finger }, at) => finger !== item.notes[at]?.finger)) changes.set(item, { ...item, notes });
    }
    return rewriteEvents(job.text, changes, reader(job));
  },

  /** The cheapest places for the same pitches, some of them left as they are. */
  cheapestPlaces(job: HandJob, { keepOpen, avoid, keep }: PlaceWishes): WayReport {
    const phrase = readJob(job);
    const before = bestPath(phrase, job, { asWritten: true });
    const isKept = (span: Span) => keep !== null && span.from < keep.to && span.to > keep.from;
    const path = bestPath(phrase, job, { keepOpen, avoid: avoid === null ? [] : [avoid], keep: isKept });
    const places = fretPositionsOnPath(path);
    const saved = Math.round(before.costMs - path.costMs);
    return written(
      job,
      phrase,
      withFretPositions(phrase, (item) => places.get(item)),
      saved >= 0 ? `saves the hand ${saved} ms of work` : `costs the hand ${-saved} ms more`,
    );
  },

  /** The same pitches with the hand in one place. */
  boxPlaces(job: HandJob): WayReport {
    const phrase = readJob(job);
    const box = oneBox(phrase, job, { keepOpen: true });
    if (!box) return { text: job.text, says: 'nothing is fretted' };
    const outside = box.outside.length === 0 ? '' : `, ${box.outside.length} notes lie outside and stay`;
    return written(job, phrase, box.phrase, `the hand stays at fret ${box.position}${outside}`);
  },

  /** The same pitches so many strings toward the thinnest. */
  overStrings(job: HandJob, strings: number): WayReport {
    const phrase = readJob(job);
    const moved = moveTo(phrase, job, { strings });
    const side = strings > 0 ? 'thinner' : 'thicker';
    const lost = moved.lost.map(({ why }) => why);
    const kept = lost.length === 0 ? 'all of it' : `all but ${lost.length}: ${[...new Set(lost)].join(' ')}`;
    return written(job, phrase, moved.phrase, `one string ${side}, ${kept}`);
  },

  /** A variant as text, with what is different in it. */
  variant(
    job: HandJob,
    kind: VariantKind,
    options: { readonly toKey?: Key; readonly fewerFrets?: number },
  ): { readonly text: string; readonly changes: readonly string[] } {
    const { key, ...guitar } = job;
    const made = makeVariant(readJob(job), kind, { ...guitar, ...(key && { key }), ...options });
    const { problems } = readPlaced(job.text, setUpOf(job));
    const changes = [...made.changes, ...sayUnread(job.text, problems)];
    return {
      text: writeShorthand(made.phrase, { strings: namesOf(guitar), firstValue: job.startValue === 'untimed' }),
      changes,
    };
  },
};

/** Reads other texts as the one of a job is read. */
function reader(job: HandJob): (text: string) => Phrase {
  return (text) => readPlaced(text, setUpOf(job)).phrase;
}

/** Rewrites only the events that moved, so that comments and lines stay. */
function written(job: HandJob, before: Phrase, after: Phrase, says: string): WayReport {
  return { text: rewriteMoved(job.text, before, after, reader(job)), says };
}

function strokesOf(phrase: Phrase, policy: PickingPolicy, start?: 'down' | 'up'): StrokeReport {
  const plan = planStrokes(phrase, policy, start ? { start } : {});
  const { outside, inside, with: along, against } = crossings(plan.strokes);
  const signs = plan.strokes.map(({ span, stroke }) => ({ span, stroke }));
  return { signs, outside, inside, with: along, against, cost: plan.cost };
}

/** Others are worth a word when they cost little more, milliseconds. Our choice. */
const WORTH_SAYING_MS = 40;

function fretPositionsOf({ steps }: Path): readonly HandPosition[] {
  return steps.map(({ item, grip, others }, index) => {
    const fingers = [...grip.notes]
      .sort((a, b) => b.string - a.string)
      .flatMap(({ finger }) => (finger === null ? [] : [finger]));
    const near = others.filter(({ moreMs }) => moreMs <= WORTH_SAYING_MS);
    const next = steps[index + 1];
    const fret = next?.item.notes[0]?.fret;
    const moves = next && next.grip.position !== grip.position && fret ? `the hand goes on to fret ${fret}` : '';
    const stays = next && next.grip.position === grip.position && fret ? `fret ${fret} comes next without moving` : '';
    return { span: item.span, position: grip.position, fingers, others: near, because: moves || stays };
  });
}

function fingerText(finger: FrettingFinger): Finger | undefined {
  if (finger === null) return undefined;
  const texts = { 1: '1', 2: '2', 3: '3', 4: '4', T: 'T' } as const;
  return texts[finger];
}

/** What the page can ask of this worker. */
export type Hands = typeof hands;

expose(hands);
