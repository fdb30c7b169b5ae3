import {
  decode,
  isShorthandFile,
  isTextTab,
  lossesOf,
  playSong,
  readMidiFile,
  readMusicXml,
  readMxl,
  readShorthandFile,
  readTextTab,
  sectionsOf,
  writeMidiFile,
  writeMusicXml,
  writeMxl,
  writeTextTab,
  writeWav,
  type BringOptions,
  type Brought,
  type BroughtPart,
  type BroughtSong,
  type FileProblem,
  type ShorthandSong,
  type SongToWrite,
  type TabWidth,
} from '@jam-ledger/core/formats';
import type { PlayedNote } from '@jam-ledger/core/notation';
import { backingOf, renderClick, startRendering } from '@jam-ledger/core/sound';
import { expose, transfer } from 'comlink';

/** Formats that a worker writes. */
export type WrittenFormat = 'musicxml' | 'mxl' | 'midi' | 'text';

/** What a sound file is made of. */
export interface SoundFile {
  /** Shares of the tempo, one after the other: 0.6, then 1. */
  readonly speeds: readonly number[];
  readonly click: boolean;
  readonly backing: boolean;
}

/** What came in: parts to choose from, or a song in our own notation. */
export type ReadFile =
  | { readonly kind: 'parts'; readonly brought: Brought }
  | { readonly kind: 'shorthand'; readonly song: ShorthandSong; readonly problems: readonly FileProblem[] };

const SAMPLE_RATE = 44_100;
/** Loudness of click and backing beside the strings. Our choice. */
const LEVELS = { click: 0.5, backing: 0.45 } as const;
/** Silence between two tempos, seconds. Our choice. */
const PAUSE_SECONDS = 1;
/** How long the last note dies away, seconds. */
const TAIL_SECONDS = 1.5;

/** Writes and reads files beside the page. */
const files = {
  write(format: WrittenFormat, song: SongToWrite, width: TabWidth): Uint8Array<ArrayBuffer> {
    const bytes = bytesOf(format, song, width);
    return transfer(bytes, [bytes.buffer]);
  },
  lossesOf,
  /** Renders a song, a second at a time; `tell` hears how much of it is done, 0 to 1. */
  async sound(
    song: SongToWrite,
    made: SoundFile,
    tell: (share: number) => Promise<void>,
  ): Promise<Uint8Array<ArrayBuffer>> {
    const takes = made.speeds.map((speed) => playSong(song, { speed }));
    const total = takes.reduce((sum, { seconds }) => sum + seconds + TAIL_SECONDS, 0);
    const pieces: Float32Array[] = [];
    let done = 0;
    for (const [index, played] of takes.entries()) {
      const seconds = played.seconds + TAIL_SECONDS;
      // Each layer has strings of its own.
      const notes = played.notes.map((note): PlayedNote => ({
        ...note,
        string: note.string + 10 * played.layers.indexOf(note.layer),
      }));
      const strings = startRendering(notes, { sampleRate: SAMPLE_RATE });
      const backing = made.backing
        ? startRendering(backingOf({ ...played, events: [], countIn: { beats: 4, beatSeconds: 1 } }), {
            sampleRate: SAMPLE_RATE,
            seed: 2,
          })
        : undefined;
      const frames = Math.ceil(seconds * SAMPLE_RATE);
      for (let at = 0; at < frames; at += SAMPLE_RATE) {
        const count = Math.min(SAMPLE_RATE, frames - at);
        const piece = strings.next(count);
        if (backing) mix(piece, backing.next(count), LEVELS.backing);
        if (made.click)
          mix(piece, renderClick(played.clicks, { sampleRate: SAMPLE_RATE, from: at, frames: count }), LEVELS.click);
        pieces.push(piece);
        done += count / SAMPLE_RATE;
        await tell(Math.min(1, done / total));
      }
      if (index < takes.length - 1) pieces.push(new Float32Array(PAUSE_SECONDS * SAMPLE_RATE));
    }
    const bytes = writeWav(pieces, SAMPLE_RATE);
    return transfer(bytes, [bytes.buffer]);
  },
  read: (name: string, bytes: Uint8Array): ReadFile => readFile(name, bytes),
  sections: (part: BroughtPart, options: BringOptions): BroughtSong => sectionsOf(part, options),
};

function mix(into: Float32Array, other: Float32Array, level: number): void {
  for (let n = 0; n < into.length; n += 1) into[n] = (into[n] ?? 0) + (other[n] ?? 0) * level;
}

function bytesOf(format: WrittenFormat, song: SongToWrite, width: TabWidth): Uint8Array<ArrayBuffer> {
  switch (format) {
    case 'midi':
      return Uint8Array.from(writeMidiFile(song));
    case 'mxl':
      return writeMxl(writeMusicXml(song));
    case 'musicxml':
      return new TextEncoder().encode(writeMusicXml(song));
    case 'text':
      return new TextEncoder().encode(writeTextTab(song, width));
  }
}

/** Reads a file by what stands in it; its name says nothing. */
function readFile(name: string, bytes: Uint8Array): ReadFile {
  const [a, b, c, d] = bytes;
  const begins = (...codes: readonly number[]) => codes.every((code, index) => [a, b, c, d][index] === code);
  if (begins(0x4d, 0x54, 0x68, 0x64)) return { kind: 'parts', brought: readMidiFile(bytes) };
  if (begins(0x50, 0x4b)) return { kind: 'parts', brought: readMxl(bytes) };
  const text = decode(bytes);
  if (isShorthandFile(text)) return { kind: 'shorthand', ...readShorthandFile(text) };
  if (text.trimStart().startsWith('<')) return { kind: 'parts', brought: readMusicXml(text) };
  if (isTextTab(text)) return { kind: 'parts', brought: readTextTab(text) };
  const problem = {
    place: '',
    message: `“${name}” is no MusicXML, MIDI, text tab or shorthand file that can be read.`,
  };
  return { kind: 'parts', brought: { title: '', credit: '', parts: [], problems: [problem] } };
}

/** What the page can ask of this worker. */
export type Files = typeof files;

expose(files);
