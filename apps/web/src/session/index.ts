export { useCounts } from './counts.ts';
export { useNotices } from './notices.ts';
export { usePage, usePageAbout } from './page.ts';
export type { PageTrouble } from './page.ts';
export { isForPage, isTyping, lettersAct } from './pageKeys.ts';
export { useSession } from './session.ts';
export { useLook } from './useLook.ts';
