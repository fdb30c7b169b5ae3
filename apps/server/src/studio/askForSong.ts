import type { RequestBody, SongRequest } from '@jam-ledger/contract';
import { within } from '../store/index.ts';
import { showRequest } from './listRequests.ts';
import { NotYours } from './trouble.ts';
import type { Visit } from './visit.ts';

/** A student asks for a song. @throws NotYours for anybody else. */
export async function askForSong(visit: Visit, body: RequestBody): Promise<SongRequest> {
  const { store, person, studio, now } = visit;
  if (person.role !== 'student') throw new NotYours('A request is made by a student, signed in as themselves.');
  const row = await store.requests.create(
    { ...body, studioId: studio.id, studentId: person.id, askedAt: now },
    within(store),
  );
  return showRequest(visit, row.id);
}
