<script setup lang="ts">
import InputText from 'primevue/inputtext';
import { ref } from 'vue';
import { clockText, readClock } from '../../ui/index.ts';

/** A place of the recording as it is typed, `1:09`; kept when it can be read. Null for an empty one that may be. */
const props = defineProps<{ modelValue: number | null; label: string; optional?: boolean; placeholder?: string }>();
const emit = defineEmits<{ 'update:modelValue': [seconds: number | null] }>();

const typed = ref(props.modelValue === null ? '' : clockText(props.modelValue));
const wrong = ref(false);

function type(text: string | undefined): void {
  typed.value = text ?? '';
  const seconds = readClock(typed.value);
  const isEmpty = props.optional && typed.value.trim() === '';
  wrong.value = seconds === undefined && !isEmpty;
  if (!wrong.value) emit('update:modelValue', seconds ?? null);
}
</script>

<template>
  <InputText
    :model-value="typed"
    size="small"
    class="clock"
    :aria-label="label"
    :invalid="wrong"
    :placeholder="placeholder ?? '1:09'"
    maxlength="9"
    @update:model-value="type"
  />
  <span v-if="wrong" class="wrong" role="alert">Write a time such as 1:09.</span>
</template>

<style scoped>
.clock {
  width: 4.8rem;
}
.wrong {
  color: var(--warm);
}
</style>
