import { STRUCK_KINDS, type Correction, type Counts, type StruckLine } from './struck.ts';
import { anyNumber, anyText, flag, id, oneOf, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `StruckLine` as it is answered. */
export const struckLineAnswer: SchemaOf<StruckLine> = shape<StruckLine>({
  kind: oneOf(STRUCK_KINDS),
  id: id(),
  version: anyNumber(),
  name: anyText(),
  place: anyText(),
  at: orNull(anyText()),
  mayPutBack: flag(),
});

/** Checks `Correction` as it is answered. */
export const correctionAnswer: SchemaOf<Correction> = shape<Correction>({
  id: id(),
  at: anyText(),
  by: anyText(),
  kind: anyText(),
  field: anyText(),
  name: anyText(),
  was: anyText(),
  became: anyText(),
});

/** Checks `Counts` as it is answered. */
export const countsAnswer: SchemaOf<Counts> = shape<Counts>({
  desk: anyNumber(),
  requests: anyNumber(),
  practice: anyNumber(),
  home: anyNumber(),
});
