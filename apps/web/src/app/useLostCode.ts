import { useEventListener } from '@vueuse/core';
import { useRouter } from 'vue-router';
import { useNotices } from '../session/index.ts';

/**
 * Where the code of a page does not come, says why: the studio cannot be reached, or it was renewed and that code is gone. Where it comes
 * by now, the page that was asked for is opened after all; once, then whoever asked is asked.
 */
export function useLostCode(): void {
  const router = useRouter();
  const notices = useNotices();
  /** The page that was not opened, and for want of which code, until another is chosen. */
  let unopened: { readonly error: unknown; readonly to: string } | undefined;
  let triedAgain = '';
  router.onError((error: unknown, { fullPath }) => (unopened = { error, to: fullPath }));
  router.beforeEach(() => {
    unopened = undefined;
  });

  useEventListener(window, 'vite:preloadError', (event: Event & { payload?: Error }) => {
    const [path] = /\/assets\/[^\s'"]+/.exec(event.payload?.message ?? '') ?? [];
    void notices.tell(async () => {
      const answer = path === undefined ? undefined : await fetch(path, { cache: 'no-store' }).catch(() => undefined);
      // Code of a part of a page, such as its help, opens none.
      const to = unopened?.error === event.payload ? unopened?.to : undefined;
      if (!answer) notices.say('This page could not be loaded, since the studio cannot be reached.');
      else if (answer.status === 404)
        notices.ask('Jam Ledger was renewed since this page was opened.', 'Load it anew', () =>
          window.location.reload(),
        );
      else if (to === triedAgain)
        notices.ask('This page could not be loaded.', 'Load it anew', () => window.location.assign(to));
      else if (to !== undefined) {
        triedAgain = to;
        // Where it fails again, that is told as it happens.
        await router.push(to).catch(() => undefined);
      }
    });
  });
}
