<script setup lang="ts">
import type { Outcome } from '@jam-ledger/contract';
import type { Phrase } from '@jam-ledger/core/notation';
import { useLocalStorage, useObjectUrl } from '@vueuse/core';
import Button from 'primevue/button';
import Checkbox from 'primevue/checkbox';
import FileUpload, { type FileUploadSelectEvent } from 'primevue/fileupload';
import ProgressBar from 'primevue/progressbar';
import Select from 'primevue/select';
import { computed, defineAsyncComponent, ref, useId } from 'vue';
import { chosenFile, momentText } from '../ui/index.ts';
import { LEARNERS } from './learners.ts';
import SentTakes from './SentTakes.vue';
import TakeResult from './TakeResult.vue';
import { useClapAlong } from './useClapAlong.ts';
import type { KeptTake, useTake } from './useTake.ts';

// Two takes are seldom held against each other; the table for it is loaded then.
const TakesBeside = defineAsyncComponent(() => import('./TakesBeside.vue'));

const props = defineProps<{
  take: ReturnType<typeof useTake>;
  phrase: Phrase;
  zone: string;
  post: (bpm: number, outcome: Outcome) => Promise<void>;
}>();
const emit = defineEmits<{ loop: [from: number, to: number] }>();

const {
  state,
  trouble,
  level,
  counted,
  takes,
  shown,
  shownId,
  clean,
  rule,
  record,
  stop,
  judge,
  fromFile,
  fromRoom,
  remove,
  send,
} = props.take;
const id = useId();
const click = useLocalStorage('jam-take-click', true);
const learner = ref(0);
let turn = 1;

const doing = computed(() => {
  if (state.value === 'opening') return 'Opening the microphone…';
  if (clapping.state.value === 'listening') return 'Listening to the claps…';
  if (state.value === 'playing') return 'The practice room plays…';
  return state.value === 'judging' ? 'Listening to the take…' : undefined;
});

function choose(event: FileUploadSelectEvent): void {
  const file = chosenFile(event);
  if (file) void fromFile(file);
}

function practise(): void {
  const chosen = LEARNERS[learner.value];
  if (chosen) void fromRoom({ ...chosen.learner, seed: (turn += 1) });
}

const clapping = useClapAlong();
const { delay } = clapping;
/** Where in the recording the click of the first note is heard, where both are known. */
const clickSeconds = computed(() => {
  const asked = shown.value?.clickSeconds;
  return asked === undefined || delay.value === null ? undefined : asked + delay.value;
});

/** The take one listens to, from the memory of the page. */
const address = useObjectUrl(() => shown.value?.file);

/** The take that stands beside the one that is shown. */
const besideId = ref<string>();
const pair = computed((): readonly [KeptTake, KeptTake] | undefined => {
  const other = takes.value.find(({ id: one }) => one === besideId.value);
  return shown.value?.judged && other?.judged && other.id !== shown.value.id ? [other, shown.value] : undefined;
});

function show(one: KeptTake): void {
  if (one.judged) shownId.value = shownId.value === one.id ? undefined : one.id;
  else void judge(one);
}
</script>

<template>
  <section class="takes" :aria-labelledby="`${id}-title`">
    <h2 :id="`${id}-title`">Takes</h2>
    <div v-if="state === 'recording'" class="live">
      <p role="status">
        <span class="microphone-light" aria-hidden="true"></span>
        {{ counted > 0 ? `Count-in: ${counted}` : 'Recording: the microphone is open.' }}
      </p>
      <meter min="0" max="1" low="0.05" high="0.95" optimum="0.5" :value="level" aria-label="How loud it is" />
      <Button label="Stop and listen" @click="stop" />
    </div>
    <div v-else-if="clapping.state.value === 'clapping'" class="live">
      <p role="status">
        <span class="microphone-light" aria-hidden="true"></span>
        Four clicks to listen to, then clap once to each of the next eight.
      </p>
    </div>
    <div v-else-if="doing" class="live">
      <p role="status">{{ doing }}</p>
      <ProgressBar mode="indeterminate" :aria-label="doing" :style="{ height: '4px' }" />
    </div>
    <div v-else class="begin">
      <Button label="Record a take" @click="record(click)" />
      <FileUpload
        mode="basic"
        custom-upload
        auto
        accept="audio/*,video/*"
        choose-label="Choose a recording"
        :choose-button-props="{ outlined: true, severity: 'secondary' }"
        @select="choose"
      />
      <span class="room">
        <Select
          v-model="learner"
          :options="LEARNERS.map(({ name }, value) => ({ name, value }))"
          option-label="name"
          option-value="value"
          aria-label="Who plays in the practice room"
        />
        <Button label="Hear the practice room" outlined severity="secondary" @click="practise" />
      </span>
      <label><Checkbox v-model="click" binary :input-id="`${id}-click`" /> click in the headphones</label>
      <Button
        size="small"
        text
        :label="delay === null ? 'Find the delay of this device' : 'Find the delay again'"
        title="Clap along with eight clicks, once for this device; takes then tell how far behind the click you play"
        @click="clapping.clap"
      />
    </div>
    <p v-if="clapping.says.value" role="status">{{ clapping.says.value }}</p>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <template v-if="shown?.judged">
      <TakeResult
        :judged="shown.judged"
        :clean="clean"
        :click-seconds="clickSeconds"
        :phrase="phrase"
        :post="post"
        @loop="(from, to) => emit('loop', from, to)"
      />
      <audio v-if="address" controls :src="address" aria-label="The take" />
    </template>
    <TakesBeside v-if="pair" :takes="pair" :rule="rule" :zone="zone" />
    <p v-if="takes.length === 0" class="soft">
      Play the piece at this tempo: what was heard is shown at its notes. Takes stay on this device; the practice room
      has simulated players to try it with.
    </p>
    <ul v-else class="kept">
      <li v-for="one in takes" :key="one.id" :class="{ now: one.id === shownId }">
        <Button
          size="small"
          text
          :label="one.id === shownId ? 'Hide' : one.judged ? 'Show' : 'Listen to it'"
          :aria-label="`${one.id === shownId ? 'Hide' : 'Show'} the take of ${momentText(one.at, zone)}`"
          @click="show(one)"
        />
        {{ momentText(one.at, zone) }}, {{ one.bpm }} bpm asked<template v-if="!one.judged">, not judged yet</template
        ><template v-if="one.sending === 'waits'">, waits to be sent</template>
        <Button
          v-if="one.judged && shown?.judged && one.id !== shownId"
          size="small"
          text
          :label="one.id === besideId ? 'Not beside it' : 'Beside it'"
          :aria-label="`${one.id === besideId ? 'No longer put' : 'Put'} the take of ${momentText(one.at, zone)} beside the one that is shown`"
          :aria-pressed="one.id === besideId"
          @click="besideId = one.id === besideId ? undefined : one.id"
        />
        <Button
          v-if="one.judged && one.sending === undefined"
          size="small"
          text
          label="Send to the teacher"
          :aria-label="`Send the take of ${momentText(one.at, zone)} to the teacher`"
          @click="send(one)"
        />
        <Button
          size="small"
          text
          severity="secondary"
          label="Delete"
          :aria-label="`Delete the take of ${momentText(one.at, zone)}`"
          @click="remove(one)"
        />
      </li>
    </ul>
    <SentTakes :zone="zone" />
  </section>
</template>

<style scoped>
.takes {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  border-top: 1px solid var(--rule);
  padding-top: 0.6rem;
}
.begin,
.live,
.room {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
}
.begin label {
  display: flex;
  gap: 0.4rem;
  align-items: center;
}
.kept {
  list-style: none;
  padding: 0;
  margin: 0;
}
.now {
  background: var(--page-sunk);
}
.problem {
  color: var(--warm);
}
audio {
  width: 100%;
  max-width: 28rem;
}
@media (max-width: 720px) {
  .begin :deep(button) {
    min-height: 2.9rem;
  }
}
</style>
