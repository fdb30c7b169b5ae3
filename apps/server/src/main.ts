import type { AddressInfo } from 'node:net';
import { keepingOf, makeApp } from './app.ts';
import { readConfig } from './config.ts';
import { enterDemoStudio } from './demo/index.ts';
import { migrate } from './store/index.ts';
import {
  backupBeforeMigrating,
  BookTrouble,
  gatherMissingFacts,
  computeAll,
  keepBook,
  showBeginning,
  writeMail,
} from './studio/index.ts';

/** How long open requests may finish after being told to stop, milliseconds. Our choice. */
const GOODBYE_MS = 3000;

/** So often messages are written for a mail system, milliseconds. Our choice. */
const MAIL_MS = 5000;
/** So often it is looked whether a backup or an erasure is due, milliseconds. Our choice. */
const KEEP_MS = 15 * 60 * 1000;
/** So long a connection on which nobody asks is kept open, milliseconds: longer than a proxy does. Source: common practice. */
const KEEP_OPEN_MS = 65_000;

const config = readConfig(process.env);
const safe = await backupBeforeMigrating(keepingOf(config), new Date()).catch((error: unknown) => {
  // A database that is not there is told below.
  if (!(error instanceof BookTrouble)) return undefined;
  process.stderr.write(
    `The book is older than this version, and no backup of it could be made before: ${error.message}\n`,
  );
  process.exit(1);
});
await migrate(config.databaseUrl).catch((error: unknown) => {
  const why = error instanceof Error ? error.message : String(error);
  process.stderr.write(`The database that DATABASE_URL names cannot be used: ${why}\n`);
  process.exit(1);
});
const app = await makeApp(config);
if (safe !== undefined) app.log.info({ backup: safe }, 'made a backup before the migration');
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
  void keepSafe();
  setInterval(() => void sendMail(), MAIL_MS).unref();
  setInterval(() => void keepSafe(), KEEP_MS).unref();
});

// Whoever stands before this keeps its connections for a minute; one that ended here first would lose the request sent on it just then.
server.keepAliveTimeout = KEEP_OPEN_MS;
server.headersTimeout = KEEP_OPEN_MS + 5_000;

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

/** Backs up and erases what is due; what fails is told, and tried again. */
async function keepSafe(): Promise<void> {
  try {
    const { erased, isBackedUp } = await keepBook(app.store, keepingOf(config), new Date());
    if (erased > 0 || isBackedUp) app.log.info({ erased, isBackedUp }, 'kept the book safe');
  } catch (error) {
    app.log.error({ err: error }, 'the book could not be kept safe; it is tried again');
  }
}

/** Writes messages for a mail system, where there is a folder for it; what fails is told, and tried again. */
async function sendMail(): Promise<void> {
  if (config.mailFolder === undefined) return;
  try {
    const messages = await writeMail(app.store, config.mailFolder, new Date());
    if (messages > 0) app.log.info({ messages }, 'wrote messages for the mail system');
  } catch (error) {
    app.log.warn({ err: error }, 'messages could not be written; it is tried again');
  }
}

let stopping = false;
function stop(): void {
  if (stopping) return;
  stopping = true;
  setTimeout(() => process.exit(0), GOODBYE_MS).unref();
  server.close(() => void app.close().then(() => process.exit(0)));
  // Those that are answered meanwhile would be kept open for the next request.
  server.closeIdleConnections();
  setInterval(() => server.closeIdleConnections(), 100).unref();
}
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
process.on('disconnect', stop);
