import type { Lesson, LessonDay, Student } from '@jam-ledger/contract';
import { DateTime } from 'luxon';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/index.ts';

/** So far ahead the next lesson is looked for, days. Our choice. */
const LOOK_AHEAD_DAYS = 14;

/** Whether a lesson is over, by the clock of a zone. */
const isOver = ({ day, time, minutes }: Lesson, zone: string): boolean =>
  DateTime.fromISO(`${day}T${time}`, { zone }).plus({ minutes }) < DateTime.now();

/** Lessons as they are held: whose is next, and all that one is held from. */
export const useLessons = defineStore('lessons', () => {
  const students = ref<readonly Student[]>();

  /** Opens the page; who is in the studio is asked anew. */
  function open(): void {
    students.value = undefined;
  }

  async function loadStudents(): Promise<readonly Student[]> {
    students.value ??= await api.students();
    return students.value;
  }

  /** The lesson that goes on or comes next in a zone. */
  async function next(zone: string): Promise<Lesson | undefined> {
    const lessons = await api.lessons({ query: { days: LOOK_AHEAD_DAYS } });
    return lessons.find((one) => !isOver(one, zone));
  }

  function dayOf(studentId: string): Promise<LessonDay> {
    return api.lessonDay({ id: studentId });
  }

  return { students, open, loadStudents, next, dayOf };
});
