<script setup lang="ts">
import InputText from 'primevue/inputtext';

defineProps<{ id?: string; label?: string }>();
/** A time of day, `16:30`; the browser shows it by 12 or 24 hours, as the reader’s locale does. '' for none. */
const time = defineModel<string>({ required: true });
</script>

<template>
  <InputText :id="id" v-model="time" type="time" :aria-label="label" />
</template>
