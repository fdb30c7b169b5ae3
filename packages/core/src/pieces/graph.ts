import type { Cut, Excerpt } from './cut.ts';

/** A piece in the plan of a song. Pieces stand in the order they are learned. */
export interface PlannedPiece extends Cut {
  readonly id: string;
  /** For reasons in words. */
  readonly name: string;
  readonly held: boolean;
  readonly slipping: boolean;
  /** Share of the target reached, 0 to 1. */
  readonly share: number;
  /** Whether more of the same does not help: it wants to be split, or the teacher. */
  readonly stuck: boolean;
  /** Whether the student has it already. */
  readonly given: boolean;
  /** Whether the teacher put it at its place; it stays there if what it needs allows it. */
  readonly fixed: boolean;
}

/** From this share of its target on, a piece may be built upon. Our choice. */
export const READY_SHARE = 0.8;

/** What each piece directly needs, by id: the largest pieces inside it, and both sides of a seam. */
export type Needs = ReadonlyMap<string, readonly string[]>;

/** Whether a piece may be built upon. */
export function isReady({ slipping, share }: Pick<PlannedPiece, 'slipping' | 'share'>): boolean {
  return share >= READY_SHARE && !slipping;
}

/** A piece as it is compared with others. */
class Shape {
  readonly id: string;
  readonly kind: Cut['kind'];
  readonly parts: readonly Excerpt[];
  /** A piece is only ever built upon smaller ones. */
  readonly size: number;
  readonly #excerpts = new Map<string, Excerpt[]>();
  /** Of each phrase, which is played after it. */
  readonly #after = new Map<string, string | undefined>();

  constructor({ id, kind, parts }: Cut & { readonly id: string }) {
    this.id = id;
    this.kind = kind;
    this.parts = parts;
    this.size = KIND_RANK[kind] * 1000 + parts.length;
    for (const [index, part] of parts.entries()) {
      const known = this.#excerpts.get(part.phraseId);
      if (known) known.push(part);
      else {
        this.#excerpts.set(part.phraseId, [part]);
        this.#after.set(part.phraseId, parts[index + 1]?.phraseId);
      }
    }
  }

  get phrases(): Iterable<string> {
    return this.#excerpts.keys();
  }

  holds(inner: Shape): boolean {
    return inner.parts.every((part) => this.#excerpts.get(part.phraseId)?.some((one) => contains(one, part)) ?? false);
  }

  /** Of two pieces that are not the same, whether this is built upon the other. */
  buildsOn(inner: Shape): boolean {
    if (inner.kind === 'run' && this.kind !== 'run') return false;
    // A seam is played once both its phrases are there whole.
    if (this.kind === 'join')
      return inner.kind !== 'join' && inner.parts.every(({ phraseId }) => this.#excerpts.has(phraseId));
    if (inner.kind === 'join') {
      const [from, to] = inner.parts;
      return (
        this.kind === 'run' && from !== undefined && this.#after.get(from.phraseId) === to?.phraseId && to !== undefined
      );
    }
    return this.holds(inner) && !(inner.holds(this) && this.kind === inner.kind);
  }
}

function contains(outer: Excerpt, inner: Excerpt): boolean {
  if (outer.phraseId !== inner.phraseId || outer.from > inner.from) return false;
  return outer.to === null || (inner.to !== null && inner.to <= outer.to);
}

/**
 * The graph of what depends on what: each piece needs the largest pieces it is built upon, and through them all smaller ones.
 * Never a circle. Quadratic in the pieces at most: a piece is only compared with those that begin in one of its phrases.
 */
export function needsOf(pieces: readonly (Cut & { readonly id: string })[]): Needs {
  const bySize = pieces.map((piece) => new Shape(piece)).sort((a, b) => b.size - a.size);
  const beginning = new Map<string, number[]>();
  for (const [place, { parts }] of bySize.entries()) {
    const phraseId = parts[0]?.phraseId ?? '';
    const known = beginning.get(phraseId);
    if (known) known.push(place);
    else beginning.set(phraseId, [place]);
  }
  const needs = new Map<string, readonly string[]>();
  const all = new Map<string, ReadonlySet<string>>();
  for (const piece of bySize.toReversed()) {
    const direct: string[] = [];
    const through = new Set<string>();
    const places = [...piece.phrases].flatMap((phraseId) => beginning.get(phraseId) ?? []).sort((a, b) => a - b);
    for (const place of places) {
      const one = bySize[place];
      if (!one || one.size >= piece.size || through.has(one.id) || !piece.buildsOn(one)) continue;
      direct.push(one.id);
      through.add(one.id);
      for (const id of all.get(one.id) ?? []) through.add(id);
    }
    needs.set(piece.id, direct);
    all.set(piece.id, through);
  }
  return needs;
}

const KIND_RANK = { drill: 0, half: 1, phrase: 2, join: 3, run: 4 } as const;

/** What a re-planning changed, or proposes, for one piece. */
export interface PlanChange {
  readonly id: string;
  /** `give`: it can be given now. `drop`: it is not needed any more. `halve`: it wants to be cut in two. */
  readonly what: 'later' | 'give' | 'drop' | 'halve';
  readonly why: string;
}

/** A plan made anew. */
export interface Replanned {
  /** Ids in the order to learn. */
  readonly order: readonly string[];
  readonly changes: readonly PlanChange[];
}

/**
 * The plan as it should go on: what is needed comes before what needs it; what needs a stuck piece waits behind what does not,
 * unless the teacher put it there; what is ready to be given is named, what a held piece made needless too, and a stuck phrase
 * is to be halved. Else the order stays. The same plan always gives the same answer.
 */
export function replan(pieces: readonly PlannedPiece[], needs: Needs = needsOf(pieces)): Replanned {
  const placeOf = new Map(pieces.map(({ id }, place) => [id, place]));
  const held = pieces.filter((piece) => piece.held);
  const byId = new Map(pieces.map((piece) => [piece.id, piece]));
  const stuck = pieces.filter((piece) => piece.stuck);
  const waits = new Map<string, PlannedPiece>();
  for (const piece of pieces) {
    const on = stuck.find(({ id }) => id !== piece.id && reaches(needs, piece.id, id));
    if (on && !piece.given && !piece.fixed) waits.set(piece.id, on);
  }
  const wished = [...pieces.filter(({ id }) => !waits.has(id)), ...pieces.filter(({ id }) => waits.has(id))];
  const order = inOrder(wished, needs);
  const moved = order.flatMap((id, index): readonly PlanChange[] => moveOf(id, index));
  return { order, changes: [...moved, ...pieces.flatMap(proposalsFor)] };

  function moveOf(id: string, index: number): readonly PlanChange[] {
    const piece = byId.get(id);
    const before = placeOf.get(id) ?? -1;
    const on = waits.get(id);
    if (!piece || before === index) return [];
    if (on && index > before)
      return [{ id, what: 'later', why: `“${piece.name}” waits, since “${on.name}” is stuck.` }];
    const needed = (needs.get(id) ?? []).find((one) => (placeOf.get(one) ?? -1) > before);
    if (index > before && needed !== undefined)
      return [{ id, what: 'later', why: `“${piece.name}” needs “${byId.get(needed)?.name ?? ''}” first.` }];
    return [];
  }

  function proposalsFor(piece: PlannedPiece): readonly PlanChange[] {
    const { id, name, given } = piece;
    const direct = needs.get(id) ?? [];
    const ready = direct.every((one) => byId.has(one) && isReady(byId.get(one) ?? piece));
    const over = held.find((one) => one.id !== id && reaches(needs, one.id, id));
    if (!given && over) return [{ id, what: 'drop', why: `“${over.name}” is held; “${name}” is not needed any more.` }];
    if (!given && direct.length > 0 && ready) {
      const names = direct.map((one) => `“${byId.get(one)?.name ?? ''}”`).join(' and ');
      return [
        {
          id,
          what: 'give',
          why: `${names} ${direct.length === 1 ? 'stands' : 'stand'} well enough; “${name}” can be given.`,
        },
      ];
    }
    const halved = pieces.some((one) => one.kind === 'half' && one.parts[0]?.phraseId === piece.parts[0]?.phraseId);
    if (piece.stuck && piece.kind === 'phrase' && !halved)
      return [{ id, what: 'halve', why: `“${name}” is stuck; cut it in two and give the halves.` }];
    return [];
  }
}

function reaches(needs: Needs, from: string, to: string): boolean {
  const seen = new Set<string>();
  const open = [...(needs.get(from) ?? [])];
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    if (id === to) return true;
    if (seen.has(id)) continue;
    seen.add(id);
    open.push(...(needs.get(id) ?? []));
  }
  return false;
}

/** The order wished for, each piece behind what it needs: always the first wished for that waits for nothing. */
function inOrder(wished: readonly PlannedPiece[], needs: Needs): readonly string[] {
  const open = wished.map(({ id }) => id);
  const waiting = new Set(open);
  const order: string[] = [];
  while (open.length > 0) {
    // There is no circle, so something always waits for nothing.
    const at = Math.max(
      0,
      open.findIndex((id) => (needs.get(id) ?? []).every((one) => !waiting.has(one))),
    );
    const [id] = open.splice(at, 1);
    if (id === undefined) break;
    waiting.delete(id);
    order.push(id);
  }
  return order;
}
