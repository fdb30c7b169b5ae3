import { registerSW } from 'virtual:pwa-register';
import { useIntervalFn } from '@vueuse/core';
import { useNotices } from '../session/index.ts';

/** So often it is looked whether there is a new version, milliseconds. Our choice. */
const LOOK_MS = 30 * 60_000;

/** So long a new version may take to take over, milliseconds. Our choice. */
const TAKE_OVER_MS = 4000;

/**
 * Keeps the pages on this device, so that they open without a line, and asks before a new version takes their place. Where a
 * browser has no service workers, or the address is not a safe one, the pages come from the studio each time.
 *
 * @param whenKept called once the pages lie on this device
 */
export function useRenewal(whenKept: () => void): void {
  if (!('serviceWorker' in navigator)) return;
  const notices = useNotices();
  let registered: ServiceWorkerRegistration | undefined;
  const renew = registerSW({
    onRegisteredSW: (_url, registration) => {
      registered = registration;
      if (registration) whenKept();
    },
    // What is typed is kept by each page, and is there again.
    onNeedRefresh: () => notices.ask('There is a new version of Jam Ledger.', 'Load it', load),
    onRegisterError: () => undefined,
  });
  /** The new version takes over and the page is loaded anew with it; at the latest after a while, whatever a worker says. */
  async function load(): Promise<void> {
    setTimeout(() => window.location.reload(), TAKE_OVER_MS);
    await renew(true);
  }
  useIntervalFn(() => void registered?.update().catch(() => undefined), LOOK_MS);
}
