/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import type { OwnSchools, RequestHours, StudioSchools, WorkAction } from '@jam-ledger/contract';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { useStudioSettings } from '../src/people/useStudioSettings.ts';
import { useWorkTimer } from '../src/requests/useWorkTimer.ts';
import { SCHOOL_QUESTIONS, withSchool } from '../src/schools/index.ts';
import { useNotices } from '../src/session/index.ts';
import { useForm } from '../src/ui/useForm.ts';
import { Refused } from '../src/api/index.ts';
import { inScope } from './mounting.ts';
import { CUT, meAs, openStudio, partOf, Refusing, settle } from './studio.ts';

const said = () => useNotices().notice?.text;

describe('a form', () => {
  const EMPTY = { name: '', role: 'student', wards: [] } as const;
  const open = () => useForm('personSchema', EMPTY);

  test('that is filled in right is sent once, as it was typed', async () => {
    const { fields, send, busy } = open();
    fields.name = 'Ines';
    const sent: unknown[] = [];
    const sending = send((body) => {
      sent.push(body);
      return Promise.resolve();
    });
    expect(busy.value).toBe(true);
    expect(await sending).toBe(true);
    expect([sent, busy.value]).toEqual([[{ name: 'Ines', role: 'student', wards: [] }], false]);
  });

  test('that is not says so at the field, and nothing is sent', async () => {
    const { send, problems, fields } = open();
    const work = jest.fn(() => Promise.resolve());
    expect(await send(work)).toBe(false);
    expect([Object.keys(problems.value), work.mock.calls]).toEqual([['name'], []]);
    fields.name = 'Ines';
    await send(work);
    expect([problems.value, work.mock.calls.length]).toEqual([{}, 1]);
  });

  test('that the server does not take says why at its field and above, and keeps what was typed', async () => {
    const { send, problems, trouble, fields, busy } = open();
    fields.name = 'Ines';
    const problems422 = [
      { field: 'name', message: 'Somebody is called that.' },
      { field: 'name', message: 'And another thing.' },
    ];
    const refusal = new Refused(422, { error: { code: 'invalid', message: 'Not so.', problems: problems422 } });
    expect(await send(() => Promise.reject(refusal))).toBe(false);
    expect([problems.value, trouble.value]).toEqual([{ name: 'Somebody is called that.' }, 'Not so.']);
    expect([fields.name, busy.value]).toEqual(['Ines', false]);
  });

  test('what goes wrong in another way is told, too', async () => {
    const { send, trouble, fields } = open();
    fields.name = 'Ines';
    await send(() => Promise.reject(new Error('The line is cut.')));
    expect(trouble.value).toBe('The line is cut.');
    // What is thrown need be no error.
    // eslint-disable-next-line @typescript-eslint/prefer-promise-reject-errors
    await send(() => Promise.reject('odd'));
    expect(trouble.value).toBe('It could not be sent.');
  });

  test('filled anew has no trouble of before', async () => {
    const { send, fill, problems, fields } = open();
    await send(() => Promise.resolve());
    fill({ ...EMPTY, name: 'Pia' });
    expect([problems.value, fields.name]).toEqual([{}, 'Pia']);
  });
});

describe('how the studio teaches', () => {
  const SCHOOLS = partOf<StudioSchools>({
    ...{ version: 4, workMinutes: 600, zone: 'Europe/Oslo', holidays: [], picking: 'economy' },
  });
  async function open(refuse?: Refusing) {
    let [studio, own] = [
      SCHOOLS,
      partOf<OwnSchools>({ version: 1, schools: partOf<OwnSchools['schools']>({ picking: null }) }),
    ];
    const opened = openStudio({
      me: () => meAs('owner'),
      schools: () => studio,
      ownSchools: () => own,
      changeSchools: ({ body }) => {
        const { version, ...rest } = body as StudioSchools;
        return refuse ?? (studio = partOf<StudioSchools>({ ...rest, version: version + 1 }));
      },
      changeOwnSchools: ({ body }) => {
        const { version, schools } = body as OwnSchools;
        return (own = { ...own, schools, version: version + 1 });
      },
    });
    const settings = useStudioSettings();
    await settings.load();
    return { ...opened, settings };
  }

  test('is changed over the version seen, told anew to whoever is signed in, and taken back', async () => {
    const { settings, asked } = await open();
    await settings.teach('picking', 'all down');
    expect([settings.studio.value?.picking, said()]).toEqual(['all down', 'How the studio teaches is saved.']);
    expect(asked.map(({ name }) => name)).toEqual(['schools', 'ownSchools', 'changeSchools', 'me']);
    await useNotices().takeBack();
    expect([settings.studio.value?.picking, settings.studio.value?.version]).toEqual(['economy', 6]);
  });

  test('days off stand in the order of their days; one is opened again by its day and name', async () => {
    const { settings } = await open();
    const [winter, autumn] = [
      { from: '2026-12-20', to: '2027-01-03', name: 'Winter' },
      { from: '2026-10-05', to: '2026-10-09', name: 'Autumn' },
    ];
    await settings.close(winter);
    await settings.close(autumn);
    expect(settings.studio.value?.holidays.map(({ name }) => name)).toEqual(['Autumn', 'Winter']);
    await settings.open({ ...winter, name: 'Another' });
    await settings.open(autumn);
    expect(settings.studio.value?.holidays.map(({ name }) => name)).toEqual(['Winter']);
  });

  test('work hours that were emptied stay as they are; a zone loses its spaces', async () => {
    const { settings } = await open();
    await settings.work(null);
    expect(settings.studio.value?.workMinutes).toBe(600);
    await settings.work(480);
    await settings.move(' Europe/Paris ');
    expect([settings.studio.value?.workMinutes, settings.studio.value?.zone]).toEqual([480, 'Europe/Paris']);
  });

  test.each([
    ['zone', 'zone'],
    ['series.0.rule', 'holidays'],
  ])('a refusal at %s stands at the %s, and nothing is changed', async (field, at) => {
    const refusal = new Refusing(422, 'invalid', { problems: [{ field, message: 'Two lessons would overlap.' }] });
    const { settings } = await open(refusal);
    await settings.move('Europe/Paris');
    expect(settings.problems.value).toEqual({ [at]: 'Two lessons would overlap.' });
    expect([settings.studio.value?.zone, said()]).toEqual(['Europe/Oslo', undefined]);
  });

  test('other trouble is told as it is', async () => {
    const { settings } = await open(new Refusing(500, 'broken'));
    await settings.work(480);
    expect([settings.problems.value, said()]).toEqual([{}, 'It is refused.']);
  });

  test('a teacher’s own answer, and back', async () => {
    const { settings } = await open();
    await settings.changeOwn('picking', 'economy');
    expect([settings.own.value?.schools.picking, said()]).toEqual(['economy', 'How you teach is saved.']);
    await useNotices().takeBack();
    expect(settings.own.value?.schools.picking).toBeNull();
  });

  test('nothing is sent before it is known', async () => {
    const { asked } = openStudio({});
    const settings = useStudioSettings();
    await settings.work(10);
    await settings.changeOwn('picking', 'economy');
    expect(asked).toEqual([]);
  });

  test('every answer to every question is explained in one sentence, and no other word is taken', () => {
    for (const { name, words, explains, says, label } of SCHOOL_QUESTIONS) {
      expect([label, explains].every((text) => text.length > 5)).toBe(true);
      expect(Object.keys(says).sort()).toEqual([...words].sort());
      expect(Object.values(says).every((text) => /^[A-Z].*\.$/.test(text))).toBe(true);
      const before = partOf<Parameters<typeof withSchool>[0]>({ [name]: words[0] });
      expect(withSchool(before, name, 'nonsense')).toBe(before);
      expect(withSchool(before, name, words[1] ?? null)).toEqual({ [name]: words[1] });
    }
  });
});

describe('the timer of a request', () => {
  beforeEach(() => void jest.useFakeTimers({ now: new Date('2026-03-14T10:00:00Z'), doNotFake: ['setImmediate'] }));
  afterEach(() => void jest.useRealTimers());

  function open() {
    let running: RequestHours['running'] = null;
    const studio = openStudio({
      hours: () => partOf<RequestHours>({ running }),
      timeWork: ({ path, body }) => {
        const { action } = body as WorkAction;
        const requestId = path.split('/')[2] ?? '';
        if (action === 'start')
          running = partOf<NonNullable<RequestHours['running']>>({ requestId, since: new Date().toISOString() });
        if (action === 'stop') running = null;
        return partOf<RequestHours>({ running });
      },
    });
    return Object.assign(studio, { timer: inScope(() => useWorkTimer()) });
  }
  const actions = ({ asked }: ReturnType<typeof open>) =>
    asked.flatMap(({ body }) => (body ? [(body as WorkAction).action] : []));
  async function minutes(count: number): Promise<void> {
    for (let minute = 0; minute < count; minute += 1) {
      await jest.advanceTimersByTimeAsync(60_000);
      await settle();
    }
  }

  test('runs for one request, and counts whole minutes', async () => {
    const work = open();
    await work.timer.load();
    await work.timer.toggle('r');
    expect([work.timer.runsFor('r'), work.timer.runsFor('s'), work.timer.minutes.value]).toEqual([true, false, 0]);
    await minutes(3);
    expect(work.timer.minutes.value).toBe(3);
    await work.timer.toggle('r');
    expect([work.timer.runsFor('r'), work.timer.minutes.value]).toEqual([false, 0]);
  });

  test('gives a sign of life a minute, while somebody is at work', async () => {
    const work = open();
    await work.timer.toggle('r');
    await minutes(4);
    expect(actions(work)).toEqual(['start', 'seen', 'seen', 'seen', 'seen']);
    await minutes(4);
    expect(actions(work)).toHaveLength(5);
    window.dispatchEvent(new MouseEvent('mousemove'));
    await minutes(1);
    expect(actions(work)).toHaveLength(6);
  });

  test('a sign of life that is lost is no trouble', async () => {
    const work = open();
    await work.timer.toggle('r');
    work.answers = { timeWork: () => CUT };
    await minutes(1);
    expect([said(), work.timer.runsFor('r')]).toEqual([undefined, true]);
    await work.timer.toggle('r');
    expect(said()).toBeDefined();
  });
});
