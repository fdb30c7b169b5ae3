import { strToU8 } from 'fflate';

/** Bytes of the header before the samples. Source: RIFF/WAVE, chunks “RIFF”, “fmt ” and “data”. */
const HEADER = 44;
const BYTES_PER_SAMPLE = 2;
const LOUDEST = 32_767;

/**
 * Samples, −1 to 1, as a WAV file of 16 bits; of several channels, one sample of each in turn. What is louder is cut off. Source: Multimedia Programming Interface and Data
 * Specifications 1.0 (RIFF WAVE): chunks are padded to an even length.
 */
export function writeWav(pieces: readonly Float32Array[], sampleRate: number, channels = 1): Uint8Array<ArrayBuffer> {
  const samples = pieces.reduce((sum, { length }) => sum + length, 0);
  const size = samples * BYTES_PER_SAMPLE;
  const bytes = new Uint8Array(HEADER + size + (size % 2));
  const view = new DataView(bytes.buffer);
  const text = (at: number, word: string) => bytes.set(strToU8(word), at);
  text(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, sampleRate, true);
  view.setUint32(28, sampleRate * BYTES_PER_SAMPLE * channels, true);
  view.setUint16(32, BYTES_PER_SAMPLE * channels, true);
  view.setUint16(34, 8 * BYTES_PER_SAMPLE, true);
  text(36, 'data');
  view.setUint32(40, size, true);
  let at = HEADER;
  for (const piece of pieces)
    for (const sample of piece) {
      view.setInt16(at, Math.round(Math.max(-1, Math.min(1, sample)) * LOUDEST), true);
      at += BYTES_PER_SAMPLE;
    }
  return bytes;
}
