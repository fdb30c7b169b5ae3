export { Refused, Unreachable } from './http.ts';
export { api } from './studio.ts';
