import {
  ROUTES,
  type Erasure,
  type ErasureBody,
  type HomeNote,
  type Lesson,
  type Mail,
  type Person,
  type PersonBody,
  type PersonChange,
  type SeriesLine,
  type StudioReport,
} from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api, fileAddress } from '../api/index.ts';

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

  /** Corrects what is known of somebody; who they are then. */
  async function correct(person: Person, to: PersonCorrection): Promise<Person> {
    const { person: corrected } = await api.changePerson({ id: person.id, body: changeOf(person, to) });
    await load();
    return corrected;
  }

  /** What goes when a student is erased. */
  function erasure(person: Person): Promise<Erasure> {
    return api.erasure({ id: person.id });
  }

  /** Has a student erased after the waiting time; the day on which they go. */
  async function erase({ id }: Person, body: ErasureBody): Promise<string> {
    const { on } = await api.askErasure({ id, body });
    await load();
    return on ?? '';
  }

  /** Keeps a student from being erased. */
  async function keep({ id }: Person): Promise<void> {
    await api.keepFromErasing({ id });
    await load();
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

  return {
    people,
    mail,
    open,
    enter,
    invite,
    correct,
    erasure,
    erase,
    keep,
    makeRole,
    putAway,
    takeBack,
    home,
    report,
  };
});

/** What can be corrected of somebody. */
export type PersonCorrection = Partial<Pick<PersonChange, 'name' | 'email' | 'teacherId' | 'wards'>>;

/** Where everything of a student is taken from; one’s own where nobody is named. */
export function everythingOf(studentId?: string): string {
  return fileAddress(ROUTES.everything, {}, studentId === undefined ? {} : { studentId });
}

function changeOf(person: Person, to: Partial<PersonChange>): PersonChange {
  const { version, name, wards, teacher, archived } = person;
  return { version, name, wards: wards.map(({ id }) => id), teacherId: teacher?.id ?? null, archived, ...to };
}
