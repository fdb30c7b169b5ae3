import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { request as askTls, type RequestOptions } from 'node:https';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { freePort, freshDatabase } from '../tools/cluster.ts';
import { closeServer, PAGES, startServer, type RunningServer } from './serving.ts';

const ROOT = resolve(import.meta.dirname, '..');
const WRITTEN = join(ROOT, 'docs/running/nginx.conf');

interface Answer {
  readonly status: number;
  readonly headers: Readonly<Record<string, string | readonly string[] | undefined>>;
  readonly text: string;
}

let folder: string;
let port: number;
let nginx: ChildProcess;
let databaseUrl: string;
const ports: number[] = [];
const servers = new Map<number, RunningServer>();

/** Starts a server as the page says. */
async function startAt(at: number): Promise<void> {
  const server = await startServer(databaseUrl, {
    ...{ PORT: String(at), TRUSTED_PROXIES: '1', SECURE_COOKIE: 'yes', LOG_LEVEL: 'info' },
    ...{ LOG_FOLDER: join(folder, `logs-${at}`), WEB_FOLDER: PAGES, PUBLIC_URL: 'https://studio.example' },
  });
  servers.set(at, server);
}

async function stopAt(at: number, signal?: NodeJS.Signals): Promise<void> {
  const server = servers.get(at);
  if (server) await closeServer(server, signal);
}

/** The configuration as it is written, with the ports, names and files of this test. */
function configuration(): string {
  const written = readFileSync(WRITTEN, 'utf8')
    .replace('127.0.0.1:4180', `127.0.0.1:${ports[0]}`)
    .replace('127.0.0.1:4181', `127.0.0.1:${ports[1]}`)
    .replace(/server \{\s+listen 80;[^}]*\}/, '')
    .replace('listen 443 ssl http2', `listen 127.0.0.1:${port} ssl http2`)
    .replaceAll('/etc/ssl/jam-ledger', folder)
    .replaceAll('/var/log/nginx', folder);
  const own = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map(
    (name) => `${name}_temp_path ${folder}/${name};`,
  );
  const user = process.getuid?.() === 0 ? 'user root;' : '';
  return `${user} daemon off; pid ${folder}/nginx.pid; error_log ${folder}/error.log; worker_processes 1; events {} http { ${own.join(' ')} ${written} }`;
}

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'jam-ledger-running-'));
  databaseUrl = await freshDatabase();
  ports.push(await freePort());
  await startAt(ports[0] ?? 0);
  ports.push(await freePort());
  await startAt(ports[1] ?? 0);
  port = await freePort();
  await mkdir(folder, { recursive: true });
  const subject = ['-subj', '/CN=studio.example', '-addext', 'subjectAltName=DNS:studio.example'];
  const files = ['-keyout', join(folder, 'studio.key'), '-out', join(folder, 'studio.crt')];
  execFileSync('openssl', ['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '1', ...subject, ...files], {
    stdio: 'ignore',
  });
  await writeFile(join(folder, 'nginx.conf'), configuration());
  nginx = spawn('/usr/sbin/nginx', ['-c', join(folder, 'nginx.conf'), '-e', join(folder, 'error.log')], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  for (let tries = 0; tries < 100 && (await ask('GET', '/api/health').catch(() => undefined)) === undefined; tries += 1)
    await pause(50);
}, 120_000);
afterAll(async () => {
  nginx.kill('SIGTERM');
  for (const at of ports) await stopAt(at);
  await rm(folder, { recursive: true, force: true });
});

/** Asks through the proxy over TLS, from an address of the loopback network. */
async function ask(
  method: string,
  path: string,
  {
    body,
    cookie = '',
    from = '127.0.0.1',
  }: { readonly body?: object; readonly cookie?: string; readonly from?: string } = {},
): Promise<Answer> {
  const ca = await readFile(join(folder, 'studio.crt'));
  const options: RequestOptions = {
    ...{ method, path, port, host: '127.0.0.1', servername: 'studio.example', ca, localAddress: from },
    headers: {
      Host: 'studio.example',
      'Content-Type': 'application/json',
      Cookie: cookie,
      Origin: 'https://studio.example',
    },
  };
  return new Promise((done, fail) => {
    const sent = askTls(options, (response) => {
      let text = '';
      response.on('data', (chunk: Buffer) => (text += chunk.toString()));
      response.on('end', () => done({ status: response.statusCode ?? 0, headers: response.headers, text }));
    });
    sent.on('error', fail);
    sent.end(body === undefined ? undefined : JSON.stringify(body));
  });
}

const signIn = (name: string, password: string, more: { readonly cookie?: string; readonly from?: string } = {}) =>
  ask('POST', '/api/session', { body: { name, password }, ...more });
const cookiesOf = ({ headers }: Answer) => [headers['set-cookie'] ?? []].flat();
const cookieOf = (answer: Answer) =>
  cookiesOf(answer)
    .map((one) => one.split(';')[0])
    .join('; ');

describe('behind nginx with TLS, as the page says', () => {
  test('one signs in, cookies go over TLS alone, and the browser is told to stay there', async () => {
    const answer = await signIn('ines', 'pencil-case');
    expect(answer.status).toBe(200);
    for (const cookie of cookiesOf(answer)) expect(cookie).toMatch(/; Secure/);
    expect(answer.headers['strict-transport-security']).toContain('max-age');
    expect((await ask('GET', '/api/session', { cookie: cookieOf(answer) })).status).toBe(200);
    expect((await ask('GET', '/')).text).toContain('<title>Jam Ledger');
  });

  test('a stranger who guesses is stopped by their address, and stops nobody else', async () => {
    const known = cookieOf(await signIn('tomas', 'pencil-case', { from: '127.0.0.3' }));
    for (let tries = 0; tries < 10; tries += 1)
      expect((await signIn('tomas', 'guess', { from: '127.0.0.2' })).status).toBe(401);
    expect((await signIn('tomas', 'guess', { from: '127.0.0.2' })).status).toBe(429);
    // The named person elsewhere, and at the stranger’s own address on a device of theirs.
    expect((await signIn('tomas', 'pencil-case', { from: '127.0.0.4' })).status).toBe(200);
    expect((await signIn('tomas', 'pencil-case', { from: '127.0.0.2', cookie: known })).status).toBe(200);
    expect((await signIn('pia', 'pencil-case', { from: '127.0.0.2' })).status).toBe(200);
  }, 60_000);

  test('while one of two servers is stopped or killed and started again, everybody is answered', async () => {
    const cookie = cookieOf(await signIn('mara', 'ink-and-paper'));
    const [first = 0, second = 0] = ports;
    const statuses: Record<number, number> = {};
    const over = new AbortController();
    const asking = (async () => {
      while (!over.signal.aborted) {
        const { status } = await ask('GET', '/api/desk', { cookie });
        statuses[status] = (statuses[status] ?? 0) + 1;
      }
    })();
    for (const [at, signal] of [
      [first, 'SIGTERM'],
      [second, 'SIGKILL'],
    ] as const) {
      await pause(400);
      await stopAt(at, signal);
      await pause(800);
      await startAt(at);
    }
    await pause(300);
    over.abort();
    await asking;
    expect(Object.keys(statuses).filter((status) => status !== '200')).toEqual([]);
    expect(statuses[200]).toBeGreaterThan(20);
  }, 60_000);

  test('neither log has a secret, a query, a name or a password', async () => {
    const token = 'A1b2'.repeat(10) + 'xyz';
    await ask('GET', `/api/calendar/${token}/lessons.ics`);
    await ask('GET', `/api/invitations/${token}`);
    await ask('GET', '/api/search?q=harbour', { cookie: cookieOf(await signIn('mara', 'ink-and-paper')) });
    await pause(200);
    const proxy = await readFile(join(folder, 'jam-ledger.log'), 'utf8');
    const logs = execFileSync('sh', ['-c', `cat ${folder}/logs-*/*`], { encoding: 'utf8' });
    expect(proxy).toContain('/api/calendar/...');
    expect(proxy).toContain('127.0.0.2');
    for (const log of [proxy, logs])
      expect(log).not.toMatch(new RegExp(`${token}|harbour|ink-and-paper|pencil-case|Mara`));
  });

  test('the unit is one that systemd takes', async () => {
    const unit = await readFile(join(ROOT, 'docs/running/jam-ledger@.service'), 'utf8');
    await writeFile(join(folder, 'jam-ledger@4180.service'), unit);
    expect(
      execFileSync('systemd-analyze', ['verify', join(folder, 'jam-ledger@4180.service')], { encoding: 'utf8' }),
    ).toBe('');
  });
});
