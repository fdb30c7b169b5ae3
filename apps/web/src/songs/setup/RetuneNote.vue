<script setup lang="ts">
import Button from 'primevue/button';
import { computed } from 'vue';
import type { RetunedPhrase } from './retuning.ts';

const props = defineProps<{ retuned: readonly RetunedPhrase[] }>();
const emit = defineEmits<{ move: []; leave: []; open: [phraseId: string] }>();

const notes = computed(() => props.retuned.reduce((sum, { notes: found }) => sum + found.length, 0));
const stuck = computed(() => props.retuned.reduce((sum, { stuck: left }) => sum + left, 0));
const some = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;
</script>

<template>
  <section class="retuned" aria-label="What the new tuning changes" role="status">
    <p>
      With this tuning and capo {{ some(notes, 'written note') }} of {{ some(retuned.length, 'phrase') }} would sound at
      another pitch or lie off the neck<template v-if="stuck > 0"
        >; {{ stuck }} of them cannot be played on the same string</template
      >.
    </p>
    <ul class="quiet-list">
      <li v-for="{ phrase, section, notes: found, stuck: left } in retuned" :key="phrase.id">
        <button type="button" @click="emit('open', phrase.id)">{{ section }} {{ phrase.name }}</button>:
        {{ some(found.length, 'note') }}<template v-if="left > 0">, {{ left }} stay as written</template>
      </li>
    </ul>
    <Button size="small" label="Move them to sound as before" @click="emit('move')" />
    <Button size="small" text severity="secondary" label="Leave them as written" @click="emit('leave')" />
  </section>
</template>

<style scoped>
.retuned {
  border-left: 3px solid var(--warm);
  padding-left: 0.7rem;
  margin-top: 0.5rem;
}
button:not(.p-button) {
  all: unset;
  cursor: pointer;
  color: var(--cool);
  text-decoration: underline;
}
button:not(.p-button):focus-visible {
  outline: 2px solid var(--focus);
}
</style>
