<script setup lang="ts">
import type { Piece } from '@jam-ledger/contract';
import { COMMON_TIME, readMeter, readShorthand, unroll } from '@jam-ledger/core/notation';
import { songProgress } from '@jam-ledger/core/progress';
import { computed } from 'vue';
import { sayExpected } from '../composables/expected.ts';
import { dayText } from '../composables/useDays.ts';
import { tuningOf } from '../composables/useReading.ts';
import EntryCell from './EntryCell.vue';
import ShareBar from './ShareBar.vue';

const props = defineProps<{ pieces: readonly Piece[] }>();
const emit = defineEmits<{ open: [piece: Piece] }>();

/** Most days shown, the latest ones. */
const MOST_DAYS = 14;
const days = computed(() => {
  const all = new Set(props.pieces.flatMap(({ entries }) => entries.map(({ day }) => day)));
  return [...all].sort().slice(-MOST_DAYS);
});
/** Days on which a teacher posted: lessons. */
const lessons = computed(
  () =>
    new Set(
      props.pieces.flatMap(({ entries }) => entries.filter(({ medium }) => medium === 'ink').map(({ day }) => day)),
    ),
);
const songs = computed(() => {
  const found = new Map<string, { title: string; pieces: Piece[] }>();
  for (const piece of props.pieces) {
    const song = found.get(piece.song.id) ?? { title: piece.song.title, pieces: [] };
    song.pieces.push(piece);
    found.set(piece.song.id, song);
  }
  return [...found].map(([id, { title, pieces }]) => ({ id, title, rows: pieces, says: sayProgress(pieces) }));
});
/** How much of what is assigned stands, by the length of the phrases. */
function sayProgress(rows: readonly Piece[]): string {
  const parts = rows.map(({ phrase, song, standing, mastery }) => {
    const meter = readMeter(song.meter) ?? COMMON_TIME;
    const { length } = unroll(readShorthand(phrase.text, { tuning: tuningOf(song), meter }).phrase);
    return { length, share: standing.share, state: mastery.state };
  });
  const { held, full, at80, at60 } = songProgress(parts);
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  return `held ${percent(held)} · playable at full speed ${percent(full)}, at 80 % ${percent(at80)}, at 60 % ${percent(at60)} of what is assigned`;
}

const MOVES = { begin: 'begin', up: 'up', stay: 'stay', down: 'down', show: 'show it', keep: 'keep it' } as const;
</script>

<template>
  <div class="scroll">
    <table>
      <thead>
        <tr>
          <th scope="col" class="phrase">Phrase</th>
          <th
            v-for="day in days"
            :key="day"
            scope="col"
            :class="['day', { lesson: lessons.has(day) }]"
            :title="dayText(day)"
          >
            {{ dayText(day, 'short') }}
          </th>
          <th scope="col" class="of">Of target</th>
          <th scope="col" class="next">Next step</th>
        </tr>
      </thead>
      <tbody v-for="{ id, title, rows, says } in songs" :key="id">
        <tr class="song">
          <th scope="rowgroup" :colspan="days.length + 3">
            {{ title }} <span class="soft progress">{{ says }}</span>
          </th>
        </tr>
        <tr v-for="piece in rows" :key="piece.id">
          <th scope="row" class="phrase">
            <button type="button" class="open" @click="emit('open', piece)">{{ piece.phrase.name }}</button>
            <span class="soft label">{{ piece.section.label }}, target {{ piece.targetBpm }}</span>
          </th>
          <EntryCell
            v-for="day in days"
            :key="day"
            :entries="piece.entries.filter((entry) => entry.day === day)"
            :target="piece.targetBpm"
          />
          <td class="of"><ShareBar :standing="piece.standing" :target="piece.targetBpm" /></td>
          <td class="next">
            <strong
              >{{ MOVES[piece.next.move]
              }}<template v-if="piece.next.move !== 'keep'"> · {{ piece.next.bpm }}</template></strong
            >
            <span>{{ piece.next.reason }}</span>
            <span v-if="piece.expected" class="expected">{{ sayExpected(piece.expected) }}</span>
            <span v-else-if="piece.due" class="expected">Again by {{ dayText(piece.due.day) }}.</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  background: var(--page);
  border-top: 2px solid var(--ink);
  border-bottom: 2px solid var(--ink);
  min-width: 100%;
}
th {
  font-weight: 600;
  text-align: left;
}
thead th {
  border-bottom: 1px solid var(--ink);
  padding: 0.3rem 0.4rem;
  vertical-align: bottom;
}
.day {
  text-align: center;
  font-weight: 400;
  color: var(--ink-soft);
  font-size: 0.82rem;
}
.day.lesson {
  color: var(--ink);
  font-weight: 700;
}
.song th {
  font-family: var(--type-book);
  padding: 0.6rem 0.6rem 0.2rem;
}
tbody tr {
  border-bottom: 1px solid var(--rule);
}
.phrase {
  padding: 0.25rem 0.6rem;
  min-width: 9.5rem;
  white-space: nowrap;
}
.label {
  display: block;
  font-weight: 400;
  font-size: 0.85rem;
}
.open {
  all: unset;
  cursor: pointer;
  text-decoration: underline;
  text-decoration-color: var(--rule-strong);
  text-underline-offset: 3px;
}
.open:focus-visible {
  outline: 2px solid var(--focus);
}
.of {
  border-left: 2px solid var(--warm);
  padding: 0.3rem 0.6rem;
}
.next {
  padding: 0.3rem 0.6rem;
  min-width: 13rem;
  max-width: 20rem;
  font-size: 0.9rem;
}
.progress {
  font-family: var(--type-plain);
  font-weight: 400;
  font-size: 0.88rem;
  margin-left: 0.6rem;
}
.expected {
  display: block;
  color: var(--ink-soft);
}
.next strong {
  display: block;
}
thead .next,
thead .of {
  font-size: inherit;
}
</style>
