import type { AddressInfo } from 'node:net';
import { makeApp } from './app.ts';
import { readConfig } from './config.ts';
import { enterDemoStudio } from './demo/index.ts';
import { migrate } from './store/index.ts';
import { gatherMissingFacts, computeAll, showBeginning } from './studio/index.ts';

/** How long open requests may finish after being told to stop, milliseconds. Our choice. */
const GOODBYE_MS = 3000;

const config = readConfig(process.env);
await migrate(config.databaseUrl).catch((error: unknown) => {
  const why = error instanceof Error ? error.message : String(error);
  process.stderr.write(`The database that DATABASE_URL names cannot be used: ${why}\n`);
  process.exit(1);
});
const app = await makeApp(config);
const demo = process.env['DEMO'] === 'no' ? undefined : await enterDemoStudio(app.store, new Date());
if (demo) app.log.info({ studio: demo }, 'entered the demo studio');
const server = app.express.listen(config.port, config.host, (error?: Error) => {
  if (error) {
    const taken = 'code' in error && error.code === 'EADDRINUSE';
    const why = taken ? `Port ${config.port} is already taken; choose another with --port.` : error.message;
    process.stderr.write(`${why}\n`);
    process.exit(1);
  }
  // The port is told to whoever started this, since 0 asks for any free one.
  const address: AddressInfo | string | null = server.address();
  const port = typeof address === 'object' && address ? address.port : config.port;
  app.log.info({ port }, 'listening');
  void tellParent(port);
  void gatherBehind();
});

/** Whoever started this is told where it is, and what is in the book. */
async function tellParent(port: number): Promise<void> {
  process.send?.({ port, ...(await showBeginning(app.store, config.beginKey)) });
}

/** What an upgrade left to be gathered is gathered while people already work; what fails is tried again at the next start. */
async function gatherBehind(): Promise<void> {
  try {
    const phrases = await gatherMissingFacts(app.store);
    const students = await computeAll(app.store);
    if (phrases + students > 0) app.log.info({ phrases, students }, 'gathered what was missing');
  } catch (error) {
    app.log.error({ err: error }, 'what is missing could not be gathered');
  }
}

let stopping = false;
function stop(): void {
  if (stopping) return;
  stopping = true;
  setTimeout(() => process.exit(0), GOODBYE_MS).unref();
  server.close(() => void app.close().then(() => process.exit(0)));
  server.closeIdleConnections();
}
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
process.on('disconnect', stop);
