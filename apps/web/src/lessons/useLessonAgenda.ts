import { agendaFor } from '@jam-ledger/core/series';
import { computed, ref, type ComputedRef } from 'vue';
import { useLedger } from '../ledger/index.ts';
import { agendaPieceOf } from '../playing/index.ts';
import { useNotices } from '../session/index.ts';

/** What is heard in a lesson of so many minutes on a day, in which order, and which piece is chosen. */
export function useLessonAgenda(long: ComputedRef<number>, today: ComputedRef<string>) {
  const store = useLedger();
  const notices = useNotices();
  const chosen = ref<string>();
  const leftOut = ref<readonly string[]>([]);

  const agenda = computed(() => {
    const pieces = store.pieces.filter(({ id }) => !leftOut.value.includes(id));
    return agendaFor(pieces.map(agendaPieceOf), long.value, today.value);
  });
  /** In the order of the agenda, then everything else. */
  const order = computed(() => {
    const planned = agenda.value.items.map(({ pieceId }) => pieceId);
    return [...planned, ...store.pieces.map(({ id }) => id).filter((id) => !planned.includes(id))];
  });
  const line = computed(() => {
    const id = chosen.value ?? order.value[0];
    return store.pieces.find((one) => one.id === id);
  });

  function step(by: 1 | -1): void {
    const at = order.value.indexOf(line.value?.id ?? '');
    chosen.value = order.value[Math.min(order.value.length - 1, Math.max(0, at + by))];
  }
  function leaveOut(): void {
    const id = line.value?.id;
    if (id === undefined) return;
    const name = line.value?.phrase.name ?? '';
    step(1);
    leftOut.value = [...leftOut.value, id];
    notices.say(`“${name}” is left out of this lesson.`, () => {
      leftOut.value = leftOut.value.filter((one) => one !== id);
    });
  }
  /** Begins with nothing chosen and nothing left out. */
  function reset(): void {
    [chosen.value, leftOut.value] = [undefined, []];
  }

  return { chosen, agenda, line, step, leaveOut, reset };
}
