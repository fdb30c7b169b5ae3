import { chmod, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { inTheMiddleOfMaking, killDatabase, killFirstStart } from '../e2e/killing.ts';
import { tortureFiles } from './tortureFiles.ts';
import { tortureReplica } from './tortureReplica.ts';
import { tortureSoak } from './tortureSoak.ts';
import { tortureRequests } from './tortureRequests.ts';

/** Kills of the database while results are posted, as far apart as it may be started again for ever. */
const KILLS = { kills: 23, everyMs: 13_000 } as const;
/** Damaged files of each format. */
const FILES = 10_000;
/** First starts that are killed, each a little later than the one before, milliseconds. */
const STARTS = { count: 12, stepMs: 450 } as const;

const say = (line: string) => void process.stdout.write(`${line}\n`);

/** What can be done to the studio; each tells what went wrong. */
const WAYS: Readonly<Record<string, (folder: string) => Promise<readonly string[]>>> = {
  async requests() {
    const seed = Number(process.env['SEED'] ?? Date.now() % 1_000_000);
    say(`Hostile requests, SEED=${seed}`);
    return tortureRequests(seed);
  },
  files() {
    const seed = Number(process.env['SEED'] ?? Date.now() % 1_000_000);
    say(`Damaged files, SEED=${seed}`);
    return Promise.resolve(tortureFiles(seed, FILES, say));
  },
  async database(folder) {
    say(`The database killed ${KILLS.kills} times while results are posted`);
    const { statuses, acknowledged, lost, longestMs } = await killDatabase(join(folder, 'studio'), KILLS);
    say(
      `  ${acknowledged} acknowledged, ${lost} lost, ${JSON.stringify(statuses)}; back after at most ${longestMs} ms`,
    );
    const odd = Object.keys(statuses).filter((status) => !['201', '503'].includes(status));
    return [...(lost > 0 ? [`${lost} results were lost`] : []), ...odd.map((status) => `${status} was answered`)];
  },
  replica(folder) {
    say('A copy of the database that takes its place');
    return tortureReplica(folder, say);
  },
  soak(folder) {
    say('An hour of a studio, its devices in reach and out of it');
    return tortureSoak(folder, say);
  },
  async starts(folder) {
    say(`${STARTS.count} first starts killed`);
    const wrong: string[] = [];
    for (let round = 0; round < STARTS.count; round += 1) {
      const data = join(folder, `start-${round}`);
      const moment = round === 0 ? () => inTheMiddleOfMaking(data) : () => pause(round * STARTS.stepMs);
      const trouble = await killFirstStart(data, moment);
      say(
        `  ${round === 0 ? 'inside the making of its database' : `after ${round * STARTS.stepMs} ms`}: ${trouble ?? 'opens'}`,
      );
      if (trouble !== undefined) wrong.push(trouble);
    }
    return wrong;
  },
};

const folder = await mkdtemp(join(tmpdir(), 'jam-ledger-torture-'));
await chmod(folder, 0o755);
const asked = process.argv.slice(2);
let count = 0;
for (const [name, way] of Object.entries(WAYS)) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  const wrong = await way(folder);
  for (const line of wrong.slice(0, 20)) say(`  wrong: ${line}`);
  count += wrong.length;
}
await rm(folder, { recursive: true, force: true });
say(count === 0 ? 'Nothing broke.' : `${count} things broke.`);
process.exitCode = count === 0 ? 0 : 1;
