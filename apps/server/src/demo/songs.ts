import type { GuitarMeant, PhraseBody, SectionBody, SetUp, SongBasics } from '@jam-ledger/contract';

/** One phrase of a made-up song, with the results posted for it. */
export interface DemoPhrase {
  readonly name: string;
  readonly text: string;
  readonly known?: Partial<PhraseBody>;
  /** Start and target tempo; left out when it is not assigned yet. */
  readonly tempos?: readonly [start: number, target: number];
  /** Days ago, tempo, how it went, and whether the teacher heard it. */
  readonly results?: readonly (readonly [
    daysAgo: number,
    bpm: number,
    went: 'clean' | 'not-yet',
    medium: 'ink' | 'pencil',
  ])[];
  readonly pins?: readonly DemoPin[];
}

/** A note pinned to an event of a phrase, counted from its first. */
export interface DemoPin {
  readonly by: 'student' | 'teacher';
  readonly event: number;
  readonly text: string;
}

/** A section of a made-up song; what is left out is plain. */
export interface DemoSection
  extends
    Pick<SectionBody, 'label' | 'role' | 'startSeconds' | 'bars'>,
    Partial<Pick<SectionBody, 'times' | 'open' | 'passes'>> {
  readonly phrases: readonly DemoPhrase[];
}

/** A made-up song as transcribed for one student. */
export interface DemoSong {
  readonly student: string;
  readonly askedDaysAgo: number;
  readonly wantedInDays: number | null;
  readonly wanted: readonly string[];
  readonly notWanted: readonly string[];
  readonly guitarMeant: GuitarMeant;
  readonly guitar: string;
  readonly remarks: string;
  readonly setUp: Omit<SongBasics, 'frets' | 'feel' | 'pitchWay' | 'rhythm'> & Partial<SetUp>;
  readonly sections: readonly DemoSection[];
  /** Whether its pieces are cut; what is given of them besides phrases, by name, with its results. */
  readonly plan?: Readonly<Record<string, DemoPhrase['results']>>;
}

/** The songs of the demo studio. All of them, and whoever plays them, are made up. */
export const demoSongs: readonly DemoSong[] = [
  {
    student: 'ines',
    askedDaysAgo: 40,
    wantedInDays: 25,
    wanted: ['solo', 'lead fills'],
    notWanted: ['rhythm'],
    guitarMeant: 'the first of two',
    guitar: '22 frets, no tremolo arm',
    remarks: 'For my sister’s boat launch. The slow version, please.',
    setUp: {
      title: 'Slow Tide at Crannoch Steps',
      whose: 'The Brinewick Parade',
      tuning: 'standard',
      capo: 0,
      key: 'A',
      tempo: 84,
      meter: '4/4',
      offsetCents: -14,
    },
    sections: [
      {
        label: '1A',
        role: 'solo',
        startSeconds: 17,
        bars: 4,
        phrases: [
          {
            name: 'Opening bend',
            text: ':A7 /8 5G 7Gb1r 5G 7D /4 7D~ - | /8 5B 8Bb1 5e 8Bb.5r /4 5B~ - |',
            tempos: [50, 84],
            results: [
              [33, 50, 'clean', 'ink'],
              [31, 56, 'clean', 'pencil'],
              [29, 56, 'clean', 'pencil'],
              [27, 61, 'not-yet', 'pencil'],
              [26, 61, 'clean', 'ink'],
              [23, 67, 'clean', 'pencil'],
              [21, 67, 'clean', 'pencil'],
              [19, 73, 'clean', 'ink'],
              [15, 78, 'not-yet', 'pencil'],
              [14, 78, 'clean', 'pencil'],
              [12, 78, 'clean', 'ink'],
              [8, 84, 'clean', 'pencil'],
              [5, 84, 'clean', 'ink'],
            ],
          },
          {
            name: 'Answer',
            text: ':D7 /8t 7Dh9p7 5G 7G 5B /4 7Gb1 5B~ | :A7 /8 8Bp5 7G s9 /2 7G~~ |',
            tempos: [50, 84],
            results: [
              [26, 50, 'clean', 'ink'],
              [24, 56, 'not-yet', 'pencil'],
              [22, 56, 'clean', 'pencil'],
              [19, 56, 'clean', 'ink'],
              [16, 61, 'clean', 'pencil'],
              [12, 61, 'clean', 'ink'],
              [9, 67, 'clean', 'pencil'],
              [7, 73, 'not-yet', 'pencil'],
              [5, 67, 'clean', 'ink'],
              [2, 73, 'clean', 'pencil'],
            ],
            pins: [{ by: 'student', event: 11, text: 'Do I pick the 9 again, or slide into it?' }],
          },
        ],
      },
      {
        label: '1B',
        role: 'solo',
        startSeconds: 28.4,
        bars: 4,
        phrases: [
          {
            name: 'Climb to the top',
            text: ':E7 /16 5Dh7 5G 7G 5B 7B 5e 8e /4 10Bb1 /8 8e 5e | :D7 /8 7Gb1r 5G /16 7D 5D 7A 5A /2 5D~ |',
            tempos: [44, 84],
            results: [
              [19, 44, 'clean', 'ink'],
              [17, 50, 'not-yet', 'pencil'],
              [15, 50, 'not-yet', 'pencil'],
              [12, 50, 'not-yet', 'ink'],
              [10, 44, 'clean', 'pencil'],
              [8, 50, 'not-yet', 'pencil'],
              [5, 50, 'not-yet', 'ink'],
              [3, 50, 'not-yet', 'pencil'],
            ],
            pins: [{ by: 'teacher', event: 8, text: 'Third finger, with the first two behind it.' }],
          },
          { name: 'Last word', text: ':A7 /8 5e 8Bb1 _ 5e 8B p5 7G 5G | /4 7D h9 /2 7D~~ |' },
        ],
      },
    ],
    plan: {
      'Opening bend into Answer': [
        [5, 56, 'clean', 'ink'],
        [4, 62, 'clean', 'pencil'],
        [2, 62, 'not-yet', 'pencil'],
      ],
    },
  },
  {
    student: 'tomas',
    askedDaysAgo: 30,
    wantedInDays: 40,
    wanted: ['riff', 'the break'],
    notWanted: ['the keyboard part'],
    guitarMeant: 'blended into one',
    guitar: '24 frets, tremolo arm',
    remarks: '',
    setUp: {
      title: 'Copper Kettle Reel',
      whose: 'Odd Hob',
      tuning: 'drop D',
      capo: 0,
      key: 'D minor',
      secondKey: 'F major',
      songSeconds: 74,
      rig: [
        { fromSeconds: 0, toSeconds: 21.2, note: 'bridge pickup, driven' },
        { fromSeconds: 21.2, toSeconds: null, note: 'neck pickup, cleaner' },
      ],
      tempo: 126,
      meter: '4/4',
      offsetCents: 0,
    },
    sections: [
      {
        label: '1A',
        role: 'riff',
        startSeconds: 6,
        bars: 2,
        times: 4,
        passes: [{ pass: 'last', change: 'stops on the power chord' }],
        phrases: [
          {
            name: 'Kettle riff',
            text: '{m: 0E%2} 3E 5E {m: 0E%2} 7E 5E | {m: 0E%2} 3E 5E 7E s5 /4 0EAD |',
            tempos: [70, 126],
            results: [
              [24, 70, 'clean', 'ink'],
              [20, 87, 'clean', 'pencil'],
              [17, 95, 'clean', 'ink'],
              [13, 103, 'clean', 'pencil'],
              [10, 103, 'clean', 'ink'],
              [3, 95, 'not-yet', 'ink'],
            ],
          },
        ],
      },
      {
        label: '1B',
        role: 'fill',
        startSeconds: 21.2,
        bars: 2,
        phrases: [
          {
            name: 'The break',
            text: '/16 5Dh7p5 7A 5D 7D s9 7D /4 {guess: "could be 9" 7DG} 5DG | /2 0EAD - |',
            known: { certainty: 'likely', reason: 'two guitars there' },
          },
        ],
      },
    ],
  },
  {
    student: 'pia',
    askedDaysAgo: 18,
    wantedInDays: null,
    wanted: ['the picking pattern'],
    notWanted: [],
    guitarMeant: 'the only guitar',
    guitar: 'small one, 20 frets',
    remarks: 'Pia sings along, so not too fast.',
    setUp: {
      title: 'Lanterns on the Quay',
      whose: 'Mother Oystercatcher',
      tuning: 'standard',
      capo: 2,
      key: 'G',
      tempo: 92,
      meter: '3/4',
      offsetCents: 6,
    },
    sections: [
      {
        label: '1A',
        role: 'verse',
        startSeconds: 0,
        bars: 2,
        phrases: [
          {
            name: 'Rocking boat',
            text: ':G /8 3E 0D 0G 0B 0G 0D | :Em 0E 2D 0G 0B 0G 2D |',
            tempos: [54, 92],
            results: [
              [11, 54, 'clean', 'ink'],
              [9, 60, 'clean', 'pencil'],
              [4, 60, 'clean', 'ink'],
              [1, 66, 'not-yet', 'pencil'],
            ],
          },
        ],
      },
    ],
  },
];

/** Requests that wait on the desk; the last cannot be met by the day it is wanted. */
export const demoRequests = [
  {
    student: 'ferris',
    askedDaysAgo: 6,
    title: 'The Weir Song',
    whose: 'Tallow & Pike',
    wanted: ['intro', 'the two fills after the chorus'],
    notWanted: ['rhythm'],
    guitarMeant: 'the only guitar',
    guitar: '21 frets',
    wantedInDays: 30,
    remarks: 'I used to play this thirty years ago.',
  },
  {
    student: 'tomas',
    askedDaysAgo: 1,
    title: 'Night Ferry Stomp',
    whose: 'Nine Bells Late',
    wanted: ['riff', 'rhythm', 'solo', 'the second solo'],
    notWanted: [],
    guitarMeant: 'blended into one',
    guitar: '24 frets, tremolo arm',
    wantedInDays: 3,
    remarks: 'School concert on the day. Is that possible?',
  },
] as const;
