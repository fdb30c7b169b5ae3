export { useRequests } from './requests.ts';
