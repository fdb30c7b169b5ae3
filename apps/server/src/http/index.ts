export { refuse } from './errors.ts';
export { knowVisitor, sameOriginOnly } from './guards.ts';
export { healthRouter } from './health.ts';
export { licksRouter, studentsRouter, studioRouter } from './students.ts';
export { entriesRouter, ledgerRouter, piecesRouter, pinsRouter } from './pieces.ts';
export { requestsRouter } from './requests.ts';
export { lessonsRouter, seriesRouter } from './series.ts';
export { SESSION_COOKIE, sessionRouter } from './session.ts';
export { phrasesRouter, sectionsRouter, transcriptionsRouter } from './transcriptions.ts';
