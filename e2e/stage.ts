import { mkdir, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { chromium, type Browser, type BrowserContextOptions, type Page } from 'playwright-core';
import { demoSignIns } from '../apps/server/src/demo/people.ts';
import { freshDatabase } from '../tools/cluster.ts';
import { closeServer, PAGES, startServer, type RunningServer } from './serving.ts';

const ROOT = resolve(import.meta.dirname, '..');

/** Where Debian's package puts the browser. */
export const CHROMIUM = '/usr/bin/chromium';

/** Without these Chromium looks for hosts outside, and draws type differently from machine to machine. */
export const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--font-render-hinting=none',
  '--force-color-profile=srgb',
  '--autoplay-policy=no-user-gesture-required',
];

/** How long one act may take before a test gives it up, in milliseconds: long, because other suites share the machine. */
export const ONE_ACT = 45_000;

/** The screen that pictures are taken at. */
export const SCREEN = { width: 1280, height: 800 } as const;

declare global {
  /** The browsers that tests have open, so that it can be told what they show where one fails. */
  var openBrowsers: Set<Browser> | undefined;
}

/** The demo studio on a real server and database, and a real browser before it. */
export interface Stage {
  readonly url: string;
  readonly databaseUrl: string;
  readonly browser: Browser;
  /** A browser window of its own, where somebody of the demo studio is signed in. */
  enter(signInName: string, options?: BrowserContextOptions): Promise<Page>;
  /** Another server of the same database, its address; closed with the stage. */
  second(): Promise<string>;
  close(): Promise<void>;
}

/**
 * Starts the built application over a fresh database with the demo studio in it; `flags` are for the browser, beside the usual
 * ones, and `pages` is a folder of pages other than those that were built.
 */
export async function openStage(flags: readonly string[] = [], pages?: string): Promise<Stage> {
  const databaseUrl = await freshDatabase();
  const folder = await mkdtemp(join(tmpdir(), 'jam-ledger-stage-'));
  const env = (shown = PAGES) => ({
    ...{ WEB_FOLDER: shown, BACKUP_FOLDER: join(folder, 'backups'), BACKUP_EVERY_HOURS: '0' },
    MAIL_FOLDER: join(folder, 'mail'),
  });
  const server = await startServer(databaseUrl, env(pages));
  const { url } = server;
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: [...FLAGS, ...flags] });
  (globalThis.openBrowsers ??= new Set()).add(browser);
  const others: RunningServer[] = [];
  return {
    url,
    databaseUrl,
    browser,
    async enter(signInName, options = {}) {
      const context = await browser.newContext({
        viewport: SCREEN,
        baseURL: url,
        locale: 'en-GB',
        serviceWorkers: 'block',
        ...options,
      });
      context.setDefaultTimeout(ONE_ACT);
      const page = await context.newPage();
      await page.goto('/');
      await signIn(page, signInName);
      return page;
    },
    async second() {
      const other = await startServer(databaseUrl, env());
      others.push(other);
      return other.url;
    },
    async close() {
      await browser.close();
      globalThis.openBrowsers?.delete(browser);
      for (const one of [server, ...others]) await closeServer(one);
      await rm(folder, { recursive: true, force: true });
    },
  };
}

/** A day, `2026-03-14`, as a reader of `en-GB` types it. */
export function asTyped(day: string): string {
  return day.split('-').reverse().join('/');
}

/** Chooses from a list by its label. */
export async function choose(page: Page, label: string, option: string): Promise<void> {
  await page.getByRole('combobox', { name: label }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
}

/** Fills the sign-in page in, as somebody of the demo studio. */
export async function signIn(page: Page, signInName: string): Promise<void> {
  const person = demoSignIns.find((one) => one.signInName === signInName);
  if (!person) throw new Error(`nobody of the demo studio signs in as ${signInName}`);
  await page.getByLabel('Name').fill(signInName);
  await page.getByLabel('Password').fill(person.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('banner').waitFor();
}

/** Waits until everything that is to be seen is drawn: fonts loaded, tab engraved, nothing moving. */
export async function settled(page: Page): Promise<void> {
  // A request whose worker has ended keeps the network busy for ever: what is drawn is asked for below, and that is waited for in full.
  await page.waitForLoadState('networkidle', { timeout: 5_000 }).catch(() => undefined);
  await page.evaluate(() => document.fonts.ready);
  // A tab of the page before may still stand there, and go.
  await page.waitForFunction(() => {
    const drawn = document.querySelector('[data-ready="true"] svg');
    return document.querySelector('[data-ready]') === null || (drawn?.getClientRects().length ?? 0) > 0;
  });
}

/** Takes a PNG of the window into a folder of the project. */
export async function shoot(page: Page, folder: string, name: string): Promise<void> {
  await settled(page);
  await mkdir(join(ROOT, folder), { recursive: true });
  await page.screenshot({ path: join(ROOT, folder, `${name}.png`) });
}

/** Opens the piece “Answer” of the demo student, to be practised. */
export async function openPiece(page: Page): Promise<void> {
  await page.goto('/practice');
  await page
    .getByRole('listitem')
    .getByRole('link', { name: /^Answer\b/ })
    .last()
    .click();
  await page.getByRole('heading', { name: 'Next step' }).waitFor();
}
