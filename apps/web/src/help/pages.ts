/** What each page is for and how it is begun with, by the name of its route. */
const PAGES: Readonly<Partial<Record<string, string>>> = {
  desk: 'What needs you today: lessons with what each opens with, requests by their promise, phrases that slip or are stuck. Each line leads to its place.',
  requests:
    'What is asked for, what of it is wanted and what is not, and by when. The promised day is computed from the hours of the coming weeks.',
  songs: 'Every song that is transcribed, for whom, and how far it is.',
  song: 'Lay out the form against the clock, then write phrase by phrase: the text under the tab is engraved and checked as you type. The margin says what it doubts, and offers the fix where one is certain.',
  sheet: 'What leaves the room: the pages as they are printed, with a legend of their own signs.',
  pieces:
    'Cut the song into pieces for this student, in order, with a start and a target tempo, and hand them out over lessons.',
  licks:
    'Have I written this before? Look by technique, place, degrees or shape, and move what is found into another song.',
  lesson: 'The next half hour: what to hear again, joins, what is new. One key posts a result in ink.',
  ledger:
    'Where a student stands: rows are phrases, columns are lessons and the days between. Each cell has the best tempo of that day, filled by its share of the target.',
  series: 'Lessons by rule, their dates, and what a series leads to.',
  students: 'Guitars, hands and schools of every student.',
  studio: 'How the studio teaches, who belongs to it, and its mail.',
  book: 'Backups, what was changed by whom, and restoring.',
  search: 'Songs, phrases, people and requests, by any word of them.',
  practice: 'What to practise today, in order and with minutes, and every piece you have.',
  piece:
    'One phrase, large. Hear it, then play it slower with the click; say “Clean” or “Not yet” after each try, and the ladder says what is next.',
  drills: 'Bends and rhythms of the piece, alone, and a tuner.',
  home: 'Lessons to come, and what the last one was about.',
  shorthand: 'How phrases are typed, in seven lines to try, and the rule behind every remark.',
};

/** What a page is for, in a sentence or two. */
export function purposeOf(name: unknown): string | undefined {
  return typeof name === 'string' ? PAGES[name] : undefined;
}

/** How results stand in the book. */
const BOOK_SIGNS = [
  ['84 upright', 'ink: heard in a lesson'],
  ['84 slanted', 'pencil: logged by the student alone'],
  ['the bar of a cell', 'share of the target tempo'],
] as const;
const WITH_RESULTS: readonly unknown[] = ['desk', 'ledger', 'lesson', 'practice', 'piece', 'pieces'];

/** Signs of the ledger that a page uses. */
export function bookSignsOf(name: unknown): readonly (readonly [sign: string, meaning: string])[] {
  return WITH_RESULTS.includes(name) ? BOOK_SIGNS : [];
}
