import type { RequestBody, SongRequest } from '@jam-ledger/contract';
import { findOwn } from '../store/index.ts';
import { found } from './keep.ts';
import { showRequest } from './listRequests.ts';
import { noteMove } from './moveRequest.ts';
import { NotYours } from './trouble.ts';
import { requireOwn, type Visit } from './visit.ts';

/**
 * A student asks for a song, or for more of one already asked for: that is a request of its own, part two, with
 * its own scope. @throws NotYours for anybody else; Unknown when there is no such request to follow.
 */
export async function askForSong(visit: Visit, body: RequestBody): Promise<SongRequest> {
  const { store, person, studio, now } = visit;
  if (person.role !== 'student') throw new NotYours('A request is made by a student, signed in as themselves.');
  const followsId = body.followsId && (await firstPart(visit, body.followsId));
  const values = { ...body, followsId, studioId: studio.id, studentId: person.id, askedAt: now };
  const row = await store.requests.create(values);
  await noteMove(visit, row.id, 'asked', '');
  return showRequest(visit, row.id);
}

/** The request with which the song began; a part three follows it, too. */
async function firstPart(visit: Visit, id: string): Promise<string> {
  const { store, studio } = visit;
  const request = found(await findOwn(store.requests, { studioId: studio.id, id }));
  requireOwn(visit, request.studentId);
  return request.followsId ?? request.id;
}
