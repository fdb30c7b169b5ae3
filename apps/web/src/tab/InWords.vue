<script setup lang="ts">
import type { NamingSchool } from '@jam-ledger/contract';
import type { Phrase } from '@jam-ledger/core/notation';
import { sayPhrase } from '@jam-ledger/core/spoken';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import { computed, ref } from 'vue';
import { FoldPart, TickBox } from '../ui/index.ts';
import { useReadAloud } from './useReadAloud.ts';

/** The tab in words, a sentence a bar: to be read, or heard while the hands are on the guitar. */
const props = defineProps<{ phrase: Phrase; names: NamingSchool }>();

const isFull = ref(false);
const sentences = computed(() =>
  sayPhrase(props.phrase, { strings: props.names, length: isFull.value ? 'full' : 'short' }),
);
const { isThere, next, reading, goesOn, pauseSeconds, read, stop } = useReadAloud(() => sentences.value);
const nextSays = computed(() => (next.value === 0 ? 'Read it to me' : `Read line ${next.value + 1}`));
</script>

<template>
  <FoldPart name="in-words" title="In words" folded>
    <p class="acts">
      <TickBox v-model="isFull">every detail</TickBox>
      <template v-if="isThere && sentences.length > 0">
        <Button
          v-if="reading === undefined"
          size="small"
          outlined
          icon="pi pi-volume-up"
          :label="nextSays"
          @click="read(next)"
        />
        <Button v-else size="small" outlined icon="pi pi-stop" label="Stop reading" @click="stop" />
        <Button v-if="next > 0" size="small" text label="That line again" @click="read(next - 1)" />
        <TickBox v-model="goesOn">go on by itself</TickBox>
        <label v-if="goesOn"
          >after
          <InputNumber
            v-model="pauseSeconds"
            aria-label="Pause between lines, seconds"
            :min="0"
            :max="30"
            suffix=" s"
          />
        </label>
      </template>
    </p>
    <ol>
      <li v-for="(sentence, index) in sentences" :key="index" :class="{ read: index === reading }">{{ sentence }}</li>
    </ol>
  </FoldPart>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.9rem;
  align-items: center;
}
.acts :deep(.p-inputnumber-input) {
  width: 4.5rem;
}
ol {
  margin: 0.4rem 0 0;
  padding-left: 1.6rem;
  max-width: 60ch;
}
.read {
  background: var(--warm-wash);
}
</style>
