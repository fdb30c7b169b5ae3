import { strToU8 } from 'fflate';
import {
  decode,
  readCsv,
  readMidiFile,
  readMusicXml,
  readMxl,
  readShorthandFile,
  readTextTab,
  sectionsOf,
  writeMidiFile,
  writeMusicXml,
  writeMxl,
  writeShorthandFile,
  writeTextTab,
  type Brought,
} from '../../src/formats/index.ts';
import { readClosedDays } from '../../src/series/index.ts';
import { GUITAR, songOf } from './songs.ts';

/** A song of ours, and its file. */
export const SONG = songOf([
  '/16 :Dm 10D 7G h10 p7 | /8 13Bb1r 10e 10B~ _',
  '[ 7GB 5GB {1-2: 0D2G} {last: 0D2G3Bl _} ]3',
]);
export const XML = writeMusicXml(SONG);
export const bytes = (text: string) => strToU8(text);

/** Reads bytes as one of the formats, and makes phrases of what came. */
export const READERS: Readonly<
  Record<string, { readonly file: Uint8Array; readonly read: (file: Uint8Array) => unknown }>
> = {
  MusicXML: { file: bytes(XML), read: (file) => phrasesOf(readMusicXml(decode(file))) },
  'compressed MusicXML': { file: writeMxl(XML), read: (file) => phrasesOf(readMxl(file)) },
  // The way of the hand over each is left to `npm run torture`.
  MIDI: { file: writeMidiFile(SONG), read: readMidiFile },
  'text tab': { file: bytes(writeTextTab(SONG)), read: (file) => phrasesOf(readTextTab(decode(file))) },
  shorthand: {
    file: bytes(
      writeShorthandFile({
        ...{ title: 'A', credit: '', tuning: 'standard', capo: 0, key: '', bpm: 96, meter: { beats: 4, unit: 4 } },
        sections: [{ label: 'A', role: 'riff', bars: 4, times: 1, phrases: [{ name: 'One', text: '7G 9G | 5G' }] }],
      }),
    ),
    read: (file) => readShorthandFile(decode(file)),
  },
  CSV: { file: bytes('name;frets\r\n"Pia; Solberg";22\r\n'), read: (file) => readCsv(decode(file)) },
  calendar: {
    file: bytes(
      'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20260501\r\nRRULE:FREQ=YEARLY\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n',
    ),
    read: (file) => readClosedDays(decode(file), { from: '2026-03-14', years: 2 }),
  },
};

/** All phrases of a file, with the way of the hand. */
export function phrasesOf(brought: Brought): unknown {
  return brought.parts.map((part) => sectionsOf(part, { guitar: GUITAR, cut: 'rests', meter: { beats: 4, unit: 4 } }));
}
