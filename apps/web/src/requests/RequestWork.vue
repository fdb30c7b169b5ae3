<script setup lang="ts">
import type { RequestHours, SongRequest } from '@jam-ledger/contract';
import type { PromisedWork } from '@jam-ledger/core/desk';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { dayText, DayField } from '../ui/index.ts';

const props = defineProps<{
  request: SongRequest;
  work: RequestHours['works'][number];
  promise: PromisedWork;
  today: string;
  /** Minutes of the timer that runs for it; nothing where none does. */
  running: number | undefined;
}>();
const emit = defineEmits<{ time: []; promise: [day: string | null] }>();

const choosing = ref(false);
const day = ref('');
/** Promised for, but not asked for any more when only asked: a promise is made when the scope is agreed. */
const mayPromise = computed(() => props.request.state !== 'asked');

function begin(): void {
  day.value = props.request.promisedFor ?? props.promise.earliest ?? props.today;
  choosing.value = true;
}
function keep(to: string | null): void {
  emit('promise', to);
  choosing.value = false;
}
</script>

<template>
  <div class="work">
    <p :class="promise.isInTime ? 'soft' : 'late'">
      About {{ work.estimate.minutes }} min of work ({{ work.estimate.low }}–{{ work.estimate.high
      }}<template v-if="work.estimate.from > 0">, from {{ work.estimate.from }} of your own</template>)<template
        v-if="work.spentMinutes > 0"
        >; {{ work.spentMinutes }} min spent, {{ promise.minutesLeft }} left</template
      >.
      <template v-if="promise.earliest === null">There are no hours left for it.</template>
      <template v-else-if="!promise.isInTime"
        >It cannot be met by then with these hours: it would be done on
        {{ dayText(promise.doneOn ?? promise.earliest) }}.</template
      >
      <template v-else>The earliest honest promise: {{ dayText(promise.earliest) }}.</template>
      <template v-if="work.instalments.length > 0">
        Handed out in parts on {{ work.instalments.map((one) => dayText(one, 'short')).join(', ') }}.</template
      >
    </p>
    <p v-if="request.promisedFor">
      <strong>Promised for {{ dayText(request.promisedFor) }}</strong>
    </p>
    <form v-if="choosing" class="row" @submit.prevent="keep(day)">
      <label>Promise it for <DayField v-model="day" label="Promise it for" /></label>
      <Button type="submit" size="small" label="Promise" :disabled="day === ''" />
      <Button
        v-if="request.promisedFor"
        type="button"
        size="small"
        text
        label="Remove the promise"
        @click="keep(null)"
      />
      <Button type="button" size="small" text severity="secondary" label="Cancel" @click="choosing = false" />
    </form>
    <div v-else class="row">
      <Button
        size="small"
        text
        :icon="running === undefined ? 'pi pi-play' : 'pi pi-stop'"
        :label="running === undefined ? 'Start the timer' : `Stop the timer, ${running} min`"
        @click="emit('time')"
      />
      <Button
        v-if="mayPromise"
        size="small"
        text
        :label="request.promisedFor ? 'Change the promise' : 'Promise a day'"
        @click="begin"
      />
    </div>
  </div>
</template>

<style scoped>
.late {
  color: var(--warm);
  font-weight: 600;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
}
.row :deep(button) {
  margin-left: -0.4rem;
}
input {
  font: inherit;
  color: var(--ink);
  background: var(--page);
  border: 1px solid var(--rule-strong);
  padding: 0.2rem 0.4rem;
}
</style>
