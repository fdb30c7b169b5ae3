import { findRows, type PersonModel, type Store } from '../../store/index.ts';
import type { RequestContext } from '../context/context.ts';
import { NotFound } from '../context/errors.ts';
import { contextOf } from '../people/signIn.ts';

/**
 * What a command of whoever runs the machine works with, about one student by their name or id: it sees what an owner sees.
 * @throws NotFound where there is no such student, or it is not clear which
 */
export async function machineContext(
  store: Store,
  named: string,
  now: Date,
): Promise<{ readonly context: RequestContext; readonly student: PersonModel }> {
  const students = await findRows(store.people, { role: 'student' });
  const fitting = students.filter(({ id, name }) => id === named || name === named);
  const [student, other] = fitting;
  if (!student) throw new NotFound(`No student is called “${named}”.`);
  if (other)
    throw new NotFound(
      `There are several called ${named}: ${fitting.map(({ id }) => id).join(', ')}; say which by its id.`,
    );
  const [owner] = await findRows(store.people, { studioId: student.studioId, role: 'owner', archivedAt: null });
  const context = owner && (await contextOf(store, { personId: owner.id, now }));
  if (!context) throw new NotFound('The studio has no owner.');
  return { context, student };
}
