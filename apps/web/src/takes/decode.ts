import type { Audio } from '@jam-ledger/core/listen';
import { decodeFile, mixed, NotTaken } from '../sound/index.ts';

/** Longest take, seconds. Our choice: nobody plays one piece longer. */
export const MAX_TAKE_SECONDS = 600;
/** What a take may be. The largest file is our choice. */
const TAKE = { what: 'a take', seconds: MAX_TAKE_SECONDS, bytes: 150_000_000 } as const;

/** The sound of a take as one channel. @throws NotTaken for what cannot be taken */
export async function decode(file: Blob): Promise<Audio> {
  if (file.size === 0) throw new NotTaken('Nothing was recorded.');
  const buffer = await decodeFile(file, TAKE);
  return { samples: mixed(buffer), sampleRate: buffer.sampleRate };
}
