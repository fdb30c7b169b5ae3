<script setup lang="ts">
import { DateTime } from 'luxon';
import DatePicker from 'primevue/datepicker';
import { computed } from 'vue';

defineOptions({ inheritAttrs: false });
defineProps<{ id?: string; label?: string; invalid?: boolean }>();
/** A day, `2026-03-14`, typed or chosen in the order of the reader’s locale; '' for none. */
const day = defineModel<string>({ required: true });

const date = computed({
  get: () => (day.value === '' ? null : DateTime.fromISO(day.value).toJSDate()),
  set: (chosen) => (day.value = chosen instanceof Date ? (DateTime.fromJSDate(chosen).toISODate() ?? '') : ''),
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
