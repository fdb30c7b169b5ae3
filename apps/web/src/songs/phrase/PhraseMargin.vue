<script setup lang="ts">
import type { LedgerPiece, Phrase, PhraseBody, PieceBody, Transcription } from '@jam-ledger/contract';
import type { Fix, Problem, ReadOptions, Span } from '@jam-ledger/core/notation';
import { CareNote } from '../../playing/index.ts';
import { useNotices, useSession } from '../../session/index.ts';
import { SHORTCUTS, type HandReport } from '../../tab/index.ts';
import { useSongPhrases } from '../songPhrases.ts';
import type { FoundAlike } from './alike.worker.ts';
import AssignForm from './AssignForm.vue';
import EvidenceMargin from './EvidenceMargin.vue';
import KeyList from './KeyList.vue';
import LikenessNote from './LikenessNote.vue';
import PieceNote from './PieceNote.vue';
import ProblemMargin from './ProblemMargin.vue';
import RevisionList from './RevisionList.vue';

/** The margin beside a phrase: what is wrong with it, like what it is, on what evidence, and to whom it is given. */
const props = defineProps<{
  phrase: Phrase;
  song: Transcription;
  /** The text as it stands, and as it stood at the last pause in typing. */
  text: string;
  settledText: string;
  readOptions: ReadOptions;
  problems: readonly Problem[];
  hands: HandReport | undefined;
  alike: readonly FoundAlike[];
  ways: readonly Phrase[];
  piece: LedgerPiece | undefined;
  bpm: number;
  assign: (body: PieceBody) => Promise<void>;
}>();
const emit = defineEmits<{
  show: [span: Span];
  fix: [fix: Fix];
  open: [phraseId: string];
  goBack: [text: string];
  addWay: [];
}>();

const notices = useNotices();
const session = useSession();
const store = useSongPhrases();

/** A fix of hands is for the text that they were computed for. */
function fixHands(fix: Fix): void {
  if (props.hands?.text === props.text) emit('fix', fix);
  else notices.say('The text has changed meanwhile; the margin looks again.');
}

function amend(change: Partial<PhraseBody>): Promise<void> {
  return notices.tell(() => store.changePhrase(props.phrase, { ...change, text: props.text }));
}
</script>

<template>
  <aside class="margin">
    <ProblemMargin
      :problems="problems"
      :text="text"
      :remarks="hands?.problems ?? []"
      :computed-for="hands?.text ?? ''"
      @show="emit('show', $event)"
      @fix="emit('fix', $event)"
      @fix-hands="fixHands"
    />
    <CareNote v-if="hands" :cautions="hands.cautions" :today="session.me?.studio.today ?? ''" />
    <LikenessNote
      :alike="alike"
      :refers="phrase.refersTo !== null"
      @open="emit('open', $event)"
      @refer="(to, move) => notices.tell(() => store.referPhrase(phrase, to, move))"
    />
    <hr />
    <EvidenceMargin
      :phrase="phrase"
      :ways="ways"
      :student="song.student.name"
      @amend="amend"
      @mark="notices.tell(() => store.markPhrase(phrase, $event))"
      @add-way="emit('addWay')"
      @choose="notices.tell(() => store.choosePhrase($event))"
      @open="emit('open', $event)"
    />
    <RevisionList
      :phrase-id="phrase.id"
      :text="settledText"
      :options="readOptions"
      :zone="session.me?.studio.zone ?? 'utc'"
      :fetch="store.revisionsOf"
      @go-back="emit('goBack', $event)"
    />
    <hr />
    <PieceNote v-if="piece" :piece="piece" :student="song.student.name" :song-id="song.id" />
    <AssignForm
      v-else-if="song.student.isStudent"
      :phrase-id="phrase.id"
      :student="song.student"
      :tempo="bpm"
      :difficulty="hands?.difficulty.total"
      :floor="hands?.floor"
      :assign="assign"
    />
    <hr />
    <KeyList :keys="SHORTCUTS" />
  </aside>
</template>

<style scoped>
.margin {
  border-left: 2px solid var(--warm);
  padding-left: 0.9rem;
}
</style>
