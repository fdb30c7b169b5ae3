<script setup lang="ts">
import { readKey, type Key } from '@jam-ledger/core/pitch';
import { VARIANT_KINDS, type VariantKind } from '@jam-ledger/core/variants';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import InputText from 'primevue/inputtext';
import { ref } from 'vue';
import { FieldRow, FoldPart } from '../../ui/index.ts';

const emit = defineEmits<{ make: [kind: VariantKind, options: { toKey?: Key; fewerFrets?: number }] }>();

const plain = VARIANT_KINDS.filter((kind) => kind !== 'other key' && kind !== 'fewer frets');
const keyText = ref('');
const frets = ref<number>(19);
const wrong = ref<string>();

function toKey(): void {
  const key = readKey(keyText.value);
  wrong.value = key ? undefined : 'Enter a key, such as G, F# minor or Bb.';
  if (key) emit('make', 'other key', { toKey: key });
}
</script>

<template>
  <FoldPart name="made" title="Made from it" label="Made for this student">
    <p class="soft">A draft beside this phrase, as arranged, with what is different.</p>
    <div class="buttons">
      <Button v-for="kind in plain" :key="kind" size="small" text :label="kind" @click="emit('make', kind, {})" />
    </div>
    <form class="row" novalidate @submit.prevent="emit('make', 'fewer frets', { fewerFrets: frets })">
      <FieldRow v-slot="{ id }" label="fewer frets">
        <InputNumber v-model="frets" :input-id="id" size="small" :min="12" :max="36" :input-style="{ width: '4rem' }" />
      </FieldRow>
      <Button type="submit" size="small" text label="Make it" aria-label="Make it for fewer frets" />
    </form>
    <form class="row" novalidate @submit.prevent="toKey">
      <FieldRow v-slot="{ id, invalid }" label="other key" :problem="wrong">
        <InputText
          :id="id"
          v-model="keyText"
          size="small"
          :invalid="invalid"
          placeholder="G"
          maxlength="24"
          class="key"
        />
      </FieldRow>
      <Button type="submit" size="small" text label="Make it" aria-label="Make it in this key" />
    </form>
  </FoldPart>
</template>

<style scoped>
.buttons {
  display: flex;
  flex-wrap: wrap;
  margin-left: -0.5rem;
}
.row {
  display: flex;
  align-items: end;
  gap: 0.3rem;
}
.key {
  width: 6rem;
}
</style>
