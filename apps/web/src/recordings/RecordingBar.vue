<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core';
import Button from 'primevue/button';
import FileUpload, { type FileUploadSelectEvent } from 'primevue/fileupload';
import InputNumber from 'primevue/inputnumber';
import ProgressBar from 'primevue/progressbar';
import Select from 'primevue/select';
import Slider from 'primevue/slider';
import { computed, ref, useId, watch } from 'vue';
import { chosenFile, clockText } from '../ui/index.ts';
import { BANDS, SIDES } from './recordingPlayer.ts';
import type { useRecording } from './useRecording.ts';

const props = defineProps<{
  recorded: ReturnType<typeof useRecording>;
  /** What the held pitches are called. */
  heldNames: readonly string[];
  offCents: number;
}>();
const emit = defineEmits<{ bring: [file: File]; band: []; countIn: [] }>();

const { recording, state, trouble, seconds, held, loop, speed, semitones, cents, side, band, level, known, sent } =
  props.recorded;
const id = useId();
const step = ref(0.1);
/** How it is heard, and where it is kept: below, where it is asked for. */
const areWaysShown = useLocalStorage('jam-recording-ways', true);
const percent = computed({ get: () => Math.round(speed.value * 100), set: (now) => (speed.value = now / 100) });

const doing = computed(() => DOING[state.value]);
/** Whether this recording, and not another of the song, is kept in the studio. */
const isInStudio = computed(() => known.value?.isKept === true && known.value.bytes === recording.value?.file.size);
watch([speed, semitones, cents, side, band], () => props.recorded.changed());

function choose(event: FileUploadSelectEvent): void {
  const file = chosenFile(event);
  if (file) emit('bring', file);
}

function move(by: number): void {
  props.recorded.goTo(seconds.value + by * step.value);
}

/** From here, or to here: the stretch that goes round and round. */
function mark(end: 'from' | 'to'): void {
  const whole = recording.value?.seconds ?? 0;
  const now = { from: loop.value?.from ?? 0, to: loop.value?.to ?? whole, [end]: seconds.value };
  loop.value =
    now.to - now.from > SHORTEST ? now : { from: seconds.value, to: end === 'from' ? whole : seconds.value + 1 };
}
</script>

<script lang="ts">
/** Shortest stretch that goes round, seconds. */
const SHORTEST = 0.1;
const STEPS = [
  { name: '10 ms', value: 0.01 },
  { name: '100 ms', value: 0.1 },
  { name: '1 s', value: 1 },
];
const DOING: Readonly<Partial<Record<string, string>>> = {
  reading: 'Reading the recording…',
  listening: 'Listening to its pitch and its beat…',
  'playing the band': 'The simulated band plays…',
};
</script>

<template>
  <section class="recording" aria-label="The recording">
    <div v-if="doing" class="doing">
      <p role="status">{{ doing }}</p>
      <ProgressBar mode="indeterminate" :aria-label="doing" :style="{ height: '4px' }" />
    </div>
    <div v-else-if="!recording" class="bring">
      <FileUpload
        mode="basic"
        custom-upload
        auto
        accept="audio/*,video/*"
        choose-label="Choose the recording"
        :choose-button-props="{ outlined: true, severity: 'secondary', size: 'small' }"
        @select="choose"
      />
      <Button size="small" text label="Let the simulated band play it" @click="emit('band')" />
      <template v-if="known">
        <Button
          v-if="known.isKept"
          size="small"
          outlined
          :label="`Fetch “${known.name}” from the studio`"
          @click="recorded.fetchFromStudio()"
        />
        <strong v-else
          >Choose the same file again: {{ known.name }}, {{ clockText(Math.round(known.seconds)) }}.</strong
        >
      </template>
      <span class="soft"
        >It stays on this device. Use recordings you may use: lessons are private, songs have owners.</span
      >
    </div>
    <template v-else>
      <div class="tools">
        <Button
          size="small"
          text
          :label="held ? 'Let the moment go' : 'Hold this moment'"
          :aria-pressed="held !== undefined"
          @click="recorded.hold(offCents)"
        />
        <span v-if="held" class="held" role="status">{{ heldNames.join(' ') || 'no clear pitch' }}</span>
        <span class="group">
          <Button size="small" text icon="pi pi-angle-left" aria-label="A step back" @click="move(-1)" />
          <Select
            v-model="step"
            size="small"
            :options="STEPS"
            option-label="name"
            option-value="value"
            aria-label="Step"
          />
          <Button size="small" text icon="pi pi-angle-right" aria-label="A step on" @click="move(1)" />
        </span>
        <span class="group">
          <Button size="small" text label="Loop from here" @click="mark('from')" />
          <Button size="small" text label="to here" @click="mark('to')" />
          <template v-if="loop">
            <span>{{ clockText(Math.round(loop.from * 10) / 10) }}–{{ clockText(Math.round(loop.to * 10) / 10) }}</span>
            <Button size="small" text label="With a count-in" @click="emit('countIn')" />
            <Button size="small" text label="No loop" @click="loop = undefined" />
          </template>
        </span>
        <slot />
        <Button
          size="small"
          text
          severity="secondary"
          label="Speed, pitch and file"
          :icon="areWaysShown ? 'pi pi-angle-down' : 'pi pi-angle-right'"
          :aria-expanded="areWaysShown"
          @click="areWaysShown = !areWaysShown"
        />
      </div>
      <div v-if="areWaysShown" class="tools">
        <label :for="`${id}-speed`">speed</label>
        <InputNumber
          v-model="percent"
          size="small"
          :input-id="`${id}-speed`"
          :min="25"
          :max="150"
          :step="5"
          suffix=" %"
          show-buttons
          class="narrow"
        />
        <label :for="`${id}-semitones`">pitch</label>
        <InputNumber
          v-model="semitones"
          size="small"
          :input-id="`${id}-semitones`"
          :min="-12"
          :max="12"
          suffix=" semit."
          show-buttons
          class="wide"
        />
        <InputNumber
          v-model="cents"
          size="small"
          aria-label="Cents"
          :min="-100"
          :max="100"
          suffix=" cents"
          show-buttons
          class="wide"
        />
        <Select v-model="side" size="small" :options="[...SIDES]" aria-label="Sides" />
        <Select v-model="band" size="small" :options="[...BANDS]" aria-label="Band" />
        <span class="level"
          ><span>level</span>
          <Slider
            :model-value="Math.round(level * 100)"
            aria-label="Level of the recording"
            @update:model-value="recorded.setLevel(Number($event) / 100)"
        /></span>
        <span class="soft name" :title="recording.name"
          >{{ recording.name }}, {{ clockText(Math.round(recording.seconds)) }}</span
        >
        <template v-if="sent !== undefined">
          <ProgressBar
            class="sending"
            :value="Math.round(sent * 100)"
            aria-label="How much of the recording is in the studio"
          />
          <Button size="small" text label="Stop sending" @click="recorded.stopSending()" />
        </template>
        <Button
          v-else-if="isInStudio"
          size="small"
          text
          severity="secondary"
          label="Delete from the studio"
          @click="recorded.deleteFromStudio()"
        />
        <Button
          v-else
          size="small"
          text
          label="Keep in the studio"
          title="Lessons are private and songs have owners: keep only what you may."
          @click="recorded.keepInStudio()"
        />
        <Button size="small" text severity="secondary" label="Remove" @click="recorded.forget()" />
      </div>
    </template>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
.recording {
  border-bottom: 1px solid var(--rule);
  padding: 0.2rem 0;
}
.tools,
.bring,
.group,
.level {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.25rem 0.6rem;
}
.group {
  gap: 0.1rem;
}
.held {
  font-weight: 600;
}
.narrow {
  width: 6rem;
}
.wide {
  width: 7.4rem;
}
.narrow :deep(input),
.wide :deep(input) {
  width: 100%;
}
.level {
  min-width: 6.5rem;
}
.level :deep(.p-slider) {
  flex: 1;
}
.name {
  max-width: 5.5rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.sending {
  width: 6rem;
}
.doing {
  padding: 0.3rem 0;
}
.doing p {
  margin: 0 0 0.3rem;
}
</style>
