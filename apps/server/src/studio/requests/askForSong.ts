import type { RequestBody, SongRequest } from '@jam-ledger/contract';
import { addRow, findOwn } from '../../store/index.ts';
import { orNotFound, requireStudent } from '../context/rows.ts';
import { showRequest } from './listRequests.ts';
import { noteMove } from './moveRequest.ts';
import { Forbidden, Invalid } from '../context/errors.ts';
import { teaches, type RequestContext } from '../context/context.ts';

/**
 * A student asks for a song, or for more of one already asked for: that is a request of its own, part two, with
 * its own scope. A teacher writes down what a student asked for. @throws Forbidden where the request that is followed is somebody
 * else’s, or a student asks for another; NotFound when there is no such student, or request to follow; Invalid where a teacher
 * names no student.
 */
export async function askForSong(
  context: RequestContext,
  { studentId: named, ...body }: RequestBody,
): Promise<SongRequest> {
  const { store, studio, now } = context;
  const studentId = await whoAsks(context, named);
  const followsId = body.followsId && (await firstPart(context, studentId, body.followsId));
  const values = { ...body, followsId, studioId: studio.id, studentId, askedAt: now };
  const row = await addRow(store.requests, values);
  await noteMove(context, row.id, 'asked', '');
  return showRequest(context, row.id);
}

/** Whose request it is. */
async function whoAsks(context: RequestContext, named: string | undefined): Promise<string> {
  const { person } = context;
  if (!teaches(context)) {
    if (named !== undefined && named !== person.id) throw new Forbidden('You ask for yourself.');
    return person.id;
  }
  if (named === undefined) throw new Invalid([{ field: 'studentId', message: 'Say who asked for it.' }]);
  await requireStudent(context, named);
  return named;
}

/** The request with which the song began; a part three follows it, too. */
async function firstPart({ store, studio }: RequestContext, studentId: string, id: string): Promise<string> {
  const request = orNotFound(await findOwn(store.requests, { studioId: studio.id, id }));
  if (request.studentId !== studentId) throw new Forbidden('This belongs to somebody else.');
  return request.followsId ?? request.id;
}
