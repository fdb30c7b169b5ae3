import type { OwnSchools, SchoolName, StudioSchools } from '@jam-ledger/contract';
import type { Holiday } from '@jam-ledger/core/series';
import { ref } from 'vue';
import { api, Refused } from '../api/index.ts';
import { useNotices, useSession } from '../session/index.ts';
import { withSchool } from '../schools/index.ts';

/** How the studio teaches, and how whoever is signed in does; every change can be taken back from the notice. */
export function useStudioSettings() {
  const notices = useNotices();
  const session = useSession();
  const studio = ref<StudioSchools>();
  const own = ref<OwnSchools>();
  /** What the server did not take, by field. */
  const problems = ref<Readonly<Record<string, string>>>({});

  async function load(): Promise<void> {
    [studio.value, own.value] = await Promise.all([api.schools(), api.ownSchools()]);
  }

  function change(to: (before: StudioSchools) => StudioSchools): Promise<void> {
    return notices.tell(async () => {
      const before = studio.value;
      const body = before && to(before);
      problems.value = {};
      // A field that is left as it was changes nothing, and leaves the last change to be taken back.
      if (!before || JSON.stringify(body) === JSON.stringify(before)) return;
      try {
        studio.value = await api.changeSchools({ body: { ...before, ...body } });
        await session.refresh();
      } catch (error) {
        if (!(error instanceof Refused) || error.problems.length === 0) throw error;
        problems.value = Object.fromEntries(error.problems.map(({ field, message }) => [rootOf(field), message]));
        return;
      }
      const { version } = studio.value;
      notices.say('How the studio teaches is saved.', async () => {
        studio.value = await api.changeSchools({ body: { ...before, version } });
        await session.refresh();
      });
    });
  }

  function changeOwn(name: SchoolName, word: string | null): Promise<void> {
    return notices.tell(async () => {
      const before = own.value;
      if (!before) return;
      own.value = await api.changeOwnSchools({ body: { ...before, schools: withSchool(before.schools, name, word) } });
      const { version } = own.value;
      notices.say('How you teach is saved.', async () => {
        own.value = await api.changeOwnSchools({ body: { ...before, version } });
      });
    });
  }

  return {
    studio,
    own,
    problems,
    load,
    changeOwn,
    teach: (name: SchoolName, word: string | null) => change((before) => withSchool(before, name, word)),
    work: (workMinutes: number | null) =>
      change((before) => (workMinutes === null ? before : { ...before, workMinutes })),
    rename: (name: string) => change((before) => ({ ...before, name: name.trim() })),
    move: (zone: string) => change((before) => ({ ...before, zone: zone.trim() })),
    close: (holiday: Holiday) =>
      change((before) => ({
        ...before,
        holidays: [...before.holidays, holiday].sort((a, b) => a.from.localeCompare(b.from)),
      })),
    closeAll: (holidays: readonly Holiday[]) =>
      change((before) => ({
        ...before,
        holidays: [...before.holidays, ...holidays].sort((a, b) => a.from.localeCompare(b.from)),
      })),
    open: (holiday: Holiday) =>
      change((before) => ({
        ...before,
        holidays: before.holidays.filter(({ from, name }) => from !== holiday.from || name !== holiday.name),
      })),
  };
}

/** Overlaps that a holiday or a zone would make stand at the rule of a series; here they stand at what was changed. */
function rootOf(field: string): string {
  if (field === 'name') return 'name';
  return field.startsWith('zone') ? 'zone' : 'holidays';
}
