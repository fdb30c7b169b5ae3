import type { PlanBody, PlanPiece } from '@jam-ledger/contract';
import { PLAN_LIMITS } from '@jam-ledger/contract';
import { TICKS_PER_QUARTER } from '@jam-ledger/core/notation';
import type { LearningSchool, PlanChange } from '@jam-ledger/core/pieces';
import { computed, ref, type ComputedRef } from 'vue';
import { useNotices } from '../session/index.ts';
import { addCut, movePiece, recut, retarget, seamOf, type ExtraCut, type PlanMaking } from './planEdits.ts';
import type { usePlan } from './usePlan.ts';
import type { usePlanLessons } from './usePlanLessons.ts';

/** What a plan is worked on with. */
export interface PlanActionParts {
  readonly plan: Pick<ReturnType<typeof usePlan>, 'plan' | 'pieces' | 'given' | 'nameOf' | 'change' | 'undo' | 'give'>;
  readonly lessons: Pick<ReturnType<typeof usePlanLessons>, 'considered' | 'propose'>;
  readonly making: ComputedRef<PlanMaking>;
  readonly learning: ComputedRef<LearningSchool>;
}

/** What can be done to the pieces of a plan: chosen, cut, moved, taken out, proposed anew; each can be undone. */
export function usePlanActions({
  plan: { plan, pieces, given, nameOf, change, undo, give },
  lessons: { considered, propose },
  making,
  learning,
}: PlanActionParts) {
  const notices = useNotices();
  const chosenId = ref<string>();
  const chosen = computed(() => pieces.value.find(({ id }) => id === chosenId.value) ?? pieces.value[0]);

  function proposeAnew(): Promise<void> {
    return notices.tell(async () => {
      const proposed = await propose(pieces.value, learning.value, { stuff: making.value, given: given.value });
      if (!proposed) return;
      if (proposed.length > PLAN_LIMITS.pieces)
        throw new Error(
          `This song would be cut into ${proposed.length} pieces, and a plan holds ${PLAN_LIMITS.pieces}; nothing was changed.`,
        );
      change({ pieces: proposed });
      chosenId.value = pieces.value[0]?.id;
      notices.say(`${pieces.value.length} pieces are proposed, ${learning.value}.`, undo);
    });
  }

  /** A new target share moves the targets that followed the old one. */
  function settle(to: Partial<PlanBody>): void {
    const from = plan.value?.targetPercent ?? 100;
    const { targetPercent } = to;
    if (targetPercent === undefined) return change(to);
    change({ ...to, pieces: retarget(pieces.value, from, { ...making.value, targetPercent }) });
  }

  function amend(id: string, to: Partial<PlanPiece>): void {
    change({ pieces: pieces.value.map((piece) => (piece.id === id ? { ...piece, ...to } : piece)) });
  }
  function remove(id: string): void {
    const piece = pieces.value.find((one) => one.id === id);
    const at = pieces.value.findIndex((one) => one.id === id);
    if (!piece) return;
    change({ pieces: pieces.value.filter((one) => one.id !== id) });
    chosenId.value = pieces.value[Math.min(at, pieces.value.length - 1)]?.id;
    notices.say(`“${nameOf(piece)}” is out of the plan.`, undo);
  }
  function cut(id: string, what: ExtraCut): void {
    const before = pieces.value;
    change({ pieces: addCut(before, id, what, making.value) });
    const made = pieces.value.filter((piece) => !before.includes(piece));
    if (made.length === 0) notices.say('There is nothing more to make of it that way.');
    else
      notices.say(
        `${made.map((piece) => `“${nameOf(piece)}”`).join(' and ')} ${made.length === 1 ? 'is' : 'are'} in the plan.`,
        undo,
      );
  }
  function move(id: string, to: number): void {
    change({ pieces: movePiece(pieces.value, id, to) });
  }

  const seam = computed(() => {
    const phraseId = chosen.value?.parts[0]?.phraseId;
    const at = phraseId === undefined ? undefined : seamOf(pieces.value, phraseId);
    const phrase = making.value.phrases.find((one) => one.cut.id === phraseId);
    if (at === undefined || !phrase || (chosen.value?.kind !== 'half' && chosen.value?.kind !== 'phrase'))
      return undefined;
    const bar = phrase.cut.length / phrase.cut.bars;
    const quarter = Math.round(((at % bar) / TICKS_PER_QUARTER + 1) * 100) / 100;
    return { at, cutPoints: phrase.cutPoints, says: `bar ${Math.floor(at / bar) + 1}, quarter ${quarter}` };
  });
  function moveSeam(at: number): void {
    const phraseId = chosen.value?.parts[0]?.phraseId ?? '';
    const place = pieces.value.findIndex(({ id }) => id === chosen.value?.id);
    change({ pieces: recut(pieces.value, phraseId, at, making.value) });
    chosenId.value = pieces.value[place]?.id;
  }

  function accept({ id, what }: PlanChange): void {
    if (what === 'give') void notices.tell(() => give(id, true));
    else if (what === 'drop') remove(id);
    else if (what === 'halve') cut(id, 'halves');
    else {
      const byId = new Map(pieces.value.map((piece) => [piece.id, piece]));
      change({ pieces: considered.value.replanned.order.flatMap((one) => byId.get(one) ?? []) });
      notices.say('The order is made anew.', undo);
    }
  }

  function step(by: number): void {
    const at = pieces.value.findIndex(({ id }) => id === chosen.value?.id);
    chosenId.value = pieces.value[Math.min(pieces.value.length - 1, Math.max(0, at + by))]?.id;
  }

  return { chosenId, chosen, seam, proposeAnew, settle, amend, remove, cut, move, moveSeam, accept, step };
}
