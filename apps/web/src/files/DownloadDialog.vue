<script setup lang="ts">
import { writeShorthandFile, type SongFormat, type TabWidth } from '@jam-ledger/core/formats';
import { proxy } from 'comlink';
import Button from 'primevue/button';
import Checkbox from 'primevue/checkbox';
import Dialog from 'primevue/dialog';
import InputNumber from 'primevue/inputnumber';
import ProgressBar from 'primevue/progressbar';
import RadioButton from 'primevue/radiobutton';
import Select from 'primevue/select';
import { computed, ref, toRaw, watch } from 'vue';
import { askFiles, endFiles } from './askFiles.ts';
import { fileName, saveFile } from './saveFile.ts';
import { FORMATS, type Takeable } from './takeable.ts';

const props = defineProps<{ choices: readonly Takeable[] }>();
const open = defineModel<boolean>('open', { required: true });

type Offered = Exclude<SongFormat, 'pdf'>;
const OFFERED = Object.keys(FORMATS) as readonly Offered[];
/** Slowest and fastest that a sound file is made, percent of the tempo. Our choice. */
const SPEED = { min: 20, max: 150 } as const;
const WIDTHS = [
  { label: '72 characters', width: 72 },
  { label: '100 characters', width: 100 },
] as const;

const chosen = ref(0);
const format = ref<Offered>('musicxml');
const speed = ref<number>(100);
const thenFull = ref(false);
const click = ref(false);
const backing = ref(false);
const width = ref<TabWidth>(72);
const share = ref<number>();
const trouble = ref('');
/** How many files somebody ended while they were made; that is no trouble. */
let ended = 0;
const what = computed(() => props.choices[chosen.value] ?? props.choices[0]);
/** What the format cannot carry; counting it means playing the song out. */
const losses = ref<readonly string[]>([]);
watch(
  [open, what, format],
  async ([isOpen, value, kind]) => {
    losses.value = [];
    if (!isOpen || !value) return;
    const found = await askFiles((worker) => worker.lossesOf(kind, toRaw(value.song()))).catch(() => []);
    if (value === what.value && kind === format.value) losses.value = found;
  },
  { immediate: true },
);

async function save(): Promise<void> {
  const { value } = what;
  if (!value) return;
  trouble.value = '';
  share.value = 0;
  const before = ended;
  try {
    const bytes = await made(value);
    const { ending, type } = FORMATS[format.value];
    saveFile(fileName(value.name, ending), bytes, type);
    open.value = false;
  } catch (error) {
    if (ended === before) trouble.value = error instanceof Error ? error.message : 'The file could not be made.';
  } finally {
    share.value = undefined;
  }
}

function made(value: Takeable): Promise<BlobPart> {
  const kind = format.value;
  if (kind === 'shorthand') return Promise.resolve(writeShorthandFile(value.shorthand()));
  const song = toRaw(value.song());
  if (kind !== 'wav') return askFiles((worker) => worker.write(kind, song, width.value));
  const tell = proxy((done: number) => {
    if (share.value !== undefined) share.value = done;
    return Promise.resolve();
  });
  const slow = speed.value / 100;
  const speeds = thenFull.value && slow !== 1 ? [slow, 1] : [slow];
  return askFiles((worker) => worker.sound(song, { speeds, click: click.value, backing: backing.value }, tell));
}

function stop(): void {
  if (share.value === undefined) return;
  ended += 1;
  share.value = undefined;
  endFiles();
}
</script>

<template>
  <Dialog
    v-model:visible="open"
    modal
    header="Download"
    class="download"
    :style="{ width: '34rem' }"
    :breakpoints="{ '640px': '96vw' }"
    @hide="stop"
  >
    <form @submit.prevent="save">
      <label v-if="choices.length > 1" class="what">
        <span>What</span>
        <Select
          v-model="chosen"
          autofocus
          :options="choices.map(({ label }, index) => ({ label, index }))"
          option-label="label"
          option-value="index"
          aria-label="What"
        />
      </label>
      <fieldset>
        <legend>As</legend>
        <div v-for="one in OFFERED" :key="one" class="format">
          <RadioButton v-model="format" :input-id="`format-${one}`" name="format" :value="one" />
          <label :for="`format-${one}`"
            ><strong>{{ FORMATS[one].label }}</strong> <span class="soft">{{ FORMATS[one].says }}</span></label
          >
        </div>
      </fieldset>
      <div v-if="format === 'wav'" class="options">
        <InputNumber
          v-model="speed"
          aria-label="Tempo"
          suffix=" %"
          :min="SPEED.min"
          :max="SPEED.max"
          :step="5"
          show-buttons
          :allow-empty="false"
        />
        <span v-if="speed !== 100" class="check"
          ><Checkbox v-model="thenFull" binary input-id="then-full" /><label for="then-full"
            >then at full tempo</label
          ></span
        >
        <span class="check"
          ><Checkbox v-model="click" binary input-id="with-click" /><label for="with-click">with the click</label></span
        >
        <span class="check"
          ><Checkbox v-model="backing" binary input-id="with-backing" /><label for="with-backing"
            >with the backing</label
          ></span
        >
      </div>
      <div v-if="format === 'text'" class="options">
        <Select
          v-model="width"
          :options="[...WIDTHS]"
          option-label="label"
          option-value="width"
          aria-label="Line length"
        />
      </div>
      <section v-if="losses.length > 0" class="losses" aria-label="What does not come along">
        <p>{{ FORMATS[format].label }} does not carry:</p>
        <ul>
          <li v-for="loss in losses" :key="loss">{{ loss }}</li>
        </ul>
      </section>
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <ProgressBar
        v-if="share !== undefined"
        :value="Math.round(share * 100)"
        aria-label="How much of the file is made"
      />
      <footer>
        <Button v-if="share === undefined" type="submit" label="Save the file" icon="pi pi-download" />
        <Button v-else type="button" outlined label="Stop" @click="stop" />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.8rem;
}
.what {
  display: flex;
  gap: 0.7rem;
  align-items: center;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 0.45rem;
}
legend {
  padding: 0;
  margin-bottom: 0.3rem;
}
.format,
.check {
  display: flex;
  gap: 0.55rem;
  align-items: center;
}
.options {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: center;
}
.losses {
  border-left: 3px solid var(--warm);
  padding-left: 0.7rem;
  font-size: 0.92rem;
}
.losses p,
.losses ul {
  margin: 0;
}
.losses ul {
  padding-left: 1.1rem;
}
footer {
  display: flex;
  justify-content: flex-end;
}
</style>
