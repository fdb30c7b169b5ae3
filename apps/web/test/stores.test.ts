import 'fake-indexeddb/auto';
import type {
  Desk,
  Ledger,
  Lesson,
  Person,
  Series,
  SeriesBody,
  SeriesLine,
  SongRequest,
  Student,
  TranscriptionLine,
} from '@jam-ledger/contract';
import { describe, expect, test } from '@jest/globals';
import { keptAnswers } from '../src/api/index.ts';
import { useDesk } from '../src/desk/desk.ts';
import { useLicks } from '../src/licks/licks.ts';
import { useLessons } from '../src/lessons/lessons.ts';
import { usePeople } from '../src/people/people.ts';
import { useStudents } from '../src/people/students.ts';
import { useRequests } from '../src/requests/requests.ts';
import { useSeries } from '../src/series/series.ts';
import { useNotices, useSession } from '../src/session/index.ts';
import { useSongs } from '../src/songs/songs.ts';
import { meAs, openStudio, partOf, Refusing, settle } from './studio.ts';

describe('who is signed in', () => {
  test('is asked once', async () => {
    const { asked } = openStudio({ me: () => meAs('teacher') });
    const session = useSession();
    expect(await session.load()).toBe(true);
    expect(await session.load()).toBe(true);
    expect([session.me?.role, session.isTeacher, session.isStudent, asked.length]).toEqual(['teacher', true, false, 1]);
  });

  test('nobody is no trouble; a studio that is broken is, and is asked again', async () => {
    const studio = openStudio({ me: () => null });
    expect([await useSession().load(), useSession().me, useSession().trouble]).toEqual([true, null, '']);
    const broken = openStudio({ me: () => new Refusing(500, 'broken') });
    expect([await useSession().load(), useSession().trouble]).toEqual([false, 'It is refused.']);
    broken.answers = { me: () => meAs('student') };
    expect([await useSession().load(), useSession().trouble, useSession().isStudent]).toEqual([true, '', true]);
    expect(studio.asked).toHaveLength(1);
  });

  test('signing out forgets what this device keeps of them', async () => {
    openStudio({ signIn: () => meAs('student'), signOut: () => null });
    const session = useSession();
    await session.signIn({ name: 'ines', password: 'x' });
    const ledger = partOf<Ledger>({ student: { id: 'ines', name: 'Ines' } });
    await keptAnswers.put('ines', '/ledger', ledger);
    expect(await keptAnswers.of('ines', '/ledger')).toEqual(ledger);
    await session.signOut();
    expect([session.me, await keptAnswers.of('ines', '/ledger')]).toEqual([null, undefined]);
  });

  test('a wrong password signs nobody in', async () => {
    openStudio({ signIn: () => new Refusing(401, 'wrong-sign-in') });
    await expect(useSession().signIn({ name: 'ines', password: 'x' })).rejects.toThrow('It is refused.');
    expect(useSession().me).toBeNull();
  });
});

describe('notices', () => {
  test('say what went wrong, and take back what can be', async () => {
    openStudio({});
    const notices = useNotices();
    await notices.tell(() => Promise.reject(new Error('The line is cut.')));
    expect(notices.notice?.text).toBe('The line is cut.');
    let undone = 0;
    notices.say('Done.', () => void (undone += 1));
    await notices.takeBack();
    expect([undone, notices.notice]).toEqual([1, null]);
    await notices.takeBack();
    expect(undone).toBe(1);
  });

  test('stay until they are left behind with their page; what can be taken back stays longer', () => {
    openStudio({});
    const notices = useNotices();
    notices.say('Said on the way.');
    notices.turnPage();
    expect(notices.notice?.text).toBe('Said on the way.');
    notices.turnPage();
    expect(notices.notice).toBeNull();
    notices.say('Done.', () => undefined);
    for (const _ of ['one page', 'another']) notices.turnPage();
    expect(notices.notice?.text).toBe('Done.');
  });

  test('trouble while something is taken back is told, too', async () => {
    openStudio({});
    const notices = useNotices();
    notices.say('Done.', () => Promise.reject(new Error('It cannot be taken back.')));
    await notices.takeBack();
    expect(notices.notice?.text).toBe('It cannot be taken back.');
  });
});

describe('pages that are opened again show nothing of before', () => {
  test('the desk, the songs, the students, the people', async () => {
    openStudio({ desk: () => new Refusing(500, 'broken'), songs: () => [], students: () => [], people: () => [] });
    const [desk, songs, students, people] = [useDesk(), useSongs(), useStudents(), usePeople()];
    desk.desk = partOf<Desk>({});
    songs.songs = [partOf<TranscriptionLine>({})];
    students.students = [partOf<Student>({})];
    people.people = [partOf<Person>({})];
    const opening = [desk.open(), songs.open(), students.open(), people.open()];
    expect([desk.desk, songs.songs, students.students, people.people]).toEqual(Array(4).fill(undefined));
    await Promise.allSettled(opening);
    expect([desk.desk, songs.songs]).toEqual([undefined, []]);
  });
});

describe('licks', () => {
  test('an answer that comes after a newer question is none', async () => {
    const answers = ['late', 'soon'].map((words) => ({ total: words.length, licks: [] }));
    openStudio({});
    const waits: (() => void)[] = [];
    globalThis.fetch = () => {
      const answer = answers[waits.length];
      return new Promise((done) => waits.push(() => done(new Response(JSON.stringify(answer)))));
    };
    const licks = useLicks();
    const searches = [licks.search({ words: 'late' }), licks.search({ words: 'soon' })];
    answers[1] = { total: 77, licks: [] };
    waits[1]?.();
    await searches[1];
    expect([licks.found?.total, licks.busy]).toEqual([4, false]);
    waits[0]?.();
    await searches[0];
    expect(licks.found?.total).toBe(4);
  });
});

describe('people', () => {
  const person = (more: Partial<Person> = {}): Person => ({
    ...{ id: 'p', version: 3, name: 'Pia', role: 'student', signsIn: false, invitedUntil: null, archived: false },
    ...{ wards: [], teacher: { id: 't', name: 'Mara' }, lessonsToCome: 2, email: null, eraseOn: null },
    ...more,
  });

  test('are put away and taken back as they are, over the version seen', async () => {
    const { asked } = openStudio({
      people: () => [],
      outbox: () => [],
      changePerson: ({ body }) => ({ person: person({ version: 4, ...(body as object) }), ended: ['Fridays'] }),
    });
    const people = usePeople();
    const away = await people.putAway(person({ wards: [{ id: 'w', name: 'W' }] }));
    expect(await people.takeBack(away)).toEqual(['Fridays']);
    const sent = asked.filter(({ name }) => name === 'changePerson').map(({ body }) => body);
    expect(sent[0]).toEqual({ version: 3, name: 'Pia', wards: ['w'], teacherId: 't', archived: true });
    expect(sent[1]).toMatchObject({ archived: false });
  });

  test('an invitation is the path of its page, and the list is asked anew', async () => {
    const { asked } = openStudio({
      people: () => [],
      outbox: () => [],
      invite: () => ({ path: '/welcome/abc', expiresAt: '' }),
    });
    expect(await usePeople().invite(person())).toBe('/welcome/abc');
    expect(asked.map(({ name }) => name)).toEqual(['invite', 'people', 'outbox']);
  });

  test('home: the lessons of thirty days, series and what was taken home', async () => {
    const { asked } = openStudio({
      lessons: () => [],
      seriesList: () => ({ total: 1, series: [partOf<SeriesLine>({ id: 's' })] }),
      homeNotes: () => [],
    });
    expect((await usePeople().home()).series.map(({ id }) => id)).toEqual(['s']);
    expect(asked.find(({ name }) => name === 'lessons')?.query).toEqual({ days: '30' });
  });
});

describe('requests', () => {
  const request = (state: SongRequest['state']) =>
    partOf<SongRequest>({ id: 'r', version: 2, state, title: 'Slow Tide' });
  const open = (role: 'teacher' | 'student') => {
    const studio = openStudio({
      me: () => meAs(role),
      requests: () => [],
      moveRequest: ({ body }) => ({ ...request('asked'), ...(body as object), version: 3 }),
    });
    return studio;
  };

  test('a step that can be taken back offers that', async () => {
    const { asked } = open('student');
    await useSession().load();
    await useRequests().move(request('asked'), { state: 'withdrawn', reason: '', scope: null });
    expect(useNotices().notice).toMatchObject({ text: '“Slow Tide” is withdrawn.' });
    await useNotices().takeBack();
    const moves = asked.filter(({ name }) => name === 'moveRequest').map(({ body }) => body);
    expect(moves).toMatchObject([
      { state: 'withdrawn', version: 2 },
      { state: 'asked', version: 3 },
    ]);
  });

  test('one that would ask for the scope again does not', async () => {
    open('teacher');
    await useSession().load();
    await useRequests().move(request('agreed'), { state: 'in work', reason: '', scope: null });
    expect(useNotices().notice?.undo).toBeUndefined();
  });

  test('the earliest day is asked for what is typed', async () => {
    const { asked } = openStudio({ earliest: () => ({ day: '2026-04-01' }) });
    expect(await useRequests().earliest(3, true)).toBe('2026-04-01');
    expect(asked[0]?.query).toEqual({ parts: '3', blended: 'true' });
  });
});

describe('series', () => {
  const line = (id: string) => partOf<SeriesLine>({ id });
  const open = (all: readonly string[]) =>
    openStudio({
      seriesList: ({ query }) => {
        const from = Number(query['from'] ?? 0);
        return { total: all.length, series: all.slice(from, from + 2).map(line) };
      },
      series: ({ path }) =>
        partOf<Series>({ id: path.split('/').at(-1) ?? '', struck: path.endsWith('c'), goalDay: null }),
      students: () => [],
      lessons: () => [],
    });

  test('open with the first, or the one that is asked for', async () => {
    open(['a', 'b']);
    await useSeries().open(undefined);
    expect(useSeries().chosen?.id).toBe('a');
    open(['a', 'b']);
    await useSeries().open('b');
    expect([useSeries().chosen?.id, useSeries().lines?.length]).toEqual(['b', 2]);
  });

  test('as many lines as were shown are there after a change', async () => {
    const { asked } = open(['a', 'b', 'd', 'e', 'f']);
    const series = useSeries();
    await series.open(undefined);
    await series.more();
    expect(series.lines?.map(({ id }) => id)).toEqual(['a', 'b', 'd', 'e']);
    asked.length = 0;
    await series.choose('e');
    await series.begin(partOf<SeriesBody>({})).catch(() => undefined);
    expect(series.total).toBe(5);
  });

  test('one chosen while the list is being read stays, whichever answer comes last', async () => {
    open(['a', 'b']);
    const series = useSeries();
    const opened = series.open(undefined);
    await series.choose('b');
    await opened;
    expect(series.chosen?.id).toBe('b');
    await Promise.all([series.choose('a'), series.choose('b')]);
    expect(series.chosen?.id).toBe('b');
  });

  test('one that is ended is not open', async () => {
    open(['c']);
    await useSeries().open(undefined);
    expect(useSeries().chosen).toBeUndefined();
  });

  test('one without a goal has no readiness, and nothing is asked', async () => {
    const { asked } = open(['a']);
    expect(await useSeries().readinessOf(partOf<Series>({ id: 'a', goalDay: null }))).toBeNull();
    expect(asked).toEqual([]);
  });
});

describe('a swap of lessons', () => {
  const at = (day: string, time: string) => ({
    day,
    time,
    startsAt: `${day}T${time}:00Z`,
    endsAt: '',
    why: 'rule' as const,
  });
  const mine = partOf<Series>({ id: 'a', version: 3 });
  const theirs = partOf<Series>({
    id: 'b',
    version: 5,
    lessons: [at('2026-03-20', '17:00'), at('2026-03-21', '17:00')],
  });
  const other = partOf<Lesson>({ series: { id: 'b', title: 'B' }, day: '2026-03-21', time: '17:00' });
  function open() {
    let version = 10;
    return openStudio({
      series: () => theirs,
      seriesList: () => ({ total: 0, series: [] }),
      students: () => [],
      lessons: () => [],
      swapLessons: () => [
        partOf<Series>({ id: 'a', version: (version += 1) }),
        partOf<Series>({ id: 'b', version: (version += 1) }),
      ],
    });
  }
  const swaps = (asked: readonly { name: string; body: unknown }[]) =>
    asked.filter(({ name }) => name === 'swapLessons').map(({ body }) => body);

  test('is of the lesson at that very time, over the versions seen', async () => {
    const { asked } = open();
    await useSeries().swap(mine, at('2026-03-19', '16:00'), other);
    expect(swaps(asked)).toEqual([
      {
        lessons: [
          { seriesId: 'a', version: 3, startsAt: '2026-03-19T16:00:00Z' },
          { seriesId: 'b', version: 5, startsAt: '2026-03-21T17:00:00Z' },
        ],
      },
    ]);
  });

  test('is taken back the other way round, over the versions that came of it', async () => {
    const { asked } = open();
    const back = await useSeries().swap(mine, at('2026-03-19', '16:00'), other);
    await back();
    expect(swaps(asked)[1]).toEqual({
      lessons: [
        { seriesId: 'a', version: 11, startsAt: '2026-03-21T17:00:00Z' },
        { seriesId: 'b', version: 12, startsAt: '2026-03-19T16:00:00Z' },
      ],
    });
  });

  test('with a lesson that is not there any more says so', async () => {
    const { asked } = open();
    await expect(useSeries().swap(mine, at('2026-03-19', '16:00'), { ...other, time: '18:00' })).rejects.toThrow(
      'This lesson is not there any more; look again.',
    );
    expect(swaps(asked)).toEqual([]);
  });
});

describe('lessons', () => {
  const lesson = (day: string, time: string) => partOf<Lesson>({ day, time, minutes: 45 });

  test('the next is the first that is not over', async () => {
    openStudio({ lessons: () => [lesson('2020-01-01', '10:00'), lesson('2999-01-01', '10:00')] });
    expect(await useLessons().next('Europe/Oslo')).toMatchObject({ day: '2999-01-01' });
    openStudio({ lessons: () => [] });
    expect(await useLessons().next('Europe/Oslo')).toBeUndefined();
  });

  test('students are asked once a page, and anew with the next', async () => {
    const { asked } = openStudio({ students: () => [] });
    const lessons = useLessons();
    await lessons.loadStudents();
    await lessons.loadStudents();
    lessons.open();
    await lessons.loadStudents();
    expect(asked).toHaveLength(2);
    await settle();
  });
});
