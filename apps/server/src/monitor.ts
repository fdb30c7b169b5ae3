import { createServer, type Server } from 'node:http';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import type { Logger } from 'pino';
import type { RequestHandler } from 'express';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';

/** Nothing may keep the others waiting longer than this, milliseconds; longer is written into the log. Our choice. */
export const MAX_STRETCH_MS = 50;
/** The event loop is looked at so often, milliseconds; what is measured is late by up to this. */
const RESOLUTION_MS = 10;
/** So often the longest wait is written down where it was too long, milliseconds. Our choice. */
const REPORT_MS = 10_000;

/** Watches how long the server keeps its callers waiting. */
export interface Monitor {
  /** The longest the event loop stood still since this was last asked, milliseconds. */
  longestStretchMs(): number;
  /** Counts each request with how long it took, by route and status. */
  readonly watchRequests: RequestHandler;
  close(): Promise<void>;
}

/**
 * Begins to watch the event loop. With a port, metrics are told there in the text format of OpenMetrics, on loopback alone, so
 * that they are never part of what the world can reach.
 */
export async function startMonitor(log: Logger, port?: number): Promise<Monitor> {
  const asked = watchStretches();
  const reported = watchStretches();
  const reporting = setInterval(() => {
    const milliseconds = Math.round(reported.longestMs());
    if (milliseconds > MAX_STRETCH_MS) log.warn({ milliseconds }, 'the event loop stood still');
  }, REPORT_MS);
  reporting.unref();
  const registry = new Registry();
  const seconds = new Histogram({
    name: 'jam_ledger_requests_seconds',
    help: 'How long requests took, by route and status',
    labelNames: ['method', 'route', 'status'],
    buckets: [0.005, 0.02, 0.05, 0.1, 0.25, 1, 5],
    registers: [registry],
  });
  const server = port === undefined ? undefined : await serveMetrics(port, registry);
  return {
    longestStretchMs: asked.longestMs,
    watchRequests(request, response, next) {
      const end = seconds.startTimer();
      response.once('finish', () => {
        // The pattern of the path, never what stands in it: that may be a secret, and there is no end of them.
        const route: unknown = request.route;
        const path: unknown = typeof route === 'object' && route !== null ? Reflect.get(route, 'path') : undefined;
        end({ method: request.method, route: typeof path === 'string' ? path : 'none', status: response.statusCode });
      });
      next();
    },
    async close() {
      clearInterval(reporting);
      asked.stop();
      reported.stop();
      if (server) await new Promise((done) => server.close(done));
    },
  };
}

/** The longest stretch since it was last asked for; whoever asks watches alone, since asking begins anew. */
function watchStretches(): { readonly longestMs: () => number; readonly stop: () => void } {
  const delay = monitorEventLoopDelay({ resolution: RESOLUTION_MS });
  delay.enable();
  return {
    longestMs() {
      const longest = Math.max(0, delay.max / 1e6 - RESOLUTION_MS);
      delay.reset();
      return longest;
    },
    stop: () => void delay.disable(),
  };
}

async function serveMetrics(port: number, registry: Registry): Promise<Server> {
  collectDefaultMetrics({ register: registry });
  const told = watchStretches();
  new Gauge({
    name: 'jam_ledger_event_loop_longest_stretch_seconds',
    help: 'The longest the event loop stood still since it was last asked',
    registers: [registry],
    collect() {
      this.set(told.longestMs() / 1000);
    },
  });
  const server = createServer((request, response) => {
    if (request.url !== '/metrics') response.writeHead(404).end();
    else
      void registry
        .metrics()
        .then((text) => response.writeHead(200, { 'Content-Type': registry.contentType }).end(text));
  });
  await new Promise<void>((done, fail) => {
    server.once('error', fail);
    server.listen(port, '127.0.0.1', done);
  });
  server.unref();
  return server;
}
