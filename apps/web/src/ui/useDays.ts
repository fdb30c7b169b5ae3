import { DateTime } from 'luxon';

/** A day, `2026-03-14`, as the reader's locale writes it. */
export function dayText(day: string, style: 'long' | 'short' = 'long'): string {
  const date = DateTime.fromISO(day);
  return style === 'long'
    ? date.toLocaleString({ weekday: 'short', day: 'numeric', month: 'long' })
    : date.toLocaleString({ day: 'numeric', month: 'numeric' });
}

/** A moment on the clock of a zone, as the reader's locale writes it. */
export function momentText(moment: string, zone: string): string {
  return DateTime.fromISO(moment, { zone }).toLocaleString({
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });
}

/** The day of a moment on the clock of a zone, `2026-03-14`. */
export function dayIn(moment: string, zone: string): string {
  return DateTime.fromISO(moment, { zone }).toISODate() ?? '';
}

/** Whether a lesson is over, by the clock of a zone. */
export function isOver(
  { day, time, minutes }: { readonly day: string; readonly time: string; readonly minutes: number },
  zone: string,
): boolean {
  return DateTime.fromISO(`${day}T${time}`, { zone }).plus({ minutes }) < DateTime.now();
}

/** Whole days from one day to another; negative when it lies before. */
export function daysBetween(from: string, to: string): number {
  return Math.round(DateTime.fromISO(to).diff(DateTime.fromISO(from), 'days').days);
}

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
