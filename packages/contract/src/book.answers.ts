import {
  JOB_KINDS,
  JOB_STATES,
  TRAIL_ACTS,
  type Backup,
  type BookJob,
  type BookState,
  type ErasedCount,
  type Erasing,
  type Erasure,
  type TrailLine,
  type TrailPage,
} from './book.ts';
import { anyNumber, anyText, flag, id, list, oneOf, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `Backup` as it is answered. */
export const backupAnswer: SchemaOf<Backup> = shape<Backup>({
  file: anyText(),
  bytes: anyNumber(),
  madeAt: anyText(),
  why: anyText(),
  studios: list(anyText()),
  rows: anyNumber(),
  trouble: orNull(anyText()),
});

const job = shape<BookJob>({
  id: id(),
  kind: oneOf(JOB_KINDS),
  state: oneOf(JOB_STATES),
  done: anyNumber(),
  total: anyNumber(),
  says: anyText(),
});

/** Checks `BookState` as it is answered. */
export const bookStateAnswer: SchemaOf<BookState> = shape<BookState>({
  hasFolder: flag(),
  everyHours: anyNumber(),
  keep: anyNumber(),
  backups: list(backupAnswer),
  job: orNull(job),
  erasing: list(shape<Erasing>({ id: id(), name: anyText(), on: anyText() })),
});

/** Checks `Erasure` as it is answered. */
export const erasureAnswer: SchemaOf<Erasure> = shape<Erasure>({
  id: id(),
  version: anyNumber(),
  name: anyText(),
  on: orNull(anyText()),
  waitDays: anyNumber(),
  counts: list(shape<ErasedCount>({ table: anyText(), rows: anyNumber() })),
  guardians: list(anyText()),
});

const trailLine = shape<TrailLine>({
  line: anyNumber(),
  at: anyText(),
  by: orNull(anyText()),
  act: oneOf(TRAIL_ACTS),
  about: orNull(anyText()),
  detail: anyText(),
});

/** Checks `TrailPage` as it is answered. */
export const trailPageAnswer: SchemaOf<TrailPage> = shape<TrailPage>({ lines: list(trailLine), more: flag() });
