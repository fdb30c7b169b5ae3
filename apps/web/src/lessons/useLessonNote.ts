import type { AssignedTempo, LessonDay, LessonNote, LessonNoteBody } from '@jam-ledger/contract';
import { useDebounceFn } from '@vueuse/core';
import { computed, ref } from 'vue';
import { api, oneAfterAnother, Refused } from '../api/index.ts';
import { useNotices } from '../session/index.ts';

/** Kept so long after the last change, milliseconds. Our choice. */
const KEEP_MS = 700;

/** What of a lesson’s summary is typed. */
type Draft = Omit<LessonNoteBody, 'version' | 'send'>;
const EMPTY: Draft = { words: '', home: '', assigned: [] };

/** The summary of today’s lesson: kept by itself, over the version seen, with what it was before. */
export function useLessonNote() {
  const notices = useNotices();
  const studentId = ref('');
  const day = ref('');
  const note = ref<LessonNote | null>(null);
  const draft = ref<Draft>(EMPTY);
  const saving = ref<'kept' | 'keeping' | 'waiting'>('kept');
  /** Why it cannot be kept, at its place. */
  const problem = ref('');

  function take({ note: kept, day: today, student }: LessonDay): void {
    [studentId.value, day.value, note.value] = [student.id, today, kept];
    draft.value = kept ? { words: kept.words, home: kept.home, assigned: kept.assigned } : EMPTY;
    [saving.value, problem.value] = ['kept', ''];
  }

  /** Goes on with the summary of an earlier lesson, as long as it is open. */
  async function reopen(earlier: LessonNote): Promise<void> {
    await settle();
    const { words, home, assigned: given } = earlier;
    [day.value, note.value, draft.value] = [earlier.day, earlier, { words, home, assigned: given }];
    [saving.value, problem.value] = ['kept', ''];
  }

  function change(to: Partial<Draft>): void {
    draft.value = { ...draft.value, ...to };
    saving.value = 'keeping';
    void keepSoon();
  }

  /** Keeps it now, after what is being kept; whether it is kept. */
  const keep = oneAfterAnother<[send?: boolean], boolean>(async (send = false): Promise<boolean> => {
    if (saving.value === 'kept' && !send) return true;
    const [sent, whose] = [draft.value, studentId.value];
    try {
      const kept = await api.keepLessonNote({
        id: whose,
        day: day.value,
        body: { ...sent, version: note.value?.version ?? 0, send },
      });
      if (whose !== studentId.value) return true;
      note.value = kept;
      problem.value = '';
      saving.value = draft.value === sent ? 'kept' : 'keeping';
      return true;
    } catch (error) {
      saving.value = 'waiting';
      if (error instanceof Refused && error.status === 409) await meet();
      else problem.value = error instanceof Refused ? (error.problems[0]?.message ?? error.message) : String(error);
      return false;
    }
  });
  const keepSoon = useDebounceFn(() => keep(), KEEP_MS);

  /** Somebody else wrote meanwhile: what is typed here stays, and theirs goes into the history when it is kept. */
  async function meet(): Promise<void> {
    const fresh = await api.lessonDay({ id: studentId.value });
    note.value = fresh.note;
    notices.say('The summary was changed elsewhere; what you typed stays, theirs stands in the history.', () => {
      take(fresh);
    });
    void keepSoon();
  }

  /** Writes it to those at home. */
  function send(): Promise<void> {
    return notices.tell(async () => {
      if (await keep(true)) notices.say('It is written home; the message lies in the outbox.');
    });
  }

  const isOpen = computed(() => note.value?.isOpen ?? true);
  const assigned = computed(() => draft.value.assigned);
  function assign(one: AssignedTempo): void {
    change({ assigned: [...assigned.value.filter(({ pieceId }) => pieceId !== one.pieceId), one] });
  }
  function unassign(pieceId: string): void {
    change({ assigned: assigned.value.filter((one) => one.pieceId !== pieceId) });
  }
  /** Keeps what is typed before another student is opened. */
  async function settle(): Promise<void> {
    if (saving.value === 'keeping') await keep();
  }
  return { day, reopen, note, draft, saving, problem, isOpen, take, change, settle, send, assign, unassign };
}
