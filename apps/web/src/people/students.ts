import type { Student, StudentChange, StudioSchools } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/index.ts';

/** Students with their guitars and hands, and how they are taught where nothing of their own holds. */
export const useStudents = defineStore('students', () => {
  const students = ref<readonly Student[]>();
  const studio = ref<StudioSchools>();

  async function load(): Promise<void> {
    [students.value, studio.value] = await Promise.all([api.students(), api.schools()]);
  }

  /** Opens the list; nothing of before is shown meanwhile. */
  function open(): Promise<void> {
    students.value = undefined;
    return load();
  }

  /** Changes guitar, hand and schools of a student; gives the way back. */
  async function change({ id, guitar, schools }: Student, body: StudentChange): Promise<() => Promise<void>> {
    const { version } = await api.changeStudent({ id, body });
    await load();
    return async () => {
      await api.changeStudent({ id, body: { guitar, schools, version } });
      await load();
    };
  }

  /** Enters several students, all or none; gives the way back, which puts them away again. */
  async function enterAll(names: readonly string[]): Promise<() => Promise<void>> {
    const entered = await api.enterStudents({ body: { names } });
    await load();
    return async () => {
      for (const { id, version, name } of entered)
        await api.changePerson({ id, body: { version, name, wards: [], teacherId: null, archived: true } });
      await load();
    };
  }

  return { students, studio, open, change, enterAll };
});
