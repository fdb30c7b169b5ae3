<script setup lang="ts">
import RadioButton from 'primevue/radiobutton';
import { CERTAINTIES, LAYERS, SONG_LIMITS, type Phrase, type PhraseBody, type PhraseMark } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { computed, ref, watch } from 'vue';
import { FieldRow, dayText, FoldPart, LineButton } from '../../ui/index.ts';

const props = defineProps<{
  phrase: Phrase;
  /** The phrase and the alternates kept beside it; one of them is chosen. */
  ways: readonly Phrase[];
  student: string;
}>();
const emit = defineEmits<{
  amend: [change: Partial<PhraseBody>];
  mark: [mark: Omit<PhraseMark, 'version'>];
  addWay: [];
  choose: [phrase: Phrase];
  open: [phraseId: string];
}>();

const against = ref<string>();
const wrong = ref<string>();
const reason = ref(props.phrase.reason);
watch(
  () => props.phrase.reason,
  (now) => (reason.value = now),
);

const stands = computed(() => {
  const { status, checkedBy, checkedAgainst, checkedAt } = props.phrase;
  if (status === 'draft' || checkedAt === null) return 'A draft.';
  const day = dayText(checkedAt.slice(0, 10), 'long');
  const what = status === 'checked' ? `Checked against ${checkedAgainst}` : 'Proven in a lesson';
  return `${what} by ${checkedBy}, ${day}.`;
});

function check(): void {
  const said = against.value?.trim() ?? '';
  wrong.value = said === '' ? 'Say against what: the recording, a live take, the student’s own ear.' : undefined;
  if (said === '') return;
  emit('mark', { status: 'checked', against: said });
  against.value = undefined;
}

function keepReason(): void {
  if (reason.value !== props.phrase.reason) emit('amend', { reason: reason.value });
}
</script>

<template>
  <FoldPart name="evidence" class="evidence" title="Evidence">
    <p :class="['stands', phrase.status]">{{ stands }}</p>
    <form v-if="against !== undefined" novalidate @submit.prevent="check">
      <FieldRow v-slot="{ id, invalid }" label="Checked against" :problem="wrong">
        <InputText
          :id="id"
          v-model="against"
          size="small"
          autofocus
          :invalid="invalid"
          :maxlength="SONG_LIMITS.against"
        />
      </FieldRow>
      <Button type="submit" size="small" text label="Checked" />
      <Button size="small" text severity="secondary" label="Cancel" @click="against = undefined" />
    </form>
    <div v-else class="buttons">
      <Button v-if="phrase.status === 'draft'" size="small" text label="Check it off …" @click="against = ''" />
      <Button
        v-if="phrase.status !== 'proven'"
        size="small"
        text
        label="Proven in a lesson"
        @click="emit('mark', { status: 'proven', against: '' })"
      />
      <Button
        v-if="phrase.status !== 'draft'"
        size="small"
        text
        severity="secondary"
        label="Back to draft"
        @click="emit('mark', { status: 'draft', against: '' })"
      />
    </div>
    <div class="pair">
      <FieldRow v-slot="{ labelId }" label="How sure" :problem="undefined">
        <Select
          size="small"
          :model-value="phrase.certainty"
          :aria-labelledby="labelId"
          :options="[...CERTAINTIES]"
          @update:model-value="emit('amend', { certainty: $event })"
        />
      </FieldRow>
      <FieldRow v-slot="{ labelId }" label="Layer" :problem="undefined">
        <Select
          size="small"
          :model-value="phrase.layer"
          :aria-labelledby="labelId"
          :options="[...LAYERS]"
          @update:model-value="emit('amend', { layer: $event })"
        />
      </FieldRow>
    </div>
    <InputText
      v-model="reason"
      size="small"
      class="reason"
      aria-label="Why, or where it was seen"
      placeholder="why, or where it was seen"
      :maxlength="SONG_LIMITS.reason"
      @change="keepReason"
    />
    <fieldset v-if="ways.length > 1" class="ways">
      <legend>{{ student }} plays</legend>
      <label v-for="way in ways" :key="way.id">
        <RadioButton
          name="chosen-way"
          :value="way.id"
          :model-value="ways.find(({ chosen }) => chosen)?.id"
          :aria-label="way.name"
          @update:model-value="emit('choose', way)"
        />
        <LineButton link :class="{ here: way.id === phrase.id }" @click="emit('open', way.id)">
          {{ way.name }}
        </LineButton>
      </label>
    </fieldset>
    <Button size="small" text label="Keep another way beside it" class="beside" @click="emit('addWay')" />
  </FoldPart>
</template>

<style scoped>
.stands {
  font-style: italic;
  color: var(--ink-soft);
}
.stands.checked,
.stands.proven {
  font-style: normal;
  color: var(--ink);
}
.buttons,
form {
  display: flex;
  flex-wrap: wrap;
  margin-left: -0.5rem;
}
form :deep(.field) {
  width: 100%;
  margin-left: 0.5rem;
}
.beside {
  margin-left: -0.5rem;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.5rem;
}
.pair :deep(.p-select),
.reason {
  width: 100%;
}
.reason {
  margin-top: 0.4rem;
}
.ways {
  border: 0;
  padding: 0;
  margin: 0.5rem 0 0;
  display: flex;
  flex-direction: column;
}
.ways legend {
  font-weight: 600;
  font-size: 0.92rem;
  padding: 0;
}
.ways input {
  accent-color: var(--cool);
}
.ways button.here {
  color: var(--ink);
  text-decoration: none;
  font-weight: 600;
}
</style>
