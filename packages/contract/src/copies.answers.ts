import type { CopiedPhrase, CopyPreview, LickWritten } from './copies.ts';
import { anyText, id, list, shape, type SchemaOf } from './typed.ts';

const copied = shape<CopiedPhrase>({
  name: anyText(),
  section: anyText(),
  before: anyText(),
  after: anyText(),
  changes: list(anyText()),
  left: list(anyText()),
});

/** Checks `CopyPreview` as it is answered. */
export const copyPreviewAnswer: SchemaOf<CopyPreview> = shape<CopyPreview>({
  title: anyText(),
  tuning: anyText(),
  phrases: list(copied),
});

/** Checks `LickWritten` as it is answered. */
export const lickWrittenAnswer: SchemaOf<LickWritten> = shape<LickWritten>({ songId: id(), phraseId: id() });
