import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { pathOf, ROUTE_NAMES, ROUTES, type Route } from '../src/index.ts';
import { ROUTE_SCHEMAS } from '../src/schemas.ts';
import { PERMISSIONS_PAGE, permissionsPage } from '../../../tools/permissions.ts';

describe('the table of routes', () => {
  test('has no two routes at one address', () => {
    const addresses = ROUTE_NAMES.map((name) => `${ROUTES[name].method} ${ROUTES[name].path.replace(/:\w+/g, ':')}`);
    expect(new Set(addresses).size).toBe(addresses.length);
  });

  test('is what the page of permissions says', async () => {
    expect(readFileSync(PERMISSIONS_PAGE, 'utf8')).toBe(await permissionsPage());
  });

  test.each(ROUTE_NAMES)('%s has schemas for what it sends', (name) => {
    const { body, query }: Route = ROUTES[name];
    expect(Object.keys(ROUTE_SCHEMAS[name]).sort()).toEqual(
      ['answer', ...(body ? ['body'] : []), ...(query ? ['query'] : [])].sort(),
    );
  });

  test('guardians change nothing but their own names, password and sessions, what they have seen and the address of their own calendar', () => {
    const changing = ROUTE_NAMES.filter((name) => {
      const { method, who }: Route = ROUTES[name];
      return method !== 'GET' && who !== 'anybody' && who.includes('guardian');
    });
    expect(changing).toEqual([
      'signOutEverywhere',
      'changeNames',
      'changePassword',
      'openCalendarFeed',
      'closeCalendarFeed',
      'seeList',
    ]);
  });

  test('a row that is one student’s is named by its id', () => {
    for (const name of ROUTE_NAMES) {
      const { of, path }: Route = ROUTES[name];
      if (['request', 'piece', 'series', 'entry', 'pin'].includes(of))
        expect([name, path]).toEqual([name, expect.stringContaining(':id')]);
    }
  });
});

describe('what stands in a path', () => {
  test('is written so that it stays one part of it', () => {
    expect(pathOf(ROUTES.piece, { id: 'a/../b?c' })).toBe('/pieces/a%2F..%2Fb%3Fc');
    expect(pathOf(ROUTES.keepLessonNote, { id: '1', day: '2026-03-14' })).toBe('/lessons/of/1/2026-03-14');
  });
});
