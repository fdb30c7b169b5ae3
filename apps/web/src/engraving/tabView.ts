import type { ScoreBar, Span } from '@jam-ledger/core/notation';
import { planStrip, planSystems, SIZES, type SystemPlan } from './layout.ts';
import { clefPixels, type StaffSetUp } from './staff.ts';
import { drawSystem, type DrawnSystem, type EventBox, type SystemOptions } from './system.ts';

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

interface System {
  readonly key: string;
  readonly element: HTMLDivElement;
  readonly drawn: DrawnSystem;
  spans: readonly Span[];
}

/** An engraved tab in an element: draws anew only the systems that changed, and finds events by place. */
export class TabView {
  readonly #root: HTMLElement;
  #systems: readonly System[] = [];
  #marked: HTMLElement[] = [];

  constructor(root: HTMLElement) {
    this.#root = root;
  }

  /** Shows a score; systems whose music is as before are kept as they are. */
  show(content: TabContent): void {
    const kept = new Map(this.#systems.map((system) => [system.key, system]));
    const head = content.staff ? clefPixels(content.staff) : SIZES.clefWidth;
    const strip = content.strip ? planStrip(content.bars, head) : undefined;
    const plans = strip?.systems ?? planSystems(content.bars, content.width, head);
    const options = { ...content, width: strip?.width ?? content.width };
    this.#systems = plans.map((plan) => {
      const key = keyOf(plan, options);
      const spans = plan.bars.flatMap(({ events }) => events.map(({ span }) => span));
      const system = kept.get(key);
      if (!system) return drawNew(plan, key, options, spans);
      kept.delete(key);
      system.spans = spans;
      return system;
    });
    this.#root.replaceChildren(...this.#systems.map(({ element }) => element));
    this.#marked = [];
  }

  /** The span of the event at a place of the page, or undefined between events. */
  spanAt(clientX: number, clientY: number): Span | undefined {
    for (const { element, drawn, spans } of this.#systems) {
      const { left, top, bottom } = element.getBoundingClientRect();
      if (clientY < top || clientY > bottom) continue;
      const x = clientX - left;
      const index = drawn.boxes.findLastIndex((box) => box.x <= x);
      const box = drawn.boxes[index];
      return box && x <= box.x + box.width + 12 ? spans[index] : undefined;
    }
    return undefined;
  }

  /** Marks the events that a stretch of text touches; a cursor that plays has a look of its own. */
  mark(span: Span | undefined, look: 'caret' | 'playing'): void {
    for (const element of this.#marked) element.remove();
    this.#marked = [];
    if (!span) return;
    for (const { element, drawn, spans } of this.#systems)
      spans.forEach((place, index) => {
        const box = drawn.boxes[index];
        const touches =
          place.from <= span.to && place.to >= span.from && (span.from === span.to || place.from < span.to);
        if (box && touches) this.#marked.push(markBox(element, box, look));
      });
    if (look === 'playing') this.#marked[0]?.scrollIntoView({ block: 'nearest', inline: 'center' });
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

function drawNew(plan: SystemPlan, key: string, options: SystemOptions, spans: readonly Span[]): System {
  const element = document.createElement('div');
  element.className = 'tab-system';
  const drawn = drawSystem(element, plan, options);
  return { key, element, drawn, spans };
}

/** Two systems with the same key look the same; where they stand in the text does not count. */
function keyOf(plan: SystemPlan, { width, strings, staff }: SystemOptions): string {
  return JSON.stringify([width, strings, staff, plan.first, plan.bars], (name, value: unknown) =>
    name === 'span' ? undefined : value,
  );
}
