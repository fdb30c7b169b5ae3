<script setup lang="ts">
import Select from 'primevue/select';
import { computed } from 'vue';
import { FieldRow } from '../ui/index.ts';

/** The word chosen; null where the studio’s holds. */
const chosen = defineModel<string | null>({ required: true });
const props = defineProps<{
  label: string;
  words: readonly string[];
  /** What holds in the studio; left out where the studio itself is asked. */
  studio?: string | undefined;
  explains: string;
  /** What each word means, in one sentence. */
  says: Readonly<Record<string, string>>;
  disabled?: boolean;
}>();

/** Stands for null, which a list cannot show. */
const AS_STUDIO = 'as the studio';
const options = computed(() => [
  ...(props.studio === undefined ? [] : [{ id: AS_STUDIO, label: `as the studio: ${props.studio}` }]),
  ...props.words.map((word) => ({ id: word, label: word })),
]);

function choose(id: string): void {
  chosen.value = props.words.find((word) => word === id) ?? null;
}
</script>

<template>
  <FieldRow v-slot="{ labelId }" :label="label">
    <Select
      :model-value="chosen ?? AS_STUDIO"
      :options="options"
      option-label="label"
      option-value="id"
      :disabled="disabled ?? false"
      :aria-labelledby="labelId"
      @update:model-value="choose"
    />
    <p class="soft">{{ explains }} {{ says[chosen ?? studio ?? ''] }}</p>
  </FieldRow>
</template>

<style scoped>
p {
  font-size: 0.88rem;
}
</style>
