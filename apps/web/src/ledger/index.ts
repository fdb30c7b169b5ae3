export { followed, useLedger, type PostedResult } from './ledger.ts';
