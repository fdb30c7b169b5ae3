import type { PlanBody, PlanPiece, Series } from '@jam-ledger/contract';
import { computed, ref, type Ref } from 'vue';
import { api } from '../api/index.ts';
import { useNotices, useSession } from '../session/index.ts';
import type { LineState } from './planEdits.ts';
import { acceptLessons } from './planLessons.ts';
import { dayText } from '../ui/index.ts';
import { usePlanner } from './usePlanner.ts';

/** How long a lesson is taken to be where no series says, minutes. Our choice. */
const USUAL_MINUTES = 45;

/** What follows from a plan: what needs what, and what of it is begun in which coming lesson, accepted or chosen by hand. */
export function usePlanLessons({
  studentId,
  plan,
}: {
  readonly studentId: () => string | undefined;
  readonly plan: {
    readonly pieces: Readonly<Ref<readonly PlanPiece[]>>;
    readonly given: Readonly<Ref<ReadonlySet<string>>>;
    readonly stateOf: (id: string) => LineState;
    readonly nameOf: (piece: PlanPiece) => string;
    readonly change: (to: Partial<PlanBody>) => void;
    readonly undo: () => void;
  };
}) {
  const notices = useNotices();
  const session = useSession();
  const series = ref<readonly Series[]>([]);
  const today = computed(() => session.me?.studio.today ?? '');
  /** The coming lessons, the nearest first. */
  const lessons = computed(() => {
    const coming = series.value.flatMap((one) => one.lessons.filter(({ day }) => day >= today.value));
    const minutes = series.value[0]?.rule.minutes ?? USUAL_MINUTES;
    return { coming: coming.sort((a, b) => (a.startsAt < b.startsAt ? -1 : 1)), minutes };
  });
  const days = computed(() => lessons.value.coming.map(({ day }) => day));
  const { considered, progress, isStopped, propose, stop } = usePlanner(() => {
    const { given, stateOf, nameOf, pieces } = plan;
    if (pieces.value.length === 0) return undefined;
    const { coming, minutes } = lessons.value;
    return {
      pieces: pieces.value,
      names: pieces.value.map(nameOf),
      states: pieces.value.map(({ id }) => {
        const { state, share, stuck } = stateOf(id);
        return { state, share, stuck };
      }),
      given: given.value,
      lessons: coming,
      minutes,
      today: today.value,
    };
  });
  const planned = computed(() => considered.value.planned);

  function beginOn(id: string): string | undefined {
    const day = planned.value?.dayOf.get(id);
    return day === undefined ? undefined : dayText(day, 'short');
  }
  /** Accepts the lessons as they are planned by now. */
  function acceptAll(): void {
    const now = planned.value;
    if (!now) return;
    plan.change({ pieces: acceptLessons(plan.pieces.value, now) });
    notices.say('The lessons are accepted.', plan.undo);
  }
  /** Puts a piece into a lesson by hand; null lets the plan choose again. */
  function beginIn(id: string, day: string | null): void {
    const lesson = day === null ? null : { day, fixed: true };
    plan.change({ pieces: plan.pieces.value.map((piece) => (piece.id === id ? { ...piece, lesson } : piece)) });
  }
  async function loadLessons(): Promise<void> {
    const student = studentId();
    if (student === undefined) return;
    const { series: lines } = await api.seriesList({ query: { studentId: student } });
    series.value = await Promise.all(lines.map(({ id }) => api.series({ id })));
  }
  return { days, considered, planned, progress, isStopped, propose, stop, beginOn, loadLessons, acceptAll, beginIn };
}
