/** What a pedal can do on the practice page. */
export const PEDAL_JOBS = [
  { job: 'clean', says: 'clean' },
  { job: 'notYet', says: 'not yet' },
  { job: 'play', says: 'hear it, stop' },
] as const;

/** One thing a pedal can do. */
export type PedalJob = (typeof PEDAL_JOBS)[number]['job'];

/** The key of each job, as the browser names it. */
export type Pedal = Readonly<Record<PedalJob, string>>;

/** Where none was set: the keys that page-turning pedals send, common practice. */
export const USUAL_PEDAL: Pedal = { clean: 'PageDown', notYet: 'PageUp', play: 'F9' };
