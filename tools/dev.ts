import { spawn, type ChildProcess } from 'node:child_process';
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { freePort, startCluster } from './cluster.ts';
import { defaultFolder } from './dataFolder.ts';

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '..');
/** Where the pages are served while they are worked on. */
const PORT = 4190;

const cluster = await startCluster({ folder: `${defaultFolder(ROOT)}-dev`, durable: true, onEnd: () => undefined });
const apiPort = await freePort();
const children: readonly ChildProcess[] = [
  run(['--watch', '--import', 'tsx', '--conditions=studio-src', 'apps/server/src/main.ts'], {
    DATABASE_URL: cluster.databaseUrl,
    PORT: String(apiPort),
  }),
  run(['node_modules/vite/bin/vite.js', 'apps/web', '--port', String(PORT), '--strictPort'], {
    API_URL: `http://127.0.0.1:${apiPort}`,
  }),
];

function run(words: readonly string[], env: Readonly<Record<string, string>>): ChildProcess {
  return spawn(process.execPath, [...words], { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...env } });
}

async function stop(): Promise<void> {
  for (const child of children) child.kill('SIGTERM');
  await cluster.stop();
  process.exit(0);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());
process.stdout.write(
  `The pages are at http://127.0.0.1:${PORT}; they reload, and the server restarts, as sources are saved.\n`,
);
