import type { Plan, PlanBody, PlanPiece } from '@jam-ledger/contract';
import { sayCut } from '@jam-ledger/core/pieces';
import { useDebounceFn } from '@vueuse/core';
import { computed, ref, shallowRef, type Ref } from 'vue';
import { api, oneAfterAnother, Refused } from '../api/index.ts';
import { useNotices } from '../session/index.ts';
import { bodyOf, NOT_GIVEN, type LineState, type PlanPhrase } from './planEdits.ts';

/** Kept so long after the last change, milliseconds. Our choice. */
const KEEP_MS = 500;
/** Most steps back. Our choice. */
const MAX_UNDO = 100;

/** The plan of a song: changed here at once, kept by itself, undone step by step. */
export function usePlan(songId: string, phrases: Readonly<Ref<readonly PlanPhrase[]>>) {
  const notices = useNotices();
  const plan = shallowRef<PlanBody>();
  const states = shallowRef<ReadonlyMap<string, LineState>>(new Map());
  const saving = ref<'kept' | 'keeping' | 'waiting'>('kept');
  const undone = shallowRef<readonly PlanBody[]>([]);
  let changes = 0;

  function take(from: Plan): void {
    plan.value = bodyOf(from);
    states.value = new Map(from.pieces.map((piece) => [piece.id, piece]));
  }

  async function load(): Promise<void> {
    take(await api.plan({ id: songId }));
    undone.value = [];
    saving.value = 'kept';
  }

  /** Changes the plan; an equal one is no change. */
  function change(to: Partial<PlanBody>): void {
    const before = plan.value;
    if (!before || (to.pieces === before.pieces && Object.keys(to).length === 1)) return;
    undone.value = [...undone.value.slice(1 - MAX_UNDO), before];
    put({ ...before, ...to });
  }

  function put(next: PlanBody): void {
    plan.value = next;
    saving.value = 'keeping';
    changes += 1;
    void keepSoon();
  }

  function undo(): void {
    const before = undone.value.at(-1);
    if (!before || !plan.value) return;
    undone.value = undone.value.slice(0, -1);
    put({ ...before, version: plan.value.version });
  }

  /** Keeps the plan now, after what is being kept; whether it is kept. */
  const keep = oneAfterAnother(async (): Promise<boolean> => {
    const body = plan.value;
    if (!body || saving.value === 'kept') return true;
    const seen = changes;
    try {
      const kept = await api.keepPlan({ id: songId, body: bodyOf(body) });
      // What was changed meanwhile goes on from the version that is kept now.
      if (seen === changes) take(kept);
      else plan.value = { ...(plan.value ?? body), version: kept.version };
      if (seen === changes) saving.value = 'kept';
      else void keepSoon();
      return seen === changes;
    } catch (error) {
      saving.value = 'waiting';
      if (error instanceof Refused && error.status === 409) await meet(body);
      else notices.say(error instanceof Error ? `Not kept: ${error.message}` : 'Not kept.');
      return false;
    }
  });
  const keepSoon = useDebounceFn(keep, KEEP_MS);

  /** Somebody else changed it: theirs is shown, and undo puts one’s own in its place. */
  async function meet(mine: PlanBody): Promise<void> {
    await load();
    const theirs = plan.value;
    if (!theirs) return;
    const back = () => change({ ...mine, version: theirs.version });
    notices.say('The plan was changed elsewhere; it is shown as it stands there. Undo puts yours in its place.', back);
  }

  const stateOf = (id: string): LineState => states.value.get(id) ?? NOT_GIVEN;
  const names = computed(() => new Map(phrases.value.map(({ cut, name }) => [cut.id, name])));
  const nameOf = (piece: PlanPiece) => sayCut(piece, (id) => names.value.get(id) ?? '…');
  const pieces = computed(() => plan.value?.pieces ?? []);
  const given = computed(
    () => new Set(pieces.value.filter(({ id }) => stateOf(id).assignedOn !== null).map(({ id }) => id)),
  );

  /** Gives a piece to the student, or takes it back into the plan. */
  async function give(id: string, isGiven: boolean): Promise<void> {
    if (!(await keep())) return;
    const piece = pieces.value.find((one) => one.id === id);
    if (!piece) return;
    const { startBpm, targetBpm } = piece;
    const { version } = stateOf(id);
    await api.changePiece({ id, body: { startBpm, targetBpm, version, given: isGiven, struck: false } });
    const undoable = undone.value;
    await load();
    undone.value = undoable;
    const words = `“${nameOf(piece)}” is ${isGiven ? 'given' : 'taken back into the plan'}.`;
    notices.say(words, () => give(id, !isGiven));
  }

  return { plan, pieces, given, saving, undone, stateOf, nameOf, load, change, undo, keep, give };
}
