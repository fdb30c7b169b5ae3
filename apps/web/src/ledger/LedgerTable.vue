<script setup lang="ts">
import type { Ledger, LedgerPiece, LedgerRow } from '@jam-ledger/contract';
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue';
import { sayExpectedShortly } from './expected.ts';
import { MOVE_WORDS } from './moves.ts';
import { ShareBar, dayText } from '../ui/index.ts';
import EntryCell from './EntryCell.vue';

const props = defineProps<{ ledger: Ledger; pieces: readonly LedgerRow[] }>();
const emit = defineEmits<{ open: [piece: LedgerPiece] }>();

const lessons = computed(() => new Set(props.ledger.lessons));
const songs = computed(() =>
  props.ledger.songs.flatMap((song) => {
    const rows = props.pieces
      .filter((piece) => piece.song.id === song.id)
      .map((piece) => ({ piece, cells: new Map(piece.cells.map((cell) => [cell.day, cell])) }));
    return rows.length === 0 ? [] : [{ ...song, rows, says: sayProgress(song) }];
  }),
);
/** How much of the song stands, by its bars. */
function sayProgress({ bars, held, full, at80, at60 }: Ledger['songs'][number]): string {
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  return `of ${bars} bars held ${percent(held)} · playable at full speed ${percent(full)}, at 80 % ${percent(at80)}, at 60 % ${percent(at60)}`;
}

/** The row and column that the arrows move through; column -1 is the phrase’s name. */
const at = ref({ row: 0, column: -1 });
const table = useTemplateRef('table');
const scroll = useTemplateRef<HTMLElement>('scroll');
/** The newest days are seen first, next to what comes next. */
function showNewest(): void {
  if (scroll.value) scroll.value.scrollLeft = scroll.value.scrollWidth;
}
onMounted(showNewest);
watch(() => props.ledger.days.join(), showNewest, { flush: 'post' });
const order = computed(() => songs.value.flatMap(({ rows }) => rows.map(({ piece }) => piece.id)));

const STEPS: Readonly<Record<string, readonly [rows: number, columns: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  Home: [0, -Infinity],
  End: [0, Infinity],
  PageUp: [-10, 0],
  PageDown: [10, 0],
};

function walk(event: KeyboardEvent): void {
  const step = STEPS[event.key];
  if (!step || event.altKey || event.ctrlKey || event.metaKey) return;
  const within = (value: number, min: number, max: number) => Math.min(max, Math.max(min, value));
  at.value = {
    row: within(at.value.row + step[0], 0, order.value.length - 1),
    column: within(at.value.column + step[1], -1, props.ledger.days.length - 1),
  };
  event.preventDefault();
  const { row, column } = at.value;
  table.value?.querySelector<HTMLElement>(`[data-at="${row} ${column}"]`)?.focus();
}
const isAt = (row: number, column: number) => at.value.row === row && at.value.column === column;
const tabIndex = (id: string, column: number) => (isAt(order.value.indexOf(id), column) ? 0 : -1);
const rowOf = (id: string) => order.value.indexOf(id);
</script>

<template>
  <div ref="scroll" class="scroll">
    <table ref="table" role="grid" aria-label="Ledger" :aria-rowcount="order.length" @keydown="walk">
      <thead>
        <tr>
          <th scope="col" class="phrase">Phrase</th>
          <th
            v-for="day in ledger.days"
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
          <th scope="rowgroup" :colspan="ledger.days.length + 3">
            <span class="kept"
              >{{ title }} <span class="soft progress">{{ says }}</span></span
            >
          </th>
        </tr>
        <tr v-for="{ piece, cells } in rows" :key="piece.id">
          <th scope="row" :class="['phrase', piece.kind]">
            <button
              type="button"
              class="open"
              :data-at="`${rowOf(piece.id)} -1`"
              :tabindex="tabIndex(piece.id, -1)"
              @focus="at = { row: rowOf(piece.id), column: -1 }"
              @click="emit('open', piece)"
            >
              {{ piece.phrase.name }}
            </button>
            <span class="soft label">{{ piece.section.label }}, target {{ piece.targetBpm }}</span>
          </th>
          <td
            v-for="(day, column) in ledger.days"
            :key="day"
            class="cell"
            role="gridcell"
            :data-at="`${rowOf(piece.id)} ${column}`"
            :tabindex="tabIndex(piece.id, column)"
            @keydown.enter="emit('open', piece)"
          >
            <EntryCell v-if="cells.has(day)" :cell="cells.get(day)!" :target="piece.targetBpm" />
          </td>
          <td class="of"><ShareBar :standing="piece.standing" :target="piece.targetBpm" /></td>
          <td class="next" :title="piece.next.reason">
            <strong
              >{{ MOVE_WORDS[piece.next.move]
              }}<template v-if="piece.next.move !== 'keep'"> · {{ piece.next.bpm }}</template></strong
            >
            <span v-if="piece.expected" class="expected">{{ sayExpectedShortly(piece.expected) }}</span>
            <span v-else-if="piece.due" class="expected">again by {{ dayText(piece.due.day, 'short') }}</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  container-type: inline-size;
  overflow: auto;
  max-height: calc(100vh - 12rem);
}
table {
  border-collapse: separate;
  border-spacing: 0;
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
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--page);
  border-bottom: 1px solid var(--ink);
  padding: 0.3rem 0.4rem;
  vertical-align: bottom;
}
.phrase {
  position: sticky;
  left: 0;
  z-index: 1;
  background: var(--page);
  padding: 0.2rem 0.6rem;
  min-width: 9.5rem;
  max-width: 15rem;
}
thead .phrase {
  z-index: 3;
}
.half,
.drill {
  padding-left: 1.4rem;
}
.join .open,
.run .open {
  font-style: italic;
}
.day {
  text-align: center;
  font-weight: 400;
  color: var(--ink-soft);
  font-size: 0.82rem;
}
thead .day {
  padding-inline: 0.1rem;
  white-space: nowrap;
}
.day.lesson {
  color: var(--ink);
  font-weight: 700;
  border-bottom: 3px solid var(--cool);
}
.song th {
  font-family: var(--type-book);
  padding: 0.6rem 0.6rem 0.2rem;
}
tbody tr > * {
  border-bottom: 1px solid var(--rule);
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
.open:focus-visible,
.cell:focus-visible {
  outline: 2px solid var(--focus);
  outline-offset: -2px;
}
.cell {
  padding: 0;
  border-left: 1px solid var(--rule);
  text-align: center;
  min-width: 2.6rem;
  height: 2.1rem;
}
.of {
  border-left: 2px solid var(--warm);
  padding: 0.3rem 0.6rem;
  position: sticky;
  right: 13rem;
  z-index: 1;
  background: var(--page);
}
.next {
  padding: 0.2rem 0.6rem;
  width: 13rem;
  min-width: 13rem;
  max-width: 13rem;
  font-size: 0.88rem;
  line-height: 1.25;
  position: sticky;
  right: 0;
  z-index: 1;
  background: var(--page);
}
thead .of,
thead .next {
  z-index: 3;
}
.expected {
  white-space: nowrap;
}
.kept {
  display: inline-block;
  position: sticky;
  left: 0.6rem;
  max-width: calc(100cqi - 1.2rem);
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
@media screen {
  /* Where what stays in sight leaves no room for the days, only the name stays; from the end one goes back through the days. */
  @container (max-width: 46rem) {
    .of,
    .next {
      right: auto;
      z-index: 0;
    }
    thead .of,
    thead .next {
      z-index: 2;
    }
  }
  @container (max-width: 30rem) {
    .phrase {
      min-width: 6.5rem;
      max-width: 6.5rem;
      padding-inline: 0.3rem;
    }
    .of {
      padding-inline: 0.3rem;
    }
    .next {
      width: 8.2rem;
      min-width: 8.2rem;
      max-width: 8.2rem;
      padding-inline: 0.3rem;
    }
    .expected {
      white-space: normal;
    }
  }
}
@media print {
  .scroll {
    max-height: none;
    overflow: visible;
  }
  table {
    font-size: 7.5pt;
  }
  thead th,
  .phrase,
  .of,
  .next {
    position: static;
  }
  .cell {
    min-width: 0;
  }
  tr {
    break-inside: avoid;
  }
}
/* Upright, all its columns are there, smaller. */
@media print and (orientation: portrait) {
  table {
    zoom: 0.68;
  }
}
</style>
