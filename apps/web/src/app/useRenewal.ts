import { registerSW } from 'virtual:pwa-register';
import { useIntervalFn } from '@vueuse/core';
import { useNotices } from '../session/index.ts';

/** So often it is looked whether there is a new version, milliseconds. Our choice. */
const LOOK_MS = 30 * 60_000;

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
    onNeedRefresh: () => notices.ask('There is a new version of Jam Ledger.', 'Load it', () => renew(true)),
    onRegisterError: () => undefined,
  });
  useIntervalFn(() => void registered?.update().catch(() => undefined), LOOK_MS);
}
