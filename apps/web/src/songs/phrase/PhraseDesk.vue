<script setup lang="ts">
import Slider from 'primevue/slider';
import type { LedgerPiece, Phrase, PieceBody, Transcription } from '@jam-ledger/contract';
import type { TempoChange } from '@jam-ledger/core/form';
import { hasRounds, inRound, UNMOVED, writeMeter, type Fix, type Span } from '@jam-ledger/core/notation';
import { fretPositionsOf, reachOfHand } from '@jam-ledger/core/fretboard';
import { settledText } from '@jam-ledger/core/placing';
import { sayPhrase } from '@jam-ledger/core/spoken';
import { refDebounced, useLocalStorage } from '@vueuse/core';
import Button from 'primevue/button';
import Select from 'primevue/select';
import { computed, defineAsyncComponent, onMounted, ref, toRef, useTemplateRef } from 'vue';
import { useNotices } from '../../session/index.ts';
import { PlayBar, soundOf, useListening } from '../../sound/index.ts';
import { NeckBoard, TabPage } from '../../tab/index.ts';
import { clockText, pressAlt } from '../../ui/index.ts';
import type { SongRecording } from '../recording/useSongRecording.ts';
import { useSongPhrases } from '../songPhrases.ts';
import TabNote from './TabNote.vue';
import PhraseTitle from './PhraseTitle.vue';
import SaveConflict from './SaveConflict.vue';
import ShorthandEditor from './ShorthandEditor.vue';
import { PAUSE_MS, usePhraseMusic } from './usePhraseMusic.ts';
import { usePhraseText } from './usePhraseText.ts';
import { usePhraseView } from './usePhraseView.ts';
import { usePhraseWays } from './usePhraseWays.ts';
import WaysOn from './WaysOn.vue';

// What stands beside the tab and below it comes when the tab is drawn.
const AgreeNote = defineAsyncComponent(() => import('../recording/AgreeNote.vue'));
const HandMargin = defineAsyncComponent(() => import('../hands/HandMargin.vue'));
const HarmonyNote = defineAsyncComponent(() => import('../hands/HarmonyNote.vue'));
const PhraseMargin = defineAsyncComponent(() => import('./PhraseMargin.vue'));
/** Reading what is said comes when somebody says it. */
const SayIt = defineAsyncComponent(() => import('./SayIt.vue'));

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
  /** How often its section goes round. */
  times: number;
  recording: SongRecording;
  /** Whether the keyboard goes into the text as soon as it is there. */
  typing: boolean;
}>();
const emit = defineEmits<{ goPhrase: [by: 1 | -1]; open: [phraseId: string]; addPhrase: [] }>();

const notices = useNotices();
const store = useSongPhrases();
const root = useTemplateRef('root');
const editor = useTemplateRef('editor');
const { text, state, trouble, theirs, type, settle } = usePhraseText(toRef(props, 'phrase'), props.keep);
const music = usePhraseMusic(text, props);
const { reading, bars, tuning, meter, read, key, against, settledPhrase, hands, problems, alike } = music;
const { policy, inBox, whyFirst, press } = music.schools;
const readOptions = computed(() => ({ tuning: tuning.value, meter: meter.value, capo: props.song.capo }));
const guitar = computed(() => {
  const { capo, frets, scaleLengthMm, student } = props.song;
  return { tuning: tuning.value, capo, frets, scaleLengthMm, reachMm: reachOfHand(student.guitar) };
});
const caret = ref<Span>();
const settledCaret = refDebounced(caret, PAUSE_MS);
const { withStaff, withNeck, mirrored, staff, underCaret } = usePhraseView(
  () => props.song,
  { phrase: () => reading.value.phrase, tuning, key },
  caret,
);
/** Where the pitches of a held moment lie on this neck. */
const held = computed(() => {
  const midis = props.recording.recorded.held.value;
  return midis?.flatMap((midi) => fretPositionsOf(midi, guitar.value));
});
const { ways, refers, addWay } = usePhraseWays(
  () => props.phrase,
  (id) => emit('open', id),
);
const firstName = computed(() => props.song.student.name.split(' ')[0] ?? props.song.student.name);

const round = ref(1);
/** The rounds to choose from; none where all of them are alike. */
const rounds = computed(() => {
  const count = hasRounds(reading.value.phrase.items) ? props.times : 1;
  return Array.from({ length: count }, (_, index) => index + 1);
});
const heard = computed(() =>
  inRound(reading.value.phrase, { round: Math.min(round.value, props.times), of: props.times }),
);

const percent = ref(100);
const bpm = computed(() => Math.round((props.tempoChange.bpm * percent.value) / 100));
const listening = useListening(
  () => ({ phrase: heard.value, tuning: tuning.value, ...soundOf(props.song), bpm: bpm.value }),
  false,
);
const { playing, play, playFrom, loopOver } = listening;

/** What the tab says, for whoever does not see it; after a pause in typing. */
const said = computed(() =>
  sayPhrase(settledPhrase.value, { strings: props.song.student.schools.naming, length: 'short' }),
);

/** Places that were found for notes said without one, as long as the text does not say them. */
const found = computed(() => settledText(text.value, reading.value.phrase, (one) => read(one).phrase));

/** Whether places are looked for around a fret that the text names. */
const boxSays = computed(() => {
  const fret = /(?:^|\s)box=(\d+)/.exec(text.value)?.[1];
  return fret === undefined ? '' : ` around fret ${fret}`;
});

function writeIn(): void {
  if (found.value === text.value) notices.say('Every place is written already.');
  else replaceAll(found.value);
}

function pressKey(event: KeyboardEvent): void {
  if (!pressAlt(event, { KeyI: writeIn, KeyH: stampHere, KeyY: () => (isSaying.value = true) })) press(event);
}

/** Whether the line that takes down what is said is there; each device remembers. */
const isSaying = useLocalStorage('jam-say-it', false);

/** What was said goes in at the caret, or behind everything; an empty phrase begins without lengths unless some were said. */
function takeSaid(shorthand: string): void {
  const before = text.value;
  const at = caret.value?.to ?? before.length;
  const isTimed = before.trim() !== '' || shorthand.startsWith('/');
  const gap = at > 0 && !/\s$/.test(before.slice(0, at)) ? ' ' : '';
  editor.value?.replace(
    { from: at, to: at },
    `${gap}${isTimed ? '' : '/? '}${shorthand}${/^\s|^$/.test(before.slice(at)) ? '' : ' '}`,
  );
  notices.say('What you said is written.', () => {
    replaceAll(before);
    return Promise.resolve();
  });
}
function closeSaying(): void {
  isSaying.value = false;
  editor.value?.focus();
}

/** The keyboard goes to the form that assigns the phrase. */
function toAssign(): void {
  root.value?.querySelector<HTMLElement>('form.assign input')?.focus();
}

onMounted(() => {
  if (props.typing) editor.value?.focus();
});

function apply({ span, text: fixed }: Fix): void {
  editor.value?.replace(span, fixed);
}

/** The phrase is heard from here: its stamp stands before its first note. */
function stamp(seconds: number): void {
  const before = text.value;
  const leading = LEADING_STAMP.exec(before)?.[0] ?? '';
  editor.value?.replace({ from: 0, to: leading.length }, `@${clockText(seconds)} `);
  notices.say(`“${props.phrase.name}” is heard from ${clockText(seconds)}.`, () => {
    replaceAll(before);
    return Promise.resolve();
  });
}
/** The note at the caret is heard where the song clock is. */
function stampHere(): void {
  const place = caret.value?.from ?? 0;
  const note = reading.value.phrase.items.find(({ span }) => span.from <= place && place < span.to);
  const at = note?.span.from ?? place;
  const seconds = Math.round(props.recording.clock.seconds.value * 10) / 10;
  if (text.value.slice(0, at).trim() === '') return stamp(seconds);
  editor.value?.replace({ from: at, to: at }, `@${clockText(seconds)} `);
}
defineExpose({ stamp });

/** Puts another text in the place of all of it; the editor can undo that. */
function replaceAll(written: string): void {
  editor.value?.replace({ from: 0, to: text.value.length }, written);
}
</script>

<script lang="ts">
/** Whether a tab was drawn since the page was loaded; the margin comes after it, since its fields would hold it up on a slow phone. */
const hasDrawn = ref(false);

/** A stamp before everything else. */
const LEADING_STAMP = /^\s*@[\d:.]+\s*/;
</script>

<template>
  <div ref="root" class="phrase-desk" @keydown="pressKey">
    <div class="centre">
      <PhraseTitle
        v-model:with-staff="withStaff"
        v-model:with-neck="withNeck"
        v-model:mirrored="mirrored"
        :name="phrase.name"
        :state="state"
        @rename="(name) => notices.tell(() => rename(phrase, name))"
      />
      <TabPage
        :bars="bars"
        :strings="tuning.openMidis.length"
        :caret="caret"
        :playing="playing"
        :staff="staff"
        :said="said"
        @pick="editor?.select($event)"
        @drawn="hasDrawn = true"
      >
        The tab appears here as you type.
      </TabPage>
      <p v-if="refers" class="refers">
        {{ refers.says }} <Button size="small" text label="Show it" @click="emit('open', refers.id)" />
        <Button
          size="small"
          text
          label="Write it out"
          @click="notices.tell(() => store.referPhrase(phrase, null, UNMOVED))"
        />
      </p>
      <SaveConflict v-if="theirs" :text="theirs.text" @settle="settle" />
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <SayIt
        v-if="isSaying"
        :tuning="song.tuning"
        :meter="writeMeter(meter)"
        :capo="song.capo"
        :music-key="key"
        :before="text.slice(0, caret?.to ?? text.length)"
        @take="takeSaid"
        @close="closeSaying"
      />
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
        :by-feel="song.rhythm === 'by feel'"
        @type="type"
        @caret="caret = $event"
        @play-from="notices.tell(() => playFrom($event))"
        @loop-over="notices.tell(() => loopOver($event))"
        @go-phrase="emit('goPhrase', $event)"
        @refuse="notices.say($event)"
      />
      <WaysOn
        :problems="problems"
        :student="piece || !song.student.isStudent ? undefined : firstName"
        @fix="apply"
        @say="isSaying = !isSaying"
        @add-phrase="emit('addPhrase')"
        @assign="toAssign"
      />
      <TabNote :text="text" :guitar="guitar" :meter="meter" @write="replaceAll" />
      <p v-if="found !== text" class="refers">
        Some places are not written; they are found for the hand{{ boxSays }}.
        <Button size="small" text label="Write them in" title="Alt-i" @click="writeIn" />
      </p>
      <NeckBoard
        v-if="withNeck"
        class="screen-only"
        :tuning="tuning"
        :capo="song.capo"
        :frets="song.frets"
        :mirrored="mirrored"
        :music-key="key"
        :names="song.student.schools.naming"
        :shown="held ?? underCaret"
        @touch="(note, stack) => editor?.touch(note, stack)"
      />
      <PlayBar
        class="screen-only"
        :listening="listening"
        :bpm="bpm"
        :disabled="bars.length === 0"
        @play="notices.tell(play)"
      >
        <label v-if="rounds.length > 1" class="speed"
          >round <Select v-model="round" size="small" aria-label="Round of the section" :options="rounds"
        /></label>
        <span class="speed"
          >speed <Slider v-model="percent" :min="30" :max="130" :step="5" aria-label="Speed, percent" />
          {{ percent }} %</span
        >
      </PlayBar>
      <AgreeNote
        v-if="hasDrawn"
        class="screen-only"
        :recording="recording"
        :song="song"
        :phrase="phrase"
        :text="text"
        :read="heard"
        :guitar="guitar"
        :music-key="key"
        :tempo-change="tempoChange"
        :replace="replaceAll"
        :checked="() => notices.tell(() => store.markPhrase(phrase, { status: 'checked', against: 'the recording' }))"
        @show="editor?.select($event)"
      />
      <div class="foot screen-only">
        <HandMargin
          v-if="hands"
          v-model:policy="policy"
          v-model:in-box="inBox"
          :phrase="phrase"
          :report="hands"
          :now="() => music.handsFor(text)"
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
    <PhraseMargin
      v-if="hasDrawn"
      class="screen-only"
      :phrase="phrase"
      :song="song"
      :text="text"
      :settled-text="music.settledText.value"
      :read-options="readOptions"
      :problems="problems"
      :hands="hands"
      :alike="alike"
      :ways="ways"
      :piece="piece"
      :bpm="tempoChange.bpm"
      :assign="assign"
      @show="editor?.select($event)"
      @fix="apply"
      @open="emit('open', $event)"
      @go-back="replaceAll"
      @add-way="notices.tell(addWay)"
    />
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
.speed {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
  white-space: nowrap;
}
.speed .p-slider {
  width: 5rem;
  margin: 0 0.4rem;
}
@media (max-width: 900px) {
  .phrase-desk {
    grid-template-columns: minmax(0, 1fr);
  }
}
/* Of a low screen the text that is typed has the top. */
@media (max-height: 500px) {
  .centre > .editor {
    order: -1;
  }
}
@media print {
  .phrase-desk {
    display: block;
  }
}
</style>
