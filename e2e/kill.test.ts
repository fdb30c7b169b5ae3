import { chmod, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals';
import { inTheMiddleOfMaking, killDatabase, killFirstStart } from './killing.ts';
import { stopAll } from './starting.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'jam-ledger-kill-'));
  await chmod(folder, 0o755);
});
afterAll(() => rm(folder, { recursive: true, force: true }));
afterEach(stopAll);

describe('killed', () => {
  test('inside the making of its database, the next start opens the studio, and nothing is left behind', async () => {
    const data = join(folder, 'making');
    expect(await killFirstStart(data, () => inTheMiddleOfMaking(data))).toBeUndefined();
  });

  test('its database comes back by itself, and not one result that was acknowledged is lost', async () => {
    const { statuses, acknowledged, lost, said } = await killDatabase(join(folder, 'studio'), {
      kills: 2,
      everyMs: 700,
    });
    expect(said).toMatch(/PostgreSQL ended by itself \(SIGKILL\) and was started again\./);
    expect(acknowledged).toBeGreaterThan(0);
    expect(lost).toBe(0);
    // Posted, or told to come back; never that something broke.
    expect(
      Object.keys(statuses)
        .map(Number)
        .filter((status) => ![201, 503].includes(status)),
    ).toEqual([]);
  });
});
