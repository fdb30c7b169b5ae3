import { spawn } from 'node:child_process';
import { startThrowAwayCluster } from './cluster.ts';

/** Runs a command with CLUSTER_URL set to a throw-away cluster, and ends with its exit code. */
const [command = '', ...words] = process.argv.slice(2);
const cluster = await startThrowAwayCluster();
const child = spawn(command, words, { stdio: 'inherit', env: { ...process.env, CLUSTER_URL: cluster.databaseUrl } });
process.on('SIGINT', () => child.kill('SIGINT'));
process.on('SIGTERM', () => child.kill('SIGTERM'));
const code = await new Promise<number>((done) => child.once('exit', (exit) => done(exit ?? 1)));
await cluster.stop();
process.exit(code);
