import { demoSignIns } from '../apps/server/src/demo/index.ts';
import { askHostile, idsOf } from '../apps/server/test/hostile.ts';
import { openDemoStudio } from '../apps/server/test/studio.ts';

/** Rounds over every route, for each of these people. */
const ROUNDS = 100;
const PEOPLE = ['odile', 'mara', 'ines', 'signe'];

/** Asks every route for what nobody sound would, some 25,000 times, from a seed that is told. Gives what broke. */
export async function tortureRequests(seed: number): Promise<readonly string[]> {
  const server = await openDemoStudio();
  const broke: string[] = [];
  let count = 0;
  // Hostile requests use up how often wrong passwords may be tried, so everybody signs in first.
  const signIns = PEOPLE.map(async (name) => {
    const password = demoSignIns.find(({ signInName }) => signInName === name)?.password;
    return [name, await server.signIn(name, password)] as const;
  });
  for (const [name, browser] of await Promise.all(signIns)) {
    const { asked, broken, statuses } = await askHostile(browser, {
      seed: seed + count,
      rounds: ROUNDS,
      ids: await idsOf(server.app.store),
    });
    count += asked;
    broke.push(...broken.map(({ route, url, sent, status }) => `${status} ${route} ${url} ${sent}`));
    const tally = [...statuses].sort(([a], [b]) => a - b).map(([status, times]) => `${status}: ${times}`);
    process.stdout.write(`  ${name}: ${asked} asked, ${tally.join(', ')}\n`);
  }
  await server.close();
  return broke;
}
