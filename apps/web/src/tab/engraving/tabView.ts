import type { ScoreBar, Span } from '@jam-ledger/core/notation';
import { lineRoom, planStrip, planSystems, type SystemPlan } from './layout.ts';
import { SIZES } from './sizes.ts';
import { breakAgain, keyOfBar, type Broken } from './lineBreaks.ts';
import { clefPixels, type StaffSetUp } from './staff.ts';
import { drawSystem, systemHeight, type DrawnSystem, type EventBox, type SystemOptions } from './system.ts';

/** What a tab view shows. */
export interface TabContent {
  readonly bars: readonly ScoreBar[];
  readonly width: number;
  readonly strings: number;
  /** Standard notation above the tab. */
  readonly staff?: StaffSetUp | undefined;
  /** Everything on one line, to be scrolled along. */
  readonly strip?: boolean;
}

/** Something that stands at some events whatever plays: a loop, a pinned note, what a take was judged to be. */
export interface TabFlag {
  readonly span: Span;
  readonly look: 'loop' | 'pin' | 'right' | 'early' | 'late' | 'missing' | 'wrong' | 'unsure';
  /** A sign under the event, for those who do not see the colour; and what it means. */
  readonly sign?: string;
  readonly says?: string;
}

/** One line of the page; drawn when it comes into sight. */
interface System {
  readonly key: string;
  readonly element: HTMLDivElement;
  readonly plan: SystemPlan;
  readonly options: SystemOptions;
  readonly height: number;
  drawn: DrawnSystem | undefined;
  spans: readonly Span[];
}

/** Systems this far outside the window are drawn already, so that scrolling finds them there. Pixels. */
const AHEAD_PIXELS = 400;

/** So few new systems are drawn without asking where they stand, which would hold up every keystroke. Our choice. */
const FEW_SYSTEMS = 6;

/** After so long without a change lines are broken anew, as if the page were opened. Milliseconds. */
const SETTLE_MS = 1500;

/** An engraved tab in an element: draws anew only what changed and is in sight, and finds events by place. */
export class TabView {
  readonly #root: HTMLElement;
  readonly #sight: IntersectionObserver;
  #systems: readonly System[] = [];
  #marked: HTMLElement[] = [];
  #flagged: HTMLElement[] = [];
  #flags: readonly TabFlag[] = [];
  #broken: Broken | undefined;
  #frame = '';
  #settling: ReturnType<typeof setTimeout> | undefined;

  constructor(root: HTMLElement) {
    this.#root = root;
    this.#sight = new IntersectionObserver(
      (entries) => {
        for (const { isIntersecting, target } of entries)
          if (isIntersecting) draw(this.#systems.find(({ element }) => element === target));
      },
      { rootMargin: `${AHEAD_PIXELS}px` },
    );
    // What is printed must be drawn, in sight or not.
    window.addEventListener('beforeprint', this.#drawAll);
  }

  readonly #drawAll = (): void => this.#systems.forEach(draw);

  /** Shows a score; systems whose music is as before are kept as they are. */
  show(content: TabContent): void {
    clearTimeout(this.#settling);
    const { width, strings, staff, strip } = content;
    const frame = JSON.stringify([width, strings, staff, strip]);
    const before = frame === this.#frame ? this.#broken : undefined;
    this.#frame = frame;
    this.#lay(content, before);
    if (before && !strip) this.#settling = setTimeout(() => this.#lay(content, undefined), SETTLE_MS);
  }

  /** Ends what goes on by itself. */
  close(): void {
    clearTimeout(this.#settling);
    this.#sight.disconnect();
    window.removeEventListener('beforeprint', this.#drawAll);
  }

  #lay({ bars, width, strings, staff, strip }: TabContent, before: Broken | undefined): void {
    const head = staff ? clefPixels(staff) : SIZES.clefWidth;
    const room = lineRoom(width, head);
    const one = strip ? planStrip(bars, head) : undefined;
    const broken = one ? { lines: [bars], keys: bars.map(keyOfBar) } : breakAgain(bars, room, before);
    this.#broken = broken;
    const plans = one?.systems ?? planSystems(broken.lines, room);
    const options: SystemOptions = { width: one?.width ?? width, strings, staff };
    let bar = 0;
    const keys = plans.map((plan) => {
      const look = [this.#frame, plan.first, plan.widths, ...broken.keys.slice(bar, bar + plan.bars.length)];
      bar += plan.bars.length;
      return look.join('\n');
    });
    const kept = this.#kept(keys);
    const left = new Set(this.#systems);
    for (const system of kept) if (system) left.delete(system);
    const free = [...left].map(({ element }) => element);
    const added: System[] = [];
    this.#systems = plans.map((plan, at) => {
      const system = kept[at] ?? prepare(plan, keys[at] ?? '', options, free.shift());
      if (!kept[at]) added.push(system);
      system.spans = plan.bars.flatMap(({ events }) => events.map(({ span }) => span));
      return system;
    });
    this.#place(added);
  }

  /** The systems that look as some of those wanted do. Such lines are common in music, so a key may stand for several. */
  #kept(keys: readonly string[]): readonly (System | undefined)[] {
    const byKey = new Map<string, System[]>();
    for (const system of this.#systems) byKey.set(system.key, [...(byKey.get(system.key) ?? []), system]);
    return keys.map((key) => byKey.get(key)?.shift());
  }

  /** Puts the systems into the page, with as little moved as possible, and draws what is in sight. */
  #place(added: readonly System[]): void {
    this.#unmark();
    for (const element of this.#flagged) element.remove();
    const wanted = new Set<Element>(this.#systems.map(({ element }) => element));
    for (const child of [...this.#root.children]) if (!wanted.has(child)) child.remove();
    this.#systems.forEach(({ element }, index) => {
      const there = this.#root.children[index];
      if (there !== element) this.#root.insertBefore(element, there ?? null);
    });
    this.#drawSeen(added);
    if (this.#flags.length > 0) this.flag(this.#flags);
  }

  #drawSeen(added: readonly System[]): void {
    if (added.length <= FEW_SYSTEMS) return added.forEach(draw);
    let top = this.#root.getBoundingClientRect().top;
    for (const system of this.#systems) {
      const inSight = top < window.innerHeight && top + system.height > 0;
      if (inSight) draw(system);
      else if (!system.drawn) this.#watch(system.element);
      top += system.height;
    }
  }

  /** Told anew whether it is in sight, since its element may have been another system’s. */
  #watch(element: HTMLElement): void {
    this.#sight.unobserve(element);
    this.#sight.observe(element);
  }

  /** The span of the event at a place of the page, or undefined between events. */
  spanAt(clientX: number, clientY: number): Span | undefined {
    for (const { element, drawn, spans } of this.#systems) {
      const { left, top, bottom } = element.getBoundingClientRect();
      if (clientY < top || clientY > bottom || !drawn) continue;
      const x = clientX - left;
      const index = drawn.boxes.findLastIndex((box) => box.x <= x);
      const box = drawn.boxes[index];
      return box && x <= box.x + box.width + 12 ? spans[index] : undefined;
    }
    return undefined;
  }

  /** Marks the events that a stretch of text touches; a cursor that plays has a look of its own. */
  mark(span: Span | undefined, look: 'caret' | 'playing'): void {
    this.#unmark();
    if (!span) return;
    this.#marked = this.#markTouched(span, look);
    if (look === 'playing') this.#marked[0]?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }

  /** Marks what stands at some events until other flags are given. */
  flag(flags: readonly TabFlag[]): void {
    for (const element of this.#flagged) element.remove();
    this.#flags = flags;
    this.#flagged = flags.flatMap((flag) => {
      const marks = this.#markTouched(flag.span, flag.look);
      if (flag.sign !== undefined) for (const mark of marks) mark.dataset['sign'] = flag.sign;
      return marks;
    });
  }

  #markTouched(span: Span, look: string): HTMLElement[] {
    const marks: HTMLElement[] = [];
    for (const system of this.#systems) {
      if ((system.spans[0]?.from ?? 0) > span.to || (system.spans.at(-1)?.to ?? 0) < span.from) continue;
      system.spans.forEach((place, index) => {
        const touches =
          place.from <= span.to && place.to >= span.from && (span.from === span.to || place.from < span.to);
        if (!touches) return;
        const box = draw(system)?.boxes[index];
        if (box) marks.push(markBox(system.element, box, look));
      });
    }
    return marks;
  }

  #unmark(): void {
    for (const element of this.#marked) element.remove();
    this.#marked = [];
  }
}

function markBox(system: HTMLElement, box: EventBox, look: string): HTMLElement {
  const mark = document.createElement('span');
  mark.className = `tab-mark tab-mark-${look}`;
  mark.style.left = `${box.x}px`;
  mark.style.top = `${box.top}px`;
  mark.style.width = `${Math.min(box.width, 22)}px`;
  mark.style.height = `${box.bottom - box.top}px`;
  system.append(mark);
  return mark;
}

/** A system that is not drawn yet, in the element of one that is gone: the page around it is then not laid out anew. */
function prepare(plan: SystemPlan, key: string, options: SystemOptions, free?: HTMLDivElement): System {
  const element = free ?? document.createElement('div');
  element.replaceChildren();
  element.className = 'tab-system';
  const height = systemHeight(plan, options);
  element.style.height = `${height}px`;
  element.style.width = `${options.width}px`;
  return { key, element, plan, options, height, drawn: undefined, spans: [] };
}

function draw(system: System | undefined): DrawnSystem | undefined {
  if (system) system.drawn ??= drawSystem(system.element, system.plan, system.options);
  return system?.drawn;
}

/** A line of music, laid out and not drawn yet. Pixels. */
export interface LaidSystem {
  readonly height: number;
  /** Draws it into an element that is in the page. */
  readonly draw: (element: HTMLDivElement) => void;
}

/** The lines of a score at some width, for pages that are put together line by line. The music font has to be loaded. */
export function laySystems({ bars, width, strings, staff }: Omit<TabContent, 'strip'>): readonly LaidSystem[] {
  const room = lineRoom(width, staff ? clefPixels(staff) : SIZES.clefWidth);
  const options: SystemOptions = { width, strings, staff };
  return planSystems(breakAgain(bars, room, undefined).lines, room).map((plan) => ({
    height: systemHeight(plan, options),
    draw: (element) => void drawSystem(element, plan, options),
  }));
}
