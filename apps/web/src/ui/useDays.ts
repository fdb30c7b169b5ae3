/** How a day is written: it begins at midnight in Greenwich, and is read there. */
const DAY = {
  long: { weekday: 'short', day: 'numeric', month: 'long', timeZone: 'UTC' },
  short: { day: 'numeric', month: 'numeric', timeZone: 'UTC' },
} as const;

/** A day, `2026-03-14`, as the reader's locale writes it. */
export function dayText(day: string, style: 'long' | 'short' = 'long'): string {
  return new Date(day).toLocaleDateString(undefined, DAY[style]);
}

/** A moment on the clock of a zone, as the reader's locale writes it. */
export function momentText(moment: string, zone: string): string {
  const written = { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit', timeZone: zone } as const;
  return new Date(moment).toLocaleString(undefined, written);
}

/** The day of a moment on the clock of a zone, `2026-03-14`. */
export function dayIn(moment: string, zone: string): string {
  return writtenDay(new Date(moment), zone);
}

/** The day of a moment, `2026-03-14`, in a zone or that of the device. */
export function writtenDay(moment: Date, zone?: string): string {
  // Swedish writes its days as ISO 8601 does (Unicode CLDR).
  return moment.toLocaleDateString('sv-SE', { timeZone: zone });
}

/** Whole days from one day to another; negative when it lies before. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / DAY_MS);
}

const DAY_MS = 24 * 60 * 60 * 1000;

/** A place in a recording, `1:09`. */
export function clockText(seconds: number): string {
  const whole = Math.floor(seconds);
  const rest = Math.round((seconds - whole) * 10);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}${rest > 0 && rest < 10 ? `.${rest}` : ''}`;
}

/** Seconds of `1:09`, `0:17.5` or `69`; undefined when it is none of these. */
export function readClock(text: string): number | undefined {
  const match = /^\s*(?:(\d{1,3}):)?(\d{1,4}(?:[.,]\d{1,2})?)\s*$/.exec(text);
  if (!match) return undefined;
  const seconds = Number((match[2] ?? '').replace(',', '.'));
  if (match[1] !== undefined && seconds >= 60) return undefined;
  return Number(match[1] ?? 0) * 60 + seconds;
}
