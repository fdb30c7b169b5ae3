export { useLedger } from './ledger.ts';
export { useNotices } from './notices.ts';
export { useRequests } from './requests.ts';
export { useSession } from './session.ts';
export { phraseBody, sectionBody, setUpOf, useSong } from './song.ts';
