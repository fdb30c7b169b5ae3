/** Lessons of the demo studio, counted from today; the days on which a teacher heard somebody are among them. */
export const demoSeries = [
  {
    student: 'ines',
    title: 'Friday blues',
    firstDaysAgo: 33,
    time: '16:30',
    minutes: 45,
    count: 12,
    goal: 'her sister’s boat launch',
    goalInDays: 25,
    parts: [],
  },
  {
    student: 'tomas',
    title: 'After school',
    firstDaysAgo: 24,
    time: '17:30',
    minutes: 30,
    count: 10,
    goal: '',
    goalInDays: null,
    parts: [],
  },
  {
    student: 'pia',
    title: 'Songs to sing',
    firstDaysAgo: 11,
    time: '15:45',
    minutes: 30,
    count: 8,
    goal: '',
    goalInDays: null,
    parts: [],
  },
  {
    student: 'ferris',
    title: 'Picking it up again',
    firstDaysAgo: 7,
    time: '19:00',
    minutes: 60,
    count: 10,
    goal: '',
    goalInDays: null,
    parts: [
      { title: 'The Weir Song', part: 'intro', inLessons: 1 },
      { title: 'The Weir Song', part: 'the two fills after the chorus', inLessons: 2 },
    ],
  },
] as const;

/** Days on which the demo studio is closed, counted from today. */
export const demoHolidays = [{ fromInDays: 44, toInDays: 50, name: 'low-tide week' }] as const;

/** What lessons of the demo came to. */
export const demoNotes = [
  {
    student: 'ines',
    daysAgo: 5,
    words: 'She rushes the bend when she is tired; begin slower next time.',
    home: 'Ten minutes a day, bends first, while the ear is fresh. Stop when the hand says so.',
    assigned: { 'Opening bend': 72, Answer: 84 },
  },
  {
    student: 'tomas',
    daysAgo: 3,
    words: '',
    home: 'Down strokes on the riff until it grooves at the slow tempo.',
    assigned: {},
  },
  {
    student: 'pia',
    daysAgo: 4,
    words: 'Thumb and first finger only, for now.',
    home: 'The picking pattern, very slowly, with the thumb steady.',
    assigned: {},
  },
] as const;

/** Minutes that the teacher sat at songs of the demo, with the timer running, by title. */
export const demoHours: Readonly<Record<string, readonly { readonly daysAgo: number; readonly minutes: number }[]>> = {
  'Slow Tide at Crannoch Steps': [
    { daysAgo: 38, minutes: 72 },
    { daysAgo: 37, minutes: 54 },
  ],
  'Copper Kettle Reel': [{ daysAgo: 28, minutes: 99 }],
  'Lanterns on the Quay': [{ daysAgo: 16, minutes: 36 }],
};
