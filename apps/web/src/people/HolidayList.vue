<script setup lang="ts">
import { STUDIO_LIMITS } from '@jam-ledger/contract';
import { readClosedDays, type ClosedDays, type Holiday } from '@jam-ledger/core/series';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import FileUpload, { type FileUploadSelectEvent } from 'primevue/fileupload';
import { ref, shallowRef } from 'vue';
import { chosenFile, dayText, DayField } from '../ui/index.ts';

const props = defineProps<{
  holidays: readonly Holiday[];
  disabled: boolean;
  problem: string | undefined;
  today: string;
}>();
const emit = defineEmits<{
  add: [holiday: Holiday];
  bring: [holidays: readonly Holiday[]];
  remove: [holiday: Holiday];
}>();

const adding = ref(false);
const name = ref('');
const from = ref('');
const to = ref('');

function add(): void {
  if (name.value.trim() === '' || from.value === '') return;
  emit('add', { name: name.value.trim(), from: from.value, to: to.value === '' ? from.value : to.value });
  adding.value = false;
  [name.value, from.value, to.value] = ['', '', ''];
}
/** Days that a calendar file closes, which are not among the holidays yet; shown before they are kept. */
const found = shallowRef<ClosedDays>();
/** So many years ahead, what recurs is read. Our choice. */
const YEARS = 2;

async function read(event: FileUploadSelectEvent): Promise<void> {
  const file = chosenFile(event);
  if (!file) return;
  const { holidays, problems } = readClosedDays(await file.text(), { from: props.today, years: YEARS });
  const isNew = ({ from: first, to: last }: Holiday) =>
    !props.holidays.some((one) => one.from === first && one.to === last);
  found.value = { holidays: holidays.filter(isNew).slice(0, STUDIO_LIMITS.holidays - props.holidays.length), problems };
}

function bring(): void {
  if (found.value) emit('bring', found.value.holidays);
  found.value = undefined;
}
</script>

<template>
  <section aria-label="Holidays">
    <h3>Holidays</h3>
    <p v-if="holidays.length === 0" class="soft">The studio has no holidays; lessons of every series leave them out.</p>
    <ul class="quiet-list">
      <li v-for="holiday in holidays" :key="`${holiday.from} ${holiday.name}`">
        <span>{{ holiday.name }}</span>
        <span class="soft">
          {{ dayText(holiday.from, 'short')
          }}<template v-if="holiday.to !== holiday.from"> to {{ dayText(holiday.to, 'short') }}</template>
        </span>
        <Button
          v-if="!disabled"
          size="small"
          text
          severity="secondary"
          label="Remove"
          :aria-label="`Remove ${holiday.name}`"
          @click="emit('remove', holiday)"
        />
      </li>
    </ul>
    <p v-if="problem" class="trouble" role="alert">{{ problem }}</p>
    <form v-if="adding" class="row" @submit.prevent="add">
      <InputText
        v-model="name"
        aria-label="Name of the holiday"
        placeholder="autumn"
        :maxlength="STUDIO_LIMITS.holidayName"
      />
      <label>from <DayField v-model="from" label="from" /></label>
      <label>to <DayField v-model="to" label="to" /></label>
      <Button type="submit" size="small" label="Close the studio" :disabled="name.trim() === '' || from === ''" />
      <Button type="button" size="small" text severity="secondary" label="Cancel" @click="adding = false" />
    </form>
    <div v-else-if="found" class="found" role="group" aria-label="Closed days of the file">
      <p v-for="line in found.problems" :key="line" class="trouble">{{ line }}</p>
      <ul class="quiet-list">
        <li v-for="holiday in found.holidays" :key="`${holiday.from} ${holiday.name}`">
          <span>{{ holiday.name }}</span>
          <span class="soft"
            >{{ dayText(holiday.from, 'short')
            }}<template v-if="holiday.to !== holiday.from"> to {{ dayText(holiday.to, 'short') }}</template></span
          >
        </li>
      </ul>
      <Button
        v-if="found.holidays.length > 0"
        size="small"
        :label="`Close the studio on these (${found.holidays.length})`"
        @click="bring"
      />
      <Button size="small" text severity="secondary" label="Cancel" @click="found = undefined" />
    </div>
    <p v-else-if="!disabled" class="row">
      <Button size="small" outlined label="Add a holiday" @click="adding = true" />
      <FileUpload
        mode="basic"
        custom-upload
        auto
        accept=".ics,text/calendar"
        choose-label="From a calendar file"
        @select="read"
      />
    </p>
  </section>
</template>

<style scoped>
li {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  max-width: 36rem;
  min-height: 2.1rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
  margin-top: 0.4rem;
}
input[type='date'] {
  font: inherit;
  color: var(--ink);
  background: var(--page);
  border: 1px solid var(--rule-strong);
  padding: 0.3rem 0.4rem;
}
.trouble {
  color: var(--warm);
}
</style>
