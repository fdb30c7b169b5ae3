/** How a chart writes a day, in the order of the reader’s locale. Source: the time formats of d3, which Plotly.js uses. */
export function chartDay(locale?: string): string {
  return readersCalendar(locale).dateFormat.startsWith('dd') ? '%-d %b' : '%b %-d';
}

/** Parts of a date as the library writes them. */
const ORDER: Readonly<Partial<Record<string, string>>> = { day: 'dd', month: 'mm', year: 'yy' };

/** Names of days and months, their order in a date and the first day of the week, for the library’s calendars. */
export function readersCalendar(locale?: string) {
  const parts = new Intl.DateTimeFormat(locale, { day: '2-digit', month: '2-digit', year: 'numeric' }).formatToParts();
  const dateFormat = parts.map(({ type, value }) => (type === 'literal' ? value : ORDER[type])).join('');
  const named = (options: Intl.DateTimeFormatOptions, count: number, dateOf: (index: number) => number) => {
    const names = new Intl.DateTimeFormat(locale, { ...options, timeZone: 'UTC' });
    return Array.from({ length: count }, (_, index) => names.format(dateOf(index)));
  };
  // The library counts days from Sunday, as this first of January was.
  const days = (weekday: 'long' | 'short' | 'narrow') => named({ weekday }, 7, (day) => Date.UTC(2023, 0, 1 + day));
  const months = (month: 'long' | 'short') => named({ month }, 12, (index) => Date.UTC(2023, index, 1));
  return {
    dateFormat,
    firstDayOfWeek: firstDayOf(locale) % 7,
    dayNames: days('long'),
    dayNamesShort: days('short'),
    dayNamesMin: days('narrow'),
    monthNames: months('long'),
    monthNamesShort: months('short'),
  };
}

/** What a locale knows of weeks; browsers have it under the one name or the other, or not yet. */
interface Weeks {
  readonly getWeekInfo?: () => { readonly firstDay: number };
  readonly weekInfo?: { readonly firstDay: number };
}

/** The first day of the week, 1 for Monday to 7; Monday, as ISO 8601 has it, where the browser does not know. */
function firstDayOf(locale: string | undefined): number {
  const known: Intl.Locale & Weeks = new Intl.Locale(locale ?? new Intl.DateTimeFormat().resolvedOptions().locale);
  return (known.getWeekInfo?.() ?? known.weekInfo)?.firstDay ?? 1;
}
