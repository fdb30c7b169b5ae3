import { eventsIn, eventsOf, type Edited } from './edit.ts';
import { nameStrings } from './frets.ts';
import { samePhrase, type EventItem, type Phrase, type Span } from './model.ts';
import { STRING_SIGNS } from './strings.ts';

/** How strings can be said: each by its letter, by its number, or only where they change. */
export const SAYINGS = ['letters', 'numbers', 'only where it changes'] as const;
/** One of the `SAYINGS`. */
export type Saying = (typeof SAYINGS)[number];

/** A change of what some selected events are written as: their new texts by their places. */
type Respelling = (event: EventItem, typed: string, before: EventItem | undefined) => string;

/**
 * The selected events said another way: the next of the `SAYINGS` that is another text and says the same.
 *
 * @param read reads a text as this one was read
 */
export function sayAnotherWay(text: string, phrase: Phrase, selection: Span, read: (text: string) => Phrase): Edited {
  const said = SAYINGS.map((saying) => respelt(text, phrase, selection, wayOf(saying)));
  const others = said.filter((one) => one !== undefined && samePhrase(read(one.whole), phrase));
  const now = others.findIndex((one) => one?.whole === text);
  const next = [...others.slice(now + 1), ...others.slice(0, Math.max(0, now))].find((one) => one?.whole !== text);
  if (!next) return { ok: false, why: 'There is no other way to say this.' };
  const { span, inner } = next;
  return { ok: true, edit: { span, text: inner, select: { from: span.from, to: span.from + inner.length } } };
}

/** The case of the letters of the selected events folded: big E and little e change places, other small letters become big. */
export function foldCase(text: string, phrase: Phrase, selection: Span): Edited {
  const folded = respelt(text, phrase, selection, (_event, typed) =>
    typed.replace(
      NAMED,
      (_whole, fret: string, letters: string) => `${fret}${Array.from(letters, foldLetter).join('')}`,
    ),
  );
  if (!folded || folded.whole === text) return { ok: false, why: 'There is no letter of a string here.' };
  const { span, inner } = folded;
  return { ok: true, edit: { span, text: inner, select: { from: span.from, to: span.from + inner.length } } };
}

/** A fret with letters of strings. */
const NAMED = new RegExp(`(?<![br][\\d.¼½¾-]*)(\\d+|x)([${STRING_SIGNS}]+)`, 'g');

function foldLetter(letter: string): string {
  if (letter === 'E') return 'e';
  return letter === 'e' ? 'E' : letter.toUpperCase();
}

function wayOf(saying: Saying): Respelling {
  const lettered = ({ notes }: EventItem, typed: string) =>
    nameStrings(
      typed,
      notes.map(({ string }) => string),
      'letters',
    );
  if (saying !== 'only where it changes')
    return ({ notes }, typed) =>
      nameStrings(
        typed,
        notes.map(({ string }) => string),
        saying,
      );
  return (event, typed, before) => {
    const [, fret = '', rest = ''] = ONE_NAMED.exec(typed) ?? [];
    const isSame = before !== undefined && event.link === undefined && isOn(event, before);
    // Behind a bare fret these letters would be strings.
    const isBrief = isSame && fret !== '' && rest !== 'b' && rest !== 'd';
    return isBrief ? `${fret}${rest}` : lettered(event, typed);
  };
}

/** One fret with its strings, and what is behind it; a second fret may not follow. */
const ONE_NAMED = new RegExp(`^([(<>]?(?:\\d+|x))(?:@\\d+|[${STRING_SIGNS}]+)((?![+\\dx]).*)$`);

/** Whether an event lies on one fret, on the strings of one before it that lay on one. */
function isOn({ notes }: EventItem, before: EventItem): boolean {
  const alike = (all: EventItem['notes']) => new Set(all.map(({ fret }) => fret)).size === 1;
  const strings = (all: EventItem['notes']) => all.map(({ string }) => string).join();
  return alike(notes) && alike(before.notes) && strings(notes) === strings(before.notes);
}

function respelt(
  text: string,
  phrase: Phrase,
  selection: Span,
  respell: Respelling,
): { readonly whole: string; readonly span: Span; readonly inner: string } | undefined {
  const chosen = new Set(eventsIn(phrase, selection).map(({ item }) => item));
  const all = eventsOf(phrase).map(({ item }) => item);
  const first = all.find((item) => chosen.has(item));
  const last = all.findLast((item) => chosen.has(item));
  if (!first || !last) return undefined;
  let inner = '';
  let at = first.span.from;
  all.forEach((item, index) => {
    if (!chosen.has(item)) return;
    const typed = text.slice(item.span.from, item.span.to);
    inner += text.slice(at, item.span.from) + respell(item, typed, all[index - 1]);
    at = item.span.to;
  });
  const span = { from: first.span.from, to: last.span.to };
  return { whole: text.slice(0, span.from) + inner + text.slice(span.to), span, inner };
}
