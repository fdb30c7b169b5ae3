<script setup lang="ts">
import {
  LESSON_LIMITS,
  type AssignedTempo,
  type InkedLine,
  type LedgerPiece,
  type LessonNote,
} from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import Select from 'primevue/select';
import Textarea from 'primevue/textarea';
import { computed } from 'vue';
import { dayText, momentText } from '../ui/index.ts';

const props = defineProps<{
  /** What was inked in it; undefined for an earlier lesson, whose lines stand in the ledger. */
  inked: readonly InkedLine[] | undefined;
  day: string;
  pieces: readonly LedgerPiece[];
  note: LessonNote | null;
  draft: { readonly words: string; readonly home: string; readonly assigned: readonly AssignedTempo[] };
  saving: 'kept' | 'keeping' | 'waiting';
  problem: string;
  open: boolean;
  zone: string;
  student: string;
}>();
const emit = defineEmits<{
  words: [text: string];
  home: [text: string];
  assign: [one: AssignedTempo];
  unassign: [pieceId: string];
  send: [];
}>();

const nameOf = (id: string) => props.pieces.find((piece) => piece.id === id)?.phrase.name ?? 'a piece';
/** What could still be assigned. */
const others = computed(() =>
  props.pieces
    .filter(({ id }) => !props.draft.assigned.some(({ pieceId }) => pieceId === id))
    .map(({ id, phrase, song }) => ({ id, label: `${phrase.name}, ${song.title}` })),
);
function add(id: string): void {
  const piece = props.pieces.find((one) => one.id === id);
  if (piece) emit('assign', { pieceId: id, name: piece.phrase.name, bpm: piece.next.bpm });
}
const SAVES = { kept: 'saved', keeping: 'saving…', waiting: 'not saved yet' } as const;
</script>

<template>
  <section class="summary" aria-label="Summary of the lesson">
    <header>
      <h2>
        Lesson summary <span v-if="!inked" class="soft">{{ dayText(day) }}</span>
      </h2>
      <span class="soft" role="status">{{ note || saving !== 'kept' ? SAVES[saving] : '' }}</span>
    </header>
    <p v-if="!open" class="soft">The next lesson has begun; this summary stays as it is.</p>
    <p v-if="problem" class="trouble" role="alert">{{ problem }}</p>
    <div class="columns">
      <div>
        <h3 v-if="inked">Inked today</h3>
        <p v-if="inked?.length === 0" class="soft">Nothing is inked yet.</p>
        <ul v-if="inked" class="quiet-list">
          <li v-for="line in inked" :key="line.entryId">
            <span :class="line.outcome === 'clean' ? 'ink' : ''">{{ line.bpm }}</span>
            {{ line.outcome === 'clean' ? 'clean' : 'not yet'
            }}<template v-if="line.percent < 100">, {{ line.percent }} % of it</template> · {{ nameOf(line.pieceId) }}
          </li>
        </ul>
        <h3>Assigned</h3>
        <p v-if="draft.assigned.length === 0" class="soft">Nothing is assigned yet.</p>
        <ul class="quiet-list">
          <li v-for="one in draft.assigned" :key="one.pieceId" class="assigned">
            <span>{{ one.name }}</span>
            <InputNumber
              :model-value="one.bpm"
              :aria-label="`Tempo of ${one.name}`"
              :use-grouping="false"
              :min="20"
              :max="400"
              suffix=" bpm"
              :disabled="!open"
              @update:model-value="emit('assign', { ...one, bpm: $event ?? one.bpm })"
            />
            <Button
              v-if="open"
              size="small"
              text
              severity="secondary"
              label="Remove"
              :aria-label="`Do not assign ${one.name}`"
              @click="emit('unassign', one.pieceId)"
            />
          </li>
        </ul>
        <Select
          v-if="open && others.length > 0"
          :model-value="null"
          :options="others"
          option-label="label"
          option-value="id"
          placeholder="Assign one more"
          aria-label="Assign one more"
          @update:model-value="add"
        />
      </div>
      <div class="texts">
        <label
          >What {{ student }} takes home
          <Textarea
            :model-value="draft.home"
            rows="4"
            :disabled="!open"
            :maxlength="LESSON_LIMITS.home"
            @update:model-value="emit('home', $event ?? '')"
          />
        </label>
        <label
          >For the studio
          <Textarea
            :model-value="draft.words"
            rows="3"
            :disabled="!open"
            :maxlength="LESSON_LIMITS.words"
            @update:model-value="emit('words', $event ?? '')"
          />
        </label>
        <Button
          v-if="open"
          size="small"
          outlined
          label="Share with the student"
          icon="pi pi-send"
          @click="emit('send')"
        />
        <details v-if="note && note.before.length > 0">
          <summary>What it was before ({{ note.before.length }})</summary>
          <ol class="quiet-list">
            <li v-for="(before, index) in note.before" :key="index">
              <span class="soft">{{ momentText(before.writtenAt, zone) }}, {{ before.writtenBy }}</span>
              <p v-if="before.home">{{ before.home }}</p>
              <p v-if="before.words" class="soft">{{ before.words }}</p>
              <p v-if="before.assigned.length > 0" class="soft">
                {{ before.assigned.map(({ name, bpm }) => `${name} at ${bpm}`).join('; ') }}
              </p>
            </li>
          </ol>
        </details>
      </div>
    </div>
  </section>
</template>

<style scoped>
h2 span {
  font-family: var(--type-plain);
  font-weight: 400;
  font-size: 0.95rem;
}
header {
  display: flex;
  gap: 1rem;
  align-items: baseline;
}
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(19rem, 1fr));
  gap: 1rem 2rem;
}
h3 {
  margin: 0.6rem 0 0.1rem;
}
li {
  border-bottom: 1px solid var(--rule);
  padding: 0.15rem 0;
}
.assigned {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 6.5rem auto;
  gap: 0.5rem;
  align-items: center;
}
.assigned :deep(input) {
  width: 6.5rem;
}
.texts {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 0.6rem;
}
.texts label {
  width: 100%;
  font-weight: 600;
  font-size: 0.92rem;
}
.texts :deep(textarea) {
  width: 100%;
  font-weight: 400;
}
summary {
  cursor: pointer;
  color: var(--cool);
}
.trouble {
  color: var(--warm);
}
</style>
