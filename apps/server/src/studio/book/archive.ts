import Joi from 'joi';

/** What an archive says it is, in its `archive.json`. */
export const ARCHIVE_FORMAT = 'jam-ledger-archive';
/** Counted up when what an archive is changes; the tables have the edition of the book. */
export const ARCHIVE_VERSION = 1;
/** Where in the archive it says what it is. */
export const MANIFEST = 'archive.json';

/** A table in an archive: its lines of JSON stand in `tables/NAME.jsonl`. */
export interface ArchivedTable {
  readonly name: string;
  readonly columns: readonly string[];
  readonly rows: number;
  /** Length of its file unpacked, bytes. */
  readonly bytes: number;
  /** Its digest, in hexadecimal. Source: FIPS 180-4. */
  readonly sha256: string;
}

/** What an archive says of itself. */
export interface Manifest {
  readonly format: typeof ARCHIVE_FORMAT;
  readonly version: number;
  /** The newest migration of the book it was made from. */
  readonly edition: string;
  readonly madeAt: string;
  readonly why: BackupReason;
  readonly studios: readonly { readonly id: string; readonly name: string; readonly demo: boolean }[];
  readonly tables: readonly ArchivedTable[];
}

/** Why a backup was made. */
export const BACKUP_REASONS = ['by hand', 'by schedule', 'before a migration', 'before a restore'] as const;
/** One of the `BACKUP_REASONS`. */
export type BackupReason = (typeof BACKUP_REASONS)[number];

const NAME = /^[a-z][a-z0-9_]{0,62}$/;
const name = Joi.string().pattern(NAME);

/** Checks what an archive says of itself, whoever wrote it. */
export const manifestSchema = Joi.object<Manifest>({
  format: Joi.valid(ARCHIVE_FORMAT).required(),
  version: Joi.number().integer().min(1).required(),
  edition: Joi.string().max(64).required(),
  madeAt: Joi.string().isoDate().required(),
  why: Joi.valid(...BACKUP_REASONS).required(),
  studios: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().guid().required(),
        name: Joi.string().max(200).required(),
        demo: Joi.boolean().required(),
      }),
    )
    .max(1000)
    .required(),
  tables: Joi.array()
    .items(
      Joi.object({
        name: name.required(),
        columns: Joi.array().items(name).min(1).max(200).unique().required(),
        rows: Joi.number().integer().min(0).required(),
        bytes: Joi.number().integer().min(0).required(),
        sha256: Joi.string().hex().length(64).required(),
      }),
    )
    .unique('name')
    .max(200)
    .required(),
});

/** The file of a table in an archive. */
export const fileOf = (table: string) => `tables/${table}.jsonl`;
