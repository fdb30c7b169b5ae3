<script setup lang="ts">
import DatePicker from 'primevue/datepicker';
import { computed } from 'vue';
import { writtenDay } from './useDays.ts';

defineOptions({ inheritAttrs: false });
defineProps<{ id?: string; label?: string; invalid?: boolean }>();
/** A day, `2026-03-14`, typed or chosen in the order of the reader’s locale; '' for none. */
const day = defineModel<string>({ required: true });

const date = computed({
  get: () => (day.value === '' ? null : new Date(`${day.value}T00:00`)),
  set: (chosen) => (day.value = chosen instanceof Date ? writtenDay(chosen) : ''),
});
</script>

<template>
  <DatePicker
    v-model="date"
    :input-id="id"
    :aria-label="label"
    :invalid="invalid"
    show-icon
    icon-display="input"
    update-model-type="date"
    :pt="{ pcInputText: { root: { 'aria-label': label } } }"
  />
</template>
