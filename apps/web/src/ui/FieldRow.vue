<script setup lang="ts">
import { onMounted, onUpdated, useId, useTemplateRef } from 'vue';

const props = defineProps<{ label: string; hint?: string; problem?: string | undefined }>();
const id = useId();
const row = useTemplateRef<HTMLElement>('row');

/** The field in the slot is called by its label alone; hint and problem describe it. */
function describe(): void {
  const field = row.value?.querySelector(`[id="${id}"], [aria-labelledby="${id}-label"]`);
  const said = [...(props.hint ? [`${id}-hint`] : []), ...(props.problem ? [`${id}-problem`] : [])];
  if (said.length > 0) field?.setAttribute('aria-describedby', said.join(' '));
  else field?.removeAttribute('aria-describedby');
}
onMounted(describe);
onUpdated(describe);
</script>

<template>
  <div ref="row" class="field">
    <div class="head">
      <label :id="`${id}-label`" :for="id">{{ label }}</label><span v-if="hint" :id="`${id}-hint`" class="soft hint">
        {{ hint }}</span
      >
    </div>
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
.head {
  font-size: 0.92rem;
}
label {
  font-weight: 600;
}
.hint {
  margin-left: 0.4rem;
}
.problem {
  color: var(--warm);
  font-size: 0.9rem;
}
</style>
