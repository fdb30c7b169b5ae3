/**
 * What the database says of trouble, told apart without its classes. Codes: PostgreSQL 15, appendix A; those of the network are
 * Node’s.
 */
const AWAY: ReadonlySet<string> = new Set([
  // connection_exception and its kin, too_many_connections, admin_shutdown, crash_shutdown, cannot_connect_now
  ...['08000', '08001', '08003', '08004', '08006', '53300', '57P01', '57P02', '57P03'],
  ...['ECONNREFUSED', 'ECONNRESET', 'ECONNABORTED', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND', 'EHOSTUNREACH'],
]);
const DEADLOCK: ReadonlySet<string> = new Set(['40P01', '40001']);
/** Trouble that carries no code: said by the driver when a connection ends under it, and by the pool when none becomes free. */
const AWAY_SAYS =
  /^(Connection terminated|Client has encountered a connection error|timeout exceeded when trying to connect)/;
const AWAY_NAMES = /^Sequelize(Connection|HostNot|AccessDenied|InvalidConnection)/;

/** Whether the database cannot be asked just now, so that the same may go well in a moment. */
export function isAway(error: unknown): boolean {
  return chainOf(error).some(
    (one) => AWAY.has(codeOf(one)) || AWAY_SAYS.test(one.message) || AWAY_NAMES.test(one.name),
  );
}

/** Whether two transactions waited for each other and this one was taken back. */
export function isDeadlock(error: unknown): boolean {
  return chainOf(error).some((one) => DEADLOCK.has(codeOf(one)));
}

/** What may be written down of an error of the database: nothing that a person typed is in it. */
export interface DatabaseTrouble {
  readonly code: string;
  readonly constraint: string | undefined;
  readonly table: string | undefined;
}

/** An error of the database without what was asked of it; undefined for any other. */
export function databaseTrouble(error: unknown): DatabaseTrouble | undefined {
  const found = chainOf(error).find((one) => /^[0-9A-Z]{5}$/.test(codeOf(one)));
  if (!found) return undefined;
  const word = (name: string): string | undefined => {
    const value: unknown = Reflect.get(found, name);
    return typeof value === 'string' ? value : undefined;
  };
  return { code: codeOf(found), constraint: word('constraint'), table: word('table') };
}

/** An error and those it was made from. */
function chainOf(error: unknown): readonly Error[] {
  const chain: Error[] = [];
  for (let one = error; one instanceof Error && !chain.includes(one);) {
    chain.push(one);
    one = Reflect.get(one, 'original') ?? one.cause;
  }
  return chain;
}

function codeOf(error: Error): string {
  const code: unknown = Reflect.get(error, 'code');
  return typeof code === 'string' ? code : '';
}
