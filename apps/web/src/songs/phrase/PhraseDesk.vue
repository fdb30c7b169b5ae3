<script setup lang="ts">
import { SONG_LIMITS, type LedgerPiece, type Phrase, type PieceBody, type Transcription } from '@jam-ledger/contract';
import type { TempoChange } from '@jam-ledger/core/form';
import { eventsIn, writeMeter, type Fix, type Span } from '@jam-ledger/core/notation';
import { OPEN_KEY, readKey } from '@jam-ledger/core/pitch';
import { refDebounced, useLocalStorage } from '@vueuse/core';
import { computed, ref, toRef, useTemplateRef } from 'vue';
import { phrasesBefore, useAlike } from './useAlike.ts';
import { usePhraseWays } from './usePhraseWays.ts';
import { PlayBar, soundOf, useListening } from '../../sound/index.ts';
import { NeckBoard, SHORTCUTS, TabPage, readerProblems, useHands, useReading } from '../../tab/index.ts';
import { usePhraseText } from './usePhraseText.ts';
import { useSchools } from '../hands/useSchools.ts';
import Button from 'primevue/button';
import AssignForm from './AssignForm.vue';
import { CareNote } from '../../playing/index.ts';
import EvidenceMargin from './EvidenceMargin.vue';
import HarmonyNote from '../hands/HarmonyNote.vue';
import KeyList from './KeyList.vue';
import LikenessNote from './LikenessNote.vue';
import ProblemMargin from './ProblemMargin.vue';
import RevisionList from './RevisionList.vue';
import SaveConflict from './SaveConflict.vue';
import ShorthandEditor from './ShorthandEditor.vue';
import PieceNote from './PieceNote.vue';
import { useNotices, useSession } from '../../session/index.ts';
import { useSong } from '../song.ts';
import HandMargin from '../hands/HandMargin.vue';

const props = defineProps<{
  phrase: Phrase;
  song: Transcription;
  piece: LedgerPiece | undefined;
  assign: (body: PieceBody) => Promise<void>;
  rename: (phrase: Phrase, name: string) => Promise<void>;
  /** Takes a saved phrase back into the song; called after this desk is gone, too, which an event would not be. */
  keep: (phrase: Phrase) => void;
  /** The tempo and meter of its section. */
  tempoChange: TempoChange;
  /** The meter a phrase of the song stands in, `4/4`. */
  meterOf: (phrase: Phrase) => string;
}>();
const emit = defineEmits<{ goPhrase: [by: 1 | -1]; open: [phraseId: string] }>();

const notices = useNotices();
const session = useSession();
const store = useSong();
const editor = useTemplateRef('editor');
const { text, state, trouble, theirs, type, settle } = usePhraseText(toRef(props, 'phrase'), props.keep);
const { reading, bars, tuning, meter, read } = useReading(text, () => ({
  tuning: props.song.tuning,
  meter: writeMeter(props.tempoChange.meter),
}));
const keyText = computed(() => props.song.key);
const key = computed(() => readKey(keyText.value) ?? OPEN_KEY);
/** The margin goes on computing after a pause in typing, milliseconds. Our choice. */
const PAUSE_MS = 400;
const settledText = refDebounced(text, PAUSE_MS);
const settledPhrase = computed(() => read(settledText.value).phrase);
/** What notes are compared and named against; one object, so that nothing is computed anew with every key. */
const against = computed(() => ({ tuning: tuning.value, capo: props.song.capo, key: key.value }));
const { policy, inBox, whyFirst, press } = useSchools(() => props.song.student.schools);
/** What hands are computed for: the text as it stands, and as it has settled. */
const handsNow = (asked: string) => ({
  text: asked,
  song: props.song,
  tuning: tuning.value,
  meter: meter.value,
  bpm: props.tempoChange.bpm,
  policy: policy.value,
});
const now = () => handsNow(text.value);
const firstName = computed(() => props.song.student.name.split(' ')[0] ?? props.song.student.name);
const hands = useHands(() => handsNow(settledText.value));
const problems = computed(() => readerProblems(reading.value.problems, hands.value));
const remarks = computed(() => hands.value?.problems ?? []);
const caret = ref<Span>();
const settledCaret = refDebounced(caret, PAUSE_MS);
const percent = ref(100);
const bpm = computed(() => Math.round((props.tempoChange.bpm * percent.value) / 100));
const withStaff = useLocalStorage('jam-staff', false);
const withNeck = useLocalStorage('jam-neck', true);
const mirrored = ref(props.song.student.guitar.leftHanded);
const staff = computed(() =>
  withStaff.value ? { tuning: tuning.value, capo: props.song.capo, key: key.value } : undefined,
);
const listening = useListening(
  () => ({
    phrase: reading.value.phrase,
    tuning: tuning.value,
    ...soundOf(props.song),
    bpm: bpm.value,
  }),
  false,
);
const { playing, play, playFrom, loopOver } = listening;
/** What the phrase is like, of those before it in the song. */
const alike = useAlike(
  () => ({
    phrase: { text: settledText.value, meter: writeMeter(props.tempoChange.meter) },
    earlier: phrasesBefore(props.song, props.phrase).map(({ name, phrase }) => ({
      id: phrase.id,
      name,
      text: phrase.text,
      meter: props.meterOf(phrase),
    })),
    ...against.value,
  }),
  text,
);
const { ways, refers, addWay } = usePhraseWays(
  () => props.phrase,
  (id) => emit('open', id),
);

/** Goes back to an earlier text; the editor can undo that. */
function goBack(earlierText: string): void {
  replaceAll(earlierText);
}
const readOptions = computed(() => ({ tuning: tuning.value, meter: meter.value }));
/** Where the notes at the caret lie on the neck. */
const underCaret = computed(() => {
  if (!withNeck.value || !caret.value) return [];
  const { from, to } = caret.value;
  const notes = eventsIn(reading.value.phrase, { from, to }).flatMap(({ item }) => item.notes);
  return notes.flatMap(({ string, fret }) => (fret === null ? [] : [{ string, fret }]));
});

const SAYS = {
  saved: 'saved',
  waiting: 'typing…',
  saving: 'saving…',
  'kept-here': 'the studio cannot be reached; kept in this browser and tried again',
  refused: 'not saved, kept in this browser',
  stale: 'changed elsewhere',
} as const;

function apply({ span, text: fixed }: Fix): void {
  editor.value?.replace(span, fixed);
}

/** A fix of hands is for the text that they were computed for. */
function fixHands(fix: Fix): void {
  if (hands.value?.text === text.value) apply(fix);
  else notices.say('The text has changed meanwhile; the margin looks again.');
}

function replaceAll(written: string): void {
  editor.value?.replace({ from: 0, to: text.value.length }, written);
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
  <div class="phrase-desk" @keydown="press">
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
        <span class="switches">
          <label><input v-model="withStaff" type="checkbox" /> notation</label>
          <label><input v-model="withNeck" type="checkbox" /> neck</label>
          <label v-if="withNeck"><input v-model="mirrored" type="checkbox" /> left-handed</label>
        </span>
      </div>
      <TabPage
        :bars="bars"
        :strings="tuning.openMidis.length"
        :caret="caret"
        :playing="playing"
        :staff="staff"
        @pick="editor?.select($event)"
      >
        The tab stands here as you type.
      </TabPage>
      <p v-if="refers" class="refers">
        {{ refers.says }} <Button size="small" text label="Show it" @click="emit('open', refers.id)" />
        <Button
          size="small"
          text
          label="Write it out"
          @click="notices.tell(() => store.referPhrase(phrase, null, 0))"
        />
      </p>
      <SaveConflict v-if="theirs" :text="theirs.text" @settle="settle" />
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <ShorthandEditor
        ref="editor"
        label="Fret shorthand"
        :text-id="phrase.id"
        :text="text"
        :problems="reading.problems"
        :read="read"
        :tuning="tuning"
        :capo="song.capo"
        :music-key="key"
        :frets="song.frets"
        :names="song.student.schools.naming"
        @type="type"
        @caret="caret = $event"
        @play-from="notices.tell(() => playFrom($event))"
        @loop-over="notices.tell(() => loopOver($event))"
        @go-phrase="emit('goPhrase', $event)"
        @refuse="notices.say($event)"
      />
      <NeckBoard
        v-if="withNeck"
        :tuning="tuning"
        :capo="song.capo"
        :frets="song.frets"
        :mirrored="mirrored"
        :music-key="key"
        :names="song.student.schools.naming"
        :shown="underCaret"
        @touch="(note, stack) => editor?.touch(note, stack)"
      />
      <PlayBar :listening="listening" :bpm="bpm" :disabled="bars.length === 0" @play="notices.tell(play)">
        <label class="speed"
          >speed <input v-model.number="percent" type="range" min="30" max="130" step="5" /> {{ percent }} %</label
        >
      </PlayBar>
      <div class="foot">
        <HandMargin
          v-if="hands"
          v-model:policy="policy"
          v-model:in-box="inBox"
          :phrase="phrase"
          :report="hands"
          :now="now"
          :student="firstName"
          :bpm="tempoChange.bpm"
          :why-first="whyFirst"
          :caret="settledCaret"
          :replace="replaceAll"
          @show="editor?.select($event)"
          @open="emit('open', $event)"
        >
          <template #why>
            <HarmonyNote :phrase="settledPhrase" :caret="settledCaret" :options="against" />
          </template>
        </HandMargin>
      </div>
    </div>
    <aside class="margin">
      <ProblemMargin
        :problems="problems"
        :text="text"
        :remarks="remarks"
        :computed-for="hands?.text ?? ''"
        @show="editor?.select($event)"
        @fix="apply"
        @fix-hands="fixHands"
      />
      <CareNote v-if="hands" :cautions="hands.cautions" :today="session.me?.studio.today ?? ''" />
      <LikenessNote
        :alike="alike"
        :refers="phrase.refersTo !== null"
        @open="emit('open', $event)"
        @refer="(to, frets) => notices.tell(() => store.referPhrase(phrase, to, frets))"
      />
      <hr />
      <EvidenceMargin
        :phrase="phrase"
        :ways="ways"
        :student="song.student.name"
        @amend="notices.tell(() => store.changePhrase(phrase, { ...$event, text }))"
        @mark="notices.tell(() => store.markPhrase(phrase, $event))"
        @add-way="notices.tell(addWay)"
        @choose="notices.tell(() => store.choosePhrase($event))"
        @open="emit('open', $event)"
      />
      <RevisionList
        :phrase-id="phrase.id"
        :text="settledText"
        :options="readOptions"
        :zone="session.me?.studio.zone ?? 'utc'"
        :fetch="store.revisionsOf"
        @go-back="goBack"
      />
      <hr />
      <PieceNote v-if="piece" :piece="piece" :student="song.student.name" :song-id="song.id" />
      <AssignForm
        v-else
        :phrase-id="phrase.id"
        :student="song.student"
        :tempo="tempoChange.bpm"
        :difficulty="hands?.difficulty.total"
        :floor="hands?.floor"
        :assign="assign"
      />
      <hr />
      <KeyList :keys="SHORTCUTS" />
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
.switches {
  margin-left: auto;
  display: flex;
  gap: 0.9rem;
  font-size: 0.9rem;
  align-self: center;
}
.switches input {
  accent-color: var(--cool);
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
.refers {
  border-left: 3px solid var(--cool);
  padding-left: 0.6rem;
}
/* The margin goes on under the phrase, where there is room for columns. */
.foot {
  border-top: 2px solid var(--warm);
  padding-top: 0.7rem;
  margin-top: 0.4rem;
}
.margin {
  border-left: 2px solid var(--warm);
  padding-left: 0.9rem;
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
</style>
