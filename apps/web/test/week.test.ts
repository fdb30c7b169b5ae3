import type { Desk, Found, PlanPiece, ReportPiece, SeriesReport } from '@jam-ledger/contract';
import { describe, expect, test } from '@jest/globals';
import { deskLines, LINE_KEYS, placeOfFound } from '../src/desk/deskLines.ts';
import { acceptLessons, planLessons, type LessonsAround } from '../src/pieces/planLessons.ts';
import { sayChance, sayStanding } from '../src/series/reportWords.ts';

const named = (name: string) => ({ id: name, name });
const CALL: Desk['calls'][number] = {
  piece: named('Climb'),
  section: '1B',
  song: 'Tide',
  student: named('Ines'),
  kind: 'stuck',
  why: '6 misses',
};
const DESK: Desk = {
  today: '2026-03-14',
  lessons: [
    {
      id: 'l',
      series: { id: 's', title: 'Saturdays' },
      student: named('Ines'),
      day: '2026-03-14',
      time: '17:00',
      minutes: 45,
      why: 'rule',
      number: 3,
      of: 10,
      opensWith: { kind: 'hear again', name: 'Answer', why: 'it is slipping' },
    },
  ],
  requests: [
    { id: 'r', title: 'Weir', student: named('Ferris'), state: 'agreed', due: null, isAtRisk: true, why: 'Late.' },
  ],
  calls: [CALL],
  calling: 4,
  notes: [
    { id: 'n', student: named('Ines'), piece: null, song: 'Tide', text: 'which finger?', at: '2026-03-13T10:00:00Z' },
  ],
};

describe('the desk as lines', () => {
  test('stands in the order of urgency, each line with a key of its own', () => {
    const groups = deskLines(DESK, 'Europe/Oslo');
    expect(groups.map(({ name, lines }) => [name, lines.map(({ key }) => key)])).toEqual([
      ['Lessons', ['1']],
      ['Requests', ['2']],
      ['Pieces that call', ['3']],
      ['Notes from students', ['4']],
    ]);
    expect(groups[0]?.lines[0]).toMatchObject({
      what: 'Ines',
      when: 'today, 17:00',
      why: 'Opens with “Answer” (hear again): it is slipping',
      isUrgent: true,
    });
    expect(groups[1]?.lines[0]).toMatchObject({ why: 'At risk. Late.', when: 'no day named' });
    expect(groups[2]).toMatchObject({
      more: 'and 3 more, less urgent; they come up in the lessons.',
      lines: [{ to: { query: { piece: 'Climb' } } }],
    });
  });

  test('lines beyond the keys have none, and no key is given twice', () => {
    const many = {
      ...DESK,
      calls: Array.from({ length: 50 }, (_, index) => ({ ...CALL, piece: named(`${index}`) })),
    };
    const keys = deskLines(many, 'utc').flatMap(({ lines }) => lines.map(({ key }) => key));
    expect(keys.filter((key) => key === undefined)).toHaveLength(keys.length - LINE_KEYS.length);
    expect(new Set(keys).size).toBe(LINE_KEYS.length + 1);
  });
});

describe('what is found', () => {
  const found = (more: Partial<Found>): Found => ({
    kind: 'song',
    id: 'x',
    text: '',
    where: '',
    studentId: 'ines',
    songId: 'tide',
    ...more,
  });
  test.each([
    [found({ kind: 'student' }), { name: 'ledger', params: { studentId: 'ines' } }],
    [found({ kind: 'student', studentId: null }), { name: 'studio' }],
    [found({ kind: 'phrase', id: 'p' }), { name: 'song', params: { id: 'tide' }, query: { phrase: 'p' } }],
    [found({ kind: 'section' }), { name: 'song', params: { id: 'tide' }, query: {} }],
    [found({ kind: 'series', id: 's' }), { name: 'series', query: { id: 's' } }],
    [found({ kind: 'remark' }), { name: 'ledger', params: { studentId: 'ines' } }],
    [found({ kind: 'lesson' }), { name: 'lesson', params: { studentId: 'ines' } }],
    [found({ kind: 'request' }), { name: 'requests' }],
  ])('leads to its place: %j', (one, place) => expect(placeOfFound(one)).toEqual(place));
});

describe('a report in plain words', () => {
  const piece = (name: string, more: Partial<ReportPiece> = {}): ReportPiece => ({
    id: name,
    name,
    song: 'Tide',
    kind: 'phrase',
    targetBpm: 84,
    inkBpm: null,
    pencilBpm: null,
    share: 0,
    state: 'building',
    next: '',
    assignedOn: '2026-03-01',
    expected: null,
    ...more,
  });
  const lesson = (day: string) => ({ day, time: '17:00', startsAt: '', endsAt: '', why: 'rule' as const });
  const report = (more: Partial<SeriesReport> = {}): SeriesReport => ({
    series: {
      id: 's',
      version: 1,
      struck: false,
      studentId: 'ines',
      title: 'Saturdays',
      rule: { firstDay: '2026-03-07', time: '17:00', minutes: 45, everyWeeks: 1, weekdays: [], count: 2, until: null },
      changes: { skips: [], moves: [], extras: [] },
      goal: 'the launch',
      goalDay: '2026-06-01',
      instalments: [],
      student: named('Ines'),
      teacher: named('Mara'),
      lessons: [lesson('2026-03-07'), lesson('2026-03-14')],
      closed: [],
    },
    today: '2026-03-14',
    songs: [],
    pieces: [piece('a', { state: 'held' }), piece('b'), piece('c', { assignedOn: null })],
    days: [],
    readiness: { by: '2026-06-01', chance: 0.3, pieces: 3, ready: 1, holdingBack: [{ name: 'b', chance: 0.3 }] },
    notes: [],
    instalments: [],
    ...more,
  });

  test('says how many lessons are done, what is held, and how likely the goal is', () => {
    const [done, held, goal] = sayStanding(report());
    expect(done).toBe('1 of 2 lessons are done.');
    expect(held).toBe('Ines practises 2 pieces of 3: 1 held at full speed, 0 at full speed for the first time.');
    expect(goal).toMatch(/for the launch is unlikely, 30 %; “b” holds it back most\.$/);
  });
  test('says so where nothing is given, and is silent about a goal nobody named', () =>
    expect(sayStanding(report({ pieces: [], readiness: null }))).toEqual([
      '1 of 2 lessons are done.',
      'Nothing has been given to practise yet.',
    ]));
  test.each([
    [1, 'very likely, 100 %'],
    [0.7, 'likely, 70 %'],
    [0.5, 'about even, 50 %'],
    [0.004, 'very unlikely, under 1 %'],
    [0, 'very unlikely, 0 %'],
  ])('a chance of %d is %s', (chance, words) => expect(sayChance(chance)).toBe(words));
});

describe('pieces spread over the coming lessons', () => {
  const piece = (id: string, lesson: PlanPiece['lesson'] = null): PlanPiece => ({
    id,
    kind: 'phrase',
    parts: [{ phraseId: id, from: 0, to: null }],
    startBpm: 60,
    targetBpm: 90,
    floorBpm: null,
    difficulty: null,
    fixed: false,
    lesson,
  });
  const DAYS = ['2026-03-21', '2026-03-28', '2026-04-04'];
  const around = (more: Partial<LessonsAround> = {}): LessonsAround => ({
    needs: new Map(),
    given: new Set(),
    nameOf: ({ id }) => id,
    stateOf: () => ({ stuck: false, state: 'building' }),
    lessons: DAYS.map((day) => ({ day, time: '17:00', startsAt: day, endsAt: day, why: 'rule' })),
    minutes: 45,
    today: '2026-03-14',
    ...more,
  });

  test('what is accepted is no longer a change', () => {
    const pieces = ['a', 'b', 'c'].map((id) => piece(id));
    const plan = planLessons(pieces, around());
    expect(plan?.moves).toHaveLength(3);
    const accepted = plan ? acceptLessons(pieces, plan) : [];
    expect(accepted.map(({ lesson }) => lesson)).toEqual(DAYS.map((day) => ({ day, fixed: false })));
    expect(planLessons(accepted, around())?.moves).toEqual([]);
  });

  test('what was put by hand stays by hand when the others are accepted', () => {
    const hand = { day: '2026-04-04', fixed: true };
    const pieces = [piece('a', hand), piece('b'), piece('c')];
    const plan = planLessons(pieces, around());
    expect(plan && acceptLessons(pieces, plan)[0]?.lesson).toBe(hand);
  });

  test('what is given is in no lesson, and is heard again instead', () => {
    const given = new Set(['a', 'b']);
    const plan = planLessons(
      ['a', 'b', 'c'].map((id) => piece(id)),
      around({ given }),
    );
    expect(plan?.dayOf.get('a')).toBeUndefined();
    expect(plan?.loads[0]?.room).toBe(34);
  });

  test('what needs a stuck piece waits for it, by name', () => {
    const needs = new Map([['b', ['a']]]);
    const stateOf = (id: string) => ({ stuck: id === 'a', state: 'building' });
    const plan = planLessons(
      [piece('a'), piece('b', { day: '2026-03-21', fixed: false })],
      around({ given: new Set(['a']), needs, stateOf }),
    );
    expect(plan?.moves).toEqual([
      { id: 'b', from: '2026-03-21', to: '2026-03-28', why: '“a” is stuck; this waits for it.' },
    ]);
  });
});
