/** A block of a page: what stands on one height. Pixels of the paper at 96 to the inch. */
export interface Block {
  readonly height: number;
  /** Whether it must not stand at the foot of a page without the one behind it. */
  readonly keepsWithNext?: boolean;
  /** Whether it begins a new page. */
  readonly startsPage?: boolean;
  /** Whether it is a line of music, which is counted. */
  readonly isLine?: boolean;
  /** The phrase that begins with this line. */
  readonly phraseId?: string;
}

/** A block in its place on a page; lines are counted from 1 on each page. */
export interface PlacedBlock<Of extends Block> {
  readonly block: Of;
  readonly y: number;
  readonly line?: number;
}

/** A page with its blocks from the top. */
export interface PlannedPage<Of extends Block> {
  readonly blocks: readonly PlacedBlock<Of>[];
}

/** Where a phrase begins, pages and lines from 1. */
export interface PageLine {
  readonly page: number;
  readonly line: number;
}

/** Pages, and where each phrase begins. */
export interface PagePlan<Of extends Block> {
  readonly pages: readonly PlannedPage<Of>[];
  readonly places: ReadonlyMap<string, PageLine>;
}

/** Puts blocks on pages of some height, in their order; headings stay with what they head. A block higher than a page has one alone. */
export function planPages<Of extends Block>(blocks: readonly Of[], height: number): PagePlan<Of> {
  const pages: { blocks: PlacedBlock<Of>[] }[] = [];
  const places = new Map<string, PageLine>();
  let at = 0;
  let y = 0;
  let line = 0;
  while (at < blocks.length) {
    const group = groupFrom(blocks, at);
    const needed = group.reduce((sum, block) => sum + block.height, 0);
    if (pages.length === 0 || (y > 0 && (y + needed > height || group[0]?.startsPage))) {
      pages.push({ blocks: [] });
      y = 0;
      line = 0;
    }
    for (const block of group) {
      if (block.isLine) line += 1;
      pages.at(-1)?.blocks.push({ block, y, ...(block.isLine && { line }) });
      if (block.phraseId !== undefined && !places.has(block.phraseId))
        places.set(block.phraseId, { page: pages.length, line });
      y += block.height;
    }
    at += group.length;
  }
  return { pages, places };
}

/** A block with those that must stand with it. */
function groupFrom<Of extends Block>(blocks: readonly Of[], at: number): readonly Of[] {
  let to = at;
  while (blocks[to]?.keepsWithNext && to + 1 < blocks.length && !blocks[to + 1]?.startsPage) to += 1;
  return blocks.slice(at, to + 1);
}
