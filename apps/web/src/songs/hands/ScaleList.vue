<script setup lang="ts">
import type { RankedScale } from '@jam-ledger/core/harmony';
import Button from 'primevue/button';
import { computed, ref } from 'vue';

/** Scales, the most fitting first: a few, and the rest on demand. */
const props = defineProps<{
  title: string;
  /** With how much of the phrase lies in each, %, where that is said. */
  scales: readonly (RankedScale & { readonly share?: number })[];
}>();

/** Scales shown at first. Our choice. */
const MAX_SCALES = 5;
const all = ref(false);
const shown = computed(() => (all.value ? props.scales : props.scales.slice(0, MAX_SCALES)));
</script>

<template>
  <details>
    <summary>{{ title }}</summary>
    <ol class="quiet-list">
      <li v-for="scale in shown" :key="scale.name">
        <strong>{{ scale.name }}</strong> {{ scale.because
        }}<template v-if="scale.share !== undefined">; {{ scale.share }} % of the phrase lies in it</template>.
      </li>
    </ol>
    <Button
      v-if="scales.length > shown.length"
      size="small"
      text
      :label="`${scales.length - shown.length} more`"
      @click="all = true"
    />
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  color: var(--cool);
}
</style>
