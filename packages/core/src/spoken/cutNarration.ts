import { writeStamp, type Span } from '../notation/index.ts';
import { readSpoken, type SpokenContext, type SpokenReading } from './readSpoken.ts';
import { HEADINGS, NEXT_PHRASE } from './vocabulary.ts';

/** A phrase of a page of talk, with the words it comes from. */
export interface NarratedPhrase {
  readonly name: string;
  /** Its words in the page. */
  readonly words: Span;
  /** What its words say; places in it are counted from where its words begin. */
  readonly reading: SpokenReading;
  /** What is written: with its stamp before it, and by feel where no lengths were said. */
  readonly text: string;
}

/** A section of a page of talk. */
export interface NarratedSection {
  readonly label: string;
  readonly role: string;
  readonly phrases: readonly NarratedPhrase[];
}

/** Where something new begins. */
interface Border {
  readonly at: number;
  /** The heading of a section; undefined where only a phrase begins. */
  readonly role?: string;
}

const STAMP = /\[\d{1,3}:\d{2}(?:[.:]\d+)?\]/g;
const BLANK_LINE = /\n[ \t]*\n/g;
const NEXT = new RegExp(`\\b(?:${NEXT_PHRASE.join('|')})\\b`, 'gi');
const HEADING = new RegExp(
  `(?<=^|[\\n.;!?\\]]\\s*)(?:(?:and|so|now|then|in|on to|here is|here's|this is)\\s+)*(?:the\\s+)?(${HEADINGS.join('|')})\\b(?=\\s*(?:[:,.\\n]|is|goes|starts|begins|part|section|riff|lick|one|two|three|\\d|$))`,
  'gi',
);

/**
 * Cuts a page of talk into sections and phrases, at its stamps, empty lines and headings, “next lick”, “part two”, and reads each.
 * Stretches of talk without a note in them go with the phrase after them. Linear in the words.
 */
export function cutNarration(page: string, context: SpokenContext = {}): readonly NarratedSection[] {
  const sections: { label: string; role: string; phrases: NarratedPhrase[] }[] = [];
  let [role, from, before] = [FIRST_ROLE, 0, context.before ?? ''];
  const borders = bordersOf(page);
  for (const [index, border] of borders.entries()) {
    const to = borders[index + 1]?.at ?? page.length;
    if (border.role !== undefined && (border.role !== role || sections.length === 0)) {
      role = border.role;
      sections.push({ label: '', role, phrases: [] });
    }
    const own = readSpoken(page.slice(border.at, to), { ...context, before });
    // What was said so far goes on: nothing in it is a note, and nothing of it is lost.
    if (own.shorthand === '' && index < borders.length - 1) continue;
    const reading = border.at === from ? own : readSpoken(page.slice(from, to), { ...context, before });
    before = reading.shorthand;
    if (reading.shorthand !== '') {
      let section = sections.at(-1);
      if (!section) sections.push((section = { label: '', role, phrases: [] }));
      section.phrases.push(phraseOf(reading, { from, to }, section.phrases.length + 1));
    }
    from = to;
  }
  return sections
    .filter(({ phrases }) => phrases.length > 0)
    .map((section, index) => ({ ...section, label: `${index + 1}` }));
}

/** Where nothing is said of it, a page tells of a riff. */
const FIRST_ROLE = 'riff';

function phraseOf(reading: SpokenReading, words: Span, number: number): NarratedPhrase {
  const [stamp] = reading.stamps;
  const isTimed = /(^|\s)\//.test(reading.shorthand);
  const text = [
    ...(stamp?.before === 0 ? [`@${writeStamp(stamp.seconds)}`] : []),
    ...(isTimed ? [] : ['/?']),
    reading.shorthand,
  ].join(' ');
  return { name: `Phrase ${number}`, words, reading, text };
}

/** Everything at which something new begins, in the order of the page; the beginning is one. */
function bordersOf(page: string): readonly Border[] {
  const found: Border[] = [
    { at: 0 },
    ...Array.from(page.matchAll(STAMP), ({ index }) => ({ at: index })),
    ...Array.from(page.matchAll(BLANK_LINE), ({ index }) => ({ at: index })),
    ...Array.from(page.matchAll(NEXT), ({ index }) => ({ at: index })),
    ...Array.from(page.matchAll(HEADING), ({ index, 1: role = '' }) => ({ at: index, role: role.toLowerCase() })),
  ];
  return found.toSorted((a, b) => a.at - b.at);
}
