import { chmod, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals';
import { inTheMiddleOfMaking, killDatabase, killFirstStart, postmasterOf } from './killing.ts';
import { addressOf, processesWith, start, stopAll } from './starting.ts';

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

  test('again and again within a minute, its database is given up, and all of it ends with a sentence', async () => {
    const data = join(folder, 'given-up');
    const run = start(['--port', '0', '--data', data]);
    await addressOf(run);
    const restarts = () => run.said().split('was started again.').length - 1;
    for (let kill = 0; kill <= 5; kill += 1) {
      const before = restarts();
      process.kill(await postmasterOf(data), 'SIGKILL');
      while (kill < 5 && restarts() === before) await pause(50);
    }
    expect(await run.ended).toBe(1);
    expect(run.said()).toMatch(
      /the 6th time within a minute\.\nWithout its database nothing can be kept, so Jam Ledger closes\./,
    );
    expect(await processesWith(data)).toEqual([]);
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
