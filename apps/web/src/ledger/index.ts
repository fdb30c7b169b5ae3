export { useLedger, type PostedResult } from './ledger.ts';
