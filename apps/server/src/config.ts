/** Everything the server is told from outside. */
export interface Config {
  readonly databaseUrl: string;
  readonly host: string;
  readonly port: number;
  /** Folder of the built web application; undefined to serve the interface for programs only. */
  readonly webFolder: string | undefined;
  /** Whether the session cookie is sent over https only. */
  readonly secureCookie: boolean;
  readonly logLevel: string;
  /** Folder of the log files; undefined for standard output. */
  readonly logFolder: string | undefined;
  /** How many proxies stand before it, whose word on the client’s address and on TLS is taken; 0 for none. */
  readonly trustedProxies: number;
  /** The key that whoever begins a studio of their own must know; undefined where none can be begun. */
  readonly beginKey: string | undefined;
  /** Port on loopback where metrics are told; undefined for nowhere. */
  readonly metricsPort: number | undefined;
}

/**
 * Reads the configuration from environment variables: DATABASE_URL, HOST, PORT, WEB_FOLDER, SECURE_COOKIE,
 * TRUSTED_PROXIES, BEGIN_KEY, LOG_LEVEL, LOG_FOLDER, METRICS_PORT.
 *
 * @throws Error in plain words when DATABASE_URL is missing or a number is none, or the key is too short.
 */
export function readConfig(env: Readonly<Record<string, string | undefined>>): Config {
  const databaseUrl = env['DATABASE_URL'];
  if (!databaseUrl) throw new Error('DATABASE_URL is not set; it names the database to use.');
  return {
    databaseUrl,
    host: env['HOST'] ?? '127.0.0.1',
    port: readPort('PORT', env['PORT'] ?? '4180'),
    webFolder: env['WEB_FOLDER'],
    secureCookie: env['SECURE_COOKIE'] === 'yes',
    trustedProxies: readCount('TRUSTED_PROXIES', env['TRUSTED_PROXIES'] ?? '0'),
    beginKey: readKey(env['BEGIN_KEY']),
    logLevel: env['LOG_LEVEL'] ?? 'info',
    logFolder: env['LOG_FOLDER'],
    metricsPort: env['METRICS_PORT'] === undefined ? undefined : readPort('METRICS_PORT', env['METRICS_PORT']),
  };
}

/** Proxies in a row, at most. Our choice. */
const MAX_PROXIES = 8;

function readCount(name: string, text: string): number {
  const count = Number(text);
  if (!Number.isInteger(count) || count < 0 || count > MAX_PROXIES)
    throw new Error(`${name} is not a number of proxies from 0 to ${MAX_PROXIES}: ${text}`);
  return count;
}

/** Shortest key that is taken, characters; it opens the whole book. */
const MIN_KEY = 16;

function readKey(key: string | undefined): string | undefined {
  if (key === undefined || key === '') return undefined;
  if (key.length < MIN_KEY) throw new Error(`BEGIN_KEY is too short; it needs ${MIN_KEY} characters or more.`);
  return key;
}

function readPort(name: string, text: string): number {
  const port = Number(text);
  if (!Number.isInteger(port) || port < 0 || port > 65535) throw new Error(`${name} is not a port number: ${text}`);
  return port;
}
