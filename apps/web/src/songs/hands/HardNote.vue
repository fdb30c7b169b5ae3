<script setup lang="ts">
import type { Difficulty, Drill, NewTechnique } from '@jam-ledger/core/difficulty';
import { sayCell, type CrossCell, type Span } from '@jam-ledger/core/notation';
import Button from 'primevue/button';
import { FoldPart, LineButton } from '../../ui/index.ts';

defineProps<{
  difficulty: Difficulty;
  cells: readonly CrossCell[];
  news: readonly NewTechnique[];
  student: string;
  bpm: number;
}>();
const emit = defineEmits<{ show: [span: Span]; drill: [drill: Drill] }>();
const whole = (score: number): number => Math.round(score);
</script>

<template>
  <FoldPart name="hard" title="How hard">
    <p>
      <strong>{{ whole(difficulty.total) }}</strong> of 100 for {{ student
      }}<template v-if="difficulty.rhythmKnown"> at {{ Math.round(bpm) }} bpm.</template
      ><template v-else>; the rhythm is not known, so speed is left out.</template>
    </p>
    <ul class="quiet-list parts">
      <li v-for="part in difficulty.parts" :key="part.name">
        <LineButton :title="part.says" @click="emit('show', part.span)">
          <span class="name">{{ part.name }}</span>
          <span class="bar" aria-hidden="true"><span :style="{ width: `${part.score}%` }" /></span>
          <span class="score">{{ whole(part.score) }}</span>
        </LineButton>
      </li>
    </ul>
    <p v-if="difficulty.hardest">
      The hard spot:
      <LineButton link class="spot" @click="emit('show', difficulty.hardest.span)">
        {{ difficulty.hardest.says }}.
      </LineButton>
    </p>
    <p v-for="cell in cells" :key="cell.span.from">
      <LineButton link class="spot" @click="emit('show', cell.span)">{{ sayCell(cell) }}</LineButton>
    </p>
    <div v-if="news.length > 0" class="news">
      <p>New for {{ student }}:</p>
      <ul class="quiet-list">
        <li v-for="one in news" :key="one.technique">
          <LineButton link class="spot" @click="emit('show', one.span)">{{ one.technique }}</LineButton>
          <Button size="small" text label="Add its drill" :title="one.drill.says" @click="emit('drill', one.drill)" />
        </li>
      </ul>
    </div>
  </FoldPart>
</template>

<style scoped>
.parts button {
  display: grid;
  grid-template-columns: 5.4rem 1fr 1.8rem;
  align-items: center;
  gap: 0.4rem;
  width: 100%;
  min-height: 24px;
}
.parts button:hover .name,
.spot {
  text-decoration: underline;
}
.bar {
  height: 0.5rem;
  border: 1px solid var(--rule-strong);
}
.bar span {
  display: block;
  height: 100%;
  background: var(--ink-soft);
}
.score {
  text-align: right;
}
.spot {
  min-height: 24px;
}
.news {
  margin-top: 0.3rem;
}
</style>
