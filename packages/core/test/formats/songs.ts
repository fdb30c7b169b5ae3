import { sectionsOf, type Brought, type Cut, type SongToWrite } from '../../src/formats/index.ts';
import type { Guitar } from '../../src/fretboard/index.ts';
import { demoSongs } from '../../../../apps/server/src/demo/songs.ts';
import { playOut, type Meter, type Phrase, type PlayedEvent, type Setup } from '../../src/notation/index.ts';
import { readPlaced } from '../../src/placing/index.ts';
import { TUNINGS } from '../../src/pitch/index.ts';

/** A guitar as most are. */
export const GUITAR: Guitar = { tuning: TUNINGS.standard, capo: 0, frets: 24, scaleLengthMm: 648, reachMm: 110 };
const COMMON = { beats: 4, unit: 4 } as const;

/** A song of one section, with phrases by their text or as read. */
export function songOf(
  phrases: readonly (string | Phrase)[],
  given: Partial<SongToWrite> & {
    readonly times?: number;
    readonly bars?: number;
    readonly meter?: Meter;
  } = {},
): SongToWrite {
  const guitar: Setup = given.guitar ?? GUITAR;
  const { times = 1, bars, meter = COMMON, ...rest } = given;
  const read = (text: string) => readPlaced(text, { ...guitar, meter }).phrase;
  return {
    ...{ title: 'A made-up song', credit: '', guitar, key: undefined, feel: 'straight', offsetCents: 0 },
    tempoChanges: [{ fromSeconds: 0, bpm: 96, meter }],
    sections: [
      {
        ...{
          id: 'a',
          label: 'A',
          role: 'riff',
          bars: bars ?? 1,
          barsKnown: bars !== undefined,
          times,
          startSeconds: 0,
          passes: [],
          guitar,
        },
        phrases: phrases.map((phrase, index) => ({
          name: `Phrase ${index + 1}`,
          layer: 'lead',
          phrase: typeof phrase === 'string' ? read(phrase) : phrase,
        })),
      },
    ],
    ...rest,
  };
}

/** Every text of the demo studio with its meter. */
export function demoTexts(): readonly { readonly text: string; readonly meter: Meter }[] {
  return demoSongs.flatMap(({ setUp, sections }) => {
    const [beats = 4, unit = 4] = setUp.meter.split('/').map(Number);
    return sections.flatMap(({ phrases }) => phrases.map(({ text }) => ({ text, meter: { beats, unit } })));
  });
}

/** The texts that come of the first part of a file. */
export function textsOf(
  { parts }: Brought,
  cut: Cut = 'sections',
  guitar = GUITAR,
  meter: Meter = COMMON,
): readonly string[] {
  const [part] = parts;
  if (!part) return [];
  return sectionsOf(part, { guitar, cut, meter }).sections.flatMap(({ phrases, times }) =>
    // A section that is one repeat says so itself.
    phrases.map(({ text }) => (times > 1 ? `[ ${text} ]${times}` : text)),
  );
}

/** Reads a text as the song it stands in does. */
export function readOf(text: string, guitar: Setup & { readonly meter?: Meter } = GUITAR): Phrase {
  return readPlaced(text, guitar).phrase;
}

/** What is heard of a phrase, as a format says it. A link over a rest, which nothing sounding is linked by, is none. */
export function comesOf(phrase: Phrase, said: (event: PlayedEvent) => unknown): readonly unknown[] {
  const events = playOut(phrase, GUITAR);
  return events.flatMap((event, index) => {
    const isAfterRest = events[index - 1]?.notes.length === 0;
    const notes = event.notes.map(({ link, ...note }) => ({ ...note, ...(link && !isAfterRest && { link }) }));
    return event.notes.some(({ guess }) => !guess) ? [said({ ...event, notes })] : [];
  });
}
