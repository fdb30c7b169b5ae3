import { useEventListener } from '@vueuse/core';
import { useRouter, type RouteLocationNormalized } from 'vue-router';
import { useNotices } from '../session/index.ts';

/**
 * Where the code of a page does not come, says why: the studio cannot be reached, or it was renewed and that code is gone. Where it comes
 * by now, the page that was asked for is opened after all; once, then whoever asked is asked.
 */
export function useLostCode(): void {
  const router = useRouter();
  const notices = useNotices();
  let unopened: RouteLocationNormalized | undefined;
  let isTriedAgain = false;
  router.onError((_error, to) => (unopened = to));
  router.afterEach(() => ([unopened, isTriedAgain] = [undefined, false]));

  useEventListener(window, 'vite:preloadError', (event: Event & { payload?: Error }) => {
    const [path] = /\/assets\/[^\s'"]+/.exec(event.payload?.message ?? '') ?? [];
    void notices.tell(async () => {
      const answer = path === undefined ? undefined : await fetch(path, { cache: 'no-store' }).catch(() => undefined);
      const to = unopened?.fullPath;
      if (!answer) notices.say('This page could not be loaded, since the studio cannot be reached.');
      else if (answer.status === 404)
        notices.ask('Jam Ledger was renewed since this page was opened.', 'Load it anew', () =>
          window.location.reload(),
        );
      else if (to !== undefined && isTriedAgain)
        notices.ask('This page could not be loaded.', 'Load it anew', () => window.location.assign(to));
      else if (to !== undefined) {
        isTriedAgain = true;
        // Where it fails again, that is told as it happens.
        await router.push(to).catch(() => undefined);
      }
    });
  });
}
