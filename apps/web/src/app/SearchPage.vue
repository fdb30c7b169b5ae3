<script setup lang="ts">
import { SEARCH_LIMITS, type Found } from '@jam-ledger/contract';
import { useDebounceFn } from '@vueuse/core';
import InputText from 'primevue/inputtext';
import { onMounted, ref, watch } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { placeOfFound, useDesk } from '../desk/index.ts';
import { useNotices } from '../session/index.ts';

const route = useRoute();
const router = useRouter();
const notices = useNotices();
const desk = useDesk();
const words = ref(typeof route.query['q'] === 'string' ? route.query['q'] : '');
const found = ref<readonly Found[]>();
const chosen = ref(0);

async function look(): Promise<void> {
  const q = words.value.trim();
  void router.replace({ query: q === '' ? {} : { q } });
  if (q.length < SEARCH_LIMITS.min) return void (found.value = undefined);
  await notices.tell(async () => {
    const answer = await desk.search(q);
    // An answer to words that are no longer there is no answer.
    if (words.value.trim() === q) [found.value, chosen.value] = [answer, 0];
  });
}
/** Looked for so long after the last key, milliseconds. Our choice. */
const PAUSE_MS = 200;
watch(words, useDebounceFn(look, PAUSE_MS));
onMounted(look);

function move(by: 1 | -1): void {
  chosen.value = Math.min((found.value?.length ?? 1) - 1, Math.max(0, chosen.value + by));
}
function go(): void {
  const one = found.value?.[chosen.value];
  if (one) void router.push(placeOfFound(one));
}
</script>

<template>
  <h1>Search</h1>
  <p class="field">
    <InputText
      v-model="words"
      type="search"
      aria-label="Search everything"
      :maxlength="SEARCH_LIMITS.max"
      autofocus
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="go"
    />
    <span class="soft"><kbd>↑</kbd> <kbd>↓</kbd> choose · <kbd>Enter</kbd> go there</span>
  </p>
  <p v-if="found === undefined" class="soft">
    People, requests, songs, sections, phrases and their shorthand, series, notes, remarks and summaries of lessons.
  </p>
  <p v-else-if="found.length === 0" class="soft" role="status">Nothing was found for these words.</p>
  <ol v-else class="quiet-list" aria-label="Found">
    <li v-for="(one, index) in found" :key="`${one.kind} ${one.id}`" :class="{ chosen: index === chosen }">
      <span class="soft">{{ one.kind }}</span>
      <p>
        <RouterLink :to="placeOfFound(one)">{{ one.text }}</RouterLink> <span class="soft">{{ one.where }}</span>
      </p>
    </li>
  </ol>
</template>

<style scoped>
.field {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.8rem;
  margin: 0.6rem 0 1rem;
}
.field input {
  width: min(28rem, 100%);
}
li {
  display: grid;
  grid-template-columns: 6rem minmax(0, 1fr);
  gap: 0.6rem;
  border-bottom: 1px solid var(--rule);
  padding: 0.4rem 0.5rem;
  max-width: 60rem;
}
.chosen {
  background: var(--warm-wash);
  border-left: 3px solid var(--warm);
}
</style>
