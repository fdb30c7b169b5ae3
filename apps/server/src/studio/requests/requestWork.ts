import {
  type Earliest,
  type EarliestQuery,
  FIDELITY_SCHOOLS,
  REQUEST_STATES,
  type FidelitySchool,
  type RequestHours,
  type RequestState,
  type WorkAction,
  type WorkPast,
} from '@jam-ledger/contract';
import {
  estimateWork,
  promisesOf,
  type DoneWork,
  type OpenWork,
  type WorkEstimate,
  type WorkRequest,
} from '@jam-ledger/core/desk';
import {
  GRACE_MINUTES,
  addRow,
  endRunning,
  findInstalments,
  findOwn,
  findRunning,
  findStudio,
  findWork,
  seeRunning,
  type WorkRow,
} from '../../store/index.ts';
import { orNotFound, parseWord } from '../context/rows.ts';
import { dayOf, type RequestContext } from '../context/context.ts';

/** What still is work for the teacher. */
const TO_DO: readonly RequestState[] = ['asked', 'agreed', 'in work', 'to be checked'];
/** What was worked out to its end. */
const DONE: readonly RequestState[] = ['delivered', 'in practice', 'closed'];
/** Fewer minutes tell nothing of what a request takes. Our choice. */
const MIN_MINUTES = 5;
/** What is left of a request when it only waits to be checked, as a share of it; and the least that is left of any. Our choice. */
const LEFT = { toCheck: 0.15, leastMinutes: 5 } as const;

/** A request on the desk as work. */
export interface RequestWork extends OpenWork {
  readonly state: RequestState;
  readonly student: { readonly id: string; readonly name: string };
  readonly fidelity: FidelitySchool;
  readonly estimate: WorkEstimate;
  readonly spentMinutes: number;
}

/** What is on the desk, what was worked out to its end, and the minutes there are in a week. */
export interface DeskWork {
  readonly works: readonly RequestWork[];
  /** As estimates learn from it. */
  readonly past: readonly DoneWork[];
  readonly workMinutes: number;
}

/** What is on the desk as work, estimated from the studio’s own past. */
export async function openWork(context: RequestContext): Promise<DeskWork> {
  const { store, studio, now } = context;
  const [rows, row, instalments] = await Promise.all([
    findWork(store, studio.id, { now, states: TO_DO }),
    findStudio(store, studio.id),
    findInstalments(store, studio.id),
  ]);
  const past = pastOf(rows);
  const works = rows.flatMap((work): readonly RequestWork[] => {
    const state = parseWord(REQUEST_STATES, work.state);
    if (!TO_DO.includes(state)) return [];
    const { id, title, studentId, studentName, spentMinutes } = work;
    const estimate = estimateWork(factsOf(work), past);
    const whole = state === 'to be checked' ? estimate.minutes * LEFT.toCheck : estimate.minutes - spentMinutes;
    return [
      {
        id,
        title,
        state,
        student: { id: studentId, name: studentName },
        estimate,
        fidelity: parseWord(FIDELITY_SCHOOLS, work.fidelity),
        spentMinutes: Math.round(spentMinutes),
        minutesLeft: Math.round(Math.max(LEFT.leastMinutes, whole)),
        due: work.promisedFor ?? work.wantedBy,
        instalments: instalments.flatMap(({ requestId, day }) => (requestId === id && day !== null ? [day] : [])),
      },
    ];
  });
  return { works, past, workMinutes: orNotFound(row ?? undefined).workMinutes };
}

/** The earliest honest day for a request that is still being typed; nothing else of the desk is told. */
export async function earliestFor(context: RequestContext, { parts, blended }: EarliestQuery): Promise<Earliest> {
  const { works, past, workMinutes } = await openWork(context);
  const layers = blended ? 2 : 1;
  const { minutes } = estimateWork({ parts, layers, seconds: null, density: null, certainty: null }, past);
  const typed = { id: 'typed', title: '', minutesLeft: minutes, due: null, instalments: [] };
  const { byId } = promisesOf([...works, typed], { today: dayOf(context), workMinutes });
  return { day: byId.get('typed')?.earliest ?? null };
}

/** What is on the desk, what it takes, and the timer of whoever asks. @throws Forbidden */
export async function showHours(context: RequestContext): Promise<RequestHours> {
  const { works, workMinutes } = await openWork(context);
  const running = await findRunning(context.store, context.studio.id, context.person.id);
  const isForgotten = running && context.now.getTime() - running.seenAt.getTime() > GRACE_MINUTES * 60_000;
  return {
    works,
    workMinutes,
    running: running && !isForgotten ? { requestId: running.requestId, since: running.startedAt.toISOString() } : null,
  };
}

/**
 * Starts the timer of a request, gives a sign of life, or stops it. One timer runs a person: starting one ends another; one that
 * was forgotten counts until its last sign of life. @throws Forbidden, NotFound
 */
export async function timeWork(
  context: RequestContext,
  requestId: string,
  { action }: WorkAction,
): Promise<RequestHours> {
  const { store, studio, person, now } = context;
  orNotFound(await findOwn(store.requests, { studioId: studio.id, id: requestId }));
  const own = { personId: person.id, requestId, now };
  // Two windows of the same person start one timer.
  await store.lock(`timer ${person.id}`);
  const isSeen = action !== 'stop' && (await seeRunning(store, studio.id, own));
  if (action !== 'seen' && !isSeen) await endRunning(store, studio.id, person.id, now);
  if (action === 'start' && !isSeen) {
    const span = { studioId: studio.id, requestId, personId: person.id, startedAt: now, seenAt: now };
    await addRow(store.workSpans, span);
  }
  return showHours(context);
}

/** What requests took against what was estimated for each from those before it. */
export async function workPast(context: RequestContext): Promise<readonly WorkPast[]> {
  const rows = await findWork(context.store, context.studio.id, { now: context.now, states: [] });
  const done = rows
    .filter(isDone)
    .toSorted((a, b) => (a.deliveredAt?.getTime() ?? 0) - (b.deliveredAt?.getTime() ?? 0));
  return done.map((row, index) => ({
    requestId: row.id,
    title: row.title,
    student: row.studentName,
    minutes: Math.round(row.spentMinutes),
    estimate: estimateWork(factsOf(row), pastOf(done.slice(0, index))),
  }));
}

function isDone({ state, spentMinutes }: WorkRow): boolean {
  return DONE.some((one) => one === state) && spentMinutes >= MIN_MINUTES;
}

function pastOf(rows: readonly WorkRow[]): readonly DoneWork[] {
  return rows.filter(isDone).map((row) => ({ request: factsOf(row), minutes: row.spentMinutes }));
}

function factsOf({ parts, guitarMeant, seconds, notes, written, certain }: WorkRow): WorkRequest {
  return {
    parts: Math.max(1, parts),
    layers: guitarMeant === 'blended into one' ? 2 : 1,
    seconds: seconds !== null && seconds > 0 ? seconds : null,
    density: notes !== null && written !== null && written > 0 ? notes / written : null,
    certainty: certain,
  };
}
