import type { RequestBody, RequestState, SongRequest } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/index.ts';
import { useNotices } from './notices.ts';

/** Moves that can be taken back, and where to. */
const BACK: Partial<Record<RequestState, RequestState>> = { declined: 'asked', withdrawn: 'asked' };

/** The requests one may see. */
export const useRequests = defineStore('requests', () => {
  const requests = ref<readonly SongRequest[] | null>(null);
  const notices = useNotices();

  async function load(): Promise<void> {
    requests.value = await api.requests();
  }

  async function askFor(body: RequestBody): Promise<void> {
    await api.askForSong(body);
    await load();
  }

  async function move(request: SongRequest, state: RequestState): Promise<SongRequest> {
    const moved = await api.moveRequest(request.id, { version: request.version, state });
    await load();
    const back = BACK[state];
    if (back) notices.say(`“${moved.title}” is ${state}.`, async () => void (await move(moved, back)));
    return moved;
  }

  return { requests, load, askFor, move };
});
