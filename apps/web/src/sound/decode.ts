import { sharedContext } from './context.ts';

/** Why sound cannot be taken, in a sentence. */
export class NotTaken extends Error {}

/** What a file may be. */
export interface SoundLimits {
  /** What it is to be, for the sentences: `a take`. */
  readonly what: string;
  readonly seconds: number;
  readonly bytes: number;
}

/** So long a file may take to say how long it is, milliseconds. */
const METADATA_MS = 4000;

/**
 * The sound of a file, read by the browser.
 *
 * @throws NotTaken for what is empty, too large, too long, or no sound that this browser reads
 */
export async function decodeFile(file: Blob, { what, seconds, bytes }: SoundLimits): Promise<AudioBuffer> {
  const minutes = seconds / 60;
  if (file.size === 0) throw new NotTaken('This file is empty.');
  if (file.size > bytes) throw new NotTaken(`This file is too large for ${what}: ${megabytes(bytes)} at most.`);
  const said = await lengthOf(file);
  if (said !== undefined && said > seconds)
    throw new NotTaken(`This file lasts ${Math.round(said / 60)} minutes; ${what} has at most ${minutes}.`);
  let buffer: AudioBuffer;
  try {
    buffer = await sharedContext().decodeAudioData(await file.arrayBuffer());
  } catch (error) {
    throw new NotTaken('This file cannot be read as sound. WAV, FLAC, OGG, MP3 and M4A can.', { cause: error });
  }
  if (buffer.duration > seconds) throw new NotTaken(`This file is too long: ${what} has at most ${minutes} minutes.`);
  return buffer;
}

/** Bytes as a person reads them. */
export function megabytes(bytes: number): string {
  return `${(bytes / 1_000_000).toFixed(bytes < 10_000_000 ? 1 : 0)} MB`;
}

/** How long a file says that it lasts, seconds, read before all of it is decoded; undefined where it does not say. */
async function lengthOf(file: Blob): Promise<number | undefined> {
  const address = URL.createObjectURL(file);
  const element = document.createElement('audio');
  try {
    return await new Promise<number | undefined>((resolve) => {
      element.preload = 'metadata';
      element.onloadedmetadata = () => resolve(Number.isFinite(element.duration) ? element.duration : undefined);
      element.onerror = () => resolve(undefined);
      setTimeout(() => resolve(undefined), METADATA_MS);
      element.src = address;
    });
  } finally {
    URL.revokeObjectURL(address);
  }
}

/** All channels as one. */
export function mixed(buffer: AudioBuffer): Float32Array<ArrayBuffer> {
  const channels = Array.from({ length: buffer.numberOfChannels }, (_, channel) => buffer.getChannelData(channel));
  const out = new Float32Array(buffer.length);
  for (const channel of channels)
    for (let n = 0; n < out.length; n += 1) out[n] = (out[n] ?? 0) + (channel[n] ?? 0) / channels.length;
  return out;
}
