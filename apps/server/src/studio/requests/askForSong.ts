import type { RequestBody, SongRequest } from '@jam-ledger/contract';
import { addRow, findOwn } from '../../store/index.ts';
import { orNotFound } from '../context/rows.ts';
import { showRequest } from './listRequests.ts';
import { noteMove } from './moveRequest.ts';
import { Forbidden } from '../context/errors.ts';
import { type RequestContext } from '../context/context.ts';

/**
 * A student asks for a song, or for more of one already asked for: that is a request of its own, part two, with
 * its own scope. @throws Forbidden for anybody else; NotFound when there is no such request to follow.
 */
export async function askForSong(context: RequestContext, body: RequestBody): Promise<SongRequest> {
  const { store, person, studio, now } = context;
  const followsId = body.followsId && (await firstPart(context, body.followsId));
  const values = { ...body, followsId, studioId: studio.id, studentId: person.id, askedAt: now };
  const row = await addRow(store.requests, values);
  await noteMove(context, row.id, 'asked', '');
  return showRequest(context, row.id);
}

/** The request with which the song began; a part three follows it, too. */
async function firstPart({ store, studio, person }: RequestContext, id: string): Promise<string> {
  const request = orNotFound(await findOwn(store.requests, { studioId: studio.id, id }));
  if (request.studentId !== person.id) throw new Forbidden('This belongs to somebody else.');
  return request.followsId ?? request.id;
}
