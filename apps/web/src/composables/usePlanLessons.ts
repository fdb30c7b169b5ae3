import type { PlanBody, PlanPiece, Series } from '@jam-ledger/contract';
import type { Needs } from '@jam-ledger/core/pieces';
import { computed, ref, type Ref } from 'vue';
import { api } from '../api/index.ts';
import { useNotices, useSession } from '../stores/index.ts';
import type { LineState } from './planEdits.ts';
import { acceptLessons, planLessons } from './planLessons.ts';
import { dayText } from './useDays.ts';

/** How long a lesson is taken to be where no series says, minutes. Our choice. */
const USUAL_MINUTES = 45;

/** The coming lessons of the student of a plan, what is begun in each, and what of that is accepted or chosen by hand. */
export function usePlanLessons({
  studentId,
  plan,
}: {
  readonly studentId: () => string | undefined;
  readonly plan: {
    readonly pieces: Readonly<Ref<readonly PlanPiece[]>>;
    readonly needs: Readonly<Ref<Needs>>;
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
  const planned = computed(() => {
    const { needs, given, stateOf, nameOf, pieces } = plan;
    const { coming, minutes } = lessons.value;
    return planLessons(pieces.value, {
      needs: needs.value,
      given: given.value,
      nameOf,
      stateOf,
      lessons: coming,
      minutes,
      today: today.value,
    });
  });

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
    const { series: lines } = await api.seriesList({ studentId: student });
    series.value = await Promise.all(lines.map(({ id }) => api.series(id)));
  }
  return { days, planned, beginOn, loadLessons, acceptAll, beginIn };
}
