import type { PlanBody, PlannedLine, PlanPiece, StudentOfSong } from '@jam-ledger/contract';
import {
  cutKey,
  cutPieces,
  drillOf,
  halvesOf,
  joinOf,
  runOf,
  temposOf,
  type Cut,
  type LearningSchool,
  type TimedPhrase,
} from '@jam-ledger/core/pieces';

/** A phrase of the song as the plan needs it: how it is cut, its tempos and its name. */
export interface PlanPhrase extends TimedPhrase {
  readonly name: string;
  readonly section: string;
  /** Where it can be cut in two, ticks. */
  readonly cutPoints: readonly number[];
}

/** What new pieces of a plan are made with. */
export interface PlanMaking {
  readonly phrases: readonly PlanPhrase[];
  readonly targetPercent: number;
  readonly shown: StudentOfSong['shown'];
  readonly newId: () => string;
}

type Pieces = readonly PlanPiece[];

/** A piece for a cut, with the tempos that are proposed for it. */
export function pieceFor(cut: Cut, { phrases, targetPercent, shown, newId }: PlanMaking): PlanPiece {
  return { ...cut, ...temposOf(cut, phrases, { targetPercent, shown }), id: newId(), fixed: false, lesson: null };
}

/**
 * The plan that a school proposes. Pieces that stand already keep their tempos; those the student has, and those put at their
 * place by hand, stay even where the school would not have them.
 */
export function propose(
  pieces: Pieces,
  school: LearningSchool,
  making: PlanMaking,
  given: ReadonlySet<string>,
): Pieces {
  const known = new Map(pieces.map((piece) => [cutKey(piece), piece]));
  const proposed = cutPieces(
    making.phrases.map(({ cut }) => cut),
    school,
  ).map((cut) => known.get(cutKey(cut)) ?? pieceFor(cut, making));
  const keys = new Set(proposed.map(cutKey));
  const kept = pieces.filter((piece) => (given.has(piece.id) || piece.fixed) && !keys.has(cutKey(piece)));
  return kept.reduce(placeKept, proposed);

  /** Behind the last piece that stood before it in the plan so far. */
  function placeKept(list: Pieces, piece: PlanPiece): Pieces {
    const before = new Set(pieces.slice(0, pieces.indexOf(piece)).map(cutKey));
    const at = list.findLastIndex((one) => before.has(cutKey(one))) + 1;
    return [...list.slice(0, at), piece, ...list.slice(at)];
  }
}

/** Puts cuts that are not there yet before or behind a piece. */
function withCuts(pieces: Pieces, cuts: readonly Cut[], at: number, making: PlanMaking): Pieces {
  const keys = new Set(pieces.map(cutKey));
  const made = cuts.filter((cut) => !keys.has(cutKey(cut))).map((cut) => pieceFor(cut, making));
  return [...pieces.slice(0, at), ...made, ...pieces.slice(at)];
}

/** What can be made of a piece. */
export const EXTRA_CUTS = ['halves', 'drill', 'join', 'top'] as const;
/** One of the `EXTRA_CUTS`. */
export type ExtraCut = (typeof EXTRA_CUTS)[number];

/** Adds what can be made of a piece: its halves and hard spot before it, its seam and the run from the top behind it. */
export function addCut(pieces: Pieces, id: string, what: ExtraCut, making: PlanMaking): Pieces {
  const at = pieces.findIndex((piece) => piece.id === id);
  const phraseId = pieces[at]?.parts.at(-1)?.phraseId;
  const index = making.phrases.findIndex(({ cut }) => cut.id === phraseId);
  const phrase = making.phrases[index]?.cut;
  const next = making.phrases[index + 1]?.cut;
  if (!phrase) return pieces;
  if (what === 'halves') return withCuts(pieces, halvesOf(phrase), at, making);
  if (what === 'drill') return withCuts(pieces, drillOf(phrase), at, making);
  if (what === 'top') {
    const cuts = making.phrases.slice(0, index + 1).map(({ cut }) => cut);
    return cuts.length < 2 ? pieces : withCuts(pieces, [runOf(cuts)], at + 1, making);
  }
  return next ? withCuts(pieces, [joinOf(phrase, next)], at + 1, making) : pieces;
}

/** Puts a piece at another place, and keeps it there. */
export function movePiece(pieces: Pieces, id: string, to: number): Pieces {
  const piece = pieces.find((one) => one.id === id);
  if (!piece) return pieces;
  const others = pieces.filter((one) => one.id !== id);
  const at = Math.min(others.length, Math.max(0, to));
  return [...others.slice(0, at), { ...piece, fixed: true }, ...others.slice(at)];
}

/**
 * Cuts the halves of a phrase elsewhere. Another cut is another piece, with an id of its own; what was posted for the old
 * halves stays with them.
 */
export function recut(pieces: Pieces, phraseId: string, at: number, making: PlanMaking): Pieces {
  return pieces.map((piece) => {
    const [part] = piece.parts;
    if (piece.kind !== 'half' || !part || part.phraseId !== phraseId) return piece;
    const moved = part.from === 0 ? { ...part, to: at } : { ...part, from: at };
    return { ...piece, id: making.newId(), parts: [moved] };
  });
}

/** Where the halves of a phrase meet, ticks; undefined where it has none. */
export function seamOf(pieces: Pieces, phraseId: string): number | undefined {
  const half = pieces.find((piece) => piece.kind === 'half' && piece.parts[0]?.phraseId === phraseId);
  const [part] = half?.parts ?? [];
  return part && (part.from === 0 ? (part.to ?? undefined) : part.from);
}

/** Targets that are the old share of the song’s tempo become the new share; typed ones stay. */
export function retarget(pieces: Pieces, from: number, making: PlanMaking): Pieces {
  return pieces.map((piece) => {
    const old = pieceFor(piece, { ...making, targetPercent: from }).targetBpm;
    if (piece.targetBpm !== old) return piece;
    const { targetBpm, startBpm } = pieceFor(piece, making);
    return { ...piece, targetBpm, startBpm: Math.min(piece.startBpm, targetBpm, Math.max(startBpm, piece.startBpm)) };
  });
}

/** What of a plan as it stands is kept. */
export function bodyOf({ version, learning, raising, targetPercent, rules, pieces }: PlanBody): PlanBody {
  return { version, learning, raising, targetPercent, rules, pieces: pieces.map(pieceOf) };
}

function pieceOf({ id, kind, parts, startBpm, targetBpm, floorBpm, difficulty, fixed, lesson }: PlanPiece): PlanPiece {
  return { id, kind, parts, startBpm, targetBpm, floorBpm, difficulty, fixed, lesson };
}

/** What the server tells of a piece besides its plan; for one that is not kept yet, that it is only planned. */
export type LineState = Pick<PlannedLine, 'version' | 'assignedOn' | 'state' | 'share' | 'stuck' | 'reason'>;
/** A piece that nobody has played. */
export const NOT_GIVEN: LineState = {
  version: 0,
  assignedOn: null,
  state: 'not begun',
  share: 0,
  stuck: false,
  reason: 'Not given yet.',
};
