import { tortureRequests } from './tortureRequests.ts';

const seed = Number(process.env['SEED'] ?? Date.now() % 1_000_000);
process.stdout.write(`Hostile requests, SEED=${seed}\n`);
const broke = await tortureRequests(seed);
for (const line of broke.slice(0, 20)) process.stdout.write(`  broke: ${line}\n`);
process.exitCode = broke.length === 0 ? 0 : 1;
