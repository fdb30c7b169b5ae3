<script setup lang="ts">
import { useId } from 'vue';

defineProps<{ label: string; hint?: string; problem?: string | undefined }>();
const id = useId();
</script>

<template>
  <div class="field">
    <label :id="`${id}-label`" :for="id"
      >{{ label }}<span v-if="hint" class="soft hint"> {{ hint }}</span></label
    >
    <slot :id="id" :invalid="problem !== undefined" :label-id="`${id}-label`" />
    <p v-if="problem" :id="`${id}-problem`" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.field {
  display: flex;
  flex-direction: column;
  gap: 0.15rem;
  min-width: 0;
}
label {
  font-weight: 600;
  font-size: 0.92rem;
}
.hint {
  font-weight: 400;
  margin-left: 0.4rem;
}
.problem {
  color: var(--warm);
  font-size: 0.9rem;
}
</style>
