import type { ShorthandSong, SongFormat, SongToWrite } from '@jam-ledger/core/formats';

/** Something that can be taken along: a song, a section, a phrase, a piece. */
export interface Takeable {
  /** What it is, as a choice shows it: “the whole song”, “section 1A”. */
  readonly label: string;
  /** What its file is called. */
  readonly name: string;
  readonly song: () => SongToWrite;
  readonly shorthand: () => ShorthandSong;
}

/** A format as it is offered: what it is good for, the ending and type of its file. */
export interface FormatRecord {
  readonly label: string;
  readonly says: string;
  readonly ending: string;
  readonly type: string;
}

/** The formats that are offered, in their order; PDF is made on the page of the handout. */
export const FORMATS: Readonly<Record<Exclude<SongFormat, 'pdf'>, FormatRecord>> = {
  musicxml: {
    label: 'MusicXML',
    says: 'for notation programs; strings, frets and bends come along',
    ending: 'musicxml',
    type: 'application/vnd.recordare.musicxml+xml',
  },
  mxl: {
    label: 'MusicXML, compressed',
    says: 'the same in a tenth of the size',
    ending: 'mxl',
    type: 'application/vnd.recordare.musicxml',
  },
  midi: { label: 'MIDI', says: 'pitches and times, for sequencers', ending: 'mid', type: 'audio/midi' },
  text: { label: 'Text tab', says: 'for a message or a text editor', ending: 'txt', type: 'text/plain;charset=utf-8' },
  wav: { label: 'Sound (WAV)', says: 'to play along with, anywhere', ending: 'wav', type: 'audio/wav' },
  shorthand: {
    label: 'Shorthand',
    says: 'exactly as it was typed; it can be brought in again',
    ending: 'shorthand.txt',
    type: 'text/plain;charset=utf-8',
  },
};
