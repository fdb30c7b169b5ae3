import { bendHeight, type EventItem, type Phrase } from '../notation/index.ts';
import { gripMs, handMs, shiftMs, spanMm, wayMs, type Way } from './costs.ts';
import { gripsFor, isFree, type FrettingFinger, type Grip, type FretPositions } from './grips.ts';
import { mmBetween, type Guitar } from './guitar.ts';
import { placedEvents, type Placed, type PositionRules } from './fretPositions.ts';

/** One event on the way of the hand. */
export interface PathStep {
  readonly item: EventItem;
  readonly grip: Grip;
  /** How far the hand moved to get here, millimetres, and what that and holding it costs, milliseconds. */
  readonly shiftMm: number;
  readonly shiftMs: number;
  readonly gripMs: number;
  /** Other fingers for a single note, the cheapest first, and what they cost more over the whole phrase, milliseconds. */
  readonly others: readonly OtherFinger[];
}

/** Another finger for a note: the place of the hand it needs, and how much more the whole way costs. */
export interface OtherFinger {
  readonly finger: FrettingFinger;
  readonly position: number;
  readonly moreMs: number;
}

/** The cheapest way of a hand through a phrase. */
export interface Path {
  readonly steps: readonly PathStep[];
  /** Milliseconds of work, by the table of docs/hand.md. */
  readonly costMs: number;
  /** What each event adds to the cheapest way so far; it does not change with what comes after. */
  readonly growth: readonly Growth[];
}

/** What one more event asks of the hand: work, milliseconds; moving along the neck and holding, millimetres. */
export interface Growth {
  readonly item: EventItem;
  readonly moreMs: number;
  readonly shiftMm: number;
  readonly spanMm: number;
}

/** A grip on the way: what it holds, or what was held before while open strings sound. */
interface Node {
  readonly grip: Grip;
  /** The grip of the last event that this hand held; the same as `grip` unless that is free. */
  readonly held: Grip | null;
  readonly free: boolean;
  readonly cost: number;
  readonly before: Node | null;
}

/**
 * The cheapest path of the hand over the events in the order of the text: places, fingers and positions, found exactly by
 * dynamic programming. Linear in the number of events; for events that nothing links, nearly linear in the grips of one, since what a
 * way costs hangs on fingers only where the hand stays. Repeats count once.
 */
export function bestPath(phrase: Phrase, guitar: Guitar, rules: PositionRules = {}): Path {
  const events = placedEvents(phrase, guitar, rules);
  const layers = forward(events, guitar, rules);
  const last = cheapest(layers.at(-1) ?? []);
  if (!last) return { steps: [], costMs: 0, growth: [] };
  const onPath: Node[] = [];
  for (let node: Node | null = last; node; node = node.before) onPath.unshift(node);
  const rest = backward(events, layers, guitar);
  const steps = onPath.map((node, index): PathStep => {
    const event = events[index];
    const way = event ? wayOf(event.item, node.before) : NO_WAY;
    const from = node.before?.held;
    const moves =
      from && !isFree(node.grip) ? { mm: mmBetween(guitar, from.position, node.grip.position), from } : undefined;
    return {
      item: event?.item ?? NO_EVENT,
      grip: node.grip,
      shiftMm: moves?.mm ?? 0,
      shiftMs: moves ? shiftMs(moves.from, node.grip, way, guitar) : 0,
      gripMs: gripMs(node.grip, guitar),
      others: othersAt(node, layers[index] ?? [], rest[index] ?? new Map<Node, number>()),
    };
  });
  return { steps, costMs: last.cost, growth: growthOf(events, layers, guitar) };
}

/** The best of every beginning of the phrase, event by event. */
function growthOf(events: readonly Placed[], layers: readonly (readonly Node[])[], guitar: Guitar): readonly Growth[] {
  let before = 0;
  return events.flatMap(({ item }, index): readonly Growth[] => {
    const node = cheapest(layers[index] ?? []);
    if (!node) return [];
    const moreMs = Math.max(0, node.cost - before);
    before = node.cost;
    const from = node.before?.held;
    const shiftMm = from && !isFree(node.grip) ? mmBetween(guitar, from.position, node.grip.position) : 0;
    return [{ item, moreMs, shiftMm, spanMm: item.notes.length > 1 ? spanMm(node.grip, guitar) : 0 }];
  });
}

const NO_WAY: Way = { link: 'none', free: false };
const NO_EVENT: EventItem = {
  kind: 'event',
  span: { from: 0, to: 0 },
  value: 'untimed',
  notes: [],
  marks: [],
  times: 1,
};

/** The cheapest place of the hand for each event, as written places or as chosen. */
export function fretPositionsOnPath(path: Path): ReadonlyMap<EventItem, FretPositions> {
  return new Map(path.steps.map(({ item, grip }) => [item, grip.notes.map(({ string, fret }) => ({ string, fret }))]));
}

function forward(events: readonly Placed[], guitar: Guitar, rules: PositionRules): readonly (readonly Node[])[] {
  const layers: (readonly Node[])[] = [];
  let before: readonly Node[] = [{ grip: NOTHING, held: null, free: false, cost: 0, before: null }];
  // What comes again is held as before: a strummed chord is looked at once.
  const known = new Map<string, readonly Grip[]>();
  for (const [index, event] of events.entries()) {
    const from = before;
    const key = gripKey(event);
    const grips = known.get(key) ?? gripsOf(event, rules);
    known.set(key, grips);
    const first = index === 0;
    const classes = !first && isUnlinked(event) ? classesOf(from) : undefined;
    before = grips.flatMap((grip) => reach(event, grip, { from, first, classes, guitar }));
    layers.push(before);
  }
  return layers;
}

/** Everything of an event that its grips hang on. */
function gripKey({ item, barre, choices }: Placed): string {
  const notes = item.notes.map((note) => [note.finger, bendHeight(note), note.trill !== undefined]);
  return JSON.stringify([item.link === 'tap', barre, notes, choices]);
}

interface Reaching {
  readonly from: readonly Node[];
  readonly first: boolean;
  /** The nodes before in classes, where any of them may come before any grip. */
  readonly classes: readonly Class<Node>[] | undefined;
  readonly guitar: Guitar;
}

/** The cheapest way to a grip from the grips before; to a free one, one for each grip that the hand may hold meanwhile. */
function reach(event: Placed, grip: Grip, { from, first, classes, guitar }: Reaching): readonly Node[] {
  const own = gripMs(grip, guitar);
  const free = isFree(grip);
  if (!free && classes) return cheapestTo(grip, { own, classes, guitar });
  const best = new Map<string, Node>();
  let min: Node | undefined;
  for (const node of from) {
    if (!mayFollow(event, grip, first ? null : node)) continue;
    const cost = node.cost + own + wayCost(node, grip, event.item, guitar);
    const before = first ? null : node;
    if (!free) {
      if (!min || cost < min.cost) min = { grip, held: grip, free, cost, before };
      continue;
    }
    const key = node.held ? keyOf(node.held) : '';
    const known = best.get(key);
    if (!known || cost < known.cost) best.set(key, { grip, held: node.held, free, cost, before });
  }
  return min ? [min] : [...best.values()];
}

/** Whether nothing of an event grows out of the one before: any grip may follow any other. */
function isUnlinked({ item, from }: Placed): boolean {
  return item.link === undefined && from.every((source) => source === undefined);
}

/** Nodes between which and any one grip the hand travels alike: from one place, one first string, held or not. */
interface Class<One> {
  readonly held: Grip | null;
  readonly free: boolean;
  /** The cheapest first; of equal ones that which came first. */
  readonly members: readonly { readonly one: One; readonly cost: number; readonly index: number }[];
}

/** Puts nodes into classes by what they hold; `costOf` is what each of them costs so far, or from there on. */
function classify<One>(
  ones: readonly One[],
  {
    heldOf,
    costOf,
  }: { readonly heldOf: (one: One) => { held: Grip | null; free: boolean }; readonly costOf: (one: One) => number },
): readonly Class<One>[] {
  const classes = new Map<
    string,
    { held: Grip | null; free: boolean; members: { one: One; cost: number; index: number }[] }
  >();
  for (const [index, one] of ones.entries()) {
    const { held, free } = heldOf(one);
    const key = held ? `${held.impossible ? 'x' : held.position}.${held.notes[0]?.string ?? 0}.${free ? 1 : 0}` : '';
    const known = classes.get(key);
    const member = { one, cost: costOf(one), index };
    if (known) known.members.push(member);
    else classes.set(key, { held, free, members: [member] });
  }
  for (const { members } of classes.values()) members.sort((a, b) => a.cost - b.cost || a.index - b.index);
  return [...classes.values()];
}

function classesOf(nodes: readonly Node[]): readonly Class<Node>[] {
  return classify(nodes, { heldOf: (node) => node, costOf: ({ cost }) => cost });
}

/** The cheapest way to a grip that grows out of nothing. */
function cheapestTo(
  grip: Grip,
  { own, classes, guitar }: { readonly own: number; readonly classes: readonly Class<Node>[]; readonly guitar: Guitar },
): readonly Node[] {
  let min: { node: Node; cost: number; index: number } | undefined;
  for (const { held, free, members } of classes) {
    // No finger makes a way cheaper than moving the hand there: whatever follows in a class costs at least so much.
    const least = held ? handMs(held, grip, { link: 'none', free }, guitar) : 0;
    const stays = held !== null && !free && held.position === grip.position;
    for (const { one, cost: soFar, index } of members) {
      if (min && soFar + own + least > min.cost + ROUNDING) break;
      const cost = soFar + own + (held && stays ? wayMs(one.held ?? held, grip, UNLINKED, guitar) : least);
      if (!min || cost < min.cost || (cost === min.cost && index < min.index)) min = { node: one, cost, index };
      if (!stays) break;
    }
  }
  return min ? [{ grip, held: grip, free: false, cost: min.cost, before: min.node }] : [];
}

/** Sums of the same numbers in another order differ by less, milliseconds. */
const ROUNDING = 1e-6;
const UNLINKED: Way = { link: 'none', free: false };

const NOTHING: Grip = { position: 0, notes: [], barres: [], impossible: false };

function gripsOf({ item, barre, choices }: Placed, { position }: PositionRules): readonly Grip[] {
  const rules = { barre, ...(position !== undefined && { position }) };
  const all = choices.flatMap((fretPositions) => gripsFor(item, fretPositions, rules));
  const possible = all.filter(({ impossible }) => !impossible);
  return possible.length > 0 ? possible : all.slice(0, 1);
}

/** A linked note stays on the string of the note it grows from. */
function mayFollow({ from }: Placed, grip: Grip, node: Node | null): boolean {
  return from.every(
    (source, at) => source === undefined || node?.grip.notes[source]?.string === grip.notes[at]?.string,
  );
}

function wayOf({ link }: EventItem, before: Node | null): Way {
  const own = link === 'shift' ? 'slide' : link === 'tap' ? 'none' : (link ?? 'none');
  return { link: before?.free ? 'none' : own, free: before?.free ?? false };
}

function wayCost(from: Node, grip: Grip, item: EventItem, guitar: Guitar): number {
  if (!from.held || isFree(grip)) return 0;
  return wayMs(from.held, grip, wayOf(item, from), guitar);
}

const keys = new WeakMap<Grip, string>();

function keyOf(grip: Grip): string {
  let key = keys.get(grip);
  if (key === undefined) {
    key = `${grip.position}:${grip.notes.map(({ string, fret, finger }) => `${string}.${fret ?? 'x'}.${finger ?? 0}`).join()}`;
    keys.set(grip, key);
  }
  return key;
}

function cheapest(nodes: readonly Node[]): Node | undefined {
  return nodes.reduce<Node | undefined>((best, node) => (best && best.cost <= node.cost ? best : node), undefined);
}

/** What the rest of the phrase costs at least from each node on. */
function backward(
  events: readonly Placed[],
  layers: readonly (readonly Node[])[],
  guitar: Guitar,
): readonly ReadonlyMap<Node, number>[] {
  const rest: Map<Node, number>[] = layers.map((nodes) => new Map(nodes.map((node) => [node, 0])));
  for (let index = layers.length - 2; index >= 0; index -= 1) {
    const event = events[index + 1];
    if (!event) continue;
    const nexts = [...(rest[index + 1] ?? [])].map(([next, after]) => ({
      next,
      cost: after + gripMs(next.grip, guitar),
    }));
    const restOf = isUnlinked(event) ? restUnlinked(nexts, guitar) : restLinked(nexts, event, guitar);
    for (const node of layers[index] ?? []) rest[index]?.set(node, restOf(node));
  }
  return rest;
}

interface Next {
  readonly next: Node;
  readonly cost: number;
}

/** The least that the rest costs from a node on, where the next event grows out of it. */
function restLinked(nexts: readonly Next[], event: Placed, guitar: Guitar): (node: Node) => number {
  return (node) => {
    let min = Infinity;
    for (const { next, cost } of nexts) {
      if (cost >= min || !sameHeld(next, node) || !mayFollow(event, next.grip, node)) continue;
      min = Math.min(min, cost + wayCost(node, next.grip, event.item, guitar));
    }
    return min;
  };
}

/** The same where any grip may follow. */
function restUnlinked(nexts: readonly Next[], guitar: Guitar): (node: Node) => number {
  const free = new Map<string, number>();
  for (const { next, cost } of nexts.filter((one) => one.next.free)) {
    const key = next.held ? keyOf(next.held) : '';
    free.set(key, Math.min(free.get(key) ?? Infinity, cost));
  }
  const held = nexts.filter((one) => !one.next.free);
  const classes = classify(held, {
    heldOf: ({ next: { grip } }) => ({ held: grip, free: false }),
    costOf: ({ cost }) => cost,
  });
  return (node) => {
    let min = free.get(node.held ? keyOf(node.held) : '') ?? Infinity;
    for (const { held: to, members } of classes) {
      const least = node.held && to ? handMs(node.held, to, { link: 'none', free: node.free }, guitar) : 0;
      const stays = node.held !== null && !node.free && node.held.position === to?.position;
      for (const { one, cost } of members) {
        if (cost + least >= min) break;
        min = Math.min(min, cost + (node.held && stays ? wayMs(node.held, one.next.grip, UNLINKED, guitar) : least));
        if (!stays) break;
      }
    }
    return min;
  };
}

/** Whether a free grip goes on holding what the one before held. */
function sameHeld(next: Node, node: Node): boolean {
  if (!next.free || next.held === node.held) return true;
  return next.held !== null && node.held !== null && keyOf(next.held) === keyOf(node.held);
}

/** Other fingers for the same place of a single note. */
function othersAt(node: Node, layer: readonly Node[], rest: ReadonlyMap<Node, number>): readonly OtherFinger[] {
  const [note] = node.grip.notes;
  if (!note || node.grip.notes.length > 1 || note.finger === null) return [];
  const through = (one: Node) => one.cost + (rest.get(one) ?? Infinity);
  const best = through(node);
  const byFinger = new Map<FrettingFinger, OtherFinger>();
  for (const one of layer) {
    const [other] = one.grip.notes;
    if (!other || other.string !== note.string || other.fret !== note.fret || other.finger === note.finger) continue;
    const moreMs = through(one) - best;
    const known = byFinger.get(other.finger);
    if (Number.isFinite(moreMs) && (!known || moreMs < known.moreMs))
      byFinger.set(other.finger, { finger: other.finger, position: one.grip.position, moreMs });
  }
  return [...byFinger.values()].sort((a, b) => a.moreMs - b.moreMs);
}
