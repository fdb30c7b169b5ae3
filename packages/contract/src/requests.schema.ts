import Joi from 'joi';
import {
  GUITARS_MEANT,
  RENDITIONS,
  REQUEST_LIMITS,
  REQUEST_STATES,
  WORK_ACTIONS,
  type EarliestQuery,
  type RequestBody,
  type RequestMove,
  type RequestPromiseBody,
  type WorkAction,
} from './requests.ts';
import {
  asText,
  dayFromToday,
  flag,
  id,
  line,
  list,
  oneOf,
  optional,
  orNull,
  shape,
  text,
  typed,
  version,
  whole,
} from './typed.ts';

const part = () => line(REQUEST_LIMITS.part);

/** The parts wanted, of the body in which a list stands. */
function wantedOf(ancestors: unknown): readonly unknown[] {
  const body: unknown = Array.isArray(ancestors) ? ancestors[0] : undefined;
  const has = typeof body === 'object' && body !== null && 'wanted' in body;
  return has && Array.isArray(body.wanted) ? body.wanted : [];
}

/** Parts of which none is wanted as well. */
const notWanted = () =>
  typed<readonly string[]>(
    list(part(), { max: REQUEST_LIMITS.parts }).custom((out: readonly string[], helpers) => {
      const wanted = wantedOf(helpers.state.ancestors);
      const both = out.find((one) => wanted.includes(one));
      return both === undefined ? out : helpers.error('parts.both', { part: both });
    }),
  );

/** Checks `RequestBody`; `context.today` keeps days in the past out, and no part is both in and out. */
export const requestSchema = shape<RequestBody>({
  studentId: optional(id()),
  title: line(REQUEST_LIMITS.title),
  whose: text(REQUEST_LIMITS.whose),
  wanted: list(part(), { min: 1, max: REQUEST_LIMITS.parts }),
  notWanted: notWanted(),
  rendition: oneOf(RENDITIONS),
  guitarMeant: oneOf(GUITARS_MEANT),
  guitar: text(REQUEST_LIMITS.guitar),
  wantedBy: dayFromToday(),
  remarks: text(REQUEST_LIMITS.remarks),
  followsId: orNull(id()),
});

/** Checks `RequestMove`. */
export const requestMoveSchema = shape<RequestMove>({
  version: version(),
  state: oneOf(REQUEST_STATES),
  reason: typed<string>(
    Joi.when('state', {
      is: 'declined',
      then: line(REQUEST_LIMITS.reason),
      otherwise: text(REQUEST_LIMITS.reason),
    }),
  ),
  scope: typed<string | null>(
    Joi.when('state', { is: 'agreed', then: line(REQUEST_LIMITS.scope), otherwise: Joi.valid(null).required() }),
  ),
});

/** Checks `WorkAction`. */
export const workActionSchema = shape<WorkAction>({ action: oneOf(WORK_ACTIONS) });

/** Checks `RequestPromiseBody`. */
export const requestPromiseSchema = shape<RequestPromiseBody>({ version: version(), promisedFor: dayFromToday() });

/** Checks `EarliestQuery`. */
export const earliestQuerySchema = shape<EarliestQuery>({
  parts: asText(whole({ min: 1, max: REQUEST_LIMITS.parts })),
  blended: asText(flag()),
});
