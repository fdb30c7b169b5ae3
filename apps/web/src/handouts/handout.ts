import { FIDELITY_SAYS, songAt, type Phrase, type Section, type Transcription } from '@jam-ledger/contract';
import { keyTextAt } from '@jam-ledger/core/form';
import { degreesOf, type Degree } from '@jam-ledger/core/harmony';
import { scoreOf, type Phrase as NotatedPhrase, type ScoreBar } from '@jam-ledger/core/notation';
import { OPEN_KEY, readKey } from '@jam-ledger/core/pitch';
import { sayPhrase } from '@jam-ledger/core/spoken';
import { sayPass, type SongForm } from '../songs/index.ts';
import { laySystems, legendOf, tuningOf, type LaidSystem } from '../tab/index.ts';
import { clockText } from '../ui/index.ts';
import { onlyShown, withDegrees, type Shown } from './onlyShown.ts';
import type { Block, PageLine } from './pagePlan.ts';
import { wrapped } from './wrapped.ts';

/** What is put on a handout. */
export interface HandoutOptions extends Shown {
  /** Phrases that are put on it; a section without a phrase stands on it with all of them. */
  readonly phrases: ReadonlySet<string>;
  readonly staff: boolean;
  readonly degrees: boolean;
  /** Whether each phrase stands in words, too, a sentence a bar. */
  readonly sentences: boolean;
  /** Lines of the last page; none where it is not wanted. */
  readonly goals: readonly string[];
  /** What was agreed and what was not wanted, in words; empty where nobody asked for it. */
  readonly scope: readonly string[];
}

/** How a line of words looks. */
export type WordsLook = 'title' | 'facts' | 'section' | 'phrase' | 'note' | 'legend' | 'rights';

/** A line of a handout: words, or a line of music. */
export interface HandoutBlock extends Block {
  readonly look: WordsLook | 'music';
  /** What it says, once pages are known. */
  readonly says?: (placeOf: (phraseId: string) => PageLine | undefined) => string;
  readonly system?: LaidSystem;
  /** The phrase in words, for whoever does not see its music; at its first line. */
  readonly sentences?: readonly string[];
}

/** Heights of lines of words, pixels of the paper; and size of music against the desk. Our choice. */
const HEIGHTS: Readonly<Record<WordsLook, number>> = {
  title: 40,
  facts: 20,
  section: 42,
  phrase: 24,
  note: 18,
  legend: 16,
  rights: 22,
};
export const MUSIC_SCALE = 0.62;
/** Characters of a line of each look on the width of the page. Our choice, by trying. */
const CHARACTERS: Readonly<Record<WordsLook, number>> = {
  title: 60,
  facts: 105,
  section: 80,
  phrase: 95,
  note: 110,
  legend: 120,
  rights: 120,
};

/** The lines of a handout in their order, for a page so many pixels wide. The music font has to be loaded. */
export function handoutBlocks(
  song: Transcription,
  form: SongForm,
  { options, width }: { readonly options: HandoutOptions; readonly width: number },
): readonly HandoutBlock[] {
  const blocks: HandoutBlock[] = [...headOf(song), ...options.scope.flatMap((line) => wordsOf('note', line))];
  const all: ScoreBar[] = [];
  const given = new Map<string, Phrase>();
  const isWhole = printable(song).every(({ id }) => options.phrases.has(id));
  for (const section of song.sections) {
    const played = playedOf(section).filter(({ id }) => options.phrases.has(id));
    if (played.length === 0 && !(isWhole && section.phrases.length === 0)) continue;
    blocks.push(...sectionHead(section, form));
    for (const phrase of played) {
      const first = phrase.refersTo === null ? undefined : given.get(phrase.refersTo);
      if (first?.text === phrase.text) {
        blocks.push(
          ...wordsOf('note', (placeOf) => `${phrase.name}: again as ${first.name}${sayPlace(placeOf(first.id))}`),
        );
        continue;
      }
      const read = form.readingOf(phrase).phrase;
      const shown = onlyShown(scoreOf(read), options);
      const bars = options.degrees ? withDegrees(shown, degreesIn(read, section, song)) : shown;
      all.push(...bars);
      given.set(phrase.id, phrase);
      const sentences = sayPhrase(read, { strings: song.student.schools.naming, length: 'full' });
      blocks.push(...phraseBlocks(phrase, { bars, sentences, section, song, options, width }));
    }
  }
  return [...blocks, ...footOf(all, options)];
}

/** The phrases of a section that are played: of each place the version that is chosen. */
function playedOf({ phrases }: Section): readonly Phrase[] {
  return phrases.filter(({ chosen }) => chosen);
}

/** What can be put on a handout. */
export function printable(song: Transcription): readonly Phrase[] {
  return song.sections.flatMap(playedOf);
}

function degreesIn(read: NotatedPhrase, section: Section, song: Transcription): readonly Degree[] {
  const there = songAt(song, section);
  const key = readKey(keyTextAt(section.startSeconds, song)) ?? OPEN_KEY;
  return degreesOf(read, { tuning: tuningOf(there), capo: there.capo, key });
}

function sayPlace(place: PageLine | undefined): string {
  return place ? `, page ${place.page}, line ${place.line}` : '';
}

/** A line of words, or several where it is long. */
function wordsOf(
  look: WordsLook,
  says: string | NonNullable<HandoutBlock['says']>,
  more: Partial<HandoutBlock> = {},
): readonly HandoutBlock[] {
  if (typeof says !== 'string') return [{ look, height: HEIGHTS[look], says, ...more }];
  return wrapped(says, CHARACTERS[look]).map((line) => ({ look, height: HEIGHTS[look], says: () => line, ...more }));
}

function headOf(song: Transcription): readonly HandoutBlock[] {
  const facts = [
    `tuning ${song.tuning}`,
    song.capo === 0 ? 'no capo' : `capo ${song.capo}`,
    song.key === '' ? 'key open' : song.key,
    song.tempoKnown ? `${song.tempo} bpm` : 'tempo not said',
    song.meter,
  ].join(' · ');
  return [
    ...wordsOf('title', song.title),
    ...wordsOf('facts', `${song.whose === '' ? '' : `${song.whose} · `}for ${song.student.name}`),
    ...wordsOf('facts', facts),
    ...wordsOf('note', FIDELITY_SAYS[song.student.schools.fidelity]),
  ];
}

function sectionHead(section: Section, form: SongForm): readonly HandoutBlock[] {
  const { label, role, startSeconds, startKnown, times, open, passes } = section;
  const bars = form.sections.value.find(({ id }) => id === section.id)?.bars ?? section.bars;
  const often = times > 1 || open ? `${open ? 'about ' : ''}${times} times` : '';
  const facts = [startKnown ? clockText(startSeconds) : '', bars === 1 ? 'one bar' : `${bars} bars`, often]
    .filter(Boolean)
    .join(' · ');
  return [
    ...wordsOf('section', [`${label} ${role}`, facts].filter(Boolean).join(' · '), { keepsWithNext: true }),
    ...(passes.length > 0 ? wordsOf('note', passes.map(sayPass).join('; '), { keepsWithNext: true }) : []),
  ];
}

function phraseBlocks(
  phrase: Phrase,
  around: {
    readonly bars: readonly ScoreBar[];
    readonly sentences: readonly string[];
    readonly section: Section;
    readonly song: Transcription;
    readonly options: HandoutOptions;
    readonly width: number;
  },
): readonly HandoutBlock[] {
  const { bars, sentences, section, song, options, width } = around;
  const there = songAt(song, section);
  const tuning = tuningOf(there);
  const sureness = phrase.certainty === 'heard' ? '' : ` (${phrase.certainty})`;
  const head = wordsOf('phrase', `${phrase.name}${sureness}`, { keepsWithNext: true });
  if (bars.length === 0) return [...head, ...wordsOf('note', 'Nothing is written yet.')];
  const key = readKey(keyTextAt(section.startSeconds, song)) ?? OPEN_KEY;
  const staff = options.staff ? { tuning, capo: there.capo, key } : undefined;
  const systems = laySystems({ bars, width: Math.floor(width / MUSIC_SCALE), strings: tuning.openMidis.length, staff });
  return [
    ...head,
    ...systems.map((system, index): HandoutBlock => ({
      ...{ look: 'music', height: system.height * MUSIC_SCALE, system, isLine: true },
      ...(index === 0 && { phraseId: phrase.id, ...(!options.sentences && { sentences }) }),
    })),
    ...(options.sentences ? sentences.flatMap((line, at) => wordsOf('note', `${at + 1}. ${line}`)) : []),
  ];
}

const RIGHTS =
  'Made for a private lesson. The song belongs to those who made it; ask the rights holder, and follow local law, before it goes any further.';

function footOf(bars: readonly ScoreBar[], { goals }: HandoutOptions): readonly HandoutBlock[] {
  const legend = legendOf(bars).map(([sign, meaning]) => `${sign}  ${meaning}`);
  return [
    ...(legend.length > 0 ? wordsOf('section', 'Signs', { keepsWithNext: true }) : []),
    ...legend.flatMap((line) => wordsOf('legend', line)),
    ...(goals.length > 0 ? wordsOf('section', 'To practise', { keepsWithNext: true, startsPage: true }) : []),
    ...goals.flatMap((line) => wordsOf('note', line)),
    ...wordsOf('rights', RIGHTS),
  ];
}
