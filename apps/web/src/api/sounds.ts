import { partsOf, ROUTES, SOUND_LIMITS, type SoundFacts, type StudioSound } from '@jam-ledger/contract';
import { sendFile } from './studio.ts';

/**
 * What is known of a file of sound, its digest too.
 *
 * @throws Error in a sentence where this browser makes no digests, since the page does not come over a safe line
 */
export async function factsOf(file: Blob, name: string, seconds: number): Promise<SoundFacts> {
  if (!isSecureContext) throw new Error('Sound is sent over https only: ask for a safe address of the studio.');
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', await file.arrayBuffer()));
  const print = [...digest].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  const type = file.type.slice(0, SOUND_LIMITS.type);
  return { name: name.trim().slice(0, SOUND_LIMITS.name) || 'sound', type, bytes: file.size, seconds, print };
}

/** How far the sending of a sound is. */
export interface Sending {
  /** Share that is there, 0 to 1. */
  readonly onProgress?: (share: number) => void;
  /** Whether somebody stopped it. */
  readonly isStopped?: () => boolean;
}

/** Sends the parts of a sound that are not there yet, one after the other; what was cut off goes on. @throws Refused, Unreachable */
export async function sendParts(
  { id, parts, isKept }: Pick<StudioSound, 'id' | 'parts' | 'isKept'>,
  file: Blob,
  { onProgress, isStopped }: Sending = {},
): Promise<void> {
  const count = partsOf(file.size);
  // Parts are sent in order, so those that are there are the first.
  for (let part = isKept ? count : parts; part < count; part += 1) {
    if (isStopped?.()) return;
    const data = file.slice(part * SOUND_LIMITS.part, (part + 1) * SOUND_LIMITS.part);
    const { sendPart } = ROUTES;
    await sendFile({ ...sendPart, path: `/sounds/${id}?part=${part}` }, data);
    onProgress?.((part + 1) / count);
  }
}
