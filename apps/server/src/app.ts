import type { ServerResponse } from 'node:http';
import { join } from 'node:path';
import compression from 'compression';
import express, { Router, type Express } from 'express';
import expressStaticGzip from 'express-static-gzip';
import session from 'express-session';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Config } from './config.ts';
import * as http from './http/index.ts';
import { makeLog, REQUEST_SERIALIZERS } from './log.ts';
import { startMonitor, type Monitor } from './monitor.ts';
import { dropOldSounds, openStore, sessionSecret, sessionStore, sweepSessions, type Store } from './store/index.ts';
import { NotFound, type BookKeeping } from './studio/index.ts';

/** Largest body taken. Phrases are text; two megabytes is a book of them. Our choice. */
const LARGEST_BODY = '2mb';

/** A person stays signed in this long after their last request, milliseconds. Our choice. */
const SESSION_MS = 14 * 24 * 60 * 60 * 1000;

/** The application and what must be closed with it. */
export interface App {
  readonly express: Express;
  readonly store: Store;
  readonly log: Logger;
  readonly monitor: Monitor;
  close(): Promise<void>;
}

/** Puts the server together over a migrated database. `now` is the clock; tests pass their own. */
export async function makeApp(config: Config, now: () => Date = () => new Date()): Promise<App> {
  const log = await makeLog(config);
  const monitor = await startMonitor(log, config.metricsPort);
  const { beginKey, secureCookie, databaseUrl } = config;
  const book = keepingOf(config);
  const store = openStore(databaseUrl);
  const replica = config.replicaUrl === undefined ? undefined : openStore(config.replicaUrl);
  const around = { store, replica, now, beginKey, book, secureCookie };
  const sessions = sessionStore(config.databaseUrl, session);
  const app = express();
  app.disable('x-powered-by');
  // What the studio answers lies in no cache, so that nobody asks whether it is still the same.
  app.disable('etag');
  // Behind a proxy the client’s address and whether the line is encrypted are what the proxy says.
  if (config.trustedProxies > 0) app.set('trust proxy', config.trustedProxies);
  const autoLogging = { ignore: ({ url = '' }: { url?: string }) => !url.startsWith('/api') };
  app.use(pinoHttp({ logger: log, autoLogging, serializers: REQUEST_SERIALIZERS }));
  app.use(headers(config));
  app.use('/api', monitor.watchRequests);
  // Whoever watches the server has no session.
  app.use(
    '/api',
    http.routerOf(around, (name) => name === 'health'),
  );
  app.use('/api', http.inTurns(), compression(), http.keptNowhere, http.sameOriginOnly);
  app.use(
    '/api',
    session({
      name: http.SESSION_COOKIE,
      secret: await sessionSecret(store),
      store: sessions.store,
      resave: false,
      rolling: true,
      saveUninitialized: false,
      cookie: { httpOnly: true, sameSite: 'strict', secure: config.secureCookie, maxAge: SESSION_MS },
    }),
  );
  app.use('/api', express.json({ limit: LARGEST_BODY }), http.knowCaller(around, sessions), api(around));
  if (config.webFolder) serveWeb(app, config.webFolder);
  app.use(http.refuse);
  await sweepSessions(store);
  await dropOldSounds(store, now());
  const sweeping = setInterval(
    () => {
      sweepSessions(store).catch((error: unknown) => log.warn({ err: error }, 'old sessions stay for now'));
      dropOldSounds(store, now()).catch((error: unknown) => log.warn({ err: error }, 'old takes stay for now'));
    },
    60 * 60 * 1000,
  );
  sweeping.unref();
  return {
    express: app,
    store,
    log,
    monitor,
    async close() {
      clearInterval(sweeping);
      await monitor.close();
      await sessions.close();
      await store.close();
      await replica?.close();
    },
  };
}

/** How a server keeps its book safe. */
export function keepingOf(config: Config): BookKeeping {
  const { databaseUrl, backupFolder, backupEveryHours, backupKeep, mailFolder, publicUrl } = config;
  return { databaseUrl, backupFolder, everyHours: backupEveryHours, keep: backupKeep, mailFolder, publicUrl };
}

function headers({ secureCookie }: Config) {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        fontSrc: ["'self'"],
        imgSrc: ["'self'", 'data:'],
        connectSrc: ["'self'"],
        // What was recorded is played from the memory of the page.
        mediaSrc: ["'self'", 'blob:'],
        workerSrc: ["'self'"],
        manifestSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: secureCookie,
  });
}

function api(around: Parameters<typeof http.routerOf>[0]): Router {
  const router = Router();
  router.use(http.routerOf(around, (name) => name !== 'health'));
  router.use(http.openApiPage());
  router.use(() => {
    throw new NotFound('There is nothing at this address.');
  });
  return router;
}

/** What browsers follow of a page or a worker, never of a script or style that a page takes in: half a kilobyte, as much as many of those. */
const OF_PAGES = [
  ...['Content-Security-Policy', 'Cross-Origin-Opener-Policy', 'Origin-Agent-Cluster', 'X-DNS-Prefetch-Control'],
  ...['X-Download-Options', 'X-Frame-Options', 'X-Permitted-Cross-Domain-Policies', 'X-XSS-Protection'],
] as const;

/** A worker follows the policy of the file it is begun from: the one that runs compiled code has its own, the others that of the pages. */
function assetHeaders(response: ServerResponse, path: string): void {
  const [, name = '', worker] = /([\w.]+?)(\.worker)?-[\w-]+\.(?:js|css)(?:\.br|\.gz)?$/.exec(path) ?? [];
  if (name === 'stretch' && worker)
    response.setHeader('Content-Security-Policy', "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'");
  else if (name && !worker) for (const header of OF_PAGES) response.removeHeader(header);
}

/** Files of the pages, each as small as the browser takes it. */
function serveWeb(app: Express, folder: string): void {
  const smaller = { enableBrotli: true, orderPreference: ['br', 'gz'], index: false };
  const assets = { immutable: true, maxAge: '1y', fallthrough: false, setHeaders: assetHeaders };
  app.use('/assets', expressStaticGzip(join(folder, 'assets'), { ...smaller, serveStatic: assets }));
  const pages = expressStaticGzip(folder, smaller);
  app.use(pages);
  // Every other address is a page of the application.
  app.get('/{*path}', (request, response, next) => {
    request.url = '/index.html';
    pages(request, response, next);
  });
}
