<script setup lang="ts">
import { SONG_LIMITS, type Phrase, type Piece, type PieceBody, type Transcription } from '@jam-ledger/contract';
import type { Fix, Span } from '@jam-ledger/core/notation';
import Button from 'primevue/button';
import { computed, ref, toRef, useTemplateRef } from 'vue';
import { usePhraseText } from '../composables/usePhraseText.ts';
import { usePlayer } from '../composables/usePlayer.ts';
import { useReading } from '../composables/useReading.ts';
import AssignForm from '../parts/AssignForm.vue';
import PlayBar from '../parts/PlayBar.vue';
import ProblemMargin from '../parts/ProblemMargin.vue';
import ShorthandEditor from '../parts/ShorthandEditor.vue';
import TabPage from '../parts/TabPage.vue';
import TempoLadder from '../parts/TempoLadder.vue';
import { useNotices } from '../stores/index.ts';

const props = defineProps<{
  phrase: Phrase;
  song: Transcription;
  piece: Piece | undefined;
  assign: (body: PieceBody) => Promise<void>;
  rename: (phrase: Phrase, name: string) => Promise<void>;
}>();
const emit = defineEmits<{ saved: [phrase: Phrase] }>();

const notices = useNotices();
const editor = useTemplateRef('editor');
const { text, state, trouble, theirs, type, settle } = usePhraseText(toRef(props, 'phrase'), (phrase) =>
  emit('saved', phrase),
);
const { reading, bars, tuning } = useReading(text, () => props.song);
const player = usePlayer();
const caret = ref<Span>();
const loop = ref(false);
const countIn = ref(true);
const percent = ref(100);
const bpm = computed(() => Math.round((props.song.tempo * percent.value) / 100));

const SAYS = {
  saved: 'saved',
  waiting: 'typing…',
  saving: 'saving…',
  'kept-here': 'the studio cannot be reached; kept in this browser and tried again',
  refused: 'not saved, kept in this browser',
  stale: 'changed elsewhere',
} as const;

function play(): Promise<void> {
  const { capo, offsetCents } = props.song;
  return notices.tell(() =>
    player.play({
      phrase: reading.value.phrase,
      tuning: tuning.value,
      capo,
      offsetCents,
      bpm: bpm.value,
      loop: loop.value,
      countIn: countIn.value,
    }),
  );
}

function apply({ span, text: mended }: Fix): void {
  editor.value?.replace(span, mended);
}

function renameTo(event: Event): void {
  const { target } = event;
  if (!(target instanceof HTMLInputElement)) return;
  const name = target.value.trim();
  if (name === '' || name === props.phrase.name) target.value = props.phrase.name;
  else void notices.tell(() => props.rename(props.phrase, name));
}
</script>

<template>
  <div class="phrase-desk">
    <div class="centre">
      <div class="title">
        <input
          class="name"
          :value="phrase.name"
          aria-label="Name of the phrase"
          :maxlength="SONG_LIMITS.phraseName"
          @change="renameTo"
        />
        <span :class="['soft', 'state', state]" role="status">{{ SAYS[state] }}</span>
      </div>
      <TabPage
        :bars="bars"
        :strings="tuning.openMidis.length"
        :caret="caret"
        :playing="player.cursor.value?.span"
        @pick="editor?.select($event)"
      >
        The tab stands here as you type.
      </TabPage>
      <div v-if="theirs" class="conflict" role="alert">
        <p>This phrase was changed elsewhere in the meantime. Their text:</p>
        <pre>{{ theirs.text }}</pre>
        <Button size="small" label="Keep mine" @click="settle('mine')" />
        <Button size="small" outlined label="Take theirs" @click="settle('theirs')" />
      </div>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <ShorthandEditor
        ref="editor"
        label="Fret shorthand"
        :text="text"
        :problems="reading.problems"
        @type="type"
        @caret="caret = $event"
      />
      <PlayBar
        v-model:loop="loop"
        v-model:count-in="countIn"
        v-model:level="player.level.value"
        v-model:click-level="player.clickLevel.value"
        :playing="player.playing.value"
        :counting="player.counting.value"
        :bpm="bpm"
        :disabled="bars.length === 0"
        @play="play"
        @stop="player.stop()"
        @update:level="player.setLevels()"
        @update:click-level="player.setLevels()"
      >
        <label class="speed"
          >speed <input v-model.number="percent" type="range" min="30" max="130" step="5" /> {{ percent }} %</label
        >
      </PlayBar>
    </div>
    <aside class="margin">
      <ProblemMargin :problems="reading.problems" :text="text" @show="editor?.select($event)" @fix="apply" />
      <hr />
      <section v-if="piece" aria-label="Practice piece">
        <h3>With {{ piece.student.name }}</h3>
        <p class="soft">{{ piece.next.reason }}</p>
        <TempoLadder :rungs="piece.rungs" :now="piece.next.move === 'held' ? undefined : piece.next.bpm" />
      </section>
      <AssignForm v-else :phrase-id="phrase.id" :student="song.student.name" :tempo="song.tempo" :assign="assign" />
    </aside>
  </div>
</template>

<style scoped>
.phrase-desk {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 15rem;
  gap: 1.2rem;
}
.centre {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
  min-width: 0;
}
.title {
  display: flex;
  gap: 1rem;
  align-items: baseline;
}
.name {
  font-family: var(--type-book);
  font-size: 1.15rem;
  font-weight: 600;
  color: var(--ink);
  background: none;
  border: 0;
  border-bottom: 1px solid transparent;
  padding: 0;
  min-width: 12rem;
}
.name:hover,
.name:focus {
  border-bottom-color: var(--rule-strong);
}
.state {
  font-size: 0.88rem;
  font-style: italic;
}
.state.kept-here,
.state.refused,
.state.stale,
.trouble {
  color: var(--warm);
}
.margin {
  border-left: 2px solid var(--warm);
  padding-left: 0.9rem;
}
.conflict {
  border: 1px solid var(--warm);
  padding: 0.6rem 0.8rem;
}
.conflict pre {
  white-space: pre-wrap;
  font-family: var(--type-mono);
}
.speed {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
  white-space: nowrap;
}
.speed input {
  width: 6rem;
  accent-color: var(--cool);
}
hr {
  border: 0;
  border-top: 1px solid var(--rule);
  margin: 1rem 0;
}
</style>
