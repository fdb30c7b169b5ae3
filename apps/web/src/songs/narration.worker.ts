import { cutNarration } from '@jam-ledger/core/spoken';
import { expose } from 'comlink';

const reader = { cut: cutNarration };
export type NarrationReader = typeof reader;
expose(reader);
