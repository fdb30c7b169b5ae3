/** Everything the server is told from outside. */
export interface Config {
  readonly databaseUrl: string;
  /** A copy of it that may lag, for what may be old; undefined for none. */
  readonly replicaUrl: string | undefined;
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
  /** Folder of the backups; undefined for none. */
  readonly backupFolder: string | undefined;
  /** How often a backup is made by itself, hours; 0 for never. */
  readonly backupEveryHours: number;
  /** How many backups are kept. */
  readonly backupKeep: number;
  /** Folder into which messages are written as files for a mail system; undefined for none. */
  readonly mailFolder: string | undefined;
  /** Where people reach the studio, without a slash at its end; undefined where nobody said. */
  readonly publicUrl: string | undefined;
  /** Port on loopback where metrics are told; undefined for nowhere. */
  readonly metricsPort: number | undefined;
}

/**
 * Reads the configuration from environment variables: DATABASE_URL, REPLICA_URL, HOST, PORT, WEB_FOLDER, SECURE_COOKIE,
 * TRUSTED_PROXIES, BEGIN_KEY, BACKUP_FOLDER, BACKUP_EVERY_HOURS, BACKUP_KEEP, MAIL_FOLDER, PUBLIC_URL, LOG_LEVEL, LOG_FOLDER, METRICS_PORT.
 *
 * @throws Error in plain words when DATABASE_URL is missing or a number is none, or the key is too short.
 */
export function readConfig(env: Readonly<Record<string, string | undefined>>): Config {
  const databaseUrl = env['DATABASE_URL'];
  if (!databaseUrl) throw new Error('DATABASE_URL is not set; it names the database to use.');
  return {
    databaseUrl,
    replicaUrl: env['REPLICA_URL'] === '' ? undefined : env['REPLICA_URL'],
    host: env['HOST'] ?? '127.0.0.1',
    port: readPort('PORT', env['PORT'] ?? '4180'),
    webFolder: env['WEB_FOLDER'],
    secureCookie: env['SECURE_COOKIE'] === 'yes',
    trustedProxies: readCount('TRUSTED_PROXIES', env['TRUSTED_PROXIES'] ?? '0', {
      what: 'proxies',
      min: 0,
      max: MAX_PROXIES,
    }),
    backupFolder: env['BACKUP_FOLDER'] === '' ? undefined : env['BACKUP_FOLDER'],
    backupEveryHours: readCount('BACKUP_EVERY_HOURS', env['BACKUP_EVERY_HOURS'] ?? '24', {
      what: 'hours',
      min: 0,
      max: MAX_HOURS,
    }),
    backupKeep: readCount('BACKUP_KEEP', env['BACKUP_KEEP'] ?? '14', { what: 'backups', min: 2, max: MAX_KEPT }),
    mailFolder: env['MAIL_FOLDER'] === '' ? undefined : env['MAIL_FOLDER'],
    publicUrl: readUrl(env['PUBLIC_URL']),
    beginKey: readKey(env['BEGIN_KEY']),
    logLevel: env['LOG_LEVEL'] ?? 'info',
    logFolder: env['LOG_FOLDER'],
    metricsPort: env['METRICS_PORT'] === undefined ? undefined : readPort('METRICS_PORT', env['METRICS_PORT']),
  };
}

/** Proxies in a row, at most. Our choice. */
const MAX_PROXIES = 8;
/** Hours between two backups, at most, and most backups that are kept. Our choice. */
const MAX_HOURS = 24 * 31;
const MAX_KEPT = 1000;

function readCount(
  name: string,
  text: string,
  { what, min, max }: { readonly what: string; readonly min: number; readonly max: number },
): number {
  const count = Number(text);
  if (text.trim() === '' || !Number.isInteger(count) || count < min || count > max)
    throw new Error(`${name} is not a number of ${what} from ${min} to ${max}: ${text}`);
  return count;
}

function readUrl(text: string | undefined): string | undefined {
  if (text === undefined || text === '') return undefined;
  const url = URL.canParse(text) ? new URL(text) : undefined;
  if (!url || !/^https?:$/.test(url.protocol) || url.pathname !== '/' || url.search !== '')
    throw new Error(`PUBLIC_URL is not an address such as https://studio.example: ${text}`);
  return url.origin;
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
