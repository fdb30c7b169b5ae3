import { Info } from 'luxon';

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
  const options = locale === undefined ? {} : { locale };
  // The library counts days from Sunday.
  const fromSunday = (days: readonly string[]) => [...days.slice(6), ...days.slice(0, 6)];
  return {
    dateFormat,
    firstDayOfWeek: Info.getStartOfWeek(options) % 7,
    dayNames: fromSunday(Info.weekdays('long', options)),
    dayNamesShort: fromSunday(Info.weekdays('short', options)),
    dayNamesMin: fromSunday(Info.weekdays('narrow', options)),
    monthNames: Info.months('long', options),
    monthNamesShort: Info.months('short', options),
  };
}
