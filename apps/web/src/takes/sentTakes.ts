import { ROUTES, SOUND_LIMITS, type SentTake } from '@jam-ledger/contract';
import { proposeEntry } from '@jam-ledger/core/listen';
import type { CleanRule } from '@jam-ledger/core/pieces';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import {
  api,
  factsOf,
  fileAddress,
  keptTakes,
  oneAfterAnother,
  Refused,
  sendParts,
  Unreachable,
  type KeptTake,
} from '../api/index.ts';
import { megabytes } from '../sound/index.ts';

/** The takes of a piece that the studio has: sent, heard, answered, deleted. */
export const useSentTakes = defineStore('sentTakes', () => {
  const pieceId = ref<string>();
  const sent = shallowRef<readonly SentTake[]>([]);

  /** The takes of a piece; those that are known stay where the studio cannot be reached. */
  async function load(id: string): Promise<void> {
    if (pieceId.value !== id) [pieceId.value, sent.value] = [id, []];
    const found = await api.takes({ id }).catch((error: unknown) => {
      if (error instanceof Unreachable) return undefined;
      throw error;
    });
    if (found && pieceId.value === id) sent.value = found;
  }

  /** Where a take is heard from. */
  const addressOf = ({ id }: SentTake): string => fileAddress(ROUTES.sound, { id });

  async function answer({ id, version }: SentTake, words: string): Promise<void> {
    const answered = await api.answerTake({ id, body: { version, answer: words } });
    sent.value = sent.value.map((one) => (one.id === id ? answered : one));
  }

  async function remove({ id }: SentTake): Promise<void> {
    await api.deleteTake({ id });
    sent.value = sent.value.filter((one) => one.id !== id);
  }

  /**
   * Sends a take, and what of it was cut off before; while the studio cannot be reached it waits.
   *
   * @returns the take as it is kept now: sent, or waiting
   * @throws Error in a sentence where it cannot be sent at all
   */
  const send = oneAfterAnother(async (take: KeptTake, seconds: number, rule: CleanRule): Promise<KeptTake> => {
    if (!take.judged) return take;
    if (take.file.size > SOUND_LIMITS.take.bytes)
      throw new Error(`This take is too large to be sent: ${megabytes(SOUND_LIMITS.take.bytes)} at most.`);
    const { outcome, bpm, why } = proposeEntry(take.judged, rule);
    const facts = await factsOf(take.file, `take.${extensionOf(take.file.type)}`, seconds);
    const came = (outcome === 'clean' ? 'clean' : why.join(' ')).slice(0, SOUND_LIMITS.came);
    const said = { playedAt: take.at, bpm: Math.max(1, bpm), isClean: outcome === 'clean', came };
    try {
      const begun = await api.sendTake({ id: take.pieceId, body: { ...facts, ...said, id: take.id } });
      await sendParts(begun, take.file);
      if (pieceId.value === take.pieceId) await load(take.pieceId);
      return await kept({ ...take, sending: 'sent' });
    } catch (error) {
      if (error instanceof Unreachable) return kept({ ...take, sending: 'waits' });
      if (error instanceof Refused) throw new Error(error.problems[0]?.message ?? error.message, { cause: error });
      throw error;
    }
  });

  return { sent, load, addressOf, answer, remove, send };
});

async function kept(take: KeptTake): Promise<KeptTake> {
  await keptTakes.put(take).catch(() => undefined);
  return take;
}

function extensionOf(type: string): string {
  return /^audio\/([a-z0-9]+)/.exec(type)?.[1] ?? 'webm';
}
