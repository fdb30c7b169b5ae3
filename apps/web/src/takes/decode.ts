import type { Audio } from '@jam-ledger/core/listen';

/** Longest take, seconds. Our choice: nobody plays one piece longer. */
export const MAX_TAKE_SECONDS = 600;
/** Largest file of a take, bytes. Our choice. */
const MAX_TAKE_BYTES = 150_000_000;

/** Why a recording cannot be taken, in a sentence. */
export class NotTaken extends Error {}

/**
 * The sound of a file as one channel, by the browser.
 *
 * @throws NotTaken for what is empty, too large, too long, or no sound that this browser reads
 */
export async function decode(file: Blob): Promise<Audio> {
  if (file.size === 0) throw new NotTaken('Nothing was recorded.');
  if (file.size > MAX_TAKE_BYTES) throw new NotTaken('This file is too large for a take.');
  const seconds = await lengthOf(file);
  if (seconds !== undefined && seconds > MAX_TAKE_SECONDS)
    throw new NotTaken(
      `This file lasts ${Math.round(seconds / 60)} minutes; a take has at most ${MAX_TAKE_SECONDS / 60}.`,
    );
  const context = new AudioContext();
  try {
    const buffer = await context.decodeAudioData(await file.arrayBuffer());
    if (buffer.duration > MAX_TAKE_SECONDS) throw new NotTaken(`A take has at most ${MAX_TAKE_SECONDS / 60} minutes.`);
    return { samples: mixed(buffer), sampleRate: buffer.sampleRate };
  } catch (error) {
    if (error instanceof NotTaken) throw error;
    throw new NotTaken('This file cannot be read as sound. WAV, FLAC, OGG, MP3 and M4A can.');
  } finally {
    await context.close();
  }
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

/** So long a file may take to say how long it is, milliseconds. */
const METADATA_MS = 4000;

function mixed(buffer: AudioBuffer): Float32Array {
  const channels = Array.from({ length: buffer.numberOfChannels }, (_, channel) => buffer.getChannelData(channel));
  const [first] = channels;
  if (!first || channels.length === 1) return first ?? new Float32Array(0);
  return first.map((_, n) => channels.reduce((sum, channel) => sum + (channel[n] ?? 0), 0) / channels.length);
}
