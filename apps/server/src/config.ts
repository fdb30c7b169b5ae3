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
}

/**
 * Reads the configuration from environment variables: DATABASE_URL, HOST, PORT, WEB_FOLDER, SECURE_COOKIE,
 * LOG_LEVEL.
 *
 * @throws Error in plain words when DATABASE_URL is missing or PORT is not a port.
 */
export function readConfig(env: Readonly<Record<string, string | undefined>>): Config {
  const databaseUrl = env['DATABASE_URL'];
  if (!databaseUrl) throw new Error('DATABASE_URL is not set; it names the database to use.');
  const port = Number(env['PORT'] ?? 4180);
  if (!Number.isInteger(port) || port < 0 || port > 65535) throw new Error(`PORT is not a port number: ${env['PORT']}`);
  return {
    databaseUrl,
    host: env['HOST'] ?? '127.0.0.1',
    port,
    webFolder: env['WEB_FOLDER'],
    secureCookie: env['SECURE_COOKIE'] === 'yes',
    logLevel: env['LOG_LEVEL'] ?? 'info',
  };
}
