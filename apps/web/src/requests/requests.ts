import { REQUEST_MOVES, type RequestBody, type RequestMove, type SongRequest } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/index.ts';
import { useNotices, useSession } from '../session/index.ts';

/** The requests one may see. */
export const useRequests = defineStore('requests', () => {
  const requests = ref<readonly SongRequest[] | null>(null);
  const notices = useNotices();
  const session = useSession();

  async function load(): Promise<void> {
    requests.value = await api.requests();
  }

  async function askFor(body: RequestBody): Promise<void> {
    await api.askForSong({ body });
    await load();
  }

  /** Brings a request into a state, and offers the way back. */
  async function move(request: SongRequest, to: Omit<RequestMove, 'version'>): Promise<SongRequest> {
    const moved = await api.moveRequest({ id: request.id, body: { ...to, version: request.version } });
    await load();
    const back = { state: request.state, reason: '', scope: null };
    const ways = REQUEST_MOVES[session.isTeacher ? 'teacher' : 'student'][to.state] ?? [];
    // A way back to “agreed” would ask for the scope again, and one to “declined” for the reason.
    const simple = ways.includes(request.state) && !['agreed', 'declined'].includes(request.state);
    const undo = simple ? async () => void (await move(moved, back)) : undefined;
    notices.say(`“${moved.title}” is ${to.state}.`, undo);
    return moved;
  }

  /** Promises a request for a day; null takes the promise back. */
  async function promise(request: SongRequest, day: string | null): Promise<SongRequest> {
    const kept = await api.promise({ id: request.id, body: { version: request.version, promisedFor: day } });
    await load();
    return kept;
  }

  /** The earliest day for a request as it is typed; null where there is none. */
  async function earliest(parts: number, blended: boolean): Promise<string | null> {
    return (await api.earliest({ query: { parts, blended } })).day;
  }

  return { requests, load, askFor, move, promise, earliest, students: () => api.students() };
});
