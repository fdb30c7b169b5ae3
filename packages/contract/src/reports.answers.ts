import { PIECE_KINDS } from '@jam-ledger/core/pieces';
import { workEstimateAnswer } from './standings.answers.ts';
import { homeNoteAnswer } from './lessons.answers.ts';
import { ledgerSongAnswer } from './pieces.answers.ts';
import type { HeldBand, Readiness, ReportDay, ReportPiece, SeriesReport, StudioReport, StudioWeek } from './reports.ts';
import { workPastAnswer } from './requests.answers.ts';
import { seriesAnswer } from './series.answers.ts';
import { anyNumber, anyText, day, flag, id, list, oneOf, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `ReportPiece` as it is answered. */
export const reportPieceAnswer: SchemaOf<ReportPiece> = shape<ReportPiece>({
  id: id(),
  name: anyText(),
  song: anyText(),
  kind: oneOf(PIECE_KINDS),
  targetBpm: anyNumber(),
  inkBpm: orNull(anyNumber()),
  pencilBpm: orNull(anyNumber()),
  share: anyNumber(),
  state: oneOf(['not begun', 'building', 'at target in pencil', 'at target in ink', 'held', 'slipping']),
  next: anyText(),
  assignedOn: orNull(day()),
  expected: orNull(
    shape<NonNullable<ReportPiece['expected']>>({
      early: anyText(),
      middle: anyText(),
      late: anyText(),
    }),
  ),
});

/** Checks `ReportDay` as it is answered. */
export const reportDayAnswer: SchemaOf<ReportDay> = shape<ReportDay>({
  day: day(),
  ink: anyNumber(),
  all: anyNumber(),
});

/** Checks `Readiness` as it is answered. */
export const readinessAnswer: SchemaOf<Readiness> = shape<Readiness>({
  by: anyText(),
  chance: orNull(anyNumber()),
  pieces: anyNumber(),
  ready: anyNumber(),
  holdingBack: list(
    shape<Readiness['holdingBack'][number]>({
      name: anyText(),
      chance: anyNumber(),
    }),
  ),
});

/** Checks `SeriesReport` as it is answered. */
export const seriesReportAnswer: SchemaOf<SeriesReport> = shape<SeriesReport>({
  series: seriesAnswer,
  today: anyText(),
  songs: list(ledgerSongAnswer),
  pieces: list(reportPieceAnswer),
  days: list(reportDayAnswer),
  readiness: orNull(readinessAnswer),
  notes: list(homeNoteAnswer),
  instalments: list(
    shape<SeriesReport['instalments'][number]>({
      title: anyText(),
      part: anyText(),
      day: orNull(day()),
      delivered: flag(),
    }),
  ),
});

/** Checks `HeldBand` as it is answered. */
export const heldBandAnswer: SchemaOf<HeldBand> = shape<HeldBand>({
  from: anyNumber(),
  to: anyNumber(),
  pieces: anyNumber(),
  held: anyNumber(),
  medianDays: orNull(anyNumber()),
});

/** Checks `StudioWeek` as it is answered. */
export const studioWeekAnswer: SchemaOf<StudioWeek> = shape<StudioWeek>({
  from: anyText(),
  lessons: anyNumber(),
  lessonMinutes: anyNumber(),
  workMinutes: anyNumber(),
});

/** Checks `StudioReport` as it is answered. */
export const studioReportAnswer: SchemaOf<StudioReport> = shape<StudioReport>({
  today: anyText(),
  work: list(workPastAnswer),
  onePart: workEstimateAnswer,
  held: list(heldBandAnswer),
  weeks: list(studioWeekAnswer),
  workMinutes: anyNumber(),
});
