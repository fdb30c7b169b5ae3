import type { CopyBody, CopyPreview, LickBody, LickWritten } from './copies.ts';
import { one, route, type } from './route.ts';
import type { Transcription } from './songs.ts';
import { TEACHERS } from './who.ts';

/** What was written for one is copied for another, and a teacher’s own licks. */
export const copiesRoutes = {
  previewCopy: route({
    method: 'POST',
    path: '/copies/preview',
    who: TEACHERS,
    of: 'studio',
    does: 'shows what a copy for another student would come to, fitted to their guitar and hand',
    body: type<CopyBody>(),
    answer: one<CopyPreview>(),
  }),
  copy: route({
    method: 'POST',
    path: '/copies',
    who: TEACHERS,
    of: 'studio',
    does: 'copies a song, a section or a phrase for another student',
    body: type<CopyBody>(),
    answer: one<Transcription>(),
    creates: true,
  }),
  writeLick: route({
    method: 'POST',
    path: '/licks',
    who: TEACHERS,
    of: 'self',
    does: 'writes down a lick of a teacher’s own, for nobody yet',
    body: type<LickBody>(),
    answer: one<LickWritten>(),
    creates: true,
  }),
} as const;
