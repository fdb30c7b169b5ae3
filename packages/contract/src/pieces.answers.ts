import { CLEAN_SCHOOLS, PIECE_KINDS, TEMPO_SCHOOLS } from '@jam-ledger/core/pieces';
import {
  dueAnswer,
  ladderRulesAnswer,
  masteryAnswer,
  nextStepAnswer,
  rungAnswer,
  sinceLessonAnswer,
  standingAnswer,
} from './standings.answers.ts';
import {
  MEDIA,
  OUTCOMES,
  type EarlierEntries,
  type EarlierResult,
  type Entry,
  type Expected,
  type Ledger,
  type LedgerCell,
  type LedgerPiece,
  type LedgerRow,
  type LedgerSong,
  type Loop,
  type Piece,
  type PiecePart,
  type Pin,
  type Posted,
} from './pieces.ts';
import { FIDELITY_SCHOOLS, HEARING_SCHOOLS, NAMING_SCHOOLS } from './schools.ts';
import { FEELS, PITCH_WAYS, RHYTHMS } from './songs.ts';
import {
  anyNumber,
  anyText,
  day,
  either,
  flag,
  id,
  list,
  named,
  oneOf,
  orNull,
  shape,
  type SchemaOf,
} from './typed.ts';

/** Checks `PiecePart` as it is answered. */
export const piecePartAnswer: SchemaOf<PiecePart> = shape<PiecePart>({
  name: anyText(),
  at: anyNumber(),
  length: anyNumber(),
  phraseId: id(),
  from: anyNumber(),
  to: orNull(anyNumber()),
});

/** Checks `Loop` as it is answered. */
export const loopAnswer: SchemaOf<Loop> = shape<Loop>({
  from: anyNumber(),
  to: anyNumber(),
});

/** Checks `Entry` as it is answered. */
export const entryAnswer: SchemaOf<Entry> = shape<Entry>({
  id: id(),
  version: anyNumber(),
  bpm: anyNumber(),
  outcome: oneOf(OUTCOMES),
  medium: oneOf(MEDIA),
  percent: anyNumber(),
  loop: orNull(loopAnswer),
  counts: flag(),
  remark: anyText(),
  postedAt: anyText(),
  day: day(),
  postedBy: named(),
  struck: flag(),
});

/** Checks `EarlierResult` as it is answered. */
export const earlierResultAnswer: SchemaOf<EarlierResult> = shape<EarlierResult>({
  day: day(),
  bpm: anyNumber(),
  outcome: oneOf(OUTCOMES),
  medium: oneOf(MEDIA),
  percent: anyNumber(),
});

/** Checks `EarlierEntries` as it is answered. */
export const earlierEntriesAnswer: SchemaOf<EarlierEntries> = shape<EarlierEntries>({
  entries: list(entryAnswer),
  hasEarlier: flag(),
});

/** Checks `Pin` as it is answered. */
export const pinAnswer: SchemaOf<Pin> = shape<Pin>({
  version: anyNumber(),
  by: shape<Pin['by']>({
    id: id(),
    name: anyText(),
    teaches: flag(),
  }),
  pinnedAt: anyText(),
  id: id(),
  phraseId: id(),
  at: anyNumber(),
  text: anyText(),
});

/** Checks `Expected` as it is answered. */
export const expectedAnswer: SchemaOf<Expected> = either(
  shape<Extract<Expected, { readonly early: unknown }>>({
    early: anyText(),
    middle: anyText(),
    late: anyText(),
    wanted: orNull(
      shape<NonNullable<Extract<Expected, { readonly early: unknown }>['wanted']>>({
        day: day(),
        chance: anyNumber(),
      }),
    ),
  }),
  shape<Extract<Expected, { readonly tooLittle: unknown }>>({
    tooLittle: anyText(),
  }),
);

const aroundAnswer: SchemaOf<Piece['around']> = shape<Piece['around']>({
  canSplit: flag(),
  join: orNull(anyText()),
});

/** Checks `Posted` as it is answered. */
export const postedAnswer: SchemaOf<Posted> = shape<Posted>({
  id: id(),
  version: anyNumber(),
  standing: standingAnswer,
  next: nextStepAnswer,
  around: aroundAnswer,
  mastery: masteryAnswer,
  due: orNull(dueAnswer),
  expected: orNull(expectedAnswer),
  entry: entryAnswer,
});

/** Checks `Piece` as it is answered. */
export const pieceAnswer: SchemaOf<Piece> = shape<Piece>({
  id: id(),
  version: anyNumber(),
  struck: flag(),
  kind: oneOf(PIECE_KINDS),
  student: named(),
  song: shape<Piece['song']>({
    title: anyText(),
    whose: anyText(),
    tuning: anyText(),
    capo: anyNumber(),
    key: anyText(),
    tempo: anyNumber(),
    meter: anyText(),
    frets: anyNumber(),
    offsetCents: anyNumber(),
    pitchWay: oneOf(PITCH_WAYS),
    feel: oneOf(FEELS),
    rhythm: oneOf(RHYTHMS),
    id: id(),
  }),
  section: shape<Piece['section']>({
    id: id(),
    label: anyText(),
    role: anyText(),
  }),
  phrase: shape<Piece['phrase']>({
    id: id(),
    name: anyText(),
    text: anyText(),
  }),
  parts: list(piecePartAnswer),
  hand: shape<Piece['hand']>({
    leftHanded: flag(),
    spanFrets: orNull(anyNumber()),
    scaleLengthMm: anyNumber(),
  }),
  startBpm: anyNumber(),
  targetBpm: anyNumber(),
  floorBpm: orNull(anyNumber()),
  assignedOn: orNull(day()),
  raising: oneOf(TEMPO_SCHOOLS),
  hearing: oneOf(HEARING_SCHOOLS),
  naming: oneOf(NAMING_SCHOOLS),
  fidelity: oneOf(FIDELITY_SCHOOLS),
  clean: oneOf(CLEAN_SCHOOLS),
  rules: ladderRulesAnswer,
  rungs: list(rungAnswer),
  entries: list(entryAnswer),
  hasEarlier: flag(),
  before: list(earlierResultAnswer),
  pins: list(pinAnswer),
  standing: standingAnswer,
  next: nextStepAnswer,
  around: aroundAnswer,
  mastery: masteryAnswer,
  due: orNull(dueAnswer),
  expected: orNull(expectedAnswer),
});

/** Checks `LedgerSong` as it is answered. */
export const ledgerSongAnswer: SchemaOf<LedgerSong> = shape<LedgerSong>({
  id: id(),
  title: anyText(),
  bars: anyNumber(),
  held: anyNumber(),
  full: anyNumber(),
  at80: anyNumber(),
  at60: anyNumber(),
});

/** Checks `LedgerCell` as it is answered. */
export const ledgerCellAnswer: SchemaOf<LedgerCell> = shape<LedgerCell>({
  day: day(),
  bpm: anyNumber(),
  outcome: oneOf(OUTCOMES),
  medium: oneOf(MEDIA),
  percent: anyNumber(),
  results: anyNumber(),
});

const ledgerPiece = {
  song: shape<LedgerPiece['song']>({
    id: id(),
    title: anyText(),
  }),
  phrase: named(),
  lastDay: orNull(day()),
  last: orNull(
    shape<NonNullable<LedgerPiece['last']>>({ bpm: anyNumber(), outcome: oneOf(OUTCOMES), medium: oneOf(MEDIA) }),
  ),
  since: orNull(sinceLessonAnswer),
  version: anyNumber(),
  id: id(),
  kind: oneOf(PIECE_KINDS),
  startBpm: anyNumber(),
  targetBpm: anyNumber(),
  assignedOn: orNull(day()),
  standing: standingAnswer,
  next: nextStepAnswer,
  mastery: masteryAnswer,
  due: orNull(dueAnswer),
  expected: orNull(expectedAnswer),
  section: shape<LedgerPiece['section']>({
    id: id(),
    label: anyText(),
    role: anyText(),
  }),
};

/** Checks `LedgerPiece` as it is answered. */
export const ledgerPieceAnswer: SchemaOf<LedgerPiece> = shape<LedgerPiece>(ledgerPiece);

/** Checks `LedgerRow` as it is answered. */
export const ledgerRowAnswer: SchemaOf<LedgerRow> = shape<LedgerRow>({
  ...ledgerPiece,
  cells: list(ledgerCellAnswer),
});

/** Checks `Ledger` as it is answered. */
export const ledgerAnswer: SchemaOf<Ledger> = shape<Ledger>({
  student: named(),
  today: anyText(),
  days: list(day()),
  lessons: list(day()),
  earlier: orNull(anyText()),
  lastLesson: orNull(anyText()),
  songs: list(ledgerSongAnswer),
  pieces: list(ledgerRowAnswer),
});
