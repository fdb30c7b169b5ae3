import type { Entry, Ledger, Outcome, Piece } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { api } from '../api/index.ts';
import { useNotices } from './notices.ts';

/** The ledger of one student, and posting to it. */
export const useLedger = defineStore('ledger', () => {
  const ledger = ref<Ledger | null>(null);
  const notices = useNotices();

  async function load(studentId?: string): Promise<void> {
    if (ledger.value && studentId !== undefined && ledger.value.student.id !== studentId) ledger.value = null;
    ledger.value = await api.ledger(studentId);
  }

  function keep(piece: Piece): void {
    if (!ledger.value) return;
    const pieces = ledger.value.pieces.map((one) => (one.id === piece.id ? piece : one));
    ledger.value = { ...ledger.value, pieces };
  }

  /** Posts one result; the entry can be struck out again from the notice. */
  async function post(piece: Piece, bpm: number, outcome: Outcome, remark = ''): Promise<Piece> {
    const id = crypto.randomUUID();
    const posted = await api.postEntry(piece.id, { id, bpm, outcome, remark });
    keep(posted);
    const entry = posted.entries.find((one) => one.id === id);
    const words = `${bpm}, ${outcome === 'clean' ? 'clean' : 'not yet'} is posted in ${entry?.medium ?? 'pencil'}.`;
    notices.say(words, entry && (async () => void (await strike(entry, true))));
    return posted;
  }

  async function strike(entry: Entry, struck: boolean): Promise<void> {
    keep(await api.strikeEntry(entry, struck));
    if (!struck) return;
    const back = { id: entry.id, version: entry.version + 1 };
    notices.say('The entry is struck out.', async () => keep(await api.strikeEntry(back, false)));
  }

  const pieces = computed(() => ledger.value?.pieces ?? []);
  return { ledger, pieces, load, post, strike };
});
