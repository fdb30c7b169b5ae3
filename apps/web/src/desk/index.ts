export { useDesk } from './desk.ts';
export { placeOfFound } from './deskLines.ts';
