import type { Role, Route } from '@jam-ledger/contract';
import { describe, expect, test } from '@jest/globals';
import { requireRole } from '../src/studio/context/permission.ts';
import type { RequestContext } from '../src/studio/context/context.ts';

/** What somebody is told who asks a route that is for others; nothing where they may. */
function told(role: Role, who: Route['who'], method: Route['method'] = 'GET'): string | undefined {
  const context = { person: { role } } as unknown as RequestContext;
  const route = { who, method } as unknown as Route;
  try {
    requireRole(context, route);
    return undefined;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}

const TEACHERS: readonly Role[] = ['owner', 'teacher'];
const PLAYERS: readonly Role[] = ['owner', 'teacher', 'student'];

describe('who may ask', () => {
  test.each(['owner', 'teacher', 'student', 'guardian'] as const)('%s may ask what anybody may', (role) =>
    expect(told(role, 'anybody', 'POST')).toBeUndefined(),
  );
  test.each([
    ['owner', TEACHERS, 'PUT', undefined],
    ['teacher', TEACHERS, 'PUT', undefined],
    ['student', TEACHERS, 'PUT', 'Only a teacher of the studio can do this.'],
    ['student', TEACHERS, 'GET', 'Only a teacher of the studio can do this.'],
    ['guardian', TEACHERS, 'GET', 'Only a teacher of the studio can do this.'],
    ['guardian', PLAYERS, 'GET', 'Only a teacher of the studio can do this.'],
    ['guardian', PLAYERS, 'POST', 'Guardians read these pages; they change nothing.'],
    ['guardian', TEACHERS, 'PUT', 'Guardians read these pages; they change nothing.'],
    ['guardian', ['owner'], 'DELETE', 'Guardians read these pages; they change nothing.'],
    ['teacher', ['student'], 'POST', 'Only a student can do this, signed in as themselves.'],
    ['teacher', ['owner'], 'PUT', 'Only the owner of the studio can do this.'],
    ['student', ['owner'], 'PUT', 'Only the owner of the studio can do this.'],
    ['student', PLAYERS, 'POST', undefined],
  ] as const)('a %s asking what is for %j by %s', (role, who, method, says) =>
    expect(told(role, who, method)).toBe(says),
  );
});
