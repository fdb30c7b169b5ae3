import type { Model, ModelStatic, Sequelize } from 'sequelize';
import type { Columns, NewRowOf, RowOf } from './columns.ts';
import * as tables from './tables.ts';

/** A row of a table, as a model of Sequelize. */
type ModelOf<Table extends Columns> = Model<RowOf<Table>, NewRowOf<Table>> & RowOf<Table>;

/** What every row of a studio has, with the version that guards it against stale saves. */
export type StudioRow = Model & { id: string; studioId: string; version: number };

export type StudioModel = ModelOf<typeof tables.STUDIOS>;
export type PersonModel = ModelOf<typeof tables.PEOPLE>;
export type GuardianModel = ModelOf<typeof tables.GUARDIANS>;
export type InvitationModel = ModelOf<typeof tables.INVITATIONS>;
export type CalendarFeedModel = ModelOf<typeof tables.CALENDAR_FEEDS>;
export type MailModel = ModelOf<typeof tables.OUTBOX>;
export type TrailModel = ModelOf<typeof tables.TRAIL>;
export type DeviceModel = ModelOf<typeof tables.DEVICES>;
export type SoundModel = ModelOf<typeof tables.SOUNDS>;
export type CorrectionModel = ModelOf<typeof tables.CORRECTIONS>;
export type BookJobModel = ModelOf<typeof tables.BOOK_JOBS>;
export type RequestModel = ModelOf<typeof tables.REQUESTS>;
export type RequestEventModel = ModelOf<typeof tables.REQUEST_EVENTS>;
export type TranscriptionModel = ModelOf<typeof tables.TRANSCRIPTIONS>;
export type SectionModel = ModelOf<typeof tables.SECTIONS>;
export type PhraseModel = ModelOf<typeof tables.PHRASES>;
export type PhraseRevisionModel = ModelOf<typeof tables.PHRASE_REVISIONS>;
export type PhraseFactsModel = ModelOf<typeof tables.PHRASE_FACTS>;
export type PieceModel = ModelOf<typeof tables.PIECES>;
export type EntryModel = ModelOf<typeof tables.ENTRIES>;
export type PlanModel = ModelOf<typeof tables.PLANS>;
export type PinModel = ModelOf<typeof tables.PINS>;
export type SeriesModel = ModelOf<typeof tables.SERIES>;
export type LessonNoteModel = ModelOf<typeof tables.LESSON_NOTES>;
export type LessonNoteRevisionModel = ModelOf<typeof tables.LESSON_NOTE_REVISIONS>;
export type HearingModel = ModelOf<typeof tables.HEARINGS>;
export type WorkSpanModel = ModelOf<typeof tables.WORK_SPANS>;

/** Models bound to one database. */
export interface Models {
  readonly studios: ModelStatic<StudioModel>;
  readonly people: ModelStatic<PersonModel>;
  readonly guardians: ModelStatic<GuardianModel>;
  readonly invitations: ModelStatic<InvitationModel>;
  readonly calendarFeeds: ModelStatic<CalendarFeedModel>;
  readonly outbox: ModelStatic<MailModel>;
  readonly trail: ModelStatic<TrailModel>;
  readonly devices: ModelStatic<DeviceModel>;
  readonly sounds: ModelStatic<SoundModel>;
  readonly corrections: ModelStatic<CorrectionModel>;
  readonly bookJobs: ModelStatic<BookJobModel>;
  readonly requests: ModelStatic<RequestModel>;
  readonly requestEvents: ModelStatic<RequestEventModel>;
  readonly transcriptions: ModelStatic<TranscriptionModel>;
  readonly sections: ModelStatic<SectionModel>;
  readonly phrases: ModelStatic<PhraseModel>;
  readonly phraseRevisions: ModelStatic<PhraseRevisionModel>;
  readonly phraseFacts: ModelStatic<PhraseFactsModel>;
  readonly pieces: ModelStatic<PieceModel>;
  readonly entries: ModelStatic<EntryModel>;
  readonly plans: ModelStatic<PlanModel>;
  readonly pins: ModelStatic<PinModel>;
  readonly series: ModelStatic<SeriesModel>;
  readonly lessonNotes: ModelStatic<LessonNoteModel>;
  readonly lessonNoteRevisions: ModelStatic<LessonNoteRevisionModel>;
  readonly hearings: ModelStatic<HearingModel>;
  readonly workSpans: ModelStatic<WorkSpanModel>;
}

/** Makes the models of one database. */
export function defineModels(sequelize: Sequelize): Models {
  const define = <Table extends Columns>(tableName: string, columns: Table): ModelStatic<ModelOf<Table>> => {
    const attributes = Object.entries(columns).map(([name, { attribute }]) => [name, { ...attribute }]);
    const options = { tableName, underscored: true, timestamps: false };
    // Which columns there are is what the type says; a loop over them cannot be followed by types.
    return sequelize.define<ModelOf<Table>>(tableName, Object.fromEntries(attributes) as never, options);
  };
  const models = {
    studios: define('studios', tables.STUDIOS),
    people: define('people', tables.PEOPLE),
    guardians: define('guardians', tables.GUARDIANS),
    invitations: define('invitations', tables.INVITATIONS),
    calendarFeeds: define('calendar_feeds', tables.CALENDAR_FEEDS),
    outbox: define('outbox', tables.OUTBOX),
    trail: define('trail', tables.TRAIL),
    devices: define('devices', tables.DEVICES),
    sounds: define('sounds', tables.SOUNDS),
    corrections: define('corrections', tables.CORRECTIONS),
    bookJobs: define('book_jobs', tables.BOOK_JOBS),
    requests: define('requests', tables.REQUESTS),
    requestEvents: define('request_events', tables.REQUEST_EVENTS),
    transcriptions: define('transcriptions', tables.TRANSCRIPTIONS),
    sections: define('sections', tables.SECTIONS),
    phrases: define('phrases', tables.PHRASES),
    phraseRevisions: define('phrase_revisions', tables.PHRASE_REVISIONS),
    phraseFacts: define('phrase_facts', tables.PHRASE_FACTS),
    pieces: define('pieces', tables.PIECES),
    entries: define('entries', tables.ENTRIES),
    plans: define('plans', tables.PLANS),
    pins: define('pins', tables.PINS),
    series: define('series', tables.SERIES),
    lessonNotes: define('lesson_notes', tables.LESSON_NOTES),
    lessonNoteRevisions: define('lesson_note_revisions', tables.LESSON_NOTE_REVISIONS),
    hearings: define('hearings', tables.HEARINGS),
    workSpans: define('work_spans', tables.WORK_SPANS),
  };
  associate(models);
  return models;
}

/** Whose name stands beside a row. */
export interface WithPerson {
  readonly person: PersonModel;
}

/** Plain joins: whoever did something, and the ward of a guardian. The keys themselves stand in the migrations. */
function associate({ people, phraseRevisions, requestEvents, guardians }: Models): void {
  phraseRevisions.belongsTo(people, { as: 'person', foreignKey: 'personId', constraints: false });
  requestEvents.belongsTo(people, { as: 'person', foreignKey: 'personId', constraints: false });
  guardians.belongsTo(people, { as: 'person', foreignKey: 'studentId', constraints: false });
}
