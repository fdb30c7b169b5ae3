import { songAt, type Phrase, type Transcription } from '@jam-ledger/contract';
import { keyTextAt, tempoAt, readTempoChanges } from '@jam-ledger/core/form';
import { ref, shallowRef } from 'vue';
import type { PlanPhrase } from './planEdits.ts';
import { POLICY_OF_SCHOOL, askHands, jobOf, tuningOf } from '../tab/index.ts';

/** Computes how the phrases of a song are cut, one after the other off the page. */
export function useCutting() {
  const phrases = shallowRef<readonly PlanPhrase[]>([]);
  const done = ref(0);
  const all = ref(0);

  async function compute(song: Transcription): Promise<void> {
    const tempoChanges = readTempoChanges(song);
    const policy = POLICY_OF_SCHOOL[song.student.schools.picking];
    const own = song.sections.flatMap((section) =>
      section.phrases.filter(isPlayed).map((phrase) => ({ section, phrase })),
    );
    done.value = 0;
    all.value = own.length;
    const made: PlanPhrase[] = [];
    for (const { section, phrase } of own) {
      const { bpm, meter } = tempoAt(section.startSeconds, tempoChanges);
      const key = keyTextAt(section.startSeconds, song);
      const isTrusted = phrase.status !== 'draft';
      const job = jobOf({
        text: phrase.text,
        song: songAt(song, section),
        tuning: tuningOf(songAt(song, section)),
        meter,
        bpm,
        key,
        policy,
        isTrusted,
      });
      const report = await askHands((worker) => worker.cut(job, { id: phrase.id, sectionId: section.id }));
      made.push({ ...report, name: phrase.name, section: section.label, bpm });
      done.value += 1;
    }
    phrases.value = made;
  }
  return { phrases, done, all, compute };
}

/** Whether a phrase is played: not struck, and the one that is chosen of its alternates. */
function isPlayed({ struck, chosen, text }: Phrase): boolean {
  return !struck && chosen && text.trim() !== '';
}
