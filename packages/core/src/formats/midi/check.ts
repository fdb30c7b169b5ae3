import type { FileProblem } from '../xml.ts';

/** Bytes behind the status of a channel message, by its upper half. Source: MIDI 1.0, “Channel Voice Messages”. */
const DATA_BYTES: Readonly<Record<number, number>> = { 0x8: 2, 0x9: 2, 0xa: 2, 0xb: 2, 0xc: 1, 0xd: 1, 0xe: 2 };

/**
 * What is wrong with the build of a file, at its byte; undefined where each event of each track ends inside of it. The package that
 * reads events runs on and on over one that does not. Linear. Source: Standard MIDI Files 1.0, “Chunks”, “MTrk events”.
 */
export function checkMidi(bytes: Uint8Array): FileProblem | undefined {
  const walk = new Walk(bytes);
  while (!walk.isAtEnd) {
    const trouble = walk.chunk();
    if (trouble !== undefined) return { place: `byte ${walk.at + 1}`, message: trouble };
  }
  return undefined;
}

const CUT_OFF = 'The file ends in the middle of something; it may have been cut off.';

class Walk {
  at = 0;
  readonly #bytes: Uint8Array;

  constructor(bytes: Uint8Array) {
    this.#bytes = bytes;
  }

  get isAtEnd(): boolean {
    return this.at >= this.#bytes.length;
  }

  chunk(): string | undefined {
    const view = new DataView(this.#bytes.buffer, this.#bytes.byteOffset, this.#bytes.byteLength);
    if (this.at + 8 > this.#bytes.length) return CUT_OFF;
    const isTrack = view.getUint32(this.at) === 0x4d54_726b;
    const length = view.getUint32(this.at + 4);
    const end = this.at + 8 + length;
    if (end > this.#bytes.length) return CUT_OFF;
    this.at += 8;
    if (isTrack) {
      let running: number | undefined;
      while (this.at < end) {
        const status = this.#event(end, running);
        if (typeof status === 'string') return status;
        running = status;
      }
    }
    this.at = end;
    return undefined;
  }

  /** Passes one event; the status that goes on running, or what is wrong. */
  #event(end: number, running: number | undefined): number | undefined | string {
    if (this.#variable(end) === undefined) return 'A time is written that no event of MIDI has.';
    const first = this.#bytes[this.at];
    if (first === undefined || this.at >= end) return CUT_OFF;
    if (first === 0xff || first === 0xf0 || first === 0xf7) {
      this.at += first === 0xff ? 2 : 1;
      const length = this.#variable(end);
      if (length === undefined || this.at + length > end) return CUT_OFF;
      this.at += length;
      return undefined;
    }
    const status = first >= 0x80 ? first : running;
    const count = status === undefined ? undefined : DATA_BYTES[status >> 4];
    if (status === undefined || count === undefined) return 'Here is no event of MIDI.';
    if (first >= 0x80) this.at += 1;
    const data = this.#bytes.subarray(this.at, this.at + count);
    if (this.at + count > end) return CUT_OFF;
    if (data.some((byte) => byte >= 0x80)) return 'An event holds a value above 127.';
    this.at += count;
    return status;
  }

  /** A number of up to four bytes, of seven bits each; undefined where it is longer or cut off. */
  #variable(end: number): number | undefined {
    let value = 0;
    for (let count = 0; count < 4 && this.at < end; count += 1) {
      const byte = this.#bytes[this.at] ?? 0;
      this.at += 1;
      value = value * 128 + (byte & 0x7f);
      if (byte < 0x80) return value;
    }
    return undefined;
  }
}
