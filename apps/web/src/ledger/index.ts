export { useLedger } from './ledger.ts';
