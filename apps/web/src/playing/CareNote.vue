<script setup lang="ts">
import { CARE_LINE, type Caution, type CautionName } from '@jam-ledger/core/difficulty';
import { useLocalStorage } from '@vueuse/core';
import Button from 'primevue/button';
import { computed } from 'vue';

const props = defineProps<{ cautions: readonly Caution[]; today: string }>();

/** Put away until tomorrow, in the studio’s zone. */
const away = useLocalStorage<{ day: string; names: readonly CautionName[] }>('jam-care', { day: '', names: [] });
const putAway = computed(() => (away.value.day === props.today ? away.value.names : []));
const shown = computed(() => props.cautions.filter(({ name }) => !putAway.value.includes(name)));

function dismiss(): void {
  const names = [...new Set([...putAway.value, ...shown.value.map(({ name }) => name)])];
  away.value = { day: props.today, names };
}
</script>

<template>
  <section v-if="shown.length > 0" class="care" aria-label="Care">
    <p v-for="caution in shown" :key="caution.name">{{ caution.says }}</p>
    <p class="soft">{{ CARE_LINE }}</p>
    <Button size="small" text label="Not again today" @click="dismiss" />
  </section>
</template>

<style scoped>
.care {
  border-left: 3px double var(--warm);
  padding-left: 0.6rem;
  margin-top: 0.7rem;
}
</style>
