import type { LessonChanges, LessonDate } from './lessonDates.ts';

/** A day and a time on the studio’s wall. */
export interface LessonMoment {
  readonly day: string;
  readonly time: string;
}

/** The changes with which a lesson is at another day or time. */
export function moveLesson(changes: LessonChanges, lesson: LessonDate, to: LessonMoment): LessonChanges {
  const { moves, extras } = changes;
  const moment = { day: to.day, time: to.time };
  if (lesson.why === 'extra')
    return { ...changes, extras: extras.map((extra) => (isAt(extra, lesson) ? moment : extra)) };
  const moved = movedTo(changes, lesson);
  const from = moved?.from ?? lesson.day;
  return { ...changes, moves: [...moves.filter((other) => other !== moved), { from, ...moment }] };
}

/** The changes with which a lesson is left out. */
export function leaveOut(changes: LessonChanges, lesson: LessonDate): LessonChanges {
  const { skips, moves, extras } = changes;
  if (lesson.why === 'extra') return { ...changes, extras: extras.filter((extra) => !isAt(extra, lesson)) };
  const moved = movedTo(changes, lesson);
  return {
    ...changes,
    skips: [...skips, moved?.from ?? lesson.day],
    moves: moves.filter((move) => move !== moved),
  };
}

function movedTo({ moves }: LessonChanges, lesson: LessonDate) {
  return lesson.why === 'moved' ? moves.find((move) => isAt(move, lesson)) : undefined;
}

function isAt(one: LessonMoment, lesson: LessonMoment): boolean {
  return one.day === lesson.day && one.time === lesson.time;
}
