import { randomUUID } from 'node:crypto';
import { COMMON_TIME, unroll } from '@jam-ledger/core/notation';
import { readPlaced } from '@jam-ledger/core/placing';
import { TUNINGS } from '@jam-ledger/core/pitch';
import { NO_CHANGES } from '@jam-ledger/core/series';
import { proposeScope } from '@jam-ledger/contract';
import { addPerson, addStudio, isEmpty, keepWards, type Store } from '../store/index.ts';
import {
  addPhrase,
  addSection,
  askForSong,
  assignPiece,
  beginSeries,
  changePiece,
  changeSchools,
  changeSeries,
  changeSetUp,
  dayOf,
  hashPassword,
  keepLessonNote,
  keepPlan,
  listRequests,
  moveRequest,
  pinNote,
  postEntry,
  showLedger,
  showPlan,
  showSchools,
  showTranscription,
  timeWork,
  contextOf,
  type RequestContext,
} from '../studio/index.ts';
import { demoSignIns, demoStudio } from './people.ts';
import { demoPlan } from './plan.ts';
import { demoHolidays, demoHours, demoNotes, demoSeries } from './series.ts';
import { demoRequests, demoSongs, type DemoPhrase, type DemoSong } from './songs.ts';

export { demoSignIns } from './people.ts';

const DAY_MS = 24 * 60 * 60 * 1000;

/**
 * Enters the made-up studio if the database is empty, through the same doors as people do; days count back
 * from `now`. Returns its name, or undefined when the database holds a studio already.
 */
export async function enterDemoStudio(store: Store, now: Date): Promise<string | undefined> {
  return store.inTransaction(async () => {
    // Two servers that start together enter it once.
    await store.lock('demo');
    if (!(await isEmpty(store))) return undefined;
    const demo = await DemoStudio.open(store, now);
    for (const song of demoSongs) await demo.song(song);
    for (const request of demoRequests) await demo.request(request);
    for (const one of demoSeries) await demo.series(one);
    for (const one of demoNotes) await demo.note(one);
    await demo.holidays();
    return demoStudio.name;
  });
}

/** What all requests of the demo have in common. */
const ASKED = { rendition: 'recorded', followsId: null } as const;

/** What the songs of the demo have where they say nothing else. */
const PLAIN_SET_UP = {
  secondKey: '',
  feel: 'straight',
  changes: [],
  rig: [],
  scaleLengthMm: 648,
  songSeconds: null,
  pitchWay: 'tune the guitar',
  tempoKnown: true,
  rhythm: 'counted',
  studentLayer: 'lead',
} as const;
const PLAIN_SECTION = {
  startKnown: true,
  barsKnown: true,
  tuning: null,
  capo: null,
  times: 1,
  open: false,
  passes: [],
  jump: null,
} as const;
const PLAIN_PHRASE = { layer: 'lead', certainty: 'heard', reason: '' } as const;

/** Signs of life of the timer, minutes apart. */
const SIGN_MINUTES = 9;

class DemoStudio {
  readonly #store: Store;
  readonly #now: Date;
  readonly #ids: ReadonlyMap<string, string>;

  private constructor(store: Store, now: Date, ids: ReadonlyMap<string, string>) {
    this.#store = store;
    this.#now = now;
    this.#ids = ids;
  }

  static async open(store: Store, now: Date): Promise<DemoStudio> {
    const studioId = await addStudio(store, demoStudio);
    const ids = new Map<string, string>();
    for (const { signInName, password, role, name, guitar, schools, wards = [] } of demoSignIns) {
      const passwordHash = await hashPassword(password);
      const id = await addPerson(store, { studioId, role, name, signInName, passwordHash, ...guitar, ...schools });
      ids.set(signInName, id);
      const own = wards.map((ward) => ids.get(ward) ?? '');
      await keepWards(store, { studioId, guardianId: id }, own);
    }
    return new DemoStudio(store, now, ids);
  }

  async #context(signInName: string, daysAgo: number): Promise<RequestContext> {
    const moment = new Date(this.#now.getTime() - daysAgo * DAY_MS);
    const context = await contextOf(this.#store, { personId: this.#ids.get(signInName) ?? '', now: moment });
    if (!context) throw new Error(`the demo studio has nobody called ${signInName}`);
    return context;
  }

  async request(request: (typeof demoRequests)[number]): Promise<void> {
    const { student, askedDaysAgo, wantedInDays, ...rest } = request;
    const context = await this.#context(student, askedDaysAgo);
    await askForSong(context, { ...rest, ...ASKED, wantedBy: this.#dayIn(context, wantedInDays) });
  }

  async series({
    student,
    firstDaysAgo,
    goalInDays,
    title,
    goal,
    parts,
    ...rule
  }: (typeof demoSeries)[number]): Promise<void> {
    const context = await this.#context('mara', firstDaysAgo);
    const today = await this.#context('mara', 0);
    const requests = await listRequests(today);
    const begun = await beginSeries(context, {
      studentId: this.#ids.get(student) ?? '',
      title,
      rule: { ...rule, firstDay: dayOf(context), everyWeeks: 1, weekdays: [], until: null },
      changes: NO_CHANGES,
      instalments: [],
      goal,
      goalDay: goalInDays === null ? null : this.#dayIn(today, goalInDays),
    });
    if (parts.length === 0) return;
    const coming = begun.lessons.filter(({ day }) => day >= dayOf(today));
    const instalments = parts.map(({ title: of, part, inLessons }) => ({
      requestId: requests.find((request) => request.title === of)?.id ?? '',
      part,
      day: coming[inLessons]?.day ?? null,
      delivered: false,
    }));
    const { id, version, studentId, rule: made, changes, goalDay } = begun;
    await changeSeries(today, id, {
      studentId,
      title,
      rule: made,
      changes,
      goal,
      goalDay,
      instalments,
      version,
      struck: false,
    });
  }

  /** What a lesson came to, written on its day. */
  async note({ student, daysAgo, words, home, assigned }: (typeof demoNotes)[number]): Promise<void> {
    const teacher = await this.#context('mara', daysAgo);
    const studentId = this.#ids.get(student) ?? '';
    const { pieces } = await showLedger(teacher, { studentId });
    const tempos = new Map<string, number>(Object.entries(assigned));
    const lines = pieces.flatMap(({ id, phrase, kind }) => {
      const bpm = kind === 'phrase' ? tempos.get(phrase.name) : undefined;
      return bpm === undefined ? [] : [{ pieceId: id, name: phrase.name, bpm }];
    });
    const at = { studentId, day: dayOf(teacher) };
    await keepLessonNote(teacher, at, { version: 0, words, home, assigned: lines, send: true });
  }

  async holidays(): Promise<void> {
    const owner = await this.#context('odile', 0);
    const holidays = demoHolidays.map(({ fromInDays, toInDays, name }) => ({
      from: this.#dayIn(owner, fromInDays),
      to: this.#dayIn(owner, toInDays),
      name,
    }));
    await changeSchools(owner, { ...(await showSchools(owner)), holidays });
  }

  /** Sits at a request with the timer running, a sign of life now and then. */
  async #hours(requestId: string, title: string): Promise<void> {
    for (const { daysAgo, minutes } of demoHours[title] ?? [])
      for (let minute = 0; minute <= minutes; minute += SIGN_MINUTES) {
        const teacher = await this.#context('mara', daysAgo - minute / (24 * 60));
        const action = minute === 0 ? 'start' : minute + SIGN_MINUTES > minutes ? 'stop' : 'seen';
        await timeWork(teacher, requestId, { action });
      }
  }

  async song({ student, askedDaysAgo, wantedInDays, setUp, sections, plan, ...parts }: DemoSong): Promise<void> {
    const { title, whose } = setUp;
    const asking = await this.#context(student, askedDaysAgo);
    const wantedBy = wantedInDays === null ? null : this.#dayIn(asking, wantedInDays);
    const request = await askForSong(asking, { title, whose, ...parts, ...ASKED, wantedBy });
    const teacher = await this.#context('mara', askedDaysAgo - 1);
    let { version: seen, transcriptionId } = request;
    for (const state of ['agreed', 'in work', 'to be checked', 'delivered', 'in practice'] as const) {
      const scope = state === 'agreed' ? proposeScope(request) : null;
      ({ version: seen, transcriptionId } = await moveRequest(teacher, request.id, {
        version: seen,
        state,
        scope,
        reason: '',
      }));
    }
    await this.#hours(request.id, title);
    const { id, version, frets } = await showTranscription(teacher, transcriptionId ?? '');
    await changeSetUp(teacher, id, { ...PLAIN_SET_UP, ...setUp, frets, version });
    for (const { phrases, ...section } of sections) {
      const { id: sectionId } = await addSection(teacher, id, { ...PLAIN_SECTION, ...section });
      for (const phrase of phrases) await this.#phrase(student, sectionId, phrase);
    }
    if (plan) await this.#plan(student, id, plan);
  }

  /** Cuts a song as the school of its student proposes, and gives some of it. */
  async #plan(student: string, songId: string, given: NonNullable<DemoSong['plan']>): Promise<void> {
    const teacher = await this.#context('mara', 6);
    const song = await showTranscription(teacher, songId);
    const empty = await showPlan(teacher, songId);
    const plan = await keepPlan(teacher, songId, { ...empty, pieces: demoPlan(song, empty.pieces) });
    for (const { id, name, startBpm, targetBpm, version } of plan.pieces) {
      const results = given[name];
      if (!results) continue;
      await changePiece(teacher, id, { startBpm, targetBpm, version, given: true, struck: false });
      await this.#results(student, id, results);
    }
  }

  async #phrase(
    student: string,
    sectionId: string,
    { name, text, known, tempos, results = [], pins = [] }: DemoPhrase,
  ): Promise<void> {
    const firstDay = results[0]?.[0] ?? 1;
    const teacher = await this.#context('mara', firstDay);
    const phrase = await addPhrase(teacher, sectionId, { name, text, ...PLAIN_PHRASE, ...known });
    if (!tempos) return;
    const [startBpm, targetBpm] = tempos;
    const piece = await assignPiece(teacher, { phraseId: phrase.id, startBpm, targetBpm });
    await this.#results(student, piece.id, results);
    const events = unroll(readPlaced(text, { tuning: TUNINGS.standard, meter: COMMON_TIME }).phrase).events;
    for (const { by, event, text: words } of pins) {
      const context = await this.#context(by === 'teacher' ? 'mara' : student, 2);
      const at = events[event]?.at ?? 0;
      await pinNote(context, piece.id, { id: randomUUID(), phraseId: phrase.id, at, text: words });
    }
  }

  async #results(student: string, pieceId: string, results: NonNullable<DemoPhrase['results']>): Promise<void> {
    for (const [daysAgo, bpm, outcome, medium] of results) {
      const context = await this.#context(medium === 'ink' ? 'mara' : student, daysAgo);
      await postEntry(context, pieceId, { id: randomUUID(), bpm, outcome, remark: '' });
    }
  }

  #dayIn(context: RequestContext, days: number): string {
    return dayOf(context, new Date(this.#now.getTime() + days * DAY_MS));
  }
}
