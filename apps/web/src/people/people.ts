import type {
  HomeNote,
  Lesson,
  Mail,
  Person,
  PersonBody,
  PersonChange,
  SeriesLine,
  StudioReport,
} from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/index.ts';

/** Lessons of so many days are shown at home. Our choice. */
export const HOME_DAYS = 30;

/** What those at home read: lessons to come, series, and what went home. */
export interface Home {
  readonly lessons: readonly Lesson[];
  readonly series: readonly SeriesLine[];
  readonly notes: readonly HomeNote[];
}

/** The people of the studio and what was written to them. */
export const usePeople = defineStore('people', () => {
  const people = ref<readonly Person[]>();
  const mail = ref<readonly Mail[]>([]);

  async function load(): Promise<void> {
    [people.value, mail.value] = await Promise.all([api.people(), api.outbox()]);
  }

  /** Opens the page of the studio; nothing of before is shown meanwhile. */
  function open(): Promise<void> {
    [people.value, mail.value] = [undefined, []];
    return load();
  }

  async function enter(body: PersonBody): Promise<Person> {
    const entered = await api.enterPerson({ body });
    await load();
    return entered;
  }

  /** Makes an invitation; the path of its page, which is shown once. */
  async function invite({ id }: Person): Promise<string> {
    const { path } = await api.invite({ id });
    await load();
    return path;
  }

  /** Corrects somebody’s name; who they are then. */
  async function rename(person: Person, name: string): Promise<Person> {
    const { person: renamed } = await api.changePerson({ id: person.id, body: changeOf(person, { name }) });
    await load();
    return renamed;
  }

  /** Makes a teacher an owner, or an owner a teacher; who they are then. */
  async function makeRole(person: Person, role: 'owner' | 'teacher'): Promise<Person> {
    const { person: changed } = await api.changePerson({ id: person.id, body: changeOf(person, { role }) });
    await load();
    return changed;
  }

  /** Puts somebody away; who they are then. */
  async function putAway(person: Person): Promise<Person> {
    const { person: away } = await api.changePerson({ id: person.id, body: changeOf(person, { archived: true }) });
    await load();
    return away;
  }

  /** Takes somebody back; titles of series whose hours others have by now, which are ended. */
  async function takeBack(person: Person): Promise<readonly string[]> {
    const { ended } = await api.changePerson({ id: person.id, body: changeOf(person, { archived: false }) });
    await load();
    return ended;
  }

  async function home(): Promise<Home> {
    const asked = [api.lessons({ query: { days: HOME_DAYS } }), api.seriesList(), api.homeNotes()] as const;
    const [lessons, { series }, notes] = await Promise.all(asked);
    return { lessons, series, notes };
  }

  function report(): Promise<StudioReport> {
    return api.studioReport();
  }

  return { people, mail, open, enter, invite, rename, makeRole, putAway, takeBack, home, report };
});

function changeOf(person: Person, to: Partial<PersonChange>): PersonChange {
  const { version, name, wards, teacher, archived } = person;
  return { version, name, wards: wards.map(({ id }) => id), teacherId: teacher?.id ?? null, archived, ...to };
}
