export { practiceToday, PRACTICE_MINUTES } from './practiceToday.ts';
export type { PracticePiece, PracticePlan, PracticeTask, TaskKind } from './practiceToday.ts';
