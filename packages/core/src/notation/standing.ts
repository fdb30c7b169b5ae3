import type { EventItem, WrittenNote } from './model.ts';

/** How high a string stands bent, cents, and the fret it was bent at. */
interface Standing {
  readonly cents: number;
  readonly fret: number | null;
}

/** Which strings stand bent while a phrase is played on, and how high. */
export class StandingBends {
  readonly #strings = new Map<number, Standing>();

  /**
   * How high its string stands as a note begins, cents: a tap on a bent string starts bent; a pull-off right after the tap falls
   * back to the bent note. Any other note starts plain.
   */
  under(note: WrittenNote, item: EventItem, before: EventItem | null | undefined): number {
    const standing = this.#strings.get(note.string);
    if (!standing) return 0;
    if (item.link === 'tap') return standing.cents;
    const backToBend = item.link === 'pull' && before?.link === 'tap' && standing.fret === note.fret;
    return backToBend ? standing.cents : 0;
  }

  /** Takes in a note that began so high and ends so high, cents. */
  take(note: WrittenNote, item: EventItem, { from, to }: { readonly from: number; readonly to: number }): void {
    const isBent = item.link === 'tap' || note.moves !== undefined || note.preBend !== undefined || from !== 0;
    if (!isBent) this.#strings.delete(note.string);
    else {
      const fret = item.link === 'tap' ? (this.#strings.get(note.string)?.fret ?? null) : note.fret;
      this.#strings.set(note.string, { cents: to, fret });
    }
  }
}
