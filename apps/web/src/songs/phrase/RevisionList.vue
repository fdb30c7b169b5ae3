<script setup lang="ts">
import type { PhraseRevision } from '@jam-ledger/contract';
import { compareVersions, type ReadOptions, type VersionStep } from '@jam-ledger/core/notation';
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import { momentText, LineButton } from '../../ui/index.ts';

const props = defineProps<{
  phraseId: string;
  /** The text as it stands. */
  text: string;
  options: ReadOptions;
  zone: string;
  fetch: (phraseId: string) => Promise<readonly PhraseRevision[]>;
}>();
const emit = defineEmits<{ goBack: [text: string] }>();

const revisions = ref<readonly PhraseRevision[]>();
const chosen = ref<PhraseRevision>();
const trouble = ref('');

const steps = computed(() => (chosen.value ? compareVersions(chosen.value.text, props.text, props.options) : []));
const different = computed(() => steps.value.filter(({ kind }) => kind !== 'kept'));

watch(
  () => props.phraseId,
  () => {
    revisions.value = undefined;
    chosen.value = undefined;
  },
);

async function open(): Promise<void> {
  trouble.value = '';
  try {
    revisions.value = await props.fetch(props.phraseId);
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'They could not be fetched.';
  }
}

function say({ kind, before, after }: VersionStep): string {
  const place = after ?? before;
  const at = place?.place ?? 'bar 1, beat 1';
  if (kind === 'changed') return `${at}: ${before?.text ?? ''} became ${after?.text ?? ''}`;
  return kind === 'gone' ? `${at}: ${before?.text ?? ''} went out` : `${at}: ${after?.text ?? ''} came in`;
}

function goBack(): void {
  if (chosen.value) emit('goBack', chosen.value.text);
  revisions.value = undefined;
  chosen.value = undefined;
}
</script>

<template>
  <section aria-label="Earlier versions">
    <Button v-if="!revisions" size="small" text class="open" label="Earlier versions" @click="open" />
    <template v-else>
      <h3>Earlier versions</h3>
      <p v-if="revisions.length === 0" class="soft">None yet; a version is kept each time the text changes.</p>
      <ul class="quiet-list">
        <li v-for="revision in revisions" :key="revision.id">
          <LineButton link :class="{ chosen: revision.id === chosen?.id }" @click="chosen = revision">
            until {{ momentText(revision.at, zone) }}, {{ revision.by }}
          </LineButton>
        </li>
      </ul>
      <template v-if="chosen">
        <p v-if="different.length === 0" class="soft">Note by note it is the same.</p>
        <ol class="quiet-list steps" aria-label="What changed since">
          <li v-for="(step, index) in different" :key="index" :class="step.kind">{{ say(step) }}</li>
        </ol>
        <Button size="small" label="Go back to it" @click="goBack" />
      </template>
      <Button size="small" text severity="secondary" label="Close" @click="revisions = undefined" />
    </template>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
button:not(.p-button) {
  font-size: 0.92rem;
}
button.chosen {
  color: var(--ink);
  font-weight: 600;
}
.open {
  margin-left: -0.5rem;
}
.steps {
  font-size: 0.92rem;
  border-left: 2px solid var(--rule-strong);
  padding-left: 0.5rem;
  margin: 0.3rem 0;
}
.steps .gone {
  text-decoration: line-through;
}
.trouble {
  color: var(--warm);
}
</style>
