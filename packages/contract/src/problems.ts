/** One thing wrong with what was sent: the field (dotted path, or `body`) and a plain sentence. */
export interface FieldProblem {
  readonly field: string;
  readonly message: string;
}

/** What checking gives: the value, or every problem in it. */
export type Checked<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problems: readonly FieldProblem[] };

const DAY = /^(\d{4})-(\d{2})-(\d{2})$/;

/** Whether a text is a day of the calendar written year-month-day. */
export function isDay(text: string): boolean {
  const [, year, month, day] = (DAY.exec(text) ?? []).map(Number);
  if (year === undefined || month === undefined || day === undefined) return false;
  const date = new Date(Date.UTC(year, month - 1, day));
  return date.getUTCFullYear() === year && date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
}
