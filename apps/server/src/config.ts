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
  /** Port on loopback where metrics are told; undefined for nowhere. */
  readonly metricsPort: number | undefined;
}

/**
 * Reads the configuration from environment variables: DATABASE_URL, HOST, PORT, WEB_FOLDER, SECURE_COOKIE,
 * LOG_LEVEL, LOG_FOLDER, METRICS_PORT.
 *
 * @throws Error in plain words when DATABASE_URL is missing or a port is not a port.
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
    logLevel: env['LOG_LEVEL'] ?? 'info',
    logFolder: env['LOG_FOLDER'],
    metricsPort: env['METRICS_PORT'] === undefined ? undefined : readPort('METRICS_PORT', env['METRICS_PORT']),
  };
}

function readPort(name: string, text: string): number {
  const port = Number(text);
  if (!Number.isInteger(port) || port < 0 || port > 65535) throw new Error(`${name} is not a port number: ${text}`);
  return port;
}
